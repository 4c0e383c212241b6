import { add2, cross2, direction2, distance2, left2, scale2, sub2, type Vec2 } from '../../math/index.ts';
import type { Id } from '../../records/index.ts';
import { fail, ok, type Result } from '../../result/index.ts';
import type { Geometry } from '../geometry.ts';
import { derivatives, nearestOn, nearestParameter, along } from '../pieces/index.ts';
import type { Relation } from '../relations/index.ts';
import { EditBuilder, type SketchEdit } from './edit.ts';

type Offset = Extract<Relation, { kind: 'offset' }>;
type Joint = Offset['joints'][number];

const canOffset = (geometry: Geometry, id: Id): boolean =>
  ['line', 'arc', 'circle'].includes(geometry.entities[id]?.kind ?? '');

/** All curves that hang together with one, end to end, as long as no end branches; itself first. */
export function chainFrom(geometry: Geometry, start: Id): Id[] {
  const curves = Object.keys(geometry.entities).filter((id) => {
    const entity = geometry.entities[id]!;
    return canOffset(geometry, id) && !('construction' in entity && entity.construction);
  });
  const at = (point: Id) => curves.filter((id) => geometry.ends(id).includes(point));
  const chain = [start];
  for (const id of chain)
    for (const end of geometry.ends(id)) {
      const here = at(end);
      if (here.length !== 2) continue;
      const next = here.find((other) => !chain.includes(other));
      if (next !== undefined) chain.push(next);
    }
  return chain;
}

/** How far a place lies left of a curve's own direction, mm. */
function leftOf(geometry: Geometry, id: Id, place: Vec2): number {
  const [piece] = geometry.pieces(id);
  const t = nearestParameter(piece!, place);
  const foot = nearestOn(piece!, place);
  const [heading] = derivatives(piece!, t);
  return Math.sign(cross2(heading, sub2(place, foot))) * distance2(place, foot);
}

/**
 * Curves beside a chain, a loop or single curves, all on the side on which `towards` lies of the first, with one dimension
 * for the distance. Inside arcs that would lose their radius are refused.
 */
export function offsetOf(
  builder: EditBuilder,
  chosen: readonly Id[],
  towards: Vec2,
  distance: { readonly text: string; readonly size: number },
): Result<SketchEdit> {
  const { geometry } = builder;
  if (chosen.length === 0 || !chosen.every((id) => canOffset(geometry, id))) return fail('edit.offset-kind');
  const sides = sidesOf(geometry, chosen, leftOf(geometry, chosen[0]!, towards) >= 0 ? 1 : -1);
  const joints = new Map<Id, { to: Id; pairs: number[]; smooth: boolean }>();
  const ends = chosen.map((id, k) => ({ id, side: sides[k]!, points: geometry.ends(id) }));
  for (const [k, { points }] of ends.entries())
    for (const point of points)
      joints.set(point, { to: '', pairs: [...(joints.get(point)?.pairs ?? []), k], smooth: false });
  for (const [point, joint] of joints) {
    if (joint.pairs.length > 2) return fail('edit.offset-kind');
    const beside = joint.pairs.map((k) => besideEnd(geometry, ends[k]!, point, distance.size));
    joint.smooth = beside.length === 2 && distance2(beside[0]!.at, beside[1]!.at) < 1e-6 * Math.max(1, distance.size);
    joint.to = builder.place(joint.smooth || beside.length === 1 ? beside[0]!.at : (crossing(beside) ?? beside[0]!.at));
  }
  const pairs: Offset['pairs'][number][] = [];
  for (const { id, side, points } of ends) {
    const entity = geometry.entities[id]!;
    const flag = 'construction' in entity && entity.construction;
    const [a, b] = points.map((point) => joints.get(point)!.to);
    if (entity.kind === 'line') pairs.push({ from: id, to: builder.line(a!, b!, flag === true), side });
    else if (entity.kind === 'arc' || entity.kind === 'circle') {
      const radius = entity.radius - side * distance.size;
      if (radius <= 1e-3) return fail('edit.offset-inside');
      const to =
        entity.kind === 'arc'
          ? builder.arc(entity.centre, a!, b!, radius, flag === true)
          : builder.circle(entity.centre, radius, flag === true);
      pairs.push({ from: id, to, side });
    }
  }
  const found: Joint[] = [...joints].map(([from, { to, pairs: at, smooth }]) => ({
    from,
    to,
    pairs: at,
    ...(smooth ? { smooth } : {}),
  }));
  builder.relate({ kind: 'offset', pairs, joints: found, value: distance.text });
  return ok(builder.edit);
}

/** The side of each curve, by its own direction: the side of the first carried along the chain. */
function sidesOf(geometry: Geometry, ids: readonly Id[], first: 1 | -1): (1 | -1)[] {
  const sides = new Map<Id, 1 | -1>([[ids[0]!, first]]);
  for (let round = 0; round < ids.length; round++)
    for (const id of ids) {
      if (sides.has(id)) continue;
      const own = geometry.ends(id);
      const neighbour = ids.find((other) => sides.has(other) && geometry.ends(other).some((end) => own.includes(end)));
      if (neighbour === undefined) continue;
      const theirs = geometry.ends(neighbour);
      // head to tail they run alike; head to head, or tail to tail, against each other
      const alike = own[0] === theirs[1] || own[1] === theirs[0];
      const side = sides.get(neighbour)!;
      sides.set(id, alike ? side : side === 1 ? -1 : 1);
    }
  // single curves apart from the chain: on the same side of their own direction
  return ids.map((id) => sides.get(id) ?? first);
}

/** The place square beside an end of a curve, and the direction of the curve there. */
function besideEnd(
  geometry: Geometry,
  curve: { id: Id; side: 1 | -1; points: readonly Id[] },
  point: Id,
  distance: number,
) {
  const [piece] = geometry.pieces(curve.id);
  const t = curve.points[0] === point ? 0 : 1;
  const heading = direction2(derivatives(piece!, t)[0]) ?? [1, 0];
  return { at: add2(along(piece!, t), scale2(left2(heading), curve.side * distance)), heading };
}

/** Where the two carriers beside a sharp corner meet, taken straight; the solver does the rest for arcs. */
function crossing(beside: readonly { readonly at: Vec2; readonly heading: Vec2 }[]): Vec2 | undefined {
  const [first, second] = beside as [(typeof beside)[number], (typeof beside)[number]];
  const across = cross2(first.heading, second.heading);
  if (Math.abs(across) < 1e-6) return undefined;
  const t = cross2(sub2(second.at, first.at), second.heading) / across;
  return add2(first.at, scale2(first.heading, t));
}

/** The distance of a place from the nearest of some curves, mm. */
export const distanceFrom = (geometry: Geometry, ids: readonly Id[], place: Vec2): number =>
  Math.min(...ids.flatMap((id) => geometry.pieces(id).map((piece) => distance2(nearestOn(piece, place), place))));
