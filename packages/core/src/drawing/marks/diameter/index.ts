import { z } from 'zod';
import type { FaceFacts } from '../../../kernel-port/index.ts';
import { ok, type Result } from '../../../result/index.ts';
import { rowWords, sizeFields, sizeRow, things } from '../fields.ts';
import type { MarkKind, ReadMark } from '../kind.ts';
import { alike, atRim, fromSide, timesRow } from '../round.ts';
import { onePlain } from '../tries.ts';

/** The diameter of what is round: of one thing, or of several that are alike. */
const diameterSchema = z.strictObject({ kind: z.literal('diameter'), ...sizeFields, of: things(1) });
type DiameterMark = z.infer<typeof diameterSchema>;

const isHollow = ({ surface }: FaceFacts): boolean => 'hollow' in surface && surface.hollow;

export const diameter: MarkKind<DiameterMark> = {
  schema: diameterSchema,
  title: 'Diameter',
  sized: true,
  tries: onePlain('diameter'),
  // bores are told where they are seen as circles, what is turned from the side
  cost(_, [first]) {
    const isBore = first !== undefined && 'face' in first.thing && isHollow(first.thing.face);
    return isBore === (first?.spot?.endOn ?? false) ? 0 : 1;
  },
  read(mark, held, context): Result<ReadMark> {
    const found = alike(held);
    if (!found.ok) return found;
    const { first, radii } = found.value;
    const row = sizeRow([...timesRow(held.length), { sign: 'diameter' }], 2 * radii[0]!.value, '', mark);
    if (!row.ok) return row;
    return ok({
      tells: radii.map((radius) => radius.scaled(2)),
      words: rowWords(row.value),
      ...(first.endOn ? atRim(first, row.value, true, context) : fromSide(first, row.value, context)),
    });
  },
};
