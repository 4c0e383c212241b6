import { distance3, frameAcross, type Frame, type RigidTransform, type Vec3 } from '../../math/index.ts';
import { nearestOnCurve, type Axis } from '../../geometry/index.ts';
import type { EdgeFacts } from '../../kernel-port/index.ts';
import type { Fingerprint, Reference } from '../reference.ts';
import { body, type BodyThing } from './body.ts';
import { datum, type Datum, type DatumThing } from './datum.ts';
import { drawn, type DrawnThing } from './drawn.ts';
import { edge, type EdgeThing } from './edge.ts';
import { face, type FaceThing } from './face.ts';
import { ELSEWHERE, type Reading, type ThingKind } from './kind.ts';
import { vertex, type VertexThing } from './vertex.ts';

export { frameSeenFrom, toldOfDatum, type Datum } from './datum.ts';
export { rimsOf } from './face.ts';
export { transformEdge, transformTopology } from './facts.ts';
export { type Reading } from './kind.ts';
export type { DrawnThing };

/** What fits a rule: edges or faces. */
interface RuleThing {
  readonly to: 'rule';
  readonly things: readonly Thing[];
}

/** What a reference was found to be. Things of a body know the body, by its place among those before the step. */
export type Thing = FaceThing | EdgeThing | VertexThing | BodyThing | RuleThing | DatumThing | DrawnThing;

/** Several together: it stands for nothing by itself. Here, since what it consists of are things of all kinds. */
const rule: ThingKind<RuleThing> = {
  transform: ({ things }, by) => ({ to: 'rule', things: things.map((one) => transformThing(one, by)) }),
};

/** The register: a new kind of thing is a file beside these and a line here. */
const KINDS: { readonly [T in Thing['to']]: ThingKind<Extract<Thing, { to: T }>> } = {
  face,
  edge,
  vertex,
  body,
  rule,
  datum,
  drawn,
};
const kindOf = (thing: Thing): ThingKind<Thing> => KINDS[thing.to];

/**
 * A thing of another part in the space of this one. It knows no body, and of the body's topology only what bounds it.
 * @param by a transform without reflection
 */
export const transformThing = (thing: Thing, by: RigidTransform): Thing => kindOf(thing).transform(thing, by);
/** The lasting name of something of a body; empty of all else. */
export const nameOfThing = (thing: Thing): string => kindOf(thing).name?.(thing) ?? '';
/** What a thing looks like. Undefined for what is drawn, for axes and curves, and for several together. */
export const fingerprintOf = (thing: Thing): Fingerprint | undefined => kindOf(thing).fingerprint?.(thing);
/** The plane that a thing lies in: of a flat face, a datum, the plane of a round edge is none. */
export const planeOf = (thing: Thing): Frame | undefined => kindOf(thing).plane?.(thing);
/** The axis of a thing: along what is straight, through what is round. */
export const axisOf = (thing: Thing): Axis | undefined => kindOf(thing).axis?.(thing);
/** The place that a thing stands for: a corner, a drawn point, the centre of what is round. */
export const pointOf = (thing: Thing): Vec3 | undefined => kindOf(thing).point?.(thing);
/** Where one points to a thing of a body. */
export const middleOf = (thing: Thing): Vec3 | undefined => kindOf(thing).middle?.(thing);
/** The curves of a thing: an edge, a drawn curve. */
export const curvesOf = (thing: Thing): readonly EdgeFacts[] => kindOf(thing).curves?.(thing) ?? [];
/** What can be read off one thing: the length and radius of an edge, the area of a face. */
export const readingsOf = (thing: Thing): Reading[] => kindOf(thing).readings?.(thing) ?? [];

/** Is it of a body of this part, so that a step can change it? */
export const isOwn = (thing: Thing): boolean => 'body' in thing && thing.body !== ELSEWHERE;

/** The place of curves nearest to another, and the direction there; undefined where there is none. */
export function tangentNear(curves: readonly EdgeFacts[], place: Vec3): { at: Vec3; along: Vec3 } | undefined {
  let best: { at: Vec3; along: Vec3 } | undefined;
  for (const { curve } of curves) {
    const near = nearestOnCurve(curve, place);
    if (near && (!best || distance3(near.at, place) < distance3(best.at, place))) best = near;
  }
  return best;
}

/** Third-angle names: z is up, Front is seen from -y, Right from +x. Each frame's z points at the viewer. */
export const ORIGIN_PLANES = {
  front: { origin: [0, 0, 0], x: [1, 0, 0], y: [0, 0, 1], z: [0, -1, 0] },
  top: { origin: [0, 0, 0], x: [1, 0, 0], y: [0, 1, 0], z: [0, 0, 1] },
  right: { origin: [0, 0, 0], x: [0, 1, 0], y: [0, 0, 1], z: [1, 0, 0] },
} as const satisfies Record<string, Frame>;

/** The planes, axes and the point that every part has. */
export const ORIGIN_DATUMS = {
  front: { form: 'plane', frame: ORIGIN_PLANES.front },
  top: { form: 'plane', frame: ORIGIN_PLANES.top },
  right: { form: 'plane', frame: ORIGIN_PLANES.right },
  x: { form: 'axis', origin: [0, 0, 0], direction: [1, 0, 0] },
  y: { form: 'axis', origin: [0, 0, 0], direction: [0, 1, 0] },
  z: { form: 'axis', origin: [0, 0, 0], direction: [0, 0, 1] },
  origin: { form: 'point', at: [0, 0, 0] },
} as const satisfies Record<string, Datum>;

/** The frame of a plane as it was when it was chosen; undefined where nobody has kept it. */
export function frameOfPrint(reference: Reference): Frame | undefined {
  const print = 'print' in reference ? reference.print : undefined;
  return print?.along && print.form === 'plane' ? frameAcross(print.at, print.along) : undefined;
}
