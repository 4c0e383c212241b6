import {
  add3,
  distance3,
  dot3,
  footOnLine3,
  frameAcross,
  scale3,
  sub3,
  direction3,
  type Frame,
  type Vec3,
} from '../math/index.ts';
import type { EdgeFacts, FaceFacts, SpaceCurve, Topology, VertexFacts } from '../kernel-port/index.ts';
import { helixSpans } from './helix.ts';
import type { Reference } from './reference.ts';

/** A datum, as a step makes it. */
export type Datum =
  | { readonly form: 'plane'; readonly frame: Frame }
  | { readonly form: 'axis'; readonly origin: Vec3; readonly direction: Vec3 }
  | { readonly form: 'point'; readonly at: Vec3 }
  | { readonly form: 'curve'; readonly edge: EdgeFacts }
  | { readonly form: 'frame'; readonly frame: Frame };

/** What a reference was found to be. Things of a body know the body, by its place among those before the step. */
export type Thing =
  | { readonly to: 'face'; readonly face: FaceFacts; readonly body: number; readonly topology: Topology }
  | { readonly to: 'edge'; readonly edge: EdgeFacts; readonly body: number }
  | { readonly to: 'vertex'; readonly vertex: VertexFacts; readonly body: number }
  | { readonly to: 'body'; readonly body: number; readonly topology: Topology }
  /** What fits a rule: edges or faces. */
  | { readonly to: 'rule'; readonly things: readonly Thing[] }
  | { readonly to: 'datum'; readonly datum: Datum }
  | { readonly to: 'drawn'; readonly curves: readonly EdgeFacts[]; readonly at?: Vec3 };

/** A line without end, with the stretch of it that was meant where there is one. */
export interface Axis {
  readonly origin: Vec3;
  readonly direction: Vec3;
  readonly stretch?: readonly [Vec3, Vec3];
}

/** The plane that a thing lies in: of a flat face, a datum, the plane of a round edge is none. */
export function planeOf(thing: Thing): Frame | undefined {
  if (thing.to === 'datum') return 'frame' in thing.datum ? thing.datum.frame : undefined;
  if (thing.to !== 'face' || thing.face.surface.form !== 'plane') return undefined;
  const { origin, normal } = thing.face.surface;
  return frameAcross(origin, normal);
}

/** The axis of a thing: along what is straight, through what is round. */
export function axisOf(thing: Thing): Axis | undefined {
  if (thing.to === 'datum') return thing.datum.form === 'axis' ? thing.datum : undefined;
  if (thing.to === 'edge') return axisOfCurve(thing.edge.curve);
  if (thing.to === 'drawn') return thing.curves.length === 1 ? axisOfCurve(thing.curves[0]!.curve) : undefined;
  if (thing.to !== 'face') return undefined;
  const { surface } = thing.face;
  if (surface.form !== 'cylinder' && surface.form !== 'cone') return undefined;
  return { origin: surface.origin, direction: surface.axis, stretch: extent(thing, surface.origin, surface.axis) };
}

function axisOfCurve(curve: SpaceCurve): Axis | undefined {
  if (curve.form === 'line') {
    const direction = direction3(sub3(curve.to, curve.from));
    return direction && { origin: curve.from, direction, stretch: [curve.from, curve.to] };
  }
  return curve.form === 'circle' ? { origin: curve.centre, direction: curve.axis } : undefined;
}

/** How far a face goes along an axis, by the curves that bound it. */
function extent({ face, topology }: Extract<Thing, { to: 'face' }>, origin: Vec3, axis: Vec3): readonly [Vec3, Vec3] {
  const heights = topology.edges
    .filter(({ faces }) => faces.includes(face.name))
    .flatMap(({ curve }) => outermost(curve))
    .map((place) => dot3(sub3(place, origin), axis));
  const at = (height: number) => add3(origin, scale3(axis, height));
  return heights.length === 0 ? [origin, origin] : [at(Math.min(...heights)), at(Math.max(...heights))];
}

/** Places of a curve between which it lies, near enough to tell how long an axis is to be drawn. */
function outermost(curve: SpaceCurve): Vec3[] {
  if (curve.form === 'line') return [curve.from, curve.to];
  if (curve.form === 'free') return curve.spans.flatMap((span) => [...span]);
  if (curve.form === 'helix') return helixSpans(curve).map(([from]) => from);
  const ends = [curve.from, curve.to].filter((place) => place !== undefined);
  if (ends.length > 0 || curve.form === 'circle') return [...ends, curve.centre];
  const { centre, major, minor } = curve;
  return [major, minor].flatMap((arm) => [add3(centre, arm), sub3(centre, arm)]);
}

/** The place that a thing stands for: a corner, a drawn point, the centre of what is round. */
export function pointOf(thing: Thing): Vec3 | undefined {
  if (thing.to === 'vertex') return thing.vertex.at;
  if (thing.to === 'datum')
    return thing.datum.form === 'point'
      ? thing.datum.at
      : thing.datum.form === 'frame'
        ? thing.datum.frame.origin
        : undefined;
  if (thing.to === 'drawn')
    return thing.at ?? (thing.curves.length === 1 ? centreOf(thing.curves[0]!.curve) : undefined);
  if (thing.to === 'edge') return centreOf(thing.edge.curve);
  if (thing.to !== 'face') return undefined;
  return thing.face.surface.form === 'sphere' ? thing.face.surface.centre : undefined;
}

const centreOf = (curve: SpaceCurve): Vec3 | undefined =>
  curve.form === 'circle' || curve.form === 'ellipse' ? curve.centre : undefined;

/** The curves of a thing: an edge, a drawn curve. */
export function curvesOf(thing: Thing): readonly EdgeFacts[] {
  if (thing.to === 'edge') return [thing.edge];
  if (thing.to === 'datum') return thing.datum.form === 'curve' ? [thing.datum.edge] : [];
  return thing.to === 'drawn' ? thing.curves : [];
}

/** The place of a curve nearest to another, and its direction there; undefined where it has none. */
export function tangentNear(curves: readonly EdgeFacts[], place: Vec3): { at: Vec3; along: Vec3 } | undefined {
  let best: { at: Vec3; along: Vec3 } | undefined;
  for (const { curve } of curves) {
    const near = nearestOnCurve(curve, place);
    if (near && (!best || distance3(near.at, place) < distance3(best.at, place))) best = near;
  }
  return best;
}

function nearestOnCurve(curve: SpaceCurve, place: Vec3): { at: Vec3; along: Vec3 } | undefined {
  if (curve.form === 'line') {
    const along = direction3(sub3(curve.to, curve.from));
    return along && { at: footOnLine3(place, curve.from, along), along };
  }
  if (curve.form === 'free') {
    const spans = curve.spans.map((span) => nearestOf((t) => bezierAt(span, t), place, 0, 1));
    return spans.reduce((a, b) => (distance3(b.at, place) < distance3(a.at, place) ? b : a));
  }
  if (curve.form === 'helix') return nearestOnCurve({ form: 'free', spans: helixSpans(curve) }, place);
  const { centre } = curve;
  const [u, v] = armsOf(curve);
  const at = (t: number) => add3(centre, add3(scale3(u, Math.cos(t)), scale3(v, Math.sin(t))));
  return nearestOf(at, place, 0, 2 * Math.PI);
}

/** The two arms of a round curve at a right angle in its plane, in the sense in which it runs. */
export function armsOf(curve: Extract<SpaceCurve, { form: 'circle' | 'ellipse' }>): readonly [Vec3, Vec3] {
  if (curve.form === 'ellipse') return [curve.major, curve.minor];
  const { x, y } = frameAcross(curve.centre, curve.axis);
  return [scale3(x, curve.radius), scale3(y, curve.radius)];
}

/** The place of a cubic Bezier curve at parameter t in 0..1. */
export function bezierAt([a, b, c, d]: readonly [Vec3, Vec3, Vec3, Vec3], t: number): Vec3 {
  const s = 1 - t;
  return add3(
    add3(scale3(a, s * s * s), scale3(b, 3 * s * s * t)),
    add3(scale3(c, 3 * s * t * t), scale3(d, t * t * t)),
  );
}

/** Where something comes nearest to a place: a coarse search and a golden one; its direction by a small difference. */
export function nearestOf(at: (t: number) => Vec3, place: Vec3, low: number, high: number, steps = 64) {
  const width = (high - low) / steps;
  let best = low;
  for (let k = 1; k <= steps; k++)
    if (distance3(at(low + k * width), place) < distance3(at(best), place)) best = low + k * width;
  let [a, b] = [best - width, best + width];
  for (let k = 0; k < 60; k++) {
    const [p, q] = [b - (b - a) * GOLDEN, a + (b - a) * GOLDEN];
    if (distance3(at(p), place) < distance3(at(q), place)) b = q;
    else a = p;
  }
  const t = Math.min(high, Math.max(low, (a + b) / 2));
  const d = width * 1e-3;
  return { t, at: at(t), along: direction3(sub3(at(t + d), at(t - d))) ?? ([1, 0, 0] as const) };
}
const GOLDEN = (Math.sqrt(5) - 1) / 2;

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
