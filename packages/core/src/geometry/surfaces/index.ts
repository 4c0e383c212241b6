import type { RigidTransform, Vec3 } from '../../math/index.ts';
import { cone, type Cone } from './cone.ts';
import { cylinder, type Cylinder } from './cylinder.ts';
import { freeSurface, type FreeSurface } from './free.ts';
import type { SurfaceKind } from './kind.ts';
import { plane, type Plane } from './plane.ts';
import { sphere, type Sphere } from './sphere.ts';
import { torus, type Torus } from './torus.ts';

/** What a face lies on. Normals point out of the body. */
export type Surface = Plane | Cylinder | Cone | Torus | Sphere | FreeSurface;

/** The register: a new kind of surface is a file beside these and a line here. */
const KINDS: { readonly [F in Surface['form']]: SurfaceKind<Extract<Surface, { form: F }>> } = {
  plane,
  cylinder,
  cone,
  torus,
  sphere,
  free: freeSurface,
};
const kindOf = (surface: Surface): SurfaceKind<Surface> => KINDS[surface.form];

/** How fingerprints call its kind. */
export const lookOfSurface = (surface: Surface): string => kindOf(surface).look;
/** How a face on it reads: "flat", "round ⌀16 mm". @param told a length in words */
export const wordsOfSurface = (surface: Surface, told: (mm: number) => string): string =>
  kindOf(surface).words(surface, told);
/** A surface elsewhere. @param by a transform without reflection */
export const transformSurface = (surface: Surface, by: RigidTransform): Surface =>
  kindOf(surface).transform(surface, by);
/** The direction that tells how a surface lies: the normal of a plane, the axis of what goes round one. */
export const alongSurface = (surface: Surface): Vec3 | undefined => kindOf(surface).along?.(surface);
/** The axis that what lies on a surface can be joined at: of cylinders and cones. */
export const axisOfSurface = (surface: Surface) => kindOf(surface).axis?.(surface);
/** The place that a surface stands for: the centre of a sphere. */
export const centreOfSurface = (surface: Surface): Vec3 | undefined => kindOf(surface).centre?.(surface);
/** The radius of a cylinder or a sphere, mm. */
export const radiusOfSurface = (surface: Surface): number | undefined => kindOf(surface).radius?.(surface);
/** The radius that a dimension of a surface tells, mm. */
export const toldRadius = (surface: Surface): number | undefined => kindOf(surface).toldRadius?.(surface);
