import {
  cross3,
  direction3,
  dot3,
  scale3,
  sub3,
  transformDirection,
  transformPoint,
  type RigidTransform,
  type Vec3,
} from '../math/index.ts';
import type { Outside } from './fields.ts';
import { isWithin, type ContactFeature } from './shape.ts';
import type { CurveSpine } from './spines.ts';

/** Where two features stand against each other, in the coordinates of the first; below 0 they are in each other. */
export interface FeatureGap {
  readonly gap: number;
  /** From the first to the second, square to both skins. */
  readonly normal: Vec3;
  /** The places of either that are nearest. */
  readonly a: Vec3;
  readonly b: Vec3;
}

/** A normal may lean out of what a feature allows by this, as a sine. */
const LEANING = 1e-3;
/** Two places nearer than this, mm, tell no direction. */
const MEETING = 1e-7;
/** Along a spine the distance counts as least where it changes by less than this a mm. */
const FLAT = 1e-7;
/** A straight spine that leans against a face by less than this, as a sine, lies along it. */
const ALONG = 1e-4;

/** How one shape stands in another, and which gaps are asked for. */
export interface GapQuery {
  /** From the coordinates of the second to those of the first, and back. */
  readonly across: RigidTransform;
  readonly back: RigidTransform;
  /** What is deeper or wider is not told, mm. */
  readonly deepest: number;
  readonly widest: number;
}

/**
 * How two features stand to each other near a place, the second moved: exact for what is plane, round or conical, where they
 * overlap a little as well. Undefined where no place of the inside of either is nearest there: then an edge or a corner is.
 * @param near about where, in the coordinates of the first
 */
export function gapOf(a: ContactFeature, b: ContactFeature, query: GapQuery, near: Vec3): FeatureGap | undefined {
  const { across, back, deepest, widest } = query;
  const isFirst = rankOf(a) >= rankOf(b);
  const [lying, swept, to, from] = isFirst ? ([a, b, across, back] as const) : ([b, a, back, across] as const);
  const start = isFirst ? near : transformPoint(back, near);
  for (const found of lowest(lying, swept, to, from, start)) {
    if (found.gap < deepest || found.gap > widest || !isTouching(lying, swept, from, found)) continue;
    if (isFirst) return { gap: found.gap, normal: found.normal, a: found.lies, b: found.comes };
    return {
      gap: found.gap,
      normal: scale3(transformDirection(across, found.normal), -1),
      a: transformPoint(across, found.comes),
      b: transformPoint(across, found.lies),
    };
  }
  return undefined;
}

/**
 * Can two features touch at all, inside of both? Corners meet corners and edges only on their way into a face: there that face
 * holds them off.
 */
export const canTouch = (a: ContactFeature, b: ContactFeature): boolean =>
  a.kind === 'face' && b.kind === 'face'
    ? !((a.isFlat || a.isHollow) && (b.isFlat || b.isHollow))
    : !(a.kind === 'corner' && b.kind !== 'face') && !(b.kind === 'corner' && a.kind !== 'face');

/** The distance is asked of what has no spine, else of what is rounder. */
const rankOf = ({ spine, radius }: ContactFeature): number =>
  !spine ? 3 : spine.form === 'point' ? 0 : radius > 0 ? 2 : 1;

/** In the coordinates of what lies: how far what comes is away, along which normal, and their places. */
interface Found {
  readonly gap: number;
  readonly normal: Vec3;
  readonly lies: Vec3;
  readonly comes: Vec3;
}

/** Where what comes is nearest to what lies; of edges that cross, both ways round. */
function lowest(
  lying: ContactFeature,
  swept: ContactFeature,
  to: RigidTransform,
  from: RigidTransform,
  start: Vec3,
): readonly Found[] {
  if (!swept.spine) return antipodal(lying, swept, to, from, start);
  const spine = swept.spine;
  if (spine.form === 'point') {
    const at = transformPoint(to, spine.at);
    const outside = lying.field(at);
    return outside ? swayed(lying, swept, at, outside) : [];
  }
  const t = lowestOn(lying, spine, to, spine.foot(transformPoint(from, start)));
  if (t === undefined || !isWithin(spine, t)) return [];
  const { at, along } = spine.place(t);
  const place = transformPoint(to, at);
  if (lying.kind === 'edge' && swept.kind === 'edge') return crossing(lying, place, transformDirection(to, along));
  const outside = lying.field(place);
  return outside ? swayed(lying, swept, place, outside) : [];
}

/** A distance to an edge or a corner has no sign: what is in it by a little comes from the other side. */
function swayed(
  lying: ContactFeature,
  { radius }: ContactFeature,
  at: Vec3,
  { distance, normal }: Outside,
): readonly Found[] {
  const found = (gap: number, along: Vec3): Found => ({
    ...{ gap: gap - radius, normal: along },
    lies: sub3(at, scale3(along, gap)),
    comes: sub3(at, scale3(along, radius)),
  });
  if (lying.kind === 'face' || radius > 0) return [found(distance, normal)];
  if (distance < MEETING) return [];
  return [found(distance, normal), found(-distance, scale3(normal, -1))];
}

/** Two edges that cross: square to both, whichever way round. Edges that run along each other meet only on their way into a face. */
function crossing({ spine }: ContactFeature, place: Vec3, along: Vec3): readonly Found[] {
  if (spine?.form !== 'curve') return [];
  const own = spine.place(spine.foot(place));
  const across = cross3(own.along, along);
  const normal = direction3(across);
  if (!normal || Math.hypot(...across) < 0.02) return [];
  const gap = dot3(sub3(place, own.at), normal);
  const found = (sign: 1 | -1): Found => ({
    ...{ gap: sign * gap, normal: scale3(normal, sign), lies: own.at, comes: place },
  });
  return gap >= 0 ? [found(1), found(-1)] : [found(-1), found(1)];
}

/**
 * Where along a spine the distance is least, near where it begins: a root of the slope, by secants. Undefined where it only
 * goes on falling.
 */
function lowestOn(lying: ContactFeature, spine: CurveSpine, to: RigidTransform, start: number): number | undefined {
  const slope = (t: number): number | undefined => {
    const { at, along } = spine.place(t);
    const outside = lying.field(transformPoint(to, at));
    return outside && dot3(outside.normal, transformDirection(to, along));
  };
  const step = 1e-3 * spine.reach;
  let t = start;
  for (let k = 0; k < MOST_STEPS; k++) {
    const [here, there] = [slope(t), slope(t + step)];
    // on the axis of what is round every place is as far
    if (here === undefined || there === undefined) return undefined;
    if (Math.abs(here) < FLAT * FLAT) return t;
    const curvature = (there - here) / step;
    if (curvature * spine.reach < ALONG) return Math.abs(here) < ALONG ? t : undefined;
    const way = -here / curvature;
    t += Math.max(-spine.reach / 2, Math.min(spine.reach / 2, way));
    if (Math.abs(way) < 1e-12 * spine.reach) break;
  }
  const end = slope(t);
  return end !== undefined && Math.abs(end) < 1e-5 ? t : undefined;
}
const MOST_STEPS = 40;

/**
 * Where two skins without spines stand against each other: the foot on the one is sunk, and its foot on the other taken, until
 * both normals lie on one line.
 */
function antipodal(
  lying: ContactFeature,
  other: ContactFeature,
  to: RigidTransform,
  from: RigidTransform,
  start: Vec3,
): readonly Found[] {
  let place = start;
  for (let k = 0; k < MOST_STEPS; k++) {
    const outside = lying.field(place);
    if (!outside) return [];
    const sunk = sub3(place, scale3(outside.normal, outside.distance + SUNK));
    const local = transformPoint(from, sunk);
    const on = other.field(local);
    if (!on) return [];
    const next = transformPoint(to, sub3(local, scale3(on.normal, on.distance)));
    const moved = Math.hypot(...sub3(next, place));
    place = next;
    if (moved > MEETING) continue;
    const against = dot3(transformDirection(to, on.normal), outside.normal);
    if (against > -1 + LEANING) return [];
    const { distance, normal } = outside;
    return [{ gap: distance, normal, lies: sub3(place, scale3(normal, distance)), comes: place }];
  }
  return [];
}
/** How deep, mm. */
const SUNK = 1;

/** Do both features look at each other there, and does either end before? */
function isTouching(lying: ContactFeature, swept: ContactFeature, from: RigidTransform, found: Found): boolean {
  const { normal, lies, comes } = found;
  const local = transformPoint(from, comes);
  const against = scale3(transformDirection(from, normal), -1);
  return (
    lying.tangents(lies).every((along) => dot3(along, normal) <= LEANING) &&
    swept.tangents(local).every((along) => dot3(along, against) <= LEANING) &&
    lying.holds(lies) &&
    swept.holds(local)
  );
}
