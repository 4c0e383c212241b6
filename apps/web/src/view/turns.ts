import { dot3, type Vec2, type Vec3 } from '@helb/core';

// How a view is turned.

const DEG = Math.PI / 180;
/** Azimuth and polar angle of each named view; z is up, azimuth 0 looks from -y. */
export const VIEWS = {
  Front: [0, 90],
  Top: [0, 0],
  Right: [90, 90],
  Back: [180, 90],
  Under: [0, 180],
  Left: [-90, 90],
  Corner: [-35, 62],
} as const;
export type ViewName = keyof typeof VIEWS;

/** How the view is turned: azimuth and polar angle, rad. */
export type Turn = Vec2;

export const turnOf = (view: ViewName): Turn => [VIEWS[view][0] * DEG, VIEWS[view][1] * DEG];

/** From where a turn looks, as a unit vector. */
export const eyeOf = ([azimuth, polar]: Turn): Vec3 => [
  Math.sin(polar) * Math.sin(azimuth),
  -Math.sin(polar) * Math.cos(azimuth),
  Math.cos(polar),
];

/** What is seen nearer than this (cosine) to square on shows no depth, what is seen flatter shows no face. */
const [FLAT, GRAZING] = [0.999, 0.15];

/**
 * A turn in which something that faces along a normal is seen with its depth: the one that is given, or from the corner on
 * its own side where it would be seen square on, edge-on or from behind.
 */
export function facing(normal: Vec3, turn: Turn): Turn {
  const seen = dot3(eyeOf(turn), normal);
  if (seen > GRAZING && seen < FLAT) return turn;
  const corner = turnOf('Corner');
  if (Math.abs(normal[2]) > Math.SQRT1_2) return [corner[0], normal[2] > 0 ? corner[1] : Math.PI - corner[1]];
  return [Math.atan2(normal[0], -normal[1]) + corner[0], corner[1]];
}
