import { z } from 'zod';
import {
  add2,
  crossD,
  direction2,
  distance2,
  dotD,
  left2,
  leftD,
  scale2,
  sub2,
  subD,
  unitD,
  type DualVec,
  type Vec2,
} from '../../../math/index.ts';
import { expressionSchema, idSchema, measuringSchema, placeSchema, type Id } from '../../../records/index.ts';
import type { Block, Substitution } from '../../../solver/index.ts';
import { LENGTH } from '../../../units/index.ts';
import { linearAnnotation } from '../../annotation.ts';
import type { Role } from '../../entities/index.ts';
import type { Geometry, Layout } from '../../geometry.ts';
import { along, nearestOn } from '../../pieces/index.ts';
import { formulaBlock, lineDistance } from '../../residuals.ts';
import type { RelationKind } from '../kind.ts';
import { middleOf } from '../picking.ts';

const sideSchema = z.union([z.literal(1), z.literal(-1)]);

/**
 * Curves at one distance from others, side by side. Each pair is a curve and the one beside it, `side` 1 where that lies
 * left of the first's own direction; each joint is an end of one and the end beside it, with the one or two pairs that
 * meet there. Where two pairs go on into each other, and at loose ends, the joint lies square beside its first; at sharp
 * corners it has the distance from both; where one of the two was cut off (`cut`) it has the distance alone. Arcs beside arcs
 * share their centre.
 */
const offsetSchema = z.strictObject({
  kind: z.literal('offset'),
  pairs: z
    .array(z.strictObject({ from: idSchema, to: idSchema, side: sideSchema }))
    .min(1)
    .max(200),
  joints: z
    .array(
      z.strictObject({
        from: idSchema,
        to: idSchema,
        pairs: z.array(z.int().min(0).max(199)).min(1).max(2),
        smooth: z.boolean().optional(),
        cut: z.literal(true).optional(),
      }),
    )
    .max(201),
  value: expressionSchema,
  measuring: measuringSchema,
  at: placeSchema.optional(),
});
type Offset = z.infer<typeof offsetSchema>;
type Pair = Offset['pairs'][number];
type Joint = Offset['joints'][number];

export const offset: RelationKind<Offset> = {
  schema: offsetSchema,
  title: 'Offset',
  words: 'run beside each other, apart by',
  refs: ({ pairs, joints }) => [...new Set([...pairs, ...joints].flatMap(({ from, to }) => [from, to]))],
  roles: ({ pairs, joints }, roleOf) => ({
    ...Object.fromEntries(
      pairs.flatMap(({ from, to }): [Id, Role[]][] => {
        const role: Role[] = [roleOf(from) === 'circle' ? 'circle' : 'line'];
        return [
          [from, role],
          [to, role],
        ];
      }),
    ),
    ...Object.fromEntries(
      joints.flatMap(({ from, to }): [Id, Role[]][] => [
        [from, ['point']],
        [to, ['point']],
      ]),
    ),
  }),
  // it comes with the curves that it makes
  fit: () => undefined,
  equations({ pairs, joints }, { id, layout, value }) {
    const blocks: Block[] = joints.flatMap((joint) => {
      const meeting = joint.pairs.map((k) => pairs[k]!);
      const lines = meeting.filter(({ from }) => layout.roleOf(from) === 'line');
      // an arc's own equations keep its ends on it
      if (joint.cut || (meeting.length === 2 && !joint.smooth))
        return lines.map((pair) => besideLine(id, layout, pair, joint, value));
      const arc = meeting.find((pair) => !lines.includes(pair));
      return [arc ? onRay(id, layout, arc, joint) : squareBeside(id, layout, lines[0]!, joint, value)];
    });
    return { blocks, substitutions: pairs.flatMap((pair) => besideRound(id, layout, pair, value)) };
  },
  dimension: {
    asks: LENGTH,
    measure({ pairs, joints }, geometry) {
      const [{ from, to, side }] = pairs as [Pair];
      if (geometry.roleOf(from) === 'circle')
        return -side * (geometry.circle(to).radius - geometry.circle(from).radius);
      const beside = geometry.ends(to)[0] ?? joints[0]!.to;
      const { a, b } = geometry.line(from);
      const u = direction2(sub2(b, a)) ?? [1, 0];
      const out = sub2(geometry.point(beside), a);
      return side * (u[0] * out[1] - u[1] * out[0]);
    },
    places({ pairs }, geometry, { gap, width }) {
      const [{ from, to }] = pairs as [Pair];
      const [piece] = geometry.pieces(from);
      return [0.5, 0.3, 0.7, 0.15, 0.85].flatMap((t) => {
        const p = along(piece!, t);
        const q = nearestBeside(geometry, from, to, p);
        const out = direction2(sub2(q, p)) ?? ([0, 1] as const);
        const far = distance2(p, q);
        return [far + gap + width / 2, -gap - width / 2].map((reach) => add2(p, scale2(out, reach)));
      });
    },
    annotate({ pairs }, geometry, space, at) {
      const [{ from, to }] = pairs as [Pair];
      // it stands where its text is along the curve
      const p = nearestOn(geometry.pieces(from)[0]!, at);
      const q = nearestBeside(geometry, from, to, p);
      return linearAnnotation(p, q, direction2(sub2(q, p)) ?? [0, 1], at, space);
    },
  },
  turned: (relation, line) => ({
    ...relation,
    pairs: relation.pairs.map((pair) => (pair.from === line ? { ...pair, side: pair.side === 1 ? -1 : 1 } : pair)),
  }),
  anchors: ({ pairs }, geometry) => [middleOf(pairs[0]!.to, geometry)],
};

/**
 * It after an end of one of its curves was cut off or prolonged: the curve goes on beside the other, and its new end lies
 * where something else keeps it.
 * @param isRound is it an arc? Its own equations keep its ends on it
 */
export function withEndMoved(relation: Offset, curve: Id, before: Id, after: Id, isRound: boolean): Offset {
  const joints = relation.joints.flatMap((joint): Joint[] => {
    const k = joint.pairs.find((at) => relation.pairs[at]!.from === curve || relation.pairs[at]!.to === curve);
    if (k === undefined || (joint.from !== before && joint.to !== before)) return [joint];
    const { smooth: _, ...ends } = joint;
    const rest = joint.pairs.filter((at) => at !== k);
    const [from, to] = [joint.from, joint.to].map((end) => (end === before ? after : end)) as [Id, Id];
    return [
      ...(rest.length > 0 ? [{ ...ends, pairs: rest, cut: true as const }] : []),
      ...(isRound ? [] : [{ ...ends, from, to, pairs: [k], cut: true as const }]),
    ];
  });
  return { ...relation, joints };
}

/** The place on the other curve that is square beside a place on the first. */
function nearestBeside(geometry: Geometry, from: Id, to: Id, p: Vec2): Vec2 {
  if (geometry.roleOf(from) === 'circle') {
    const { centre } = geometry.circle(from);
    const out = direction2(sub2(p, centre)) ?? [1, 0];
    return add2(centre, scale2(out, geometry.circle(to).radius));
  }
  const { a, b } = geometry.line(to);
  const n = left2(direction2(sub2(b, a)) ?? [1, 0]);
  const reach = (a[0] - p[0]) * n[0] + (a[1] - p[1]) * n[1];
  return add2(p, scale2(n, reach));
}

/** The point beside a sharp corner has the distance from the carrier of a side. */
const besideLine = (owner: Id, layout: Layout, { from, side }: Pair, joint: Joint, value: number): Block =>
  lineDistance(owner, layout.line(from), layout.point(joint.to), side, value);

/** The end beside the end of an arc lies on the same ray from their centre, not on the one opposite: the angle is 0. */
function onRay(owner: Id, layout: Layout, { from }: Pair, joint: Joint): Block {
  const [cx, cy, radius] = layout.circle(from);
  const scale = layout.initial[radius]!;
  return formulaBlock(owner, [cx, cy, ...layout.point(joint.from), ...layout.point(joint.to)], (v) => {
    const centre: DualVec = [v[0]!, v[1]!];
    const [p, q] = [subD([v[2]!, v[3]!], centre), subD([v[4]!, v[5]!], centre)];
    return [crossD(p, q).atan2(dotD(p, q)).scaled(scale)];
  });
}

/** q = p + value x the left normal of the line, in p. */
function squareBeside(owner: Id, layout: Layout, { from, side }: Pair, joint: Joint, value: number): Block {
  const unknowns = [...layout.point(joint.from), ...layout.point(joint.to), ...layout.line(from)];
  return formulaBlock(
    owner,
    unknowns,
    (v) => {
      const normal = leftD(unitD(subD([v[6]!, v[7]!], [v[4]!, v[5]!])));
      return [0, 1].map((k) => v[2 + k]!.sub(v[k]!).sub(normal[k]!.scaled(side * value)));
    },
    2,
  );
}

/** Radii of arcs and circles side by side differ by the distance: left of them is inside. */
function besideRound(owner: Id, layout: Layout, { from, to, side }: Pair, value: number): Substitution[] {
  if (layout.roleOf(from) !== 'circle') return [];
  return [{ owner, a: layout.circle(to)[2], b: layout.circle(from)[2], offset: -side * value }];
}
