import type { Id, RecordOf } from '../../records/index.ts';
import { across } from './across/index.ts';
import { angle } from './angle/index.ts';
import { axis } from './axis/index.ts';
import { arcLength } from './arc-length/index.ts';
import { collinear } from './collinear/index.ts';
import { concentric } from './concentric/index.ts';
import { coincident } from './coincident/index.ts';
import { diameter } from './diameter/index.ts';
import { directionAt, distance } from './distance/index.ts';
import { equal } from './equal/index.ts';
import { fixed } from './fixed/index.ts';
import { horizontal } from './horizontal/index.ts';
import type { Geometry } from '../geometry.ts';
import type { RelationKind } from './kind.ts';
import { midpoint } from './midpoint/index.ts';
import { offset, withEndMoved } from './offset/index.ts';
import { parallel } from './parallel/index.ts';
import { perpendicular } from './perpendicular/index.ts';
import { relationRegister } from './register.ts';
import { radius } from './radius/index.ts';
import { radiusAcross } from './radius-across/index.ts';
import { symmetric } from './symmetric/index.ts';
import { tangent } from './tangent/index.ts';
import { uncurved } from './uncurved/index.ts';
import { vertical } from './vertical/index.ts';

export { directionAt, withEndMoved };

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
  axis,
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

/** How many picks are related at once. */
const MOST_PICKS = 64;

/**
 * The relations of a kind between picked entities, in any order: the one that takes them all, else one for each of them,
 * else one between each and the same of them: several lines parallel to the first, several points on one circle. Empty
 * where it makes no sense for them; a number is never put on many things.
 */
export function relationsBetween(kind: RelationName, picks: readonly Id[], geometry: Geometry): readonly Relation[] {
  const { fit, dimension } = relationKind(kind);
  const one = fit(picks, geometry);
  if (one) return [one];
  if (dimension || picks.length < 2 || picks.length > MOST_PICKS) return [];
  const all = (groups: readonly (readonly Id[])[]): readonly Relation[] => {
    const found = groups.flatMap((group) => fit(group, geometry) ?? []);
    return found.length === groups.length ? found : [];
  };
  const each = all(picks.map((pick) => [pick]));
  if (each.length > 0) return each;
  const about = (hub: Id) => all(picks.filter((pick) => pick !== hub).map((pick) => [hub, pick]));
  return picks.map(about).find((found) => found.length > 0) ?? [];
}
