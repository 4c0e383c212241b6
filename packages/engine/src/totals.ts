import { boxRound, dot3, sub3, type BodyMeasures, type Frame, type Material, type Vec3 } from '@helb/core';

/** Measures of several bodies as one. Mass and inertia only where the material is known. */
export interface Totals {
  readonly bodies: number;
  readonly faces: number;
  readonly volume_mm3: number;
  readonly area_mm2: number;
  readonly mass_g: number | null;
  readonly centre_mm: Vec3 | null;
  /** How far each may be off, by the ways in which it was found. */
  readonly off: {
    readonly volume_mm3: number;
    readonly area_mm2: number;
    readonly mass_g: number;
    readonly centre_mm: number;
  };
  /** About the centre of mass, axes of the part: xx, yy, zz, xy, xz, yz with products as in the tensor (-integral of x y dm). */
  readonly inertia_g_mm2: readonly number[] | null;
  readonly box_mm: { readonly low: Vec3; readonly high: Vec3 } | null;
}

/** g/mm^3 for a density in kg/m^3. */
const GRAMS_PER_MM3 = 1e-6;

/** Volume, area, mass, centre, inertia and box of bodies together; without a material no mass. */
export function totalsOf(bodies: readonly BodyMeasures[], material?: Material): Totals {
  const sum = (of: (body: BodyMeasures) => number) => bodies.reduce((total, body) => total + of(body), 0);
  const volume = sum((body) => body.volume_mm3);
  const centre =
    bodies.length === 0
      ? null
      : ([0, 1, 2].map((k) => sum((b) => b.centre_mm[k]! * b.volume_mm3) / volume) as unknown as Vec3);
  const density = material ? material.density_kg_m3 * GRAMS_PER_MM3 : null;
  return {
    bodies: bodies.length,
    faces: sum((body) => body.faces),
    volume_mm3: volume,
    area_mm2: sum((body) => body.area_mm2),
    mass_g: density === null ? null : volume * density,
    centre_mm: centre,
    off: {
      volume_mm3: sum(({ off }) => off.volume_mm3),
      area_mm2: sum(({ off }) => off.area_mm2),
      mass_g: sum(({ off }) => off.volume_mm3) * (density ?? 0),
      centre_mm: Math.max(0, ...bodies.map(({ off }) => off.centre_mm)),
    },
    inertia_g_mm2: density === null || !centre ? null : inertiaAbout(centre, bodies).map((entry) => entry * density),
    box_mm: boxRound(bodies.map((body) => body.box_mm)) ?? null,
  };
}

/** Where the centre of mass lies in a frame, and the inertia about the frame's origin along its axes (order as in Totals). */
export interface Seen {
  readonly centre_mm: Vec3 | null;
  readonly inertia_g_mm2: readonly number[] | null;
}

/** Centre and inertia as seen from a frame; nothing where no mass is known. */
export function seenFrom(
  { centre_mm, inertia_g_mm2, mass_g }: Pick<Totals, 'centre_mm' | 'inertia_g_mm2' | 'mass_g'>,
  frame: Frame,
): Seen {
  if (!centre_mm) return { centre_mm: null, inertia_g_mm2: null };
  const axes = [frame.x, frame.y, frame.z];
  const off = sub3(centre_mm, frame.origin);
  const at = axes.map((axis) => dot3(off, axis)) as unknown as Vec3;
  if (!inertia_g_mm2 || mass_g === null) return { centre_mm: at, inertia_g_mm2: null };
  const [xx, yy, zz, xy, xz, yz] = inertia_g_mm2 as [number, number, number, number, number, number];
  const rows: readonly Vec3[] = [
    [xx, xy, xz],
    [xy, yy, yz],
    [xz, yz, zz],
  ];
  const square = dot3(at, at);
  const entry = (i: number, j: number): number => {
    const turned = dot3(axes[i]!, rows.map((row) => dot3(row, axes[j]!)) as unknown as Vec3);
    return turned + mass_g * ((i === j ? square : 0) - at[i]! * at[j]!);
  };
  return {
    centre_mm: at,
    inertia_g_mm2: [entry(0, 0), entry(1, 1), entry(2, 2), entry(0, 1), entry(0, 2), entry(1, 2)],
  };
}

/** An inertia about a place that is so far from its centre (parallel axes: Huygens, Steiner); order as in Totals. */
export const shifted = (inertia: readonly number[], mass: number, [x, y, z]: Vec3): number[] =>
  [y * y + z * z, x * x + z * z, x * x + y * y, -x * y, -x * z, -y * z].map((entry, k) => inertia[k]! + mass * entry);

/** Sum of the bodies' inertias moved to one centre. */
function inertiaAbout(centre: Vec3, bodies: readonly BodyMeasures[]): number[] {
  const total = [0, 0, 0, 0, 0, 0];
  for (const { inertia_mm5, centre_mm, volume_mm3 } of bodies) {
    const [x, y, z] = [0, 1, 2].map((k) => centre_mm[k]! - centre[k]!) as [number, number, number];
    shifted(inertia_mm5, volume_mm3, [x, y, z]).forEach((entry, k) => (total[k]! += entry));
  }
  return total;
}
