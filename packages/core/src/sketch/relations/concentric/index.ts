import { z } from 'zod';
import { idSchema } from '../../../records/index.ts';
import type { RelationKind } from '../kind.ts';
import { picked } from '../picking.ts';

/** Two circles about one centre. */
export const concentricSchema = z.strictObject({ kind: z.literal('concentric'), a: idSchema, b: idSchema });
export type Concentric = z.infer<typeof concentricSchema>;

export const concentric: RelationKind<Concentric> = {
  schema: concentricSchema,
  title: 'Concentric',
  mark: '◎',
  words: 'have one centre',
  refs: ({ a, b }) => [a, b],
  roles: ({ a, b }) => ({ [a]: ['circle'], [b]: ['circle'] }),
  fit(picks, geometry) {
    const found = picked(picks, geometry, ['circle', 'circle']);
    return found && { kind: 'concentric', a: found[0]!, b: found[1]! };
  },
  equations({ a, b }, { id, layout }) {
    const [p, q] = [layout.circle(a), layout.circle(b)];
    return { substitutions: [0, 1].map((k) => ({ owner: id, a: p[k]!, b: q[k]!, offset: 0 })) };
  },
  anchors: ({ a }, geometry) => [geometry.circle(a).centre],
};
