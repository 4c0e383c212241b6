import { z } from 'zod';
import type { Id } from '../../records/index.ts';
import { across, acrossSchema, type Across } from './across/index.ts';
import { angle, angleAt, angleSchema, type Angle } from './angle/index.ts';
import { arcLength, arcLengthSchema, type ArcLength } from './arc-length/index.ts';
import { collinear, collinearSchema, type Collinear } from './collinear/index.ts';
import { concentric, concentricSchema, type Concentric } from './concentric/index.ts';
import { coincident, coincidentSchema, type Coincident } from './coincident/index.ts';
import { diameter, diameterSchema, type Diameter } from './diameter/index.ts';
import { directionAt, distance, distanceSchema, toRims, type Distance } from './distance/index.ts';
import { equal, equalSchema, type Equal } from './equal/index.ts';
import { fixed, fixedSchema, type Fixed } from './fixed/index.ts';
import { horizontal, horizontalSchema, type Horizontal } from './horizontal/index.ts';
import type { RelationKind } from './kind.ts';
import { midpoint, midpointSchema, type Midpoint } from './midpoint/index.ts';
import { offset, offsetSchema, type Offset } from './offset/index.ts';
import { parallel, parallelSchema, type Parallel } from './parallel/index.ts';
import { perpendicular, perpendicularSchema, type Perpendicular } from './perpendicular/index.ts';
import { radius, radiusSchema, type Radius } from './radius/index.ts';
import { radiusAcross, radiusAcrossSchema, type RadiusAcross } from './radius-across/index.ts';
import { symmetric, symmetricSchema, type Symmetric } from './symmetric/index.ts';
import { tangent, tangentSchema, type Tangent } from './tangent/index.ts';
import { uncurved, uncurvedSchema, type Uncurved } from './uncurved/index.ts';
import { vertical, verticalSchema, type Vertical } from './vertical/index.ts';

export type { DimensionKind, EquationContext, Equations, RelationKind } from './kind.ts';
export type { Across, Angle, ArcLength, Coincident, Diameter, Distance, Equal, Horizontal, Midpoint, Offset, Parallel };
export type { Perpendicular, Radius, RadiusAcross, Tangent, Vertical };
export type { Collinear, Concentric, Fixed, Symmetric, Uncurved };
export { angleAt, directionAt, toRims };

/** The register, in the order in which relations are offered: a new kind is a folder beside these and a line here. */
const RELATION_KINDS = {
  coincident,
  horizontal,
  vertical,
  parallel,
  perpendicular,
  equal,
  midpoint,
  tangent,
  concentric,
  collinear,
  symmetric,
  fixed,
  uncurved,
  across,
  distance,
  diameter,
  radius,
  'radius-across': radiusAcross,
  angle,
  'arc-length': arcLength,
  offset,
};

export const relationSchema = z.discriminatedUnion('kind', [
  coincidentSchema,
  horizontalSchema,
  verticalSchema,
  parallelSchema,
  perpendicularSchema,
  equalSchema,
  midpointSchema,
  tangentSchema,
  concentricSchema,
  collinearSchema,
  symmetricSchema,
  fixedSchema,
  uncurvedSchema,
  acrossSchema,
  distanceSchema,
  diameterSchema,
  radiusSchema,
  radiusAcrossSchema,
  angleSchema,
  arcLengthSchema,
  offsetSchema,
]);
export type Relation = z.infer<typeof relationSchema>;
export type RelationName = Relation['kind'];
export type Relations = Readonly<Record<Id, Relation>>;

export const RELATION_NAMES = Object.keys(RELATION_KINDS) as RelationName[];

/** What the register knows of a kind. */
export const relationKind = (kind: RelationName): RelationKind<Relation> =>
  RELATION_KINDS[kind] as unknown as RelationKind<Relation>;

/** A relation with a number. */
export type SizedRelation = Extract<Relation, { value: string }>;
/** Has it a number? */
export const isSized = (relation: Relation): relation is SizedRelation => 'value' in relation;
