import {
  explain,
  namesAlong,
  recordsAlong,
  type Box3,
  type Issue,
  type Project,
  type Vec3,
  type Coordinate,
  coordinateKey,
  isAngle,
} from '@helb/core';
import {
  JOINTS,
  memberPose,
  originOf,
  turnsOf,
  freedomWords,
  type Assembled,
  type JointRecord,
} from '@helb/core/assembly';
import type { Interference } from './interference.ts';
import type { Finding, PosedAssembly } from './inspect.ts';
import { billOfMaterials, assemblyTotals, type BillRow, type AssemblyTotals } from './bill-of-materials.ts';
import type { Model } from './model.ts';

/** How the parts come together, as `inspect` tells it. */
export interface AssemblyInspection extends AssemblyTotals {
  /** Freedoms of the whole. */
  readonly freedoms: number;
  /** Names of joints and relations that can not all hold; empty where all do. */
  readonly fighting: readonly string[];
  /** Sets of joints and relations that together tell something twice. */
  readonly redundant: readonly (readonly string[])[];
  /** Sets of joints and relations that leave more free as they stand than beside that: a dead point. */
  readonly parting: readonly (readonly string[])[];
  readonly placements: readonly {
    readonly name: string;
    readonly part: string;
    readonly at_mm: Vec3;
    /** About the x, then the y, then the z axis of space. */
    readonly turn_deg: Vec3;
    readonly freedoms: number;
    readonly moves: string;
  }[];
  readonly joints: readonly {
    readonly name: string;
    readonly kind: string;
    readonly coordinates: readonly {
      readonly name: string;
      /** Degrees or mm. */
      readonly value: number;
      readonly unit: 'deg' | 'mm';
      readonly least: number | null;
      readonly most: number | null;
    }[];
    readonly message: string | null;
  }[];
  readonly makeUp: readonly BillRow[];
  /** Of the solids as they stand. */
  readonly box_mm: Box3 | null;
  /** Only where it was asked for. */
  readonly interference:
    | readonly {
        readonly a: string;
        readonly b: string;
        readonly overlap_mm3: number;
        readonly at_mm: Vec3;
        /** False where the kernel could not tell. */
        readonly compared: boolean;
        readonly pressed: boolean;
      }[]
    | null;
}

const DEGREES = 180 / Math.PI;

/** What `inspect` prints of an assembly in a pose. */
export function inspectAssembly(
  project: Project,
  model: Model,
  { assembled, pose, box, interferences }: PosedAssembly,
): AssemblyInspection {
  const { members, freedoms, conflict, mechanism, issues } = assembled;
  const nameOf = namesIn(project, assembled);
  return {
    freedoms: freedoms.count,
    fighting: conflict.map(nameOf),
    redundant: freedoms.redundant.map((set) => set.map(nameOf)),
    parting: freedoms.parting.map((set) => set.map(nameOf)),
    placements: members.map((member) => {
      const at = memberPose(member, pose);
      const ways = freedoms.bodies[member.body]!;
      return {
        name: member.name,
        part: project.parts[member.part]!.name,
        at_mm: originOf(at),
        turn_deg: turnsOf(at).map((angle) => angle * DEGREES) as unknown as Vec3,
        freedoms: ways.count,
        moves: freedomWords(ways),
      };
    }),
    joints: jointsOf(project, assembled).map(({ path, record }) => ({
      name: nameOf(path),
      kind: record.kind,
      coordinates: JOINTS[record.kind].leaves.flatMap((name: Coordinate) => {
        const key = coordinateKey(path, name);
        const value = pose.coordinates.get(key);
        if (value === undefined) return [];
        const scale = isAngle(key) ? DEGREES : 1;
        const [least, most] = mechanism.limits.get(key) ?? [-Infinity, Infinity];
        const bound = (amount: number) => (Number.isFinite(amount) ? amount * scale : null);
        const unit = isAngle(key) ? ('deg' as const) : ('mm' as const);
        return [{ name, value: value * scale, unit, least: bound(least), most: bound(most) }];
      }),
      message: wordsOf(issues.get(path)),
    })),
    makeUp: billOfMaterials(project, model, members),
    ...assemblyTotals(project, model, members, pose),
    box_mm: box ?? null,
    interference:
      interferences?.map(({ a, b, overlap_mm3, from, compared, pressed }) => ({
        a: nameOf(a),
        b: nameOf(b),
        overlap_mm3,
        at_mm: from,
        compared,
        pressed,
      })) ?? null,
  };
}

const wordsOf = (wrong: Issue | undefined): string | null => (wrong ? explain(wrong) : null);

/** The joints of the assembly, and of the groups that move here. */
function jointsOf(project: Project, { mechanism, issues }: Assembled) {
  const paths = new Set([...mechanism.joints.map(({ id }) => id), ...issues.keys()]);
  return [...paths].flatMap((path): { path: string; record: JointRecord }[] => {
    const record = recordsAlong(project, path)?.at(-1);
    return record && 'flip' in record ? [{ path, record }] : [];
  });
}

/** What placements, joints, relations and ratios are called, those of groups after the names of their placements. */
export const namesIn =
  (project: Project, { members }: Pick<Assembled, 'members'>) =>
  (path: string): string =>
    members.find(({ id }) => id === path)?.name ??
    namesAlong(project, path.replace(/ base$/, '')) ??
    'something that is gone';

/** What stands in the way of an assembly that is right, with the paths of what it is about. */
interface AssemblyFinding {
  readonly code: string;
  readonly message: string;
  readonly about: readonly string[];
}

/** What is wrong with an assembly, as findings of the project. */
export const assemblyFindings = (...args: Parameters<typeof foundTogether>): Finding[] =>
  foundTogether(...args).map(({ code, message }) => ({ code, part: null, step: null, message }));

/** What is wrong with an assembly, each with the ids that it is about. */
export function foundTogether(
  project: Project,
  assembled: Assembled,
  interferences: readonly Interference[] = [],
): AssemblyFinding[] {
  const nameOf = namesIn(project, assembled);
  const finding = (code: string, message: string, about: readonly string[]): AssemblyFinding => ({
    ...{ code, message, about },
  });
  const { issues, conflict } = assembled;
  return [
    ...[...issues].map(([owner, wrong]) => finding(wrong.code, `${nameOf(owner)}: ${explain(wrong)}`, [owner])),
    ...(conflict.length > 0
      ? [
          finding(
            'assembly.clash',
            `These can not all hold: ${conflict.map(nameOf).join(', ')}. Without any one of them the others do.`,
            conflict,
          ),
        ]
      : []),
    ...interferences
      .filter(({ compared }) => !compared)
      .map(({ a, b }) =>
        finding(
          'assembly.uncompared',
          `Whether ${nameOf(a)} and ${nameOf(b)} overlap could not be found out: look at them, or move one a little.`,
          [a, b],
        ),
      ),
    ...interferences
      .filter(({ overlap_mm3, pressed }) => overlap_mm3 > 0 && !pressed)
      .map(({ a, b, overlap_mm3 }) =>
        finding('assembly.overlap', `${nameOf(a)} and ${nameOf(b)} overlap by ${overlap_mm3.toPrecision(3)} mm³.`, [
          a,
          b,
        ]),
      ),
  ];
}
