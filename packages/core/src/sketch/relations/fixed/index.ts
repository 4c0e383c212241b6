import { z } from 'zod';
import { coordinateSchema, idSchema } from '../../../records/index.ts';
import { GROUND } from '../../../solver/index.ts';
import type { Layout } from '../../geometry.ts';
import type { RelationKind } from '../kind.ts';
import { middleOf } from '../picking.ts';

/** Stays where it was when it was fixed: x and y of a point, of both ends of a line, of a centre with the radius. */
export const fixedSchema = z.strictObject({
  kind: z.literal('fixed'),
  entity: idSchema,
  at: z.array(coordinateSchema).min(2).max(4),
});
export type Fixed = z.infer<typeof fixedSchema>;

const unknownsOf = (id: string, layout: Layout): readonly number[] => {
  const kind = layout.roleOf(id);
  return kind === 'point' ? layout.point(id) : kind === 'line' ? layout.line(id) : layout.circle(id);
};

export const fixed: RelationKind<Fixed> = {
  schema: fixedSchema,
  title: 'Fixed',
  mark: 'F',
  words: 'stays where it is',
  refs: ({ entity }) => [entity],
  roles: ({ entity, at }) => ({ [entity]: at.length === 2 ? ['point'] : at.length === 3 ? ['circle'] : ['line'] }),
  fit(picks, geometry) {
    const [entity] = picks;
    if (picks.length !== 1 || entity === undefined) return undefined;
    const drawn = geometry.entities[entity];
    if (!drawn) return undefined;
    if (drawn.kind === 'point') return { kind: 'fixed', entity, at: [drawn.x, drawn.y] };
    if ('radius' in drawn) return { kind: 'fixed', entity, at: [...geometry.circle(entity).centre, drawn.radius] };
    const { a, b } = geometry.line(entity);
    return { kind: 'fixed', entity, at: [...a, ...b] };
  },
  equations: ({ entity, at }, { id, layout }) => ({
    substitutions: unknownsOf(entity, layout).map((a, k) => ({ owner: id, a, b: GROUND, offset: at[k]! })),
  }),
  anchors: ({ entity }, geometry) => [middleOf(entity, geometry)],
};
