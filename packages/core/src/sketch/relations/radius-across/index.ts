import { z } from 'zod';
import { add2, direction2, type Vec2 } from '../../../math/index.ts';
import { expressionSchema, idSchema, measuringSchema, placeSchema } from '../../../records/index.ts';
import { GROUND } from '../../../solver/index.ts';
import { LENGTH } from '../../../units/index.ts';
import type { Geometry } from '../../geometry.ts';
import { carrierOf } from '../../pieces/index.ts';
import type { RelationKind } from '../kind.ts';
import { middleOf, picked } from '../picking.ts';
import { drawnAlong } from '../span.ts';

/** The radius of an ellipse square to the axis on which its tip lies. */
const radiusAcrossSchema = z.strictObject({
  kind: z.literal('radius-across'),
  ellipse: idSchema,
  value: expressionSchema,
  measuring: measuringSchema,
  at: placeSchema.optional(),
});
type RadiusAcross = z.infer<typeof radiusAcrossSchema>;

/** From the centre to the end of the radius, and its direction. */
function spanOf({ ellipse }: RadiusAcross, geometry: Geometry): readonly [Vec2, Vec2, Vec2] {
  const { centre, tip, minor } = geometry.ellipse(ellipse);
  const across = carrierOf(centre, tip, minor).minor;
  return [centre, add2(centre, across), direction2(across) ?? [0, 1]];
}

export const radiusAcross: RelationKind<RadiusAcross> = {
  schema: radiusAcrossSchema,
  title: 'Radius across',
  verb: { key: '', says: 'Measures an ellipse from its middle to the rim, along its other axis.', wants: 'an ellipse' },
  words: 'reaches across',
  refs: ({ ellipse }) => [ellipse],
  roles: ({ ellipse }) => ({ [ellipse]: ['ellipse'] }),
  fit(picks, geometry) {
    const found = picked(picks, geometry, ['ellipse']);
    return found && { kind: 'radius-across', ellipse: found[0]!, value: '1' };
  },
  equations: ({ ellipse }, { id, layout, value }) => ({
    substitutions: [{ owner: id, a: layout.ellipse(ellipse)[4], b: GROUND, offset: value }],
  }),
  dimension: {
    asks: LENGTH,
    prefix: 'R',
    measure: ({ ellipse }, geometry) => geometry.ellipse(ellipse).minor,
    ...drawnAlong(spanOf),
  },
  anchors: ({ ellipse }, geometry) => [middleOf(ellipse, geometry)],
};
