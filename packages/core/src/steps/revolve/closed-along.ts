import { dot2, left2, sub2, toPlane, type Frame, type Vec2, type Vec3 } from '../../math/index.ts';
import type { Id } from '../../records/index.ts';
import { entityKind, findRegions, Geometry, ON_LINE, type Entities, type Regions } from '../../sketch/index.ts';

/**
 * The areas of an outline that is open along an axis, both its ends lying on that: closed there, as what is turned about the
 * axis has no side on it. Undefined where it is not so.
 */
export function closedAlong(
  axis: { readonly origin: Vec3; readonly direction: Vec3 },
  frame: Frame,
  { entities }: Geometry,
  { openEnds }: Regions,
): Regions | undefined {
  const origin = toPlane(frame, axis.origin);
  const far = toPlane(frame, axis.origin.map((c, k) => c + axis.direction[k]!) as unknown as Vec3);
  const normal = left2(sub2(far, origin));
  const areOnAxis = openEnds.every(({ at }) => Math.abs(dot2(sub2(at, origin), normal)) < ON_LINE);
  if (openEnds.length !== 2 || !areOnAxis) return undefined;
  const ends = openEnds.map(({ at, entity }) => endAt(entities, entity, at));
  if (!ends[0] || !ends[1]) return undefined;
  return findRegions(new Geometry({ ...entities, [CLOSING]: { kind: 'line', a: ends[0], b: ends[1] } }));
}
const CLOSING = 'closing';

/** The point at which a curve ends there. */
function endAt(entities: Entities, curve: Id, at: Vec2): Id | undefined {
  const entity = entities[curve]!;
  return entityKind(entity.kind)
    .uses(entity)
    .find((id) => {
      const point = entities[id];
      return point?.kind === 'point' && Math.hypot(point.x - at[0], point.y - at[1]) < ON_LINE;
    });
}
