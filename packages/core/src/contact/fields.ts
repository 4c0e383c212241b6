import { add3, cross3, direction3, dot3, length3, scale3, sub3, type Vec3 } from '../math/index.ts';
import type { Surface } from '../geometry/index.ts';

/** How far a place lies outside of something (negative: within), mm, and the unit vector of the way out. */
export interface Outside {
  readonly distance: number;
  readonly normal: Vec3;
}

/** The signed distance to something; undefined where no way out is the shortest, as on the axis of a cylinder. */
export type DistanceField = (place: Vec3) => Outside | undefined;

/** Nearer to an axis or a centre than this, mm, every way out is as short. */
const AXIAL = 1e-9;

/** Away from a place of the spine of something round. */
export function awayFrom(foot: Vec3, place: Vec3, radius: number): Outside | undefined {
  const way = sub3(place, foot);
  const length = length3(way);
  return length < AXIAL ? undefined : { distance: length - radius, normal: scale3(way, 1 / length) };
}

/** A place over a turned surface: its foot on the axis, how far along that is, and the direction away from it. */
function turned(origin: Vec3, axis: Vec3, place: Vec3) {
  const way = sub3(place, origin);
  const height = dot3(way, axis);
  const across = sub3(way, scale3(axis, height));
  return { foot: add3(origin, scale3(axis, height)), height, radial: direction3(across), radius: length3(across) };
}

type Known = Exclude<Surface, { form: 'free' }>;
/** The distance away from the axis, the centre or the side of the normal. */
const OUTWARD: { readonly [F in Known['form']]: (surface: Extract<Known, { form: F }>) => DistanceField } = {
  plane:
    ({ origin, normal }) =>
    (place) => ({ distance: dot3(sub3(place, origin), normal), normal }),
  cylinder:
    ({ origin, axis, radius }) =>
    (place) =>
      awayFrom(turned(origin, axis, place).foot, place, radius),
  sphere:
    ({ centre, radius }) =>
    (place) =>
      awayFrom(centre, place, radius),
  torus:
    ({ origin, axis, major, minor }) =>
    (place) => {
      const { radial } = turned(origin, axis, place);
      return radial && awayFrom(add3(origin, scale3(radial, major)), place, minor);
    },
  cone:
    ({ origin, axis, angle }) =>
    (place) => {
      const { height, radial, radius } = turned(origin, axis, place);
      const [c, s] = [Math.cos(angle), Math.sin(angle)];
      return radial && { distance: radius * c - height * s, normal: sub3(scale3(radial, c), scale3(axis, s)) };
    },
};

/**
 * The signed distance to a surface, not bounded by the edges of a face on it.
 * @param side 1 where the material is on the side of the axis or against the normal, -1 where it is on the other
 * @returns undefined of a free surface: only its mesh is known
 */
export function fieldOf(surface: Surface, side: 1 | -1 = 1): DistanceField | undefined {
  if (surface.form === 'free') return undefined;
  const outward = (OUTWARD[surface.form] as (known: Known) => DistanceField)(surface);
  if (side === 1) return outward;
  return (place) => {
    const found = outward(place);
    return found && { distance: -found.distance, normal: scale3(found.normal, -1) };
  };
}

/** Two directions square to a tangent, each away from one of two faces that meet there: along the other face. */
export function alongFaces(tangent: Vec3, normals: readonly [Vec3, Vec3]): readonly Vec3[] {
  return normals.flatMap((normal, k) => {
    const along = direction3(cross3(normal, tangent));
    // at an outer edge each face goes away below the other
    return along ? [dot3(along, normals[1 - k]!) > 0 ? scale3(along, -1) : along] : [];
  });
}
