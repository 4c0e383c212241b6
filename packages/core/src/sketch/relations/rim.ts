import { z } from 'zod';
import { expressionSchema, idSchema, measuringSchema, placeSchema, type Id } from '../../records/index.ts';
import { GROUND } from '../../solver/index.ts';
import { LENGTH } from '../../units/index.ts';
import { rimAnnotation, rimPlaces } from '../annotation.ts';
import type { DimensionKind, RelationKind } from './kind.ts';
import { middleOf, picked } from './picking.ts';

/** The size of a circle: the shared body of diameter and radius. */
interface Rim<K extends string> {
  kind: K;
  circle: Id;
  value: string;
  measuring?: boolean | undefined;
  at?: [number, number] | undefined;
}

/** What is stored of the size of a circle or an arc. */
export const rimSchema = <K extends string>(kind: K) =>
  z.strictObject({
    kind: z.literal(kind),
    circle: idSchema,
    value: expressionSchema,
    measuring: measuringSchema,
    at: placeSchema.optional(),
  });

/** @param times how many radii the number measures: 2 for the diameter */
export function rimKind<K extends string>(
  kind: K,
  schema: z.ZodType<Rim<K>>,
  times: 1 | 2,
  {
    prefix,
    turn,
    ...told
  }: Pick<RelationKind<never>, 'title' | 'verb' | 'words'> & Pick<DimensionKind<never>, 'turn'> & { prefix: string },
): RelationKind<Rim<K>> {
  return {
    schema,
    ...told,
    refs: ({ circle }) => [circle],
    roles: ({ circle }) => ({ [circle]: ['circle'] }),
    fit(picks, geometry) {
      const found = picked(picks, geometry, ['circle']);
      return found && { kind, circle: found[0]!, value: '1' };
    },
    equations: ({ circle }, { id, layout, value }) => ({
      substitutions: [{ owner: id, a: layout.circle(circle)[2], b: GROUND, offset: value / times }],
    }),
    dimension: {
      asks: LENGTH,
      prefix,
      ...(turn === undefined ? {} : { turn }),
      measure: ({ circle }, geometry) => times * geometry.circle(circle).radius,
      places({ circle }, geometry, space) {
        const { centre, radius } = geometry.circle(circle);
        return rimPlaces(centre, radius, space);
      },
      annotate({ circle }, geometry, space, at) {
        const { centre, radius } = geometry.circle(circle);
        return rimAnnotation(centre, radius, at, space, times === 2);
      },
    },
    anchors: ({ circle }, geometry) => [middleOf(circle, geometry)],
  };
}
