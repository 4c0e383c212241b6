import { z } from 'zod';
import { ok, type Result } from '../../../result/index.ts';
import { boxAround } from '../../../sketch/pieces/index.ts';
import type { Vec2 } from '../../../math/index.ts';
import { rowWords, sizeFields, sizeRow, things } from '../fields.ts';
import { labelOf, leader, leaderPlaces } from '../ink.ts';
import type { MarkContext, MarkKind, ReadMark } from '../kind.ts';
import { alike, atRim, timesRow } from '../round.ts';
import { onePlain, whereEndOn } from '../tries.ts';
import type { LabelRow } from '../../label.ts';
import type { Spot } from '../../witness/index.ts';

/** The radius of what is round: of one thing, or of several that are alike, as the roundings of one step. */
const radiusSchema = z.strictObject({ kind: z.literal('radius'), ...sizeFields, of: things(1) });
type RadiusMark = z.infer<typeof radiusSchema>;

export const radius: MarkKind<RadiusMark> = {
  schema: radiusSchema,
  title: 'Radius',
  sized: true,
  tries: onePlain('radius'),
  cost: whereEndOn,
  read(mark, held, context): Result<ReadMark> {
    const found = alike(held);
    if (!found.ok) return found;
    const { first, radii } = found.value;
    const row = sizeRow([...timesRow(held.length), 'R'], radii[0]!.value, '', mark);
    if (!row.ok) return row;
    return ok({
      tells: radii,
      words: rowWords(row.value),
      ...(first.endOn && first.point ? atRim(first, row.value, false, context) : pointed(first, row.value, context)),
    });
  },
};

/** Where it is not seen as an arc, the text points to it. */
function pointed({ places }: Spot, row: LabelRow, context: MarkContext): Pick<ReadMark, 'places' | 'draw'> {
  const label = labelOf(context, row);
  const { low, high } = boxAround(places.map((place) => context.paper(place)));
  const tip: Vec2 = [(low[0] + high[0]) / 2, (low[1] + high[1]) / 2];
  return {
    places: () => leaderPlaces(tip, 0, label, context),
    draw: (at) => leader(tip, at, label, context),
  };
}
