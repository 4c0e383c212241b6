import type { Words } from '../result/index.ts';

/** Exponents of the base dimensions. A plain number (count, ratio) has all exponents 0. */
export interface Dimension {
  readonly length: number;
  readonly angle: number;
  readonly mass: number;
}

/** An amount in the inside units: mm, rad, kg and products of their powers. */
export interface Quantity {
  readonly amount: number;
  readonly dimension: Dimension;
}

interface Unit {
  readonly symbol: string;
  /** Size of the unit in inside units (mm, rad, kg). */
  readonly size: number;
  readonly dimension: Dimension;
}

export const NUMBER: Dimension = { length: 0, angle: 0, mass: 0 };
export const LENGTH: Dimension = { length: 1, angle: 0, mass: 0 };
export const AREA: Dimension = { length: 2, angle: 0, mass: 0 };
export const VOLUME: Dimension = { length: 3, angle: 0, mass: 0 };
export const ANGLE: Dimension = { length: 0, angle: 1, mass: 0 };
export const MASS: Dimension = { length: 0, angle: 0, mass: 1 };

const unit = (symbol: string, size: number, dimension: Dimension): Unit => ({ symbol, size, dimension });

/** Sizes: the international inch is 25.4 mm exactly (1959 agreement); the others follow from SI. */
export const UNITS: readonly Unit[] = [
  unit('mm', 1, LENGTH),
  unit('cm', 10, LENGTH),
  unit('m', 1000, LENGTH),
  unit('in', 25.4, LENGTH),
  unit('"', 25.4, LENGTH),
  unit('ft', 304.8, LENGTH),
  unit("'", 304.8, LENGTH),
  unit('rad', 1, ANGLE),
  unit('deg', Math.PI / 180, ANGLE),
  unit('°', Math.PI / 180, ANGLE),
  unit('kg', 1, MASS),
  unit('g', 1e-3, MASS),
];

const bySymbol = new Map(UNITS.map((entry) => [entry.symbol, entry]));

/** The unit of a symbol. */
export const findUnit = (symbol: string): Unit | undefined => bySymbol.get(symbol);

export const LENGTH_UNITS = ['mm', 'cm', 'm', 'in'] as const;
export type LengthUnit = (typeof LENGTH_UNITS)[number];

/** Are they measured alike? */
export const sameDimension = (a: Dimension, b: Dimension): boolean =>
  a.length === b.length && a.angle === b.angle && a.mass === b.mass;

/** Is it a plain number? */
export const isNumber = (dimension: Dimension): boolean => sameDimension(dimension, NUMBER);

/** The dimension in words, for messages: "a length", "an angle", "a plain number", "an area". */
export function dimensionWords(dimension: Dimension): string {
  const { length, angle, mass } = dimension;
  const key = `${length},${angle},${mass}`;
  const known: Record<string, string> = {
    '0,0,0': 'a plain number',
    '1,0,0': 'a length',
    '2,0,0': 'an area',
    '3,0,0': 'a volume',
    '0,1,0': 'an angle',
    '0,0,1': 'a mass',
  };
  return known[key] ?? `mm^${length} rad^${angle} kg^${mass}`;
}

/** The unit in which a result of this dimension is shown in a project that works in `length`. */
export function displayUnit(dimension: Dimension, length: LengthUnit): Unit | undefined {
  const { symbol, size } = findUnit(length)!;
  for (const [k, power] of [LENGTH, AREA, VOLUME].entries())
    if (sameDimension(dimension, power)) return unit(`${symbol}${['', '²', '³'][k]}`, size ** (k + 1), power);
  if (sameDimension(dimension, ANGLE)) return findUnit('deg');
  if (sameDimension(dimension, MASS)) return findUnit('g');
  return undefined;
}

/** Rounds to at most `digits` decimals without trailing zeros: 4.2000001 -> "4.2". */
export function formatAmount(amount: number, digits = 3): string {
  const whole = amount.toFixed(digits);
  const text = whole.includes('.') ? whole.replace(/\.?0+$/, '') : whole;
  return text === '-0' ? '0' : text;
}

/** What is measured is shown bare as long as it is surer than this, relative. */
const SURE = 1e-6;

/** A measure with how far it may be off, where that is worth telling: "27562.6", but "27549 ± 3". */
export function formatMeasured(amount: number, off: number, digits = 3): string {
  if (!(off > SURE * Math.abs(amount)) || off < 10 ** -digits / 2) return formatAmount(amount, digits);
  // one digit of what is uncertain, two where that would be a one
  const place = Math.floor(Math.log10(off)) - (off / 10 ** Math.floor(Math.log10(off)) < 2 ? 1 : 0);
  const step = 10 ** place;
  const shown = (value: number) => formatAmount(Math.round(value / step) * step, Math.max(0, -place));
  return `${shown(amount)} ± ${shown(Math.ceil(off / step) * step)}`;
}

/** Larger units get more digits: as fine as so many of millimetres. */
const digitsIn = ({ size }: Unit, digits: number): number => digits + Math.max(0, Math.round(Math.log10(size)));

/**
 * Something measured, of a dimension that has a unit, for people: "12.5 mm", "0.212188 in³", "27549 ± 3 mm³". Several of
 * them share their unit: "72 × 48 mm".
 * @param digits of millimetres, degrees or grams @param off how far it may be off, mm and the like
 */
export function measuredWords(
  {
    amounts,
    dimension,
    off = 0,
  }: { readonly amounts: readonly number[]; readonly dimension: Dimension; readonly off?: number },
  length: LengthUnit,
  digits: number,
  between = ' × ',
): string {
  const shown = displayUnit(dimension, length)!;
  const texts = amounts.map((amount) => formatMeasured(amount / shown.size, off / shown.size, digitsIn(shown, digits)));
  return `${texts.join(between)} ${shown.symbol}`;
}

/**
 * A length that is round in a unit, near one that is round in millimetres: where a number has to begin with something.
 * Inches are halved: 10 mm is about 1/2 in, 2 mm 1/16 in.
 */
export function roundLength(mm: number, length: LengthUnit): string {
  const { size } = findUnit(length)!;
  if (length !== 'in' || mm === 0) return `${formatAmount(mm / size, 6)} ${length}`;
  const halvings = Math.round(Math.log2(size / mm));
  return halvings > 0 ? `1/${2 ** halvings} in` : `${2 ** -halvings} in`;
}

/** A quantity for people: "12.5 mm", "30 deg", "7". Larger units get more digits. */
export function formatQuantity(quantity: Quantity, length: LengthUnit, digits = 3): string {
  const shown = displayUnit(quantity.dimension, length);
  if (!shown) {
    const text = formatAmount(quantity.amount, digits);
    return isNumber(quantity.dimension) ? text : `${text} (${dimensionWords(quantity.dimension)}, mm and rad)`;
  }
  return `${formatAmount(quantity.amount / shown.size, digitsIn(shown, digits))} ${shown.symbol}`;
}

export const unitWords: Words = {
  'unit.mismatch': (f) => `${f['left']} and ${f['right']} can't be ${f['how']}.`,
  'unit.asked': (f) => `This asks for ${f['asked']}, but "${f['text']}" is ${f['given']}.${f['hint'] ?? ''}`,
};
