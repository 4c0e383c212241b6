import { sub2, type Vec2 } from '../math/index.ts';

/** A similarity of the plane: p -> turn and stretch about `about`, then shift. */
export interface Similarity {
  readonly about: Vec2;
  /** rad, counter-clockwise. */
  readonly angle: number;
  readonly scale: number;
  readonly shift: Vec2;
}

/** A place carried by a similarity. */
export const carriedBy = ({ about, angle, scale, shift }: Similarity, place: Vec2): Vec2 => {
  const [x, y] = sub2(place, about);
  const [c, s] = [scale * Math.cos(angle), scale * Math.sin(angle)];
  return [about[0] + shift[0] + c * x - s * y, about[1] + shift[1] + s * x + c * y];
};

const QUARTER = Math.PI / 2;

/** The number of quarter turns, from 0 to 3; undefined where it turns by anything else. */
export function quarterTurns({ angle }: Similarity): number | undefined {
  const quarters = Math.round(angle / QUARTER);
  return Math.abs(angle / QUARTER - quarters) < 1e-9 ? ((quarters % 4) + 4) % 4 : undefined;
}
