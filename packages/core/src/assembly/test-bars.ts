import { frameOn, IDENTITY, type Vec3 } from '../math/index.ts';
import { SPACE, type Mechanism } from './index.ts';

// Mechanisms of bars in a plane, for tests.

const Z: Vec3 = [0, 0, 1];
export type At = readonly [number, number];

/** Bars in the plane, each from a pin to a pin; bodies are drawn where they stand. */
export function bars(
  pins: readonly { readonly at: At; readonly of: readonly [string, string] }[],
  names: readonly string[],
  more: Partial<Mechanism> = {},
): Mechanism {
  const body = (name: string) => (name === '' ? SPACE : names.indexOf(name));
  return {
    bodies: names.map((id) => ({ id, pose: IDENTITY, grounded: false })),
    joints: pins.map(({ at: [x, y], of: [a, b] }) => {
      const frame = frameOn([x, y, 0], Z);
      return { id: `${a}${b}`, kind: 'revolute', a: { body: body(a), frame }, b: { body: body(b), frame } };
    }),
    ...{ relations: [], ratios: [], limits: new Map(), size: 80 },
    ...more,
  };
}

export const CRANK = { r: 31, l: 83 };

/** Crank, rod and a slider that goes along x. */
export function sliderCrank(): Mechanism {
  const { r, l } = CRANK;
  const bench = bars(
    [
      { at: [0, 0], of: ['', 'crank'] },
      { at: [r, 0], of: ['crank', 'rod'] },
      { at: [r + l, 0], of: ['rod', 'slider'] },
    ],
    ['crank', 'rod', 'slider'],
  );
  const rail = { body: SPACE, frame: frameOn([r + l, 0, 0], [1, 0, 0]) };
  return { ...bench, joints: [...bench.joints, { id: 'rail', kind: 'prismatic', a: rail, b: { ...rail, body: 2 } }] };
}
