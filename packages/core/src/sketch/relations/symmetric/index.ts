import { z } from 'zod';
import { distance2, mirrored2 } from '../../../math/index.ts';
import { idSchema, type Id } from '../../../records/index.ts';
import type { Block } from '../../../solver/index.ts';
import type { Role } from '../../entities/index.ts';
import type { Geometry, Layout } from '../../geometry.ts';
import { mirroredPoints } from '../../residuals.ts';
import type { RelationKind } from '../kind.ts';
import { middleOf, picked } from '../picking.ts';

/**
 * Two points, two lines or two circles mirror each other in a line. `crossed` says which ends of two lines belong
 * together: start to start, or (true) start to end.
 */
const symmetricSchema = z.strictObject({
  kind: z.literal('symmetric'),
  a: idSchema,
  b: idSchema,
  axis: idSchema,
  crossed: z.boolean().optional(),
});
type Symmetric = z.infer<typeof symmetricSchema>;

export const symmetric: RelationKind<Symmetric> = {
  schema: symmetricSchema,
  title: 'Symmetric',
  verb: {
    key: 'S',
    says: 'Makes two things mirror images of each other.',
    wants: 'two points, lines or circles, then the line between them',
  },
  mark: 'S',
  words: 'mirror each other',
  refs: ({ a, b, axis }) => [a, b, axis],
  roles({ a, b, axis }, roleOf) {
    const kind: Role = roleOf(a) ?? 'point';
    return { [a]: [kind], [b]: [kind], [axis]: ['line'] };
  },
  fit(picks, geometry) {
    for (const kind of ['point', 'circle', 'line'] as const) {
      // of three lines the one picked last is the axis
      const found = picked(picks, geometry, [kind, kind, 'line']);
      if (!found) continue;
      const [a, b, axis] = found as [Id, Id, Id];
      return {
        kind: 'symmetric',
        a,
        b,
        axis,
        ...(kind === 'line' && isCrossed(geometry, a, b, axis) ? { crossed: true } : {}),
      };
    }
    return undefined;
  },
  equations({ a, b, axis, crossed }, { id, layout }) {
    const pairs = pairsOf(layout, a, b, crossed === true);
    const blocks: Block[] = pairs.map(([p, q]) => mirroredPoints(id, p, q, layout.line(axis)));
    if (layout.roleOf(a) !== 'circle') return { blocks };
    return { blocks, substitutions: [{ owner: id, a: layout.circle(a)[2], b: layout.circle(b)[2], offset: 0 }] };
  },
  turned: (relation, line) =>
    relation.a === line || relation.b === line ? { ...relation, crossed: !relation.crossed } : relation,
  ofEnds: ({ a, b }, roleOf) => (roleOf(a) === 'line' ? [a, b] : []),
  anchors: ({ a, b }, geometry) => [middleOf(a, geometry), middleOf(b, geometry)],
};

type Place = readonly [number, number];

/** The pairs of points, as indices, that mirror each other. */
function pairsOf(layout: Layout, a: Id, b: Id, crossed: boolean): [Place, Place][] {
  const kind = layout.roleOf(a);
  if (kind === 'point') return [[layout.point(a), layout.point(b)]];
  if (kind === 'circle') {
    const [[ax, ay], [bx, by]] = [layout.circle(a), layout.circle(b)];
    return [
      [
        [ax, ay],
        [bx, by],
      ],
    ];
  }
  const [[px, py, qx, qy], [rx, ry, sx, sy]] = [layout.line(a), layout.line(b)];
  const [first, second]: [Place, Place] = crossed
    ? [
        [sx, sy],
        [rx, ry],
      ]
    : [
        [rx, ry],
        [sx, sy],
      ];
  return [
    [[px, py], first],
    [[qx, qy], second],
  ];
}

function isCrossed(geometry: Geometry, a: Id, b: Id, axis: Id): boolean {
  const line = geometry.line(axis);
  const start = mirrored2(geometry.line(a).a, line.a, line.b);
  const other = geometry.line(b);
  return distance2(start, other.b) < distance2(start, other.a);
}
