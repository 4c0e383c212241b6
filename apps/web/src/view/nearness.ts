import { Vector3 } from 'three';
import type { Vec2, Vec3 } from '@helb/core';
import type { ViewCamera } from './camera.ts';
import { toSegment } from './picks.ts';

/** How near on the screen something must be to be meant. */
export const PICK_PIXELS = 6;

export const depthOf = (view: ViewCamera, place: Vec3): number =>
  new Vector3(...place).sub(view.camera.position).dot(new Vector3(...view.sight));

/**
 * How far from the eye a row of segments is where it comes nearest to a screen place; undefined where it does not come
 * near. A little nearer than it is: where an edge and its faces are equally far, the edge was meant.
 */
export function nearness(
  view: ViewCamera,
  at: Vec2,
  count: number,
  point: (k: number) => Vec3,
  hides: (place: Vec3) => boolean = () => false,
): number | undefined {
  let nearest = PICK_PIXELS;
  let depth: number | undefined;
  for (let k = 0; k < count; k += 2) {
    const [a, b] = [point(k), point(k + 1)];
    const { distance, t } = toSegment(at, view.toScreen(a), view.toScreen(b));
    if (distance > nearest) continue;
    nearest = distance;
    const place = new Vector3(...a).lerp(new Vector3(...b), t).toArray();
    if (hides(place)) continue;
    depth = depthOf(view, place) - view.pixel * PICK_PIXELS;
  }
  return depth;
}

/** How far from the eye a corner is that lies under a screen place: nearer than its edges. */
export function cornerNearness(view: ViewCamera, at: Vec2, corner: Vec3): number | undefined {
  const [x, y] = view.toScreen(corner);
  if (Math.hypot(x - at[0], y - at[1]) > PICK_PIXELS + 1) return undefined;
  return depthOf(view, corner) - 2 * view.pixel * PICK_PIXELS;
}
