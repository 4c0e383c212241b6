import { z } from 'zod';
import { idSchema } from '../../../records/index.ts';
import type { RelationKind } from '../kind.ts';
import { picked } from '../picking.ts';

/** Two circles or ellipses about one centre. */
const concentricSchema = z.strictObject({ kind: z.literal('concentric'), a: idSchema, b: idSchema });
type Concentric = z.infer<typeof concentricSchema>;

export const concentric: RelationKind<Concentric> = {
  schema: concentricSchema,
  title: 'Concentric',
  verb: { key: 'C', says: 'Gives circles and arcs one centre.', wants: 'circles or arcs' },
  mark: '◎',
  words: 'have one centre',
  refs: ({ a, b }) => [a, b],
  roles: ({ a, b }) => ({ [a]: ['circle', 'ellipse'], [b]: ['circle', 'ellipse'] }),
  fit(picks, geometry) {
    const found =
      picked(picks, geometry, ['circle', 'circle']) ??
      picked(picks, geometry, ['circle', 'ellipse']) ??
      picked(picks, geometry, ['ellipse', 'ellipse']);
    return found && { kind: 'concentric', a: found[0]!, b: found[1]! };
  },
  equations({ a, b }, { id, layout }) {
    const [p, q] = [layout.centre(a), layout.centre(b)];
    return { substitutions: [0, 1].map((k) => ({ owner: id, a: p[k]!, b: q[k]!, offset: 0 })) };
  },
  anchors: ({ a }, geometry) => [geometry.centre(a)],
};
