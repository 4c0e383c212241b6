import {
  formatAmount,
  formatQuantity,
  LENGTH,
  translation,
  rotation,
  type LengthUnit,
  type RigidTransform,
  type Vec2,
  type Vec3,
} from '@helb/core';

// A handle by which something is shifted along the axes of space and turned about them: three arrows and three arcs.

export interface Grip {
  readonly sort: 'shift' | 'turn';
  readonly axis: 0 | 1 | 2;
}

/** What of a view a handle is seen by: drawings have no vanishing points, so places on the screen go in proportion. */
export interface HandleView {
  toScreen(place: Vec3): Vec2;
  /** Millimetres for a pixel. */
  readonly pixel: number;
}

/** Pixels from the middle. */
const ARROW = { from: 18, to: 84 };
const ARC = 60;
/** Shorter than this on the screen, or narrower, it can not be taken by the hand. */
const LEAST = 14;
/** Shifts go by whole millimetres and turns by five degrees; fine ones by tenths and single degrees. */
const STEPS = { shift: { coarse: 1, fine: 0.1 }, turn: { coarse: 5, fine: 1 } };
/** In inches they go by sixteenths, and by sixty-fourths. */
const INCHES = { coarse: 25.4 / 16, fine: 25.4 / 64 };

const AXES = ['x', 'y', 'z'] as const;
const unit = (axis: number, by = 1): Vec3 => [0, 1, 2].map((k) => (k === axis ? by : 0)) as unknown as Vec3;
const from = (at: Vec3, ...ways: readonly Vec3[]): Vec3 =>
  ways.reduce<Vec3>((sum, way) => [sum[0] + way[0], sum[1] + way[1], sum[2] + way[2]], at);

/** Where the pointer is over the drawing in which something was taken, px from its upper left. */
export function placeOver(event: PointerEvent): Vec2 {
  const box = (event.currentTarget as SVGElement).ownerSVGElement!.getBoundingClientRect();
  return [event.clientX - box.left, event.clientY - box.top];
}

export const gripName = ({ sort, axis }: Grip): string =>
  sort === 'shift' ? `Shift along ${AXES[axis]}` : `Turn about ${AXES[axis]}`;

/** The grips of a handle at a place that can be taken in this view, each as a line on the screen. */
export function gripsAt(at: Vec3, view: HandleView): { readonly grip: Grip; readonly line: readonly Vec2[] }[] {
  return ([0, 1, 2] as const).flatMap((axis) => {
    const on = (...ways: Vec3[]) => view.toScreen(from(at, ...ways));
    const [along, about] = [alongAxis(at, axis, view), aboutAxis(at, axis, view)];
    const arrow = [ARROW.from, ARROW.to].map((length) => on(unit(axis, length * view.pixel)));
    const [u, v] = [(axis + 1) % 3, (axis + 2) % 3];
    const arc = Array.from({ length: 13 }, (_, k) => {
      const angle = (Math.PI / 2) * (0.12 + (0.76 * k) / 12);
      const radius = ARC * view.pixel;
      return on(unit(u, radius * Math.cos(angle)), unit(v, radius * Math.sin(angle)));
    });
    return [
      ...(along ? [{ grip: { sort: 'shift', axis } as const, line: arrow }] : []),
      ...(about ? [{ grip: { sort: 'turn', axis } as const, line: arc }] : []),
    ];
  });
}

/** How far along an axis, mm, a screen place is; undefined where the axis is seen from its end. */
const alongAxis = (at: Vec3, axis: number, view: HandleView) => alongWay(at, unit(axis), view);

/** How far along a unit vector from a place, mm, a screen place is; undefined where it is seen from its end. */
export function alongWay(at: Vec3, along: Vec3, view: HandleView): ((place: Vec2) => number) | undefined {
  const [origin, end] = [view.toScreen(at), view.toScreen(from(at, along))];
  const way: Vec2 = [end[0] - origin[0], end[1] - origin[1]];
  const square = way[0] ** 2 + way[1] ** 2;
  if (Math.sqrt(square) * ARROW.to * view.pixel < LEAST) return undefined;
  return ([x, y]) => ((x - origin[0]) * way[0] + (y - origin[1]) * way[1]) / square;
}

/** At which angle about the axis a screen place is, in the plane square to it; undefined where that is seen edge-on. */
function aboutAxis(at: Vec3, axis: number, view: HandleView): ((place: Vec2) => number) | undefined {
  const [origin, one, other] = [at, from(at, unit((axis + 1) % 3)), from(at, unit((axis + 2) % 3))].map((place) =>
    view.toScreen(place),
  ) as [Vec2, Vec2, Vec2];
  const [a, b] = [one, other].map(([x, y]): Vec2 => [x - origin[0], y - origin[1]]) as [Vec2, Vec2];
  const area = a[0] * b[1] - a[1] * b[0];
  // the area of a square millimetre, in that of one seen from the front
  if (Math.abs(area) * view.pixel ** 2 * ARC < LEAST) return undefined;
  return ([px, py]) => {
    const [x, y] = [px - origin[0], py - origin[1]];
    return Math.atan2((a[0] * y - a[1] * x) / area, (x * b[1] - y * b[0]) / area);
  };
}

/** Takes a grip: where each place of the pointer moves what hangs on the handle, and in words how far. */
export function take(
  { sort, axis }: Grip,
  at: Vec3,
  view: HandleView,
  start: Vec2,
  unitOfLength: LengthUnit,
): (to: Vec2, fine: boolean) => { readonly by: RigidTransform; readonly words: string } {
  const measure = (sort === 'shift' ? alongAxis : aboutAxis)(at, axis, view) ?? (() => 0);
  let [before, gone] = [measure(start), 0];
  return (to, fine) => {
    const now = measure(to);
    // a turn goes on over half a turn: the shorter way from where it was
    const turned = now - before - 2 * Math.PI * Math.round((now - before) / (2 * Math.PI));
    gone += sort === 'shift' ? now - before : turned;
    before = now;
    const steps = sort === 'shift' && unitOfLength === 'in' ? INCHES : STEPS[sort];
    const step = steps[fine ? 'fine' : 'coarse'];
    const amount = Math.round((sort === 'shift' ? gone : (gone * 180) / Math.PI) / step) * step;
    if (sort === 'shift') {
      const far = formatQuantity({ amount, dimension: LENGTH }, unitOfLength, 5);
      return { by: translation(unit(axis, amount)), words: `${AXES[axis]} ${amount > 0 ? '+' : ''}${far}` };
    }
    return {
      by: rotation(at, unit(axis), (amount * Math.PI) / 180),
      words: `about ${AXES[axis]} ${signed(amount)} deg`,
    };
  };
}

const signed = (amount: number): string => `${amount > 0 ? '+' : ''}${formatAmount(amount, 1)}`;
