import {
  add3,
  dot3,
  heightOver,
  transformPoint,
  scale3,
  sub3,
  toPlane,
  transformDirection,
  type Frame,
  type RigidTransform,
  type Vec2,
  type Vec3,
} from '../math/index.ts';
import type { EdgeFacts, Topology } from '../kernel-port/index.ts';
import { segment } from './picture.ts';
import type { Box, Piece } from '../sketch/pieces/index.ts';
import type { Witness } from './witness/index.ts';

/** A whole round thing: a bore, a pin, a cone; from one end of its axis to the other. */
interface Round {
  readonly from: Vec3;
  readonly to: Vec3;
  readonly axis: Vec3;
  readonly radius: number;
}

type Circle = Extract<EdgeFacts['curve'], { form: 'circle' }>;

/** Of a body all that goes round an axis: faces with a rim that is a whole circle. Roundings are none. */
function roundsOf({ faces, edges }: Topology): Round[] {
  const circles = new Map<string, Circle[]>();
  for (const { faces: sides, curve } of edges)
    if (curve.form === 'circle' && !curve.from)
      for (const side of sides) circles.set(side, [...(circles.get(side) ?? []), curve]);
  return faces.flatMap(({ name, surface }): Round[] => {
    if (surface.form !== 'cylinder' && surface.form !== 'cone') return [];
    const rims = circles.get(name) ?? [];
    if (rims.length === 0) return [];
    const { origin, axis } = surface;
    const heights = rims.map(({ centre }) => dot3(sub3(centre, origin), axis));
    const at = (height: number) => add3(origin, scale3(axis, height));
    const radius = Math.max(...rims.map((rim) => rim.radius));
    return [{ from: at(Math.min(...heights)), to: at(Math.max(...heights)), axis, radius }];
  });
}

/** How far centre lines reach beyond what they belong to, mm on paper: less where that is small. */
const [LEAST, MOST] = [0.8, 2.5];

/**
 * Centre lines of what is round: crosses where it is seen from its end, its axis where it is seen from the side. In mm of
 * the thing, in the plane of the eye.
 * @param cut the planes of a section: axes are drawn only where they lie in one of them
 */
export function centreLines(
  bodies: readonly { readonly topology: Topology; readonly transform: RigidTransform }[],
  eye: Frame,
  { factor, cut }: { readonly factor: number; readonly cut: readonly Frame[] | undefined },
): Piece[] {
  const found = new Map<string, { readonly pieces: readonly Piece[]; readonly reach: number }>();
  const offer = (key: string, reach: number, pieces: readonly Piece[]) => {
    if ((found.get(key)?.reach ?? 0) < reach) found.set(key, { pieces, reach });
  };
  const keyOf = (place: Vec2) => place.map((c) => c.toFixed(4)).join(' ');
  for (const { topology, transform } of bodies)
    for (const { from, to, axis, radius } of roundsOf(topology)) {
      const beyond = Math.min(Math.max(LEAST, 0.5 * radius * factor), MOST) / factor;
      const [a, b] = [from, to].map((place) => toPlane(eye, transformPoint(transform, place))) as [Vec2, Vec2];
      const lean = Math.abs(dot3(transformDirection(transform, axis), eye.z));
      if (lean > 1 - 1e-9) {
        const arm = radius + beyond;
        const cross = [
          segment([a[0] - arm, a[1]], [a[0] + arm, a[1]]),
          segment([a[0], a[1] - arm], [a[0], a[1] + arm]),
        ];
        offer(`at ${keyOf(a)}`, arm, cross);
      } else if (
        lean < 1e-9 &&
        (!cut || cut.some((plane) => Math.abs(heightOver(plane, transformPoint(transform, from))) < 1e-6))
      ) {
        const length = Math.hypot(b[0] - a[0], b[1] - a[1]);
        const [ux, uy] = [(b[0] - a[0]) / length, (b[1] - a[1]) / length];
        const [p, q]: [Vec2, Vec2] = [
          [a[0] - beyond * ux, a[1] - beyond * uy],
          [b[0] + beyond * ux, b[1] + beyond * uy],
        ];
        offer([keyOf(p), keyOf(q)].sort().join(' to '), length, [segment(p, q)]);
      }
    }
  return [...found.values()].flatMap(({ pieces }) => pieces);
}

/** Across views of what is symmetrical as a whole, the line in which it mirrors: so its two sides need no figures each. */
export function mirrorLines(mirrors: Witness['mirrors'], eye: Frame, { low, high }: Box, factor: number): Piece[] {
  const beyond = MOST / factor;
  return mirrors.flatMap(({ across, at, isTold }) => {
    const way: Vec2 = [eye.x[across]!, eye.y[across]!];
    if (!isTold || Math.hypot(...way) < 1 - 1e-9) return [];
    const [x, y] = [at * way[0], at * way[1]];
    return Math.abs(way[0]) > 0.5
      ? [segment([x, low[1] - beyond], [x, high[1] + beyond])]
      : [segment([low[0] - beyond, y], [high[0] + beyond, y])];
  });
}
