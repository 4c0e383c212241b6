import { z } from 'zod';
import {
  cross2,
  crossD,
  distance2,
  dot2,
  dotD,
  leftD,
  sub2,
  subD,
  unitD,
  type DualVec,
  type Vec2,
} from '../../../math/index.ts';
import { idSchema, type Id } from '../../../records/index.ts';
import type { Block } from '../../../solver/index.ts';
import { entityKind, findEntity, type Heading } from '../../entities/index.ts';
import { axesOf, freeEllipse } from '../../entities/ellipse/index.ts';
import type { Geometry, Layout } from '../../geometry.ts';
import { carrierOf, nearestOn, polyline } from '../../pieces/index.ts';
import { alongLine, curveDistance, formulaBlock, lineDistance, pointDistance } from '../../residuals.ts';
import type { RelationKind } from '../kind.ts';
import { picked } from '../picking.ts';

/**
 * Two curves touch; `circle` is the round one of them. `side` is chosen once, from the drawing: for a line on which side
 * of it the centre lies (1 left), for circles 1 beside each other, -1 one inside the other; a circle and an ellipse alike.
 * Curves that share an end go on into each other there.
 */
const tangentSchema = z.strictObject({
  kind: z.literal('tangent'),
  circle: idSchema,
  to: idSchema,
  side: z.union([z.literal(1), z.literal(-1)]),
});
type Tangent = z.infer<typeof tangentSchema>;

/** Which curves can touch, the first of each pair playing `circle`. Splines touch only where they share an end. */
const PAIRS = [
  ['circle', 'line'],
  ['circle', 'circle'],
  ['ellipse', 'line'],
  ['circle', 'ellipse'],
  ['spline', 'line'],
  ['spline', 'circle'],
  ['spline', 'ellipse'],
  ['spline', 'spline'],
  ['ellipse', 'ellipse'],
] as const;

export const tangent: RelationKind<Tangent> = {
  schema: tangentSchema,
  title: 'Tangent',
  verb: {
    key: 'T',
    says: 'Lets a line or curve touch another smoothly.',
    wants: 'a circle, arc or spline and what touches it',
  },
  mark: 'T',
  words: 'touch',
  refs: ({ circle, to }) => [circle, to],
  roles: ({ circle, to }) => ({
    [to]: ['line', 'circle', 'ellipse', 'spline'],
    [circle]: ['circle', 'ellipse', 'spline'],
  }),
  fit(picks, geometry) {
    for (const pair of PAIRS) {
      const found = picked(picks, geometry, pair);
      if (!found) continue;
      const [circle, to] = found as [Id, Id];
      const end = geometry.ends(circle).find((id) => geometry.ends(to).includes(id));
      const free = pair[0] !== 'spline' && !(pair[0] === 'ellipse' && pair[1] === 'ellipse');
      return end === undefined && !free
        ? undefined
        : { kind: 'tangent', circle, to, side: sideOf(geometry, circle, to) };
    }
    return undefined;
  },
  equations({ circle, to, side }, { id, layout, start }) {
    const end = sharedEnd(layout, circle, to);
    if (end !== undefined) return { blocks: [tangentAtEnd(id, layout, circle, to, end)] };
    const [own, other] = [layout.roleOf(circle), layout.roleOf(to)];
    if (own === 'ellipse' && other === 'line') return { blocks: [ellipseOnLine(id, layout, circle, to, side)] };
    if (own !== 'circle') return {};
    const [cx, cy, radius] = layout.circle(circle);
    if (other === 'line') return { blocks: [lineDistance(id, layout.line(to), [cx, cy], side, 0, radius)] };
    if (other === 'ellipse')
      return { blocks: [curveDistance(id, freeEllipse(layout.ellipse(to)), [cx, cy], side, radius)] };
    const [ox, oy, second] = layout.circle(to);
    // inside: the centres are as far apart as the radii differ, the larger one by the drawing
    const larger = start.circle(circle).radius >= start.circle(to).radius ? 1 : -1;
    const factors = side === 1 ? [1, 1] : [larger, -larger];
    const radii = [
      { at: radius, factor: factors[0]! },
      { at: second, factor: factors[1]! },
    ];
    return { blocks: [pointDistance(id, [cx, cy], [ox, oy], 0, radii)] };
  },
  turned: (relation, line) => (relation.to === line ? { ...relation, side: relation.side === 1 ? -1 : 1 } : relation),
  anchors({ circle, to }, geometry) {
    const end = geometry.ends(circle).find((id) => geometry.ends(to).includes(id));
    if (end !== undefined) return [geometry.point(end)];
    const pieces = geometry.pieces(circle);
    const other = geometry.pieces(to);
    // where they come nearest, looking from the places along the first
    const places = pieces.flatMap(polyline);
    const gap = (place: Vec2) => Math.min(...other.map((piece) => distance2(nearestOn(piece, place), place)));
    return [places.reduce((best, place) => (gap(place) < gap(best) ? place : best))];
  },
};

function sideOf(geometry: Geometry, circle: Id, to: Id): 1 | -1 {
  const round = geometry.roleOf(circle) === 'ellipse' ? geometry.ellipse(circle) : undefined;
  if (geometry.roleOf(circle) === 'spline') return 1;
  const { centre, radius } = round ? { centre: round.centre, radius: round.minor } : geometry.circle(circle);
  if (geometry.roleOf(to) === 'line') {
    const { a, b } = geometry.line(to);
    return cross2(sub2(b, a), sub2(centre, a)) >= 0 ? 1 : -1;
  }
  if (geometry.roleOf(to) === 'ellipse') {
    const out = sub2(centre, geometry.ellipse(to).centre);
    const { major, minor } = carrierOf(
      geometry.ellipse(to).centre,
      geometry.ellipse(to).tip,
      geometry.ellipse(to).minor,
    );
    return (dot2(out, major) / dot2(major, major)) ** 2 + (dot2(out, minor) / dot2(minor, minor)) ** 2 >= 1 ? 1 : -1;
  }
  const second = geometry.circle(to);
  return distance2(centre, second.centre) >= Math.max(radius, second.radius) ? 1 : -1;
}

/**
 * The support of an ellipse in the direction of the line's normal n is sqrt((n A)^2 + (n B)^2), A and B being its half
 * axes: as far must the centre lie from the line.
 */
function ellipseOnLine(owner: Id, layout: Layout, ellipse: Id, line: Id, side: number): Block {
  return formulaBlock(owner, [...layout.ellipse(ellipse), ...layout.line(line)], (v) => {
    const [centre, major, minor] = axesOf(v);
    const start: DualVec = [v[5]!, v[6]!];
    const normal = leftD(unitD(subD([v[7]!, v[8]!], start)));
    const [a, b] = [dotD(normal, major), dotD(normal, minor)];
    const support = a.times(a).add(b.times(b)).sqrt();
    return [dotD(normal, subD(centre, start)).scaled(side).sub(support)];
  });
}

/** A point at which both curves end. */
function sharedEnd(layout: Layout, circle: Id, to: Id): Id | undefined {
  const [own, other] = [circle, to].map((id): readonly Id[] => {
    const entity = findEntity(layout.entities, id)!;
    return entityKind(entity.kind).ends?.(entity) ?? [];
  });
  return own!.find((end) => other!.includes(end));
}

/**
 * At a common end the distance to the centre has its least value already and says nothing to first order; there the
 * radius stands square on the line, or both centres lie in line with the end, or both curves have one direction.
 */
function tangentAtEnd(owner: Id, layout: Layout, circle: Id, to: Id, end: Id): Block {
  if (layout.roleOf(circle) === 'circle' && layout.roleOf(to) !== 'ellipse') {
    const centre = layout.circle(circle).slice(0, 2);
    const place = layout.point(end);
    if (layout.roleOf(to) === 'line') return alongLine(owner, layout.line(to), centre, place);
    return lineDistance(owner, [...layout.circle(to).slice(0, 2), ...centre], place, 1, 0);
  }
  const [own, other] = [circle, to].map((id) => {
    const entity = findEntity(layout.entities, id)!;
    return entityKind(entity.kind).heading!(id, entity, end, layout);
  }) as [Heading, Heading];
  const split = own.unknowns.length;
  return formulaBlock(owner, [...own.unknowns, ...other.unknowns], (v) => {
    const [d, e] = [own.direction(v.slice(0, split)), other.direction(v.slice(split))];
    // as a sine, times a length, so that it is in mm like the others
    return [crossD(unitD(d), e)];
  });
}
