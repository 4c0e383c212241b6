import { cross2, direction2, distance2, sub2, type Vec2 } from '../../math/index.ts';
import type { Id } from '../../records/index.ts';
import type { Role } from '../entities/index.ts';
import type { Geometry } from '../geometry.ts';
import { along } from '../pieces/index.ts';

/** The picks as ids sorted into these kinds, or undefined if they are not exactly these kinds. */
export function picked(picks: readonly Id[], geometry: Geometry, kinds: readonly Role[]): Id[] | undefined {
  const rest = [...picks];
  if (rest.length !== kinds.length || new Set(rest).size !== rest.length) return undefined;
  const found = kinds.map((kind) => {
    const at = rest.findIndex((id) => geometry.roleOf(id) === kind);
    return at < 0 ? undefined : rest.splice(at, 1)[0];
  });
  return found.every((id) => id !== undefined) ? found : undefined;
}

/** A place on the entity for its tags: half-way along, on a full circle at the upper right. */
export function middleOf(id: Id, geometry: Geometry): Vec2 {
  const [piece] = geometry.pieces(id);
  if (!piece) return geometry.point(id);
  const full = distance2(piece.from, piece.to) < 1e-9;
  return along(piece, full ? 1 / 8 : 1 / 2);
}

const PARALLEL = 1e-6;

/** Two parallel lines as a point of the first and the second line; undefined where they are not parallel. */
export function parallelLines(lines: readonly [Id, Id], geometry: Geometry): readonly [Id, Id] | undefined {
  // the drawn line gives the point; at most one of the two is an axis
  const [first, second] = geometry.entities[lines[0]] ? lines : [lines[1], lines[0]];
  const [u, v] = [first, second].map((id) => {
    const { a, b } = geometry.line(id);
    return direction2(sub2(b, a));
  });
  const drawn = geometry.entities[first];
  if (!u || !v || drawn?.kind !== 'line' || Math.abs(cross2(u, v)) > PARALLEL) return undefined;
  return [drawn.a, second];
}
