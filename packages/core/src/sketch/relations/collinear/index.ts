import { z } from 'zod';
import { idSchema } from '../../../records/index.ts';
import { lineDistance } from '../../residuals.ts';
import type { RelationKind } from '../kind.ts';
import { middleOf, picked } from '../picking.ts';

/** Two lines along one: both ends of the second lie on the first or its extension. */
const collinearSchema = z.strictObject({ kind: z.literal('collinear'), a: idSchema, b: idSchema });
type Collinear = z.infer<typeof collinearSchema>;

export const collinear: RelationKind<Collinear> = {
  schema: collinearSchema,
  title: 'Collinear',
  verb: { key: 'U', says: 'Puts two lines onto one straight line.', wants: 'two lines or more' },
  mark: '—',
  words: 'lie along one line',
  refs: ({ a, b }) => [a, b],
  roles: ({ a, b }) => ({ [a]: ['line'], [b]: ['line'] }),
  fit(picks, geometry) {
    const lines = picked(picks, geometry, ['line', 'line']);
    return lines && { kind: 'collinear', a: lines[0]!, b: lines[1]! };
  },
  equations({ a, b }, { id, layout }) {
    const line = layout.line(a);
    const [px, py, qx, qy] = layout.line(b);
    const on = [
      [px, py],
      [qx, qy],
    ];
    // an end that the two lines share lies on both already
    const own = on.filter(([x]) => x !== line[0] && x !== line[2]);
    return { blocks: own.map((end) => lineDistance(id, line, end, 1, 0)) };
  },
  anchors: ({ a, b }, geometry) => [middleOf(a, geometry), middleOf(b, geometry)],
};
