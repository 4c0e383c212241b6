import { cross3, frameOn, scale3, type Frame, type Vec3 } from '../math/index.ts';
import type { BESIDE, SIDES } from './schema.ts';

const eyeAt = (x: Vec3, z: Vec3): Frame => ({ origin: [0, 0, 0], x, y: cross3(z, x), z });

/** From where the six sides of a thing are seen: z points to the eye, x to the right. */
export const SIDE_EYES: Readonly<Record<(typeof SIDES)[number], Frame>> = {
  front: eyeAt([1, 0, 0], [0, -1, 0]),
  top: eyeAt([1, 0, 0], [0, 0, 1]),
  right: eyeAt([0, 1, 0], [1, 0, 0]),
  back: eyeAt([-1, 0, 0], [0, 1, 0]),
  under: eyeAt([1, 0, 0], [0, 0, -1]),
  left: eyeAt([0, -1, 0], [-1, 0, 0]),
};

const third = 1 / Math.sqrt(3);
/** Isometric: all three axes are shortened alike (ISO 5456-3). */
export const CORNER_EYE: Frame = frameOn([0, 0, 0], [-third, -third, third]);

/** Beside another view the eye goes a quarter of a turn round the thing. */
export const BESIDE_EYES: Readonly<Record<(typeof BESIDE)[number], (eye: Frame) => Frame>> = {
  right: ({ x, z }) => eyeAt(scale3(z, -1), x),
  left: ({ x, z }) => eyeAt(z, scale3(x, -1)),
  above: ({ x, y }) => eyeAt(x, y),
  below: ({ x, y }) => eyeAt(x, scale3(y, -1)),
};
