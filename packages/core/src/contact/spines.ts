import { add3, direction3, distance3, dot3, frameOn, scale3, sub3, type Vec3 } from '../math/index.ts';
import type { Surface } from '../geometry/index.ts';

/** A place of a spine, and the unit vector along which it runs there. */
interface SpinePlace {
  readonly at: Vec3;
  readonly along: Vec3;
}

/**
 * What something round is swept from by a ball: the axis of a cylinder, the middle of a ring; an edge is its own spine, with
 * a ball of no size (sphere-swept volumes: Larsen, Gottschalk, Lin, Manocha 2000).
 */
export type Spine = PointSpine | CurveSpine;
interface PointSpine {
  readonly form: 'point';
  readonly at: Vec3;
}
export interface CurveSpine {
  readonly form: 'curve';
  /** From `low` to `high`, mm; without ends where it is closed or bounded by what lies on it. */
  readonly low: number;
  readonly high: number;
  /** How far one may go along it and find it much the same, mm. */
  readonly reach: number;
  place(t: number): SpinePlace;
  /** The foot of a place on it. */
  foot(place: Vec3): number;
}

/** A straight spine. */
export const lineSpine = (origin: Vec3, along: Vec3, low: number, high: number, reach: number): CurveSpine => ({
  ...{ form: 'curve', low, high, reach },
  place: (t) => ({ at: add3(origin, scale3(along, t)), along }),
  foot: (place) => dot3(sub3(place, origin), along),
});

/** A round spine, counter-clockwise about its axis from where it begins; all round where it has no ends. */
export function circleSpine(centre: Vec3, axis: Vec3, radius: number, ends?: readonly [Vec3, Vec3]): CurveSpine {
  const { x, y } = frameOn(centre, axis, ends && sub3(ends[0], centre));
  const angle = (place: Vec3) => {
    const way = sub3(place, centre);
    return Math.atan2(dot3(way, y), dot3(way, x));
  };
  const turn = ends ? angle(ends[1]) : 0;
  const sweep = turn > 1e-9 ? turn : turn + 2 * Math.PI;
  return {
    ...{ form: 'curve', low: ends ? 0 : -Infinity, high: ends ? sweep * radius : Infinity, reach: radius },
    place(t) {
      const [c, s] = [Math.cos(t / radius), Math.sin(t / radius)];
      return {
        at: add3(centre, add3(scale3(x, radius * c), scale3(y, radius * s))),
        along: add3(scale3(x, -s), scale3(y, c)),
      };
    },
    // what lies behind the beginning by less than what is left over is before it
    foot(place) {
      const found = angle(place);
      const over = ends ? (2 * Math.PI - sweep) / 2 : 0;
      return radius * (ends && found < -over ? found + 2 * Math.PI : found);
    },
  };
}

/** A spine through places. */
export function polySpine(places: readonly Vec3[]): CurveSpine {
  const starts = [0];
  for (let k = 1; k < places.length; k++) starts.push(starts[k - 1]! + distance3(places[k - 1]!, places[k]!));
  const high = starts.at(-1)!;
  const along = places.slice(1).map((place, k) => direction3(sub3(place, places[k]!)) ?? ([1, 0, 0] as const));
  const at = (t: number): number => {
    let k = 0;
    while (k < along.length - 1 && starts[k + 1]! <= t) k++;
    return k;
  };
  return {
    ...{ form: 'curve', low: 0, high, reach: high / along.length },
    place(t) {
      const k = at(t);
      return { at: add3(places[k]!, scale3(along[k]!, t - starts[k]!)), along: along[k]! };
    },
    foot(place) {
      let best = { t: 0, distance: Infinity };
      along.forEach((direction, k) => {
        const way = Math.max(0, Math.min(starts[k + 1]! - starts[k]!, dot3(sub3(place, places[k]!), direction)));
        const distance = distance3(add3(places[k]!, scale3(direction, way)), place);
        if (distance < best.distance) best = { t: starts[k]! + way, distance };
      });
      return best.t;
    },
  };
}

interface Swept {
  readonly spine: Spine;
  /** Of the ball, mm. */
  readonly radius: number;
}

/** What a surface with its material inside is swept from; undefined of what is not swept by a ball of one size. */
export const spineOf = (surface: Surface): Swept | undefined =>
  (SPINES[surface.form] as (surface: Surface) => Swept | undefined)(surface);

const SPINES: { readonly [F in Surface['form']]: (surface: Extract<Surface, { form: F }>) => Swept | undefined } = {
  plane: () => undefined,
  cone: () => undefined,
  free: () => undefined,
  cylinder: ({ origin, axis, radius }) => ({
    spine: lineSpine(origin, axis, -Infinity, Infinity, radius),
    radius,
  }),
  sphere: ({ centre, radius }) => ({ spine: { form: 'point', at: centre }, radius }),
  torus: ({ origin, axis, major, minor }) => ({ spine: circleSpine(origin, axis, major), radius: minor }),
};
