import type { Entities } from '../sketch/index.ts';

/** Goes on to a place: straight, or round a centre, counter-clockwise or, where it is `hollow`, clockwise; mm. */
export interface Leg {
  readonly to: readonly [number, number];
  readonly about?: readonly [number, number];
  readonly hollow?: boolean;
}

/** A closed outline of lines and arcs, counter-clockwise, back to where it begins. */
export function outline(start: readonly [number, number], legs: readonly Leg[]): Entities {
  const entities: Record<string, Entities[string]> = {};
  const point = (id: string, [x, y]: readonly [number, number]) => (entities[id] = { kind: 'point', x, y });
  point('p0', start);
  let from = start;
  legs.forEach(({ to, about, hollow = false }, k) => {
    const next = k + 1 < legs.length ? `p${k + 1}` : 'p0';
    if (k + 1 < legs.length) point(next, to);
    const [a, b] = hollow ? [next, `p${k}`] : [`p${k}`, next];
    if (!about) entities[`l${k}`] = { kind: 'line', a, b };
    else {
      point(`c${k}`, about);
      const radius = Math.hypot(from[0] - about[0], from[1] - about[1]);
      entities[`a${k}`] = { kind: 'arc', centre: `c${k}`, a, b, radius };
    }
    from = to;
  });
  return entities;
}

type At = readonly [number, number];
const round = (radius: number, angle: number): At => [radius * Math.cos(angle), radius * Math.sin(angle)];

/** What tells a wheel that a pin moves on by one slot a turn, mm. */
interface SlottedWheel {
  readonly slots: number;
  /** How far the pin is from the middle of what drives. */
  readonly arm: number;
  /** Widths of the slots, and radii of the recesses and of the disc that locks. */
  readonly slot: number;
  readonly recess: number;
  readonly lock: number;
}

/** How far its middle is from that of what drives it: the pin comes into a slot along it. */
export const apartOf = ({ slots, arm }: SlottedWheel): number => arm / Math.sin(Math.PI / slots);

/** The outline of such a wheel about the origin: slots from the rim inwards, the first along x, and recesses between them. */
export function slottedWheel(wheel: SlottedWheel): { readonly start: At; readonly legs: readonly Leg[] } {
  const { slots, arm, slot, recess } = wheel;
  const apart = apartOf(wheel);
  const rim = apart * Math.cos(Math.PI / slots);
  // as deep as the pin comes, and some more
  const depth = apart - arm - 0.5;
  const half = slot / 2;
  const mouth = Math.asin(half / rim);
  const notch = Math.acos((rim * rim + apart * apart - recess * recess) / (2 * rim * apart));
  const legs = Array.from({ length: slots }, (_, k): Leg[] => {
    const [middle, next] = [k + 0.5, k + 1].map((share) => (2 * Math.PI * share) / slots) as [number, number];
    const beside = (side: 1 | -1): At => [
      depth * Math.cos(next) - side * half * Math.sin(next),
      depth * Math.sin(next) + side * half * Math.cos(next),
    ];
    return [
      { to: round(rim, middle - notch), about: [0, 0] },
      { to: round(rim, middle + notch), about: round(apart, middle), hollow: true },
      { to: round(rim, next - mouth), about: [0, 0] },
      { to: beside(-1) },
      { to: beside(1), about: round(depth, next), hollow: true },
      { to: round(rim, next + mouth) },
    ];
  });
  return { start: round(rim, mouth), legs: legs.flat() };
}

/** The outline of the disc that locks it, with a crescent cut away towards the pin, which is on the side of -x. */
export function lockDisc(wheel: SlottedWheel): { readonly start: At; readonly legs: readonly Leg[] } {
  const { slots, lock } = wheel;
  const apart = apartOf(wheel);
  const cut = apart * Math.cos(Math.PI / slots) + 1.6;
  const half = Math.acos((lock * lock + apart * apart - cut * cut) / (2 * lock * apart));
  return {
    start: round(lock, Math.PI + half),
    legs: [
      { to: round(lock, 0), about: [0, 0] },
      { to: round(lock, Math.PI - half), about: [0, 0] },
      { to: round(lock, Math.PI + half), about: [-apart, 0], hollow: true },
    ],
  };
}
