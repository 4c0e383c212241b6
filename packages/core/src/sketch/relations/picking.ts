import { middle2, type Vec2 } from '../../math/index.ts';
import type { Id } from '../../records/index.ts';
import type { Entity } from '../entities/index.ts';
import type { Geometry } from '../geometry.ts';

/** The picks as ids sorted into these kinds, or undefined if they are not exactly these kinds. */
export function picked(picks: readonly Id[], geometry: Geometry, kinds: readonly Entity['kind'][]): Id[] | undefined {
  const rest = [...picks];
  if (rest.length !== kinds.length || new Set(rest).size !== rest.length) return undefined;
  const found = kinds.map((kind) => {
    const at = rest.findIndex((id) => geometry.kindOf(id) === kind);
    return at < 0 ? undefined : rest.splice(at, 1)[0];
  });
  return found.every((id) => id !== undefined) ? found : undefined;
}

export function middleOf(id: Id, geometry: Geometry): Vec2 {
  const kind = geometry.kindOf(id);
  if (kind === 'point') return geometry.point(id);
  if (kind === 'line') {
    const { a, b } = geometry.line(id);
    return middle2(a, b);
  }
  const { centre, radius } = geometry.circle(id);
  return [centre[0] + radius * Math.SQRT1_2, centre[1] + radius * Math.SQRT1_2];
}
