/**
 * Metric bolts by their nominal diameter, mm. Pitch: ISO 261, coarse. Drills for tapped holes: ISO 2306. Clearance holes:
 * ISO 273, fine, medium, coarse. Heads: of cylinder-head screws ISO 4762 the diameter of the counterbore after DIN 974-1,
 * row 1, and the head height; of countersunk screws ISO 10642 the theoretical head diameter.
 */
interface Bolt {
  readonly d: number;
  readonly pitch: number;
  readonly tapDrill: number;
  readonly clearance: { readonly fine: number; readonly medium: number; readonly coarse: number };
  readonly counterbore: number;
  readonly head: number;
  readonly countersink: number;
}

type Row = readonly [
  d: number,
  pitch: number,
  drill: number,
  fine: number,
  medium: number,
  coarse: number,
  bore: number,
  sink: number,
];

const ROWS: readonly Row[] = [
  [3, 0.5, 2.5, 3.2, 3.4, 3.6, 6.5, 6.72],
  [4, 0.7, 3.3, 4.3, 4.5, 4.8, 8, 8.96],
  [5, 0.8, 4.2, 5.3, 5.5, 5.8, 10, 11.2],
  [6, 1, 5, 6.4, 6.6, 7, 11, 13.44],
  [8, 1.25, 6.8, 8.4, 9, 10, 15, 17.92],
  [10, 1.5, 8.5, 10.5, 11, 12, 18, 22.4],
  [12, 1.75, 10.2, 13, 13.5, 14.5, 20, 26.88],
  [16, 2, 14, 17, 17.5, 18.5, 26, 33.6],
  [20, 2.5, 17.5, 21, 22, 24, 33, 40.32],
];

export const BOLTS: Readonly<Record<string, Bolt>> = Object.fromEntries(
  ROWS.map(([d, pitch, drill, fine, medium, coarse, counterbore, countersink]) => [
    `m${d}`,
    { d, pitch, tapDrill: drill, clearance: { fine, medium, coarse }, counterbore, head: d, countersink },
  ]),
);

export const BOLT_NAMES: Readonly<Record<string, string>> = Object.fromEntries(
  Object.values(BOLTS).map(({ d }) => [`m${d}`, `M${d}`]),
);
