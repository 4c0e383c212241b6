import type { Id, RecordOf } from '../../records/index.ts';
import { across, type Across } from './across/index.ts';
import { angle, type Angle } from './angle/index.ts';
import { arcLength, type ArcLength } from './arc-length/index.ts';
import { collinear, type Collinear } from './collinear/index.ts';
import { concentric, type Concentric } from './concentric/index.ts';
import { coincident, type Coincident } from './coincident/index.ts';
import { diameter, type Diameter } from './diameter/index.ts';
import { directionAt, distance, type Distance } from './distance/index.ts';
import { equal, type Equal } from './equal/index.ts';
import { fixed, type Fixed } from './fixed/index.ts';
import { horizontal, type Horizontal } from './horizontal/index.ts';
import type { RelationKind } from './kind.ts';
import { midpoint, type Midpoint } from './midpoint/index.ts';
import { offset, type Offset } from './offset/index.ts';
import { parallel, type Parallel } from './parallel/index.ts';
import { perpendicular, type Perpendicular } from './perpendicular/index.ts';
import { relationRegister } from './register.ts';
import { radius, type Radius } from './radius/index.ts';
import { radiusAcross, type RadiusAcross } from './radius-across/index.ts';
import { symmetric, type Symmetric } from './symmetric/index.ts';
import { tangent, type Tangent } from './tangent/index.ts';
import { uncurved, type Uncurved } from './uncurved/index.ts';
import { vertical, type Vertical } from './vertical/index.ts';

export type { DimensionKind, EquationContext, Equations, RelationKind } from './kind.ts';
export type { Across, Angle, ArcLength, Coincident, Diameter, Distance, Equal, Horizontal, Midpoint, Offset, Parallel };
export type { Perpendicular, Radius, RadiusAcross, Tangent, Vertical };
export type { Collinear, Concentric, Fixed, Symmetric, Uncurved };
export { directionAt };

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

const register = relationRegister(RELATION_KINDS);
export const relationSchema = register.schema;
export type Relation = RecordOf<typeof RELATION_KINDS>;
export type RelationName = Relation['kind'];
export type Relations = Readonly<Record<Id, Relation>>;

export const RELATION_NAMES: readonly RelationName[] = register.names;
/** What the register knows of a kind. */
export const relationKind = (kind: RelationName): RelationKind<Relation> => register.kind(kind);
/** The kinds that are offered for what is chosen, with their keys. */
export const OFFERED_RELATIONS = register.offered;
/** The kinds that the size tool makes, in the order in which it asks whether they fit. */
export const CLICKED_SIZES = register.clicked;

/** A relation with a number. */
export type SizedRelation = Extract<Relation, { value: string }>;
/** Has it a number? */
export const isSized = (relation: Relation): relation is SizedRelation => 'value' in relation;
