import {
  add3,
  cross3,
  dot3,
  length3,
  transformPoint,
  scale3,
  sub3,
  transformDirection,
  type RigidTransform,
  type Vec3,
} from '../math/index.ts';
import type { Surface } from '../geometry/index.ts';
import { flatCurve, flatThrough, type FlatCurve } from './flat-curve.ts';

/** A line of a view before it is told what of it is hidden: places along it, and what it looks like. */
export interface Track {
  /** x, y, and height to the eye; straight from one to the next. */
  readonly places: readonly Vec3[];
  readonly curve: FlatCurve;
}

/** Points where a face turns away from the eye, one after the other, in its space; closed where the last is the first. */
type Chain = readonly Vec3[];

type SurfaceOf<F extends Surface['form']> = Extract<Surface, { form: F }>;
type Outline<F extends Surface['form']> = (
  surface: SurfaceOf<F>,
  chain: Chain,
  toEye: RigidTransform,
  fine: number,
) => Track;

/** As the points of the mesh are: on the surface, and smooth from one to the next. */
const asMeshed = (chain: Chain): Track => ({ places: chain, curve: flatThrough });

/** A line at which a cylinder or cone turns away: through a place, along a direction; as long as its chain. */
function straight(chain: Chain, through: Vec3, along: Vec3): Track {
  const heights = chain.map((place) => dot3(sub3(place, through), along) / dot3(along, along));
  const at = (height: number) => add3(through, scale3(along, height));
  const [from, to] = [at(Math.min(...heights)), at(Math.max(...heights))];
  return { places: [from, to], curve: flatCurve({ form: 'line', from, to }) };
}

/**
 * On a circle about the line of sight. It is looked at from just outside, where the triangles of its own face, which lie
 * within it, do not hide it.
 */
function roundAbout(chain: Chain, centre: Vec3, radius: number, off: number): Track {
  const isClosed = chain[0] === chain.at(-1);
  const angles = chain.map(([x, y]) => Math.atan2(y - centre[1], x - centre[0]));
  const turn = angles.reduce((sum, angle, k) => (k === 0 ? 0 : sum + turnedFrom(angles[k - 1]!, angle)), 0);
  const end = isClosed ? 2 * Math.PI : turn;
  const count = Math.max(2, Math.ceil(Math.abs(end) / STEP));
  const at = (k: number): Vec3 => {
    const angle = angles[0]! + (end * k) / count;
    return [centre[0] + (radius + off) * Math.cos(angle), centre[1] + (radius + off) * Math.sin(angle), centre[2]];
  };
  const places = Array.from({ length: count }, (_, k) => at(k));
  return {
    places: [...places, isClosed ? places[0]! : at(count)],
    curve: flatCurve({ form: 'circle', centre, axis: SIGHT, radius }),
  };
}
/** The shorter turn from one angle to another. */
const turnedFrom = (from: number, to: number): number =>
  to - from - 2 * Math.PI * Math.round((to - from) / (2 * Math.PI));
const STEP = Math.PI / 48;

const middleOf = (chain: Chain): Vec3 => chain[Math.floor((chain.length - 1) / 2)]!;
const SIGHT: Vec3 = [0, 0, 1];

const OUTLINES: { readonly [F in Surface['form']]: Outline<F> } = {
  plane: (_, chain) => asMeshed(chain),
  free: (_, chain) => asMeshed(chain),
  cylinder({ origin, axis, radius }, chain, toEye) {
    const [o, a] = [transformPoint(toEye, origin), transformDirection(toEye, axis)];
    const out = cross3(a, SIGHT);
    if (length3(out) < 1e-9) return asMeshed(chain);
    const unit = scale3(out, 1 / length3(out));
    const side = dot3(sub3(middleOf(chain), o), unit) < 0 ? -radius : radius;
    return straight(chain, add3(o, scale3(unit, side)), a);
  },
  cone({ origin, axis, angle }, chain, toEye) {
    const [tip, a] = [transformPoint(toEye, origin), transformDirection(toEye, axis)];
    const out = cross3(a, SIGHT);
    const across = length3(out);
    if (across < 1e-9) return asMeshed(chain);
    // generators a + tan(angle) (cos t up + sin t out), whose normals are square to the line of sight
    const unit = scale3(out, 1 / across);
    const up = cross3(unit, a);
    const tilt = (Math.tan(angle) * a[2]) / up[2];
    if (Math.abs(tilt) >= 1) return asMeshed(chain);
    const [c, s] = [tilt, Math.sqrt(1 - tilt ** 2)];
    const side = dot3(sub3(middleOf(chain), tip), unit) < 0 ? -s : s;
    const along = add3(a, scale3(add3(scale3(up, c), scale3(unit, side)), Math.tan(angle)));
    return straight(chain, tip, along);
  },
  sphere: ({ centre, radius }, chain, toEye, fine) => roundAbout(chain, transformPoint(toEye, centre), radius, fine),
  torus({ origin, axis, major, minor }, chain, toEye, fine) {
    const [o, a] = [transformPoint(toEye, origin), transformDirection(toEye, axis)];
    if (Math.abs(a[2]) < 1 - 1e-9) return asMeshed(chain);
    const [x, y] = middleOf(chain);
    const outer = Math.hypot(x - o[0], y - o[1]) > major;
    return roundAbout(chain, o, outer ? major + minor : major - minor, outer ? fine : -fine);
  },
};

/** The line at which a face turns away from the eye, exact where its surface has a simple one. */
export const outlineOf = (surface: Surface, chain: Chain, toEye: RigidTransform, fine: number): Track =>
  OUTLINES[surface.form](surface as never, chain, toEye, fine);
