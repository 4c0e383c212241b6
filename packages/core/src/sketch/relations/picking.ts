import type { Vec2 } from '../../math/index.ts';
import type { Id } from '../../records/index.ts';
import type { Role } from '../entities/index.ts';
import type { Geometry } from '../geometry.ts';
import { along } from '../pieces.ts';

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
  const full = piece.form === 'arc' && Math.abs(piece.sweep) > 6.28;
  return along(piece, full ? 1 / 8 : 1 / 2);
}
