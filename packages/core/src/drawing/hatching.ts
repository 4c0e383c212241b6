import { dot2, type Vec2 } from '../math/index.ts';
import { polyline, type Piece } from '../sketch/pieces/index.ts';
import { segment } from './picture.ts';

/**
 * Parallel lines over the inside of closed outlines (even-odd: openings stay free), mm on paper.
 * @param angle of the lines, rad; @param apart between them
 */
export function hatching(rims: readonly Piece[], angle: number, apart: number): Piece[] {
  const [along, across]: [Vec2, Vec2] = [
    [Math.cos(angle), Math.sin(angle)],
    [-Math.sin(angle), Math.cos(angle)],
  ];
  const chords = rims.flatMap((piece) => {
    const places = polyline(piece).map((place): Vec2 => [dot2(place, along), dot2(place, across)]);
    return places.slice(1).map((to, k) => [places[k]!, to] as const);
  });
  if (chords.length === 0) return [];
  const heights = chords.flatMap(([a, b]) => [a[1], b[1]]);
  const [low, high] = [Math.min(...heights), Math.max(...heights)];
  const lines: Piece[] = [];
  const step = Math.max(apart, (high - low) / MOST_ROWS);
  // by whole numbers of gaps, so that the faces of one body are hatched in one
  for (let row = Math.ceil(low / step); row * step < high; row++) {
    const height = row * step + 1e-7;
    const met = chords
      .filter(([a, b]) => a[1] <= height !== b[1] <= height)
      .map(([a, b]) => a[0] + ((height - a[1]) / (b[1] - a[1])) * (b[0] - a[0]))
      .sort((a, b) => a - b);
    for (let k = 0; k + 1 < met.length; k += 2)
      lines.push(segment(fromRow(met[k]!, height, along, across), fromRow(met[k + 1]!, height, along, across)));
  }
  return lines;
}

/** Larger faces are hatched wider. */
const MOST_ROWS = 1000;

const fromRow = (u: number, v: number, along: Vec2, across: Vec2): Vec2 => [
  u * along[0] + v * across[0],
  u * along[1] + v * across[1],
];
