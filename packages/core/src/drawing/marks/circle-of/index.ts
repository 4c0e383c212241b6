import { z } from 'zod';
import { subD, type Dual, type DualVec } from '../../../math/index.ts';
import { fail, ok, type Result } from '../../../result/index.ts';
import { fullCircle } from '../../../sketch/pieces/index.ts';
import { formatAmount } from '../../../units/index.ts';
import type { LabelRow } from '../../label.ts';
import { labelOf, leaderPlaces, toRim } from '../ink.ts';
import { rowWords, sizeFields, sizeRow, things } from '../fields.ts';
import { onePlain } from '../tries.ts';
import type { MarkKind, ReadMark } from '../kind.ts';

/** Round things on a circle, evenly spaced: the diameter of that circle about a thing in its middle. */
const circleOfSchema = z.strictObject({
  kind: z.literal('circle-of'),
  ...sizeFields,
  /** The thing in the middle, then those round it. */
  of: things(3),
});
type CircleOfMark = z.infer<typeof circleOfSchema>;

const EVEN = 1e-6;

export const circleOf: MarkKind<CircleOfMark> = {
  schema: circleOfSchema,
  title: 'Circle of holes',
  sized: true,
  tries: (picks, view) => (picks.length > 2 ? onePlain('circle-of')(picks, view) : []),
  read(mark, held, context): Result<ReadMark> {
    const points = held.map(({ spot }) => spot?.point);
    if (points.some((point) => !point)) return fail('mark.leans');
    const [middle, ...round] = points as DualVec[];
    const arms = round.map((point) => subD(point, middle!));
    const reach = arms.map(([x, y]) => x.times(x).add(y.times(y)).sqrt());
    const far = reach[0]!.value;
    const turns = stepsBetween(arms);
    const count = round.length;
    const uneven = turns.some(({ value }) => Math.abs(value - (2 * Math.PI) / count) > EVEN);
    if (far < 1e-6 || reach.some(({ value }) => Math.abs(value - far) > EVEN) || uneven) return fail('mark.uneven');
    const size = sizeRow([{ sign: 'diameter' }], 2 * far, '', mark);
    if (!size.ok) return size;
    const row: LabelRow = [...size.value, ` (${count}× ${formatAmount(360 / count, 2)}°)`];
    const label = labelOf(context, row);
    const centre = context.paper([middle![0].value, middle![1].value]);
    const radius = far * context.factor;
    return ok({
      toCentres: true,
      tells: [...reach.map((one) => one.scaled(2)), ...turns.slice(0, -1)],
      words: rowWords(row),
      places: () => leaderPlaces(centre, radius, label, context),
      draw: (at) => ({ ...toRim(centre, radius, at, label, context), axes: [fullCircle('', centre, radius)] }),
    });
  },
};

/** The angles from each to the next all round, in their order about the middle. */
function stepsBetween(arms: readonly DualVec[]): Dual[] {
  const angles = arms.map(([x, y]) => y.atan2(x)).sort((a, b) => a.value - b.value);
  return angles.map((angle, k) => {
    const next = angles[(k + 1) % angles.length]!;
    const step = next.sub(angle);
    return step.value <= 0 ? step.plus(2 * Math.PI) : step;
  });
}
