import { add3, scale3, sub3, type Vec2, type Vec3 } from '@helb/core';
import { toSegment } from './picks.ts';

/** How near on the screen something must be to be meant. */
export const PICK_PIXELS = 6;

/** How places in space come onto the screen, while the camera stands still. */
export interface Screen {
  /** Where a place is, px from the upper left of the view. */
  toScreen(place: Vec3): Vec2;
  /** How far a place lies behind the eye's plane, mm. */
  depthOf(place: Vec3): number;
  /** Millimetres for a pixel. */
  readonly pixel: number;
}

/**
 * How far from the eye a row of segments is where it comes nearest to a screen place; undefined where it does not come
 * near. A little nearer than it is: where an edge and its faces are equally far, the edge was meant.
 */
export function nearness(
  screen: Screen,
  at: Vec2,
  count: number,
  point: (k: number) => Vec3,
  hides: (place: Vec3) => boolean = () => false,
): number | undefined {
  let nearest = PICK_PIXELS;
  let depth: number | undefined;
  for (let k = 0; k < count; k += 2) {
    const [a, b] = [point(k), point(k + 1)];
    const { distance, t } = toSegment(at, screen.toScreen(a), screen.toScreen(b));
    if (distance > nearest) continue;
    nearest = distance;
    const place = add3(a, scale3(sub3(b, a), t));
    if (hides(place)) continue;
    depth = screen.depthOf(place) - screen.pixel * PICK_PIXELS;
  }
  return depth;
}

/** The way on the screen from a place to where a row of segments comes nearest to it, px. */
export function offsetTo(screen: Screen, at: Vec2, count: number, point: (k: number) => Vec3): Vec2 {
  let nearest = Infinity;
  let offset: Vec2 = [Infinity, Infinity];
  for (let k = 0; k < count; k += 2) {
    const [a, b] = [screen.toScreen(point(k)), screen.toScreen(point(k + 1))];
    const { distance, t } = toSegment(at, a, b);
    if (distance >= nearest) continue;
    nearest = distance;
    offset = [a[0] + t * (b[0] - a[0]) - at[0], a[1] + t * (b[1] - a[1]) - at[1]];
  }
  return offset;
}

/** How far from the eye a corner is that lies under a screen place: nearer than its edges. */
export function cornerNearness(screen: Screen, at: Vec2, corner: Vec3): number | undefined {
  const [x, y] = screen.toScreen(corner);
  if (Math.hypot(x - at[0], y - at[1]) > PICK_PIXELS + 1) return undefined;
  return screen.depthOf(corner) - 2 * screen.pixel * PICK_PIXELS;
}
