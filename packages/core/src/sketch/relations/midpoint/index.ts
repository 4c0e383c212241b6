import { z } from 'zod';
import { idSchema } from '../../../records/index.ts';
import type { RelationKind } from '../kind.ts';
import { picked } from '../picking.ts';

/** A point halfway between the ends of a line. */
const midpointSchema = z.strictObject({ kind: z.literal('midpoint'), point: idSchema, line: idSchema });
type Midpoint = z.infer<typeof midpointSchema>;

export const midpoint: RelationKind<Midpoint> = {
  schema: midpointSchema,
  title: 'Midpoint',
  verb: { key: 'M', says: 'Puts a point in the middle of a line or arc.', wants: 'a point and a line or arc' },
  mark: 'M',
  words: 'is the middle',
  refs: ({ point, line }) => [point, line],
  roles: ({ point, line }) => ({ [point]: ['point'], [line]: ['line'] }),
  fit(picks, geometry) {
    const found = picked(picks, geometry, ['point', 'line']);
    return found && { kind: 'midpoint', point: found[0]!, line: found[1]! };
  },
  equations: ({ point, line }, { id, layout }) => ({
    blocks: [
      {
        owner: id,
        unknowns: [...layout.point(point), ...layout.line(line)],
        residuals: 2,
        evaluate(v, r, j) {
          for (const k of [0, 1] as const) {
            r[k] = v[k]! - (v[2 + k]! + v[4 + k]!) / 2;
            j[k * 6 + k] = 1;
            j[k * 6 + 2 + k] = -0.5;
            j[k * 6 + 4 + k] = -0.5;
          }
        },
      },
    ],
  }),
  ofEnds: ({ line }) => [line],
  anchors: ({ point }, geometry) => [geometry.point(point)],
};
