import type { Coordinate } from '../naming/index.ts';
import type { Frame, Vec3 } from '../math/index.ts';
import type { BodyIndex, Equation } from './equations.ts';

/** A frame that a body carries, in its own coordinates. */
export interface Carried {
  readonly body: BodyIndex;
  readonly frame: Frame;
}

type Held = 'x' | 'y' | 'z' | 'tilt' | 'turn';

/**
 * Kinds of joints, each by what it holds of the second frame in the first, and by the coordinates that it leaves
 * (Reuleaux 1875: the lower pairs, and the pin in a slot).
 */
export const JOINTS = {
  rigid: { title: 'rigid', holds: ['x', 'y', 'z', 'tilt', 'turn'], leaves: [] },
  revolute: { title: 'revolute', holds: ['x', 'y', 'z', 'tilt'], leaves: ['turn'] },
  prismatic: { title: 'prismatic', holds: ['x', 'y', 'tilt', 'turn'], leaves: ['slide'] },
  cylindrical: { title: 'cylindrical', holds: ['x', 'y', 'tilt'], leaves: ['turn', 'slide'] },
  'pin-in-slot': { title: 'pin in slot', holds: ['y', 'z', 'tilt'], leaves: ['slide x', 'turn'] },
  planar: { title: 'planar', holds: ['z', 'tilt'], leaves: ['slide x', 'slide y', 'turn'] },
  spherical: { title: 'spherical', holds: ['x', 'y', 'z'], leaves: [] },
} as const satisfies Record<string, JointKind>;
export type JointName = keyof typeof JOINTS;

interface JointKind {
  readonly title: string;
  readonly holds: readonly Held[];
  readonly leaves: readonly Coordinate[];
}

const HELD: Readonly<Record<Held, (a: Carried, b: Carried) => Equation[]>> = {
  x: (a, b) => [spanAlong(a, b, a.frame.x)],
  y: (a, b) => [spanAlong(a, b, a.frame.y)],
  z: (a, b) => [spanAlong(a, b, a.frame.z)],
  tilt: (a, b) => [squareOn(a, a.frame.z, b, b.frame.x), squareOn(a, a.frame.z, b, b.frame.y)],
  turn: (a, b) => [squareOn(a, a.frame.x, b, b.frame.y)],
};

const spanAlong = (a: Carried, b: Carried, along: Vec3): Equation => ({
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
export const jointEquations = (kind: JointName, a: Carried, b: Carried): Equation[] =>
  JOINTS[kind].holds.flatMap((held) => HELD[held](a, b));

/** The equation that ties a coordinate of a joint to an unknown. */
export function coordinateEquation(name: Coordinate, a: Carried, b: Carried, coordinate: number): Equation {
  if (name === 'turn')
    return {
      form: 'turn',
      x: { body: a.body, along: a.frame.x },
      y: { body: a.body, along: a.frame.y },
      b: { body: b.body, along: b.frame.x },
      coordinate,
    };
  const along = { slide: a.frame.z, 'slide x': a.frame.x, 'slide y': a.frame.y }[name];
  return { ...(spanAlong(a, b, along) as Extract<Equation, { form: 'span' }>), coordinate };
}
