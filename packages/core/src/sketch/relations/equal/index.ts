import { z } from 'zod';
import { idSchema } from '../../../records/index.ts';
import { lengthDifference } from '../../residuals.ts';
import type { RelationKind } from '../kind.ts';
import { middleOf, picked } from '../picking.ts';

/** Two lines of one length, two circles of one radius, or two ellipses of one radius across their axis. */
const equalSchema = z.strictObject({ kind: z.literal('equal'), a: idSchema, b: idSchema });
type Equal = z.infer<typeof equalSchema>;

const ALIKE = ['line', 'circle', 'ellipse'] as const;

export const equal: RelationKind<Equal> = {
  schema: equalSchema,
  title: 'Equal',
  verb: {
    key: 'G',
    says: 'Gives lines the same length, circles the same size.',
    wants: 'lines, or circles or arcs',
  },
  mark: '=',
  words: 'are equal',
  refs: ({ a, b }) => [a, b],
  roles({ a, b }, roleOf) {
    const role = ALIKE.find((alike) => alike === roleOf(a)) ?? 'line';
    return { [b]: [role], [a]: [role] };
  },
  fit(picks, geometry) {
    for (const role of ALIKE) {
      const found = picked(picks, geometry, [role, role]);
      if (found) return { kind: 'equal', a: found[0]!, b: found[1]! };
    }
    return undefined;
  },
  equations({ a, b }, { id, layout }) {
    if (layout.roleOf(a) === 'line') return { blocks: [lengthDifference(id, layout.line(a), layout.line(b))] };
    const own = (entity: string) => layout.unknownsOf(entity)[0]!;
    return { substitutions: [{ owner: id, a: own(a), b: own(b), offset: 0 }] };
  },
  ofEnds: ({ a, b }, roleOf) => (roleOf(a) === 'line' ? [a, b] : []),
  anchors: ({ a, b }, geometry) => [middleOf(a, geometry), middleOf(b, geometry)],
};
