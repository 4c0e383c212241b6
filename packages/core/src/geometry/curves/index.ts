import type { RigidTransform, Vec3 } from '../../math/index.ts';
import type { Axis } from '../axis.ts';
import { armsOfCircle, circle, type Circle } from './circle.ts';
import { armsOfEllipse, ellipse, type Ellipse } from './ellipse.ts';
import { free, type FreeCurve } from './free.ts';
import { helix, type Helix } from './helix.ts';
import type { CurveKind, CurvePlace, Run } from './kind.ts';
import { alongLine, line, type Line } from './line.ts';
import type { Arms } from './round.ts';

export { helixAt, helixLength, helixSpans } from './helix.ts';
export { bezierAt } from './free.ts';
export { angleOn } from './round.ts';
export type { Helix };

/** A curve in space, exact. */
export type SpaceCurve = Line | Circle | Ellipse | Helix | FreeCurve;

/** The register: a new kind of curve is a file beside these and a line here. */
const KINDS: { readonly [F in SpaceCurve['form']]: CurveKind<Extract<SpaceCurve, { form: F }>> } = {
  line,
  circle,
  ellipse,
  helix,
  free,
};
const kindOf = (curve: SpaceCurve): CurveKind<SpaceCurve> => KINDS[curve.form];

/** How fingerprints call its kind. */
export const lookOfCurve = (curve: SpaceCurve): string => kindOf(curve).look;
/**
 * How a curve reads: "straight 24 mm", "rim ⌀5.5 mm".
 * @param length mm @param isClosed has it no ends? @param told a length in words
 */
export const wordsOfCurve = (
  curve: SpaceCurve,
  length: number,
  isClosed: boolean,
  told: (mm: number) => string,
): string => kindOf(curve).words(curve, length, isClosed, told);
/** A curve elsewhere. @param by a transform without reflection */
export const transformCurve = (curve: SpaceCurve, by: RigidTransform): SpaceCurve => kindOf(curve).transform(curve, by);
/** A curve as stretches that follow each other, each a map from 0..1; what is straight or round runs evenly. */
export const runsOf = (curve: SpaceCurve): readonly Run[] => kindOf(curve).runs(curve);
/** Where a curve begins and ends; none where it is closed. */
export const endsOfCurve = (curve: SpaceCurve): readonly Vec3[] => kindOf(curve).ends(curve);
/** Places between which a curve lies, near enough to tell how long an axis is to be drawn. */
export const hullOf = (curve: SpaceCurve): readonly Vec3[] => kindOf(curve).hull(curve);
/** Places on a curve: its ends and its middle, of what is closed four. */
export const placesOnCurve = (curve: SpaceCurve, middle: Vec3): readonly Vec3[] => kindOf(curve).marks(curve, middle);
/** The place of a curve nearest to another, and its direction there; undefined where it has no length. */
export const nearestOnCurve = (curve: SpaceCurve, place: Vec3): CurvePlace | undefined =>
  kindOf(curve).nearest(curve, place);
/** What a straight curve runs along, or a circle goes round. */
export const axisOfCurve = (curve: SpaceCurve): Axis | undefined => kindOf(curve).axis?.(curve);
/** The centre of a circle or an ellipse. */
export const centreOfCurve = (curve: SpaceCurve): Vec3 | undefined => kindOf(curve).centre?.(curve);
/** The radius of a circle, mm. */
export const radiusOfCurve = (curve: SpaceCurve): number | undefined => kindOf(curve).radius?.(curve);

/** Places along a curve, near enough to each other to draw it. */
export function placesAlong(curve: SpaceCurve): Vec3[] {
  const { chords } = kindOf(curve);
  return runsOf(curve).flatMap((at, n) =>
    Array.from({ length: chords + 1 }, (_, k) => at(k / chords)).slice(n === 0 ? 0 : 1),
  );
}

const ARMS = { circle: armsOfCircle, ellipse: armsOfEllipse };
/** The two arms of a round curve at a right angle in its plane, in the sense in which it runs, mm. */
export const armsOf = (curve: Circle | Ellipse): Arms => ARMS[curve.form](curve as never);

/** The unit vector along which a curve runs if it is straight. */
export const straightAlong = (curve: SpaceCurve): Vec3 | undefined =>
  curve.form === 'line' ? alongLine(curve) : undefined;
