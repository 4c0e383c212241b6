import {
  boxRound,
  fail,
  locate,
  transformFrame,
  transformThing,
  ok,
  onceEach,
  IDENTITY,
  type BodyHandle,
  type Box3,
  type Frame,
  type Id,
  type ListedPart,
  type RigidTransform,
  type Part,
  type Project,
  type Reference,
  type Result,
  type Sign,
  type Thing,
} from '@helb/core';
import { explodedPoses, memberPose, type Assembled } from '@helb/core/assembly';
import { billOfMaterials } from './bill-of-materials.ts';
import type { BuildContext } from './build-context.ts';
import type { BodyQueries } from './body-queries.ts';
import { totalsOf } from './totals.ts';

/** A body on a sheet, where it stands there. */
export interface SubjectBody {
  readonly handle: BodyHandle;
  readonly transform: RigidTransform;
  readonly part: Id;
  /** Of the whole, where it is placed. */
  readonly at?: string;
  /** Threads that are shown by a sign: those of a part are told with its first body. */
  readonly signs: readonly Sign[];
}

/** What a sheet shows: a part, or the whole as it is put together. */
export interface Subject {
  readonly name: string;
  readonly material: string;
  readonly mass_g: number | null;
  /** Its bodies, taken apart by a share of the most that is shown. */
  bodies(apart: number): readonly SubjectBody[];
  /** Where a section of it lies, of the whole one of a part that is placed. */
  plane(section: Id, at: string | undefined): Result<Frame>;
  /** What a reference points to now, where it stands when all is taken so far apart; nothing where that is gone. */
  thing(reference: Reference, apart: number): Thing | undefined;
  /** Of the whole. */
  readonly parts: readonly ListedPart[];
  /** Of a part. */
  readonly own?: { readonly id: Id; readonly part: Part; readonly buildContext: BuildContext };
}

/** A part as a sheet shows it. */
export function partSubject(queries: BodyQueries, id: Id, part: Part, buildContext: BuildContext): Subject {
  const bodies = bodiesOf(buildContext).map((one) => ({ ...one, transform: IDENTITY, part: id }));
  const measures = buildContext.handles.map((body) => queries.describe(body, {}).measures);
  return {
    name: part.name,
    material: part.material?.name ?? '',
    mass_g: totalsOf(measures, part.material).mass_g,
    bodies: () => bodies,
    plane: (section) => planeIn(part, section, buildContext),
    thing: (reference) => thingIn(buildContext, reference),
    parts: [],
    own: { id, part, buildContext },
  };
}

/** Everything that is placed, where the design puts it. */
export function assemblySubject(
  queries: BodyQueries,
  project: Project,
  assembled: Assembled,
  contextOf: (part: Id) => BuildContext | undefined,
): Subject {
  const { members, rest } = assembled;
  const measures = (part: Id) => (contextOf(part)?.handles ?? []).map((body) => queries.describe(body, {}).measures);
  const boxOf = (part: Id): Box3 | undefined => boxRound(measures(part).map(({ box_mm }) => box_mm));
  const posesAt = onceEach((apart: number) => explodedPoses(assembled, rest, boxOf, apart));
  const parts = project.partOrder.map((id) => ({ id, bodies: measures(id).map((one) => ({ measures: one })) }));
  const rows = billOfMaterials(project, { parts }, members);
  return {
    name: `the whole, ${members.length} ${members.length === 1 ? 'part' : 'parts'}`,
    material: '',
    mass_g: rows.some(({ mass_g }) => mass_g === null)
      ? null
      : rows.reduce((sum, { mass_g, count }) => sum + mass_g! * count, 0),
    bodies(apart) {
      const poses = posesAt(apart);
      return members.flatMap((member) =>
        bodiesOf(contextOf(member.part)).map((one) => ({
          ...{ ...one, part: member.part, at: member.id },
          transform: memberPose(member, { poses }),
        })),
      );
    },
    plane(section, at) {
      const member = members.find(({ id }) => id === at);
      const buildContext = member && contextOf(member.part);
      if (!buildContext) return fail('sheet.unplaced');
      const plane = planeIn(project.parts[member.part]!, section, buildContext);
      return plane.ok ? ok(transformFrame(plane.value, memberPose(member, rest))) : plane;
    },
    thing(reference, apart) {
      if (reference.to !== 'other') return undefined;
      let before = 0;
      for (const member of members) {
        const buildContext = contextOf(member.part);
        if (member.id !== reference.at) {
          before += buildContext?.handles.length ?? 0;
          continue;
        }
        const thing = buildContext && thingIn(buildContext, reference.on);
        const moved = thing && transformThing(thing, memberPose(member, { poses: posesAt(apart) }));
        // the bodies of all members are told one after the other
        return moved && 'body' in moved && 'body' in thing ? { ...moved, body: before + thing.body } : moved;
      }
      return undefined;
    },
    parts: rows,
  };
}

function thingIn(buildContext: BuildContext, reference: Reference): Thing | undefined {
  const match = locate(reference, 'shape', buildContext);
  return match.ok ? match.value.thing : undefined;
}

/** Where a section of a part lies in it. */
function planeIn({ sections = {} }: Part, section: Id, buildContext: Pick<BuildContext, 'section'>): Result<Frame> {
  const record = sections[section];
  return record ? buildContext.section(record) : fail('sheet.unplaced');
}

const bodiesOf = (buildContext: Pick<BuildContext, 'handles' | 'signs'> | undefined) =>
  (buildContext?.handles ?? []).map((handle, k) => ({
    handle,
    signs: k === 0 ? buildContext!.signs.filter(({ full }) => !full) : [],
  }));
