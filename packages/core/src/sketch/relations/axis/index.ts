import { z } from 'zod';
import { add2, direction2, dot2, sub2, type Vec2 } from '../../../math/index.ts';
import { expressionSchema, idSchema, measuringSchema, placeSchema } from '../../../records/index.ts';
import { GROUND } from '../../../solver/index.ts';
import { LENGTH } from '../../../units/index.ts';
import type { Geometry } from '../../geometry.ts';
import { carrierOf } from '../../pieces/index.ts';
import { pointDistance } from '../../residuals.ts';
import type { RelationKind } from '../kind.ts';
import { middleOf, picked } from '../picking.ts';
import { drawnAlong } from '../span.ts';

/** The whole length of an axis of an ellipse: of the first, on which its tip lies, or of the second, square to that. */
const axisSchema = z.strictObject({
  kind: z.literal('axis'),
  ellipse: idSchema,
  axis: z.enum(['first', 'second']),
  value: expressionSchema,
  measuring: measuringSchema,
  at: placeSchema.optional(),
});
type Axis = z.infer<typeof axisSchema>;

/** From end to end of the axis, and its direction. */
function spanOf({ ellipse, axis }: Axis, geometry: Geometry): readonly [Vec2, Vec2, Vec2] {
  const { centre, tip, minor } = geometry.ellipse(ellipse);
  const half = axis === 'first' ? sub2(tip, centre) : carrierOf(centre, tip, minor).minor;
  return [sub2(centre, half), add2(centre, half), direction2(half) ?? [1, 0]];
}

export const axis: RelationKind<Axis> = {
  schema: axisSchema,
  title: 'Axis length',
  verb: { key: 'D', says: 'Measures an ellipse across, from rim to rim.', wants: 'an ellipse' },
  words: 'measures along an axis',
  way: (relation) => relation.axis,
  refs: ({ ellipse }) => [ellipse],
  roles: ({ ellipse }) => ({ [ellipse]: ['ellipse'] }),
  fit(picks, geometry) {
    const found = picked(picks, geometry, ['ellipse']);
    return found && { kind: 'axis', ellipse: found[0]!, axis: 'first', value: '1' };
  },
  equations({ ellipse, axis: which }, { id, layout, value }) {
    const [cx, cy, tx, ty, minor] = layout.ellipse(ellipse);
    if (which === 'second') return { substitutions: [{ owner: id, a: minor, b: GROUND, offset: value / 2 }] };
    return { blocks: [pointDistance(id, [cx, cy], [tx, ty], value / 2)] };
  },
  dimension: {
    asks: LENGTH,
    turn: 4,
    /** Beyond the side of the ellipse that an axis ends at, the other one is meant: its dimension line lies there. */
    toText(relation, geometry, at) {
      const { centre, tip, minor } = geometry.ellipse(relation.ellipse);
      const [first, second] = (['first', 'second'] as const).map(
        (one) => spanOf({ ...relation, axis: one }, geometry)[2],
      );
      const out = sub2(at, centre);
      const long = Math.hypot(...sub2(tip, centre));
      const isBeside = Math.abs(dot2(out, second!)) / minor >= Math.abs(dot2(out, first!)) / long;
      return { ...relation, axis: isBeside ? 'first' : 'second' };
    },
    ways: (relation) => [
      { title: 'first axis', relation: { ...relation, axis: 'first' } },
      { title: 'second axis', relation: { ...relation, axis: 'second' } },
    ],
    measure(relation, geometry) {
      const [p, q] = spanOf(relation, geometry);
      return Math.hypot(...sub2(q, p));
    },
    ...drawnAlong(spanOf),
  },
  anchors: ({ ellipse }, geometry) => [middleOf(ellipse, geometry)],
};
