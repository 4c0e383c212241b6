import { z } from 'zod';
import { crossD, dotD, subD, type DualVec } from '../../../math/index.ts';
import { expressionSchema, idSchema, measuringSchema, placeSchema } from '../../../records/index.ts';
import { LENGTH } from '../../../units/index.ts';
import { arcAnnotation, arcPlaces } from '../../annotation.ts';
import type { Geometry } from '../../geometry.ts';
import type { Arc as ArcPiece } from '../../pieces/index.ts';
import { formulaBlock, wrapped } from '../../residuals.ts';
import type { RelationKind } from '../kind.ts';
import { middleOf, picked } from '../picking.ts';

/** The length of an arc along its curve. */
const arcLengthSchema = z.strictObject({
  kind: z.literal('arc-length'),
  arc: idSchema,
  value: expressionSchema,
  measuring: measuringSchema,
  at: placeSchema.optional(),
});
type ArcLength = z.infer<typeof arcLengthSchema>;

const pieceOf = (geometry: Geometry, arc: string) => geometry.pieces(arc)[0] as ArcPiece;

export const arcLength: RelationKind<ArcLength> = {
  schema: arcLengthSchema,
  title: 'Arc length',
  verb: { key: '', says: 'Measures along an arc.', wants: 'an arc' },
  words: 'is as long as',
  refs: ({ arc }) => [arc],
  roles: ({ arc }) => ({ [arc]: ['circle'] }),
  fit(picks, geometry) {
    const found = picked(picks, geometry, ['circle']);
    return found && geometry.entities[found[0]!]?.kind === 'arc'
      ? { kind: 'arc-length', arc: found[0]!, value: '1' }
      : undefined;
  },
  equations({ arc }, { id, layout, start, value }) {
    const { a, b } = layout.entity(arc, 'arc');
    const drawn = pieceOf(start, arc).sweep;
    return {
      blocks: [
        formulaBlock(id, [...layout.circle(arc), ...layout.point(a), ...layout.point(b)], (v) => {
          const centre: DualVec = [v[0]!, v[1]!];
          const [p, q] = [subD([v[3]!, v[4]!], centre), subD([v[5]!, v[6]!], centre)];
          const sweep = crossD(p, q).atan2(dotD(p, q));
          // of the sweeps that differ by whole turns the one next to the drawing
          const turned = sweep.plus(drawn + wrapped(sweep.value - drawn) - sweep.value);
          return [turned.times(v[2]!).plus(-value)];
        }),
      ],
    };
  },
  ofEnds: ({ arc }) => [arc],
  dimension: {
    asks: LENGTH,
    prefix: '⌒',
    measure({ arc }, geometry) {
      const { radius, sweep } = pieceOf(geometry, arc);
      return radius * sweep;
    },
    places({ arc }, geometry, { gap }) {
      const { centre, radius, start, sweep } = pieceOf(geometry, arc);
      const radii = [1, 2, 3, 4, 5].map((times) => radius + times * gap);
      return arcPlaces(centre, radii, start + sweep / 2, gap);
    },
    annotate({ arc }, geometry, { gap }, at) {
      const { centre, start, sweep } = pieceOf(geometry, arc);
      const reach = Math.hypot(at[0] - centre[0], at[1] - centre[1]) - gap * 0.7;
      return arcAnnotation(centre, Math.max(reach, gap), start, sweep, gap);
    },
  },
  anchors: ({ arc }, geometry) => [middleOf(arc, geometry)],
};
