import type { Material } from './schema.ts';

/** A material with where its density comes from. Densities are nominal: what is weighed may differ by some percent. */
interface KnownMaterial extends Material {
  readonly group: string;
  readonly source: string;
}

const LOADS = 'EN 1991-1-1:2002, tables A.1 to A.5 (weight over 9.81 m/s²)';
const STAINLESS = 'EN 10088-1, annex on physical properties';
const TIMBER = 'EN 338:2016, mean density of the strength class';
const RAW = 'nominal for the raw material by ISO 1183; take the maker’s sheet';

const group = (
  name: string,
  source: string,
  entries: readonly (readonly [name: string, density_kg_m3: number])[],
): KnownMaterial[] => entries.map(([title, density_kg_m3]) => ({ name: title, density_kg_m3, group: name, source }));

/** Common engineering materials, kg/m^3. */
export const MATERIALS: readonly KnownMaterial[] = [
  ...group('Steel and iron', LOADS, [
    ['Steel S235', 7850],
    ['Steel C45', 7850],
    ['Cast iron', 7250],
  ]),
  ...group('Steel and iron', STAINLESS, [
    ['Stainless steel 1.4301', 7900],
    ['Stainless steel 1.4404', 8000],
  ]),
  ...group('Other metals', 'EN 1999-1-1, 3.2.5 (design value)', [
    ['Aluminium 6082', 2700],
    ['Aluminium 5754', 2700],
  ]),
  ...group('Other metals', LOADS, [
    ['Brass CW614N', 8470],
    ['Bronze', 8600],
    ['Copper', 8900],
    ['Zinc', 7200],
    ['Lead', 11500],
  ]),
  ...group('Plastics', RAW, [
    ['ABS', 1040],
    ['HDPE', 950],
    ['PA 6', 1140],
    ['PC', 1200],
    ['PETG', 1270],
    ['PLA', 1240],
    ['PMMA', 1190],
    ['POM', 1410],
    ['PP', 905],
    ['PTFE', 2170],
    ['PVC', 1390],
  ]),
  ...group('Wood', TIMBER, [
    ['Softwood C24', 420],
    ['Hardwood D30', 640],
  ]),
  ...group('Wood', LOADS, [
    ['Birch plywood', 680],
    ['MDF', 800],
  ]),
  ...group('Wood', 'mean of air-dry wood at 12 % moisture; single boards differ by a tenth', [
    ['Ash', 690],
    ['Beech', 720],
    ['Oak', 700],
    ['Spruce', 450],
  ]),
  ...group('Others', LOADS, [['Glass', 2500]]),
];
