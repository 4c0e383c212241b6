import {
  add3,
  transformPoint,
  scale3,
  sub3,
  type BodyMeasures,
  type Id,
  type RigidTransform,
  type Project,
  type Vec3,
} from '@helb/core';
import { memberPose, type Member } from '@helb/core/assembly';
import { shifted, totalsOf, type Totals } from './totals.ts';

/** One line of the make-up list. */
export interface BillRow {
  readonly part: Id;
  readonly name: string;
  readonly count: number;
  readonly material: string | null;
  /** Of one of them; null without a material. */
  readonly mass_g: number | null;
  /** Extents along x, y and z of the part, mm; null without a body. */
  readonly size_mm: Vec3 | null;
  /** Which share of its box it fills; null without a body. */
  readonly fill: number | null;
}

/** The whole as it stands in a pose. */
export interface AssemblyTotals {
  /** Of all parts with a material. */
  readonly mass_g: number;
  /** Placements whose mass is not known. */
  readonly unknown: number;
  /** Of all that is placed, each counted whole: where two overlap, that counts twice. */
  readonly volume_mm3: number;
  readonly centre_mm: Vec3 | null;
  /** About the centre, axes of space, order and signs as in Totals. */
  readonly inertia_g_mm2: readonly number[];
  /** How far each may be off. */
  readonly off: { readonly mass_g: number; readonly volume_mm3: number; readonly centre_mm: number };
}

/** Parts as they were built, as far as it matters here. */
export interface Weighed {
  readonly parts: readonly {
    readonly id: Id;
    readonly bodies: readonly { readonly measures: BodyMeasures }[];
  }[];
}

/** Measures of each part, by its id. */
export const partTotals = (project: Project, model: Weighed): Map<Id, Totals> =>
  new Map(
    model.parts.map(({ id, bodies }) => [
      id,
      totalsOf(
        bodies.map(({ measures }) => measures),
        project.parts[id]?.material,
      ),
    ]),
  );

/** What the whole is made of: each part that is placed, in the order of the parts, with how often. */
export function billOfMaterials(project: Project, model: Weighed, members: readonly Member[]): BillRow[] {
  const totals = partTotals(project, model);
  return project.partOrder.flatMap((part): BillRow[] => {
    const count = members.filter((member) => member.part === part).length;
    const of = totals.get(part);
    if (count === 0 || !of) return [];
    const { name, material } = project.parts[part]!;
    const { mass_g, box_mm } = of;
    const size_mm = box_mm && ([0, 1, 2].map((k) => box_mm.high[k]! - box_mm.low[k]!) as unknown as Vec3);
    const fill = size_mm && of.volume_mm3 / (size_mm[0] * size_mm[1] * size_mm[2]);
    return [
      { part, name, count, material: material?.name ?? null, mass_g: of.bodies > 0 ? mass_g : null, size_mm, fill },
    ];
  });
}

/** Mass, centre and inertia of everything that is placed, in a pose. */
export function assemblyTotals(
  project: Project,
  model: Weighed,
  members: readonly Member[],
  pose: { readonly poses: readonly RigidTransform[] },
): AssemblyTotals {
  const totals = partTotals(project, model);
  const placed = members.flatMap((member) => {
    const of = totals.get(member.part);
    return of && of.bodies > 0 ? [{ of, pose: memberPose(member, pose) }] : [];
  });
  const weighed = placed.flatMap(({ of, pose: at }) =>
    of.mass_g === null || !of.inertia_g_mm2
      ? []
      : [
          {
            mass: of.mass_g,
            centre: transformPoint(at, of.centre_mm!),
            inertia: turnedTensor(at, of.inertia_g_mm2),
            off: of.off,
          },
        ],
  );
  const mass = weighed.reduce((sum, one) => sum + one.mass, 0);
  const moment = weighed.reduce<Vec3>((sum, one) => add3(sum, scale3(one.centre, one.mass)), [0, 0, 0]);
  const centre = mass > 0 ? scale3(moment, 1 / mass) : null;
  const inertia = [0, 0, 0, 0, 0, 0];
  for (const one of centre ? weighed : []) {
    const moved = shifted(one.inertia, one.mass, sub3(one.centre, centre!));
    moved.forEach((entry, k) => (inertia[k]! += entry));
  }
  return {
    mass_g: mass,
    unknown: placed.length - weighed.length,
    volume_mm3: placed.reduce((sum, { of }) => sum + of.volume_mm3, 0),
    centre_mm: centre,
    inertia_g_mm2: inertia,
    off: {
      mass_g: weighed.reduce((sum, one) => sum + one.off.mass_g, 0),
      volume_mm3: placed.reduce((sum, { of }) => sum + of.off.volume_mm3, 0),
      centre_mm: Math.max(0, ...weighed.map((one) => one.off.centre_mm)),
    },
  };
}

/** An inertia tensor of a part seen in space: R J R^T. */
function turnedTensor(pose: RigidTransform, [xx, yy, zz, xy, xz, yz]: readonly number[]): number[] {
  const rows = [
    [xx!, xy!, xz!],
    [xy!, yy!, yz!],
    [xz!, yz!, zz!],
  ] as unknown as readonly Vec3[];
  const r = pose.map((row) => row.slice(0, 3)) as unknown as readonly Vec3[];
  const entry = (i: number, j: number): number =>
    rows.reduce((sum, row, k) => sum + r[i]![k]! * row.reduce((part, c, l) => part + c * r[j]![l]!, 0), 0);
  return [entry(0, 0), entry(1, 1), entry(2, 2), entry(0, 1), entry(0, 2), entry(1, 2)];
}
