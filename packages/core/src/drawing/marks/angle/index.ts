import { z } from 'zod';
import { distance2, type Vec2 } from '../../../math/index.ts';
import { fail, ok, type Result } from '../../../result/index.ts';
import { arcAnnotation, arcPlaces } from '../../../sketch/annotation.ts';
import { arcBetween, type Piece } from '../../../sketch/pieces/index.ts';
import { segment } from '../../picture.ts';
import { cornerOf, anchors, type Corner } from '../between.ts';
import { rowWords, sizeFields, sizeRow, things } from '../fields.ts';
import { onePlain } from '../tries.ts';
import { gapOf, inked, labelOf } from '../ink.ts';
import type { MarkContext, MarkKind, ReadMark } from '../kind.ts';
import type { Label } from '../../label.ts';
import type { Spot } from '../../witness/index.ts';

/** The angle between two lines of a view. */
const angleSchema = z.strictObject({ kind: z.literal('angle'), ...sizeFields, of: things(2).max(2) });
type AngleMark = z.infer<typeof angleSchema>;

export const angle: MarkKind<AngleMark> = {
  schema: angleSchema,
  title: 'Angle',
  sized: true,
  between: true,
  tries: (picks, view) => (picks.length === 2 ? onePlain('angle')(picks, view) : []),
  read(mark, held, context): Result<ReadMark> {
    const [a, b] = held.map(({ spot }) => spot);
    if (!a || !b) return fail('mark.leans');
    const corner = cornerOf(a, b);
    if (!corner.ok) return corner;
    const row = sizeRow([], (corner.value.amount.value * 180) / Math.PI, '°', mark);
    if (!row.ok) return row;
    const label = labelOf(context, row.value);
    return ok({
      tells: [corner.value.amount],
      words: rowWords(row.value),
      ...drawing(corner.value, [a, b], label, context),
    });
  },
};

function drawing({ at: corner, from, sweep }: Corner, sides: readonly Spot[], label: Label, context: MarkContext) {
  const gap = gapOf(context);
  const centre = context.paper(corner);
  // beyond the nearer ends of the sides first
  const reach = sides.map((side) => Math.min(...anchors(side).map((end) => distance2(context.paper(end), centre))));
  const least = Math.max(...reach) + gap;
  return {
    places: () =>
      arcPlaces(centre, [least, 1.6 * gap, least + gap, 3 * gap, least + 2 * gap, 5 * gap], from + sweep / 2, gap),
    draw(at: Vec2) {
      const radius = Math.max(distance2(at, centre) - gap * 0.7, gap);
      const drawn = arcAnnotation(centre, radius, from, sweep, gap);
      const [start, end] = [drawn.strokes[0]![0]!, drawn.strokes[0]!.at(-1)!];
      const arc = sweep > 0 ? arcBetween('', centre, radius, start, end) : arcBetween('', centre, radius, end, start);
      const ink = inked({ ...drawn, strokes: [] }, label, 0);
      return { ...ink, pieces: [arc, ...extensions(sides, [start, end], centre, context), ...ink.pieces] };
    },
  };
}

/** From the sides to the ends of the arc, where those lie beyond. */
function extensions(sides: readonly Spot[], ends: readonly Vec2[], centre: Vec2, context: MarkContext): Piece[] {
  return sides.flatMap((side, k) => {
    const far = anchors(side)
      .map((place) => context.paper(place))
      .reduce((a, b) => (distance2(b, centre) > distance2(a, centre) ? b : a));
    const end = ends[k]!;
    const beyond = distance2(end, centre) - distance2(far, centre);
    if (beyond < 0.5) return [];
    const share = 1 + 1.5 / distance2(end, centre);
    return [segment(far, [centre[0] + (end[0] - centre[0]) * share, centre[1] + (end[1] - centre[1]) * share])];
  });
}
