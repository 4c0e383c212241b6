import {
  cross3,
  dot3,
  compose,
  frameOn,
  length3,
  scale3,
  sub3,
  rotation,
  transformDirection,
  type RigidTransform,
  type Vec3,
} from '../math/index.ts';
import { SPACE, type BodyIndex, type Direction } from './equations.ts';
import type { Facing, Mechanism, Pose } from './mechanism.ts';
import { originOf } from './pose.ts';

type Poses = Pick<Pose, 'poses'>;

/** A direction in space. */
export const alongIn = ({ body, along: u }: Direction, poses: readonly RigidTransform[]): Vec3 =>
  body === SPACE ? u : transformDirection(poses[body]!, u);
/** A cosine within this of 0 looks neither way. */
const SQUARE = 1e-9;

const looksWrong = ({ a, b, is }: Facing, at: Poses): boolean =>
  dot3(alongIn(a, at.poses), alongIn(b, at.poses)) * is < -SQUARE;

/** Relations whose sides look the wrong way round. */
export const facesWrong = ({ relations }: Pick<Mechanism, 'relations'>, at: Poses): string[] =>
  relations.flatMap(({ id, facing }) => (facing && looksWrong(facing, at) ? [id] : []));

/**
 * Bodies turned, each with all that hangs on it by joints, where a face looks the wrong way: by the least turn so that the
 * first of its faces looks right, then about that direction so that the next ones do. What is grounded stays, and of two that
 * are free the one that was placed first.
 */
export function faced(mechanism: Mechanism, poses: readonly RigidTransform[]): readonly RigidTransform[] {
  const fronts = mechanism.relations.flatMap(({ facing }) => (facing ? [facing] : []));
  let now = poses;
  for (const _ of fronts) {
    const wrong = fronts.find((facing) => looksWrong(facing, { poses: now }));
    const moved = wrong && movableSide(mechanism, wrong);
    if (!moved) return now;
    now = turnedRight(fronts, moved.bodies, now);
  }
  return now;
}

/** The one of two sides that can be turned, with the bodies that go with it; undefined where neither can. */
export function movableSide(
  mechanism: Mechanism,
  { a, b }: Pick<Facing, 'a' | 'b'>,
): { readonly own: Direction; readonly bodies: ReadonlySet<BodyIndex> } | undefined {
  const [first, second] = a.body < b.body ? [a, b] : [b, a];
  for (const [own, other] of [
    [second, first],
    [first, second],
  ] as const) {
    const bodies = hangingOn(mechanism, own.body);
    const isFree = [...bodies].every((body) => body !== SPACE && !mechanism.bodies[body]!.grounded);
    if (isFree && !bodies.has(other.body)) return { own, bodies };
  }
  return undefined;
}

/** Turned as one, so that what faces something else looks as it should, one facing after the other. */
function turnedRight(
  fronts: readonly Facing[],
  bodies: ReadonlySet<BodyIndex>,
  poses: readonly RigidTransform[],
): readonly RigidTransform[] {
  const outward = fronts.flatMap(({ a, b, is }) => {
    if (bodies.has(a.body) === bodies.has(b.body)) return [];
    const [own, other] = bodies.has(a.body) ? [a, b] : [b, a];
    return [{ own, wanted: scale3(alongIn(other, poses), is) }];
  });
  let now = poses;
  /** A direction that looks right by now. */
  let kept: Vec3 | undefined;
  for (const [k, { own, wanted }] of outward.entries()) {
    const is = alongIn(own, now);
    const next = outward[k + 1] && alongIn(outward[k + 1]!.own, now);
    const turn = kept ? turnAbout(kept, is, wanted) : turnTo(is, wanted, next);
    if (!turn) continue;
    kept ??= wanted;
    const by = rotation(originOf(now[own.body]!), turn.axis, turn.angle);
    now = now.map((pose, body) => (bodies.has(body) ? compose(pose, by) : pose));
  }
  return now;
}

interface Turn {
  readonly axis: Vec3;
  readonly angle: number;
}

/** The least turn that brings a direction to another; where they are opposed about a third, if that lies across. */
function turnTo(is: Vec3, wanted: Vec3, third: Vec3 | undefined): Turn {
  const across = cross3(is, wanted);
  const sine = length3(across);
  if (sine > OPPOSED) return { axis: scale3(across, 1 / sine), angle: Math.atan2(sine, dot3(is, wanted)) };
  const aside = third && sub3(third, scale3(is, dot3(third, is)));
  const size = aside ? length3(aside) : 0;
  const axis = size > 0.1 ? scale3(aside!, 1 / size) : frameOn([0, 0, 0], is).x;
  return { axis, angle: dot3(is, wanted) < 0 ? Math.PI : 0 };
}
const OPPOSED = 1e-6;

/** The turn about an axis that brings a direction nearest to another; undefined where no turn does anything. */
function turnAbout(axis: Vec3, is: Vec3, wanted: Vec3): Turn | undefined {
  const [u, v] = [is, wanted].map((w) => sub3(w, scale3(axis, dot3(w, axis)))) as [Vec3, Vec3];
  if (length3(u) < 0.1 || length3(v) < 0.1) return undefined;
  return { axis, angle: Math.atan2(dot3(cross3(u, v), axis), dot3(u, v)) };
}

/** The bodies that hang together with one by joints. */
function hangingOn({ joints }: Mechanism, body: BodyIndex): ReadonlySet<BodyIndex> {
  const found = new Set([body]);
  for (const one of found)
    for (const { a, b } of joints) {
      if (a.body === one) found.add(b.body);
      if (b.body === one) found.add(a.body);
    }
  return found;
}
