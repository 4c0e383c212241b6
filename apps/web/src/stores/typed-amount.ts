/** A number as people type it: with a comma, with the minus sign of a sheet. NaN for what is none. */
export const typedNumber = (text: string): number => Number(text.replace(',', '.').replace('−', '-'));

/** So many kg/m³ nothing solid is as light as: under that a number without a unit is in g/cm³, as tables have it. */
const LIGHTEST = 25;
const DENSITIES: readonly (readonly [unit: RegExp, size: number])[] = [
  [/^(kg\/m(3|³|\^3))$/, 1],
  [/^(g\/cm(3|³|\^3)|g\/cc|kg\/l|t\/m(3|³|\^3))$/i, 1000],
];

/** A density as people type it, kg/m³: "7.2", "7.2 g/cm³", "7200". NaN for what is none. */
export function typedDensity(text: string): number {
  const [, digits, unit] = /^\s*([-−\d.,]+)\s*(.*?)\s*$/.exec(text) ?? [];
  if (digits === undefined) return NaN;
  const number = typedNumber(digits);
  if (unit === '') return number < LIGHTEST ? number * 1000 : number;
  return number * (DENSITIES.find(([name]) => name.test(unit!))?.[1] ?? NaN);
}
