import type { Vec2 } from '../math/index.ts';
import { fullCircle, type Piece } from '../sketch/pieces/index.ts';
import { segment } from './picture.ts';

/** A drawn sign: lines and circles in heights of capitals, from its lower left corner. */
interface Sign {
  readonly width: number;
  /** Each x, y, x, y and so on. */
  readonly lines: readonly (readonly number[])[];
  readonly circles?: readonly (readonly [centre: Vec2, radius: number])[];
}

/**
 * Signs beside figures (ISO 129-1) and of geometrical tolerances (ISO 1101). They are drawn, since few fonts have them.
 */
const SIGNS = {
  diameter: {
    width: 1,
    lines: [[0.12, -0.08, 0.82, 1.08]],
    circles: [[[0.47, 0.5], 0.4]],
  },
  depth: {
    width: 0.9,
    lines: [
      [0.05, 1, 0.75, 1],
      [0.4, 1, 0.4, 0],
      [0.18, 0.32, 0.4, 0, 0.62, 0.32],
    ],
  },
  counterbore: {
    width: 1.2,
    lines: [[0.05, 0.75, 0.05, 0, 1, 0, 1, 0.75]],
  },
  countersink: {
    width: 1.2,
    lines: [[0.05, 0.85, 0.53, 0, 1, 0.85]],
  },
  straightness: {
    width: 1.1,
    lines: [[0, 0.5, 1, 0.5]],
  },
  flatness: {
    width: 1.3,
    lines: [[0, 0.1, 0.4, 0.9, 1.2, 0.9, 0.8, 0.1, 0, 0.1]],
  },
  roundness: { width: 1, lines: [], circles: [[[0.45, 0.5], 0.42]] },
  cylindricity: {
    width: 1.4,
    lines: [
      [0, 0, 0.4, 1],
      [0.9, 0, 1.3, 1],
    ],
    circles: [[[0.65, 0.5], 0.32]],
  },
  parallelism: {
    width: 0.9,
    lines: [
      [0, 0, 0.4, 1],
      [0.4, 0, 0.8, 1],
    ],
  },
  squareness: {
    width: 1.1,
    lines: [
      [0, 0, 1, 0],
      [0.5, 0, 0.5, 1],
    ],
  },
  angularity: {
    width: 1.1,
    lines: [[0.8, 0.9, 0, 0, 1, 0]],
  },
  position: {
    width: 1.2,
    lines: [
      [0, 0.5, 1.1, 0.5],
      [0.55, -0.05, 0.55, 1.05],
    ],
    circles: [[[0.55, 0.5], 0.33]],
  },
  coaxiality: {
    width: 1,
    lines: [],
    circles: [
      [[0.45, 0.5], 0.42],
      [[0.45, 0.5], 0.2],
    ],
  },
  symmetry: {
    width: 1.1,
    lines: [
      [0.2, 0.8, 0.8, 0.8],
      [0, 0.5, 1, 0.5],
      [0.2, 0.2, 0.8, 0.2],
    ],
  },
  runout: {
    width: 1,
    lines: [
      [0.05, 0, 0.85, 0.95],
      [0.5, 0.82, 0.85, 0.95, 0.8, 0.57],
    ],
  },
} as const satisfies Record<string, Sign>;
export type SignName = keyof typeof SIGNS;

/** How wide a sign is, in heights of capitals. */
export const signWidth = (name: SignName): number => SIGNS[name].width;

/** @param place where a place of the sign goes, told in mm from its lower left corner @param height of capitals, mm */
export function signPieces(name: SignName, place: (at: Vec2) => Vec2, height: number): Piece[] {
  const { lines, circles = [] }: Sign = SIGNS[name];
  const at = ([u, v]: Vec2): Vec2 => place([u * height, v * height]);
  return [
    ...lines.flatMap((row) => {
      const places = row.flatMap((x, k): Vec2[] => (k % 2 === 0 ? [at([x, row[k + 1]!])] : []));
      return places.slice(1).map((to, k) => segment(places[k]!, to));
    }),
    ...circles.map(([centre, radius]) => fullCircle('', at(centre), radius * height)),
  ];
}
