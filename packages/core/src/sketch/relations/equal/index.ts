import { z } from 'zod';
import { idSchema } from '../../../records/index.ts';
import { lengthDifference } from '../../residuals.ts';
import type { RelationKind } from '../kind.ts';
import { middleOf, picked } from '../picking.ts';

/** Two lines of one length, or two circles of one radius. */
export const equalSchema = z.strictObject({ kind: z.literal('equal'), a: idSchema, b: idSchema });
export type Equal = z.infer<typeof equalSchema>;

export const equal: RelationKind<Equal> = {
  schema: equalSchema,
  title: 'Equal',
  mark: '=',
  words: 'are equal',
  refs: ({ a, b }) => [a, b],
  roles: ({ a, b }, roleOf) => ({ [b]: roleOf(a) === 'circle' ? ['circle'] : ['line'], [a]: ['line', 'circle'] }),
  fit(picks, geometry) {
    const found = picked(picks, geometry, ['line', 'line']) ?? picked(picks, geometry, ['circle', 'circle']);
    return found && { kind: 'equal', a: found[0]!, b: found[1]! };
  },
  equations({ a, b }, { id, layout }) {
    if (layout.roleOf(a) === 'line') return { blocks: [lengthDifference(id, layout.line(a), layout.line(b))] };
    return { substitutions: [{ owner: id, a: layout.circle(a)[2], b: layout.circle(b)[2], offset: 0 }] };
  },
  anchors: ({ a, b }, geometry) => [middleOf(a, geometry), middleOf(b, geometry)],
};
