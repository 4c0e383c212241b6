import type { Coordinate } from '../naming/index.ts';
import { dot3, transformDirection, type Frame, type RigidTransform, type Vec3 } from '../math/index.ts';
import { SPACE, type BodyIndex, type Equation } from './equations.ts';

/** A frame that a body carries, in its own coordinates. */
export interface Carried {
  readonly body: BodyIndex;
  readonly frame: Frame;
}

type Held = 'x' | 'y' | 'z' | 'tilt' | 'turn';

/**
 * Kinds of joints, each by what it holds of the second frame in the first, and by the coordinates that it leaves
 * (Reuleaux 1875: the lower pairs, and the pin in a slot); in the order in which they are offered.
 */
export const JOINTS = {
  rigid: {
    title: 'rigid',
    verb: 'Join rigidly',
    key: 'J',
    says: 'Two parts move as one.',
    holds: ['x', 'y', 'z', 'tilt', 'turn'],
    leaves: [],
  },
  revolute: {
    title: 'revolute',
    key: 'V',
    says: 'One turns about an axis of the other: a hinge, a crank.',
    holds: ['x', 'y', 'z', 'tilt'],
    leaves: ['turn'],
  },
  prismatic: {
    title: 'prismatic',
    key: 'P',
    says: 'One slides along an axis of the other, without turning: a drawer.',
    holds: ['x', 'y', 'tilt', 'turn'],
    leaves: ['slide'],
  },
  cylindrical: {
    title: 'cylindrical',
    key: 'C',
    says: 'One turns about an axis of the other and slides along it: a shaft in a bush.',
    holds: ['x', 'y', 'tilt'],
    leaves: ['turn', 'slide'],
  },
  'pin-in-slot': {
    title: 'pin in slot',
    key: 'S',
    says: 'A pin of one slides along a slot of the other and turns in it.',
    holds: ['y', 'z', 'tilt'],
    leaves: ['slide x', 'turn'],
  },
  planar: {
    title: 'planar',
    key: 'L',
    says: 'A face of one slides and turns on a face of the other.',
    holds: ['z', 'tilt'],
    leaves: ['slide x', 'slide y', 'turn'],
  },
  spherical: {
    title: 'spherical',
    key: 'B',
    says: 'One turns freely about a point of the other: a ball in its socket.',
    holds: ['x', 'y', 'z'],
    leaves: [],
  },
} as const satisfies Record<string, JointKind>;
export type JointName = keyof typeof JOINTS;

/** What a kind of joint has to say of itself: its equations and coordinates follow. */
export interface JointKind {
  readonly title: string;
  /** How making one is called; "Join ..." with its title where absent. */
  readonly verb?: string;
  /** One letter; empty for none. */
  readonly key: string;
  /** What it lets the two do, in one sentence. */
  readonly says: string;
  readonly holds: readonly Held[];
  readonly leaves: readonly Coordinate[];
}

/** Kinds of joints as they are offered. */
export const offeredJoints = <K extends string>(joints: Readonly<Record<K, JointKind>>) =>
  (Object.entries(joints) as [K, JointKind][]).map(([kind, { title, verb = `Join ${title}`, key, says }]) => ({
    ...{ kind, title: verb, key, says },
  }));

/** Does it leave all turns free, so that no coordinate tells how the second side stands in the first? */
export const isBall = (kind: JointName): boolean => !(JOINTS[kind].holds as readonly Held[]).includes('tilt');

const HELD: Readonly<Record<Held, (a: Carried, b: Carried) => Equation[]>> = {
  x: (a, b) => [spanAlong(a, b, a.frame.x)],
  y: (a, b) => [spanAlong(a, b, a.frame.y)],
  z: (a, b) => [spanAlong(a, b, a.frame.z)],
  tilt: (a, b) => [squareOn(a, a.frame.z, b, b.frame.x), squareOn(a, a.frame.z, b, b.frame.y)],
  turn: (a, b) => [squareOn(a, a.frame.x, b, b.frame.y)],
};

const spanAlong = (a: Carried, b: Carried, along: Vec3): Extract<Equation, { form: 'span' }> => ({
  form: 'span',
  from: { body: a.body, at: a.frame.origin },
  to: { body: b.body, at: b.frame.origin },
  along: { body: a.body, along },
  is: 0,
});

const squareOn = (a: Carried, u: Vec3, b: Carried, v: Vec3): Equation => ({
  form: 'dot',
  a: { body: a.body, along: u },
  b: { body: b.body, along: v },
  is: 0,
});

/** The equations of a joint: the second frame in the first. */
export const jointEquations = ({ holds }: Pick<JointKind, 'holds'>, a: Carried, b: Carried): Equation[] =>
  holds.flatMap((held) => HELD[held](a, b));

/**
 * Joints whose second frame stands the other way round: their equations hold there too, since a cosine is 0 at two angles.
 */
export const jointsReversed = <J extends { readonly kind: JointName; readonly a: Carried; readonly b: Carried }>(
  { joints }: { readonly joints: readonly J[] },
  { poses }: { readonly poses: readonly RigidTransform[] },
): J[] =>
  joints.filter(({ kind, a, b }) => {
    const holds: readonly Held[] = JOINTS[kind].holds;
    const isAgainst = (axis: 'x' | 'z') => {
      const [u, v] = [a, b].map(({ body, frame }) =>
        body === SPACE ? frame[axis] : transformDirection(poses[body]!, frame[axis]),
      ) as [Vec3, Vec3];
      return dot3(u, v) < 0;
    };
    return (holds.includes('tilt') && isAgainst('z')) || (holds.includes('turn') && isAgainst('x'));
  });

/** What a coordinate of a joint is. */
interface CoordinateKind {
  /** The axis of the first frame along which or about which it goes. */
  readonly axis: 'x' | 'y' | 'z';
  /** The equation that ties it to an unknown. */
  equation(a: Carried, b: Carried, unknown: number): Equation;
}

const sliding = (axis: 'x' | 'y' | 'z'): CoordinateKind => ({
  axis,
  equation: (a, b, coordinate) => ({ ...spanAlong(a, b, a.frame[axis]), coordinate }),
});

const COORDINATES: { readonly [C in Coordinate]: CoordinateKind } = {
  turn: {
    axis: 'z',
    equation: (a, b, coordinate) => ({
      form: 'turn',
      x: { body: a.body, along: a.frame.x },
      y: { body: a.body, along: a.frame.y },
      b: { body: b.body, along: b.frame.x },
      coordinate,
    }),
  },
  slide: sliding('z'),
  'slide x': sliding('x'),
  'slide y': sliding('y'),
};

/** The equation that ties a coordinate of a joint to an unknown. */
export const coordinateEquation = (name: Coordinate, a: Carried, b: Carried, unknown: number): Equation =>
  COORDINATES[name].equation(a, b, unknown);

/** The axis of the first frame along which or about which a coordinate goes. */
export const axisOfCoordinate = (name: Coordinate): 'x' | 'y' | 'z' => COORDINATES[name].axis;
