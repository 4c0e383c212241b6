import { headOf, idsAlong, placementOfMember, tailOf, within, type PlacementPath } from '../naming/index.ts';
import type { SectionName } from '../drawing/index.ts';
import type { Assembly, JointRecord, Placement, RatioRecord, RelationRecord, TraceRecord } from '../assembly/index.ts';
import { type Id } from '../records/index.ts';
import type { NameOf } from '../references/index.ts';
import { drawnPart } from './drawn-part.ts';
import type { Project } from './schema.ts';

// What stands where in the assembly and in its groups, and what it is called.

/** The part that is placed under a path; undefined where none is. */
export function partAt(
  { groups = {} }: Pick<Project, 'groups'>,
  { placements }: Pick<Assembly, 'placements'>,
  path: string,
): Id | undefined {
  const [head, rest] = [headOf(path), tailOf(path)];
  if (!Object.hasOwn(placements, head)) return undefined;
  const { of } = placements[head]!;
  if ('part' in of) return rest === undefined ? of.part : undefined;
  const group = groups[of.group];
  return rest !== undefined && group ? partAt({ groups }, group, rest) : undefined;
}

/** Is something placed under this path, a part in the end? */
export const isPlaced = (
  project: Pick<Project, 'groups'>,
  assembly: Pick<Assembly, 'placements'>,
  path: string,
): boolean => partAt(project, assembly, path) !== undefined;

/** Every part that is placed, in groups too, once each, in the order of the parts. */
export function placedParts({ assembly, groups = {}, partOrder }: Project): Id[] {
  const found = new Set<Id>();
  const look = ({ placements }: Pick<Assembly, 'placements'>): void => {
    for (const { of } of Object.values(placements)) {
      if ('part' in of) found.add(of.part);
      else if (groups[of.group]) look(groups[of.group]!);
    }
  };
  if (assembly) look(assembly);
  return partOrder.filter((id) => found.has(id));
}

/** The records that a path leads through, those of groups one after the other; undefined where one is missing. */
export function recordsAlong({ assembly, groups = {} }: Project, path: string): NamedRecord[] | undefined {
  const found: NamedRecord[] = [];
  let from = assembly;
  for (const id of idsAlong(path)) {
    const kinds = from && [from.placements, from.joints, from.relations, from.ratios, from.traces];
    const holding = kinds?.find((records) => Object.hasOwn(records, id));
    const record: NamedRecord | undefined = holding?.[id];
    if (!record) return undefined;
    found.push(record);
    from = 'of' in record && 'group' in record.of ? groups[record.of.group] : undefined;
  }
  return found;
}
type NamedRecord = Placement | JointRecord | RelationRecord | RatioRecord | TraceRecord;

/** What a placement, a joint, a relation or a ratio is called, after the placements of the groups that it is in. */
export const namesAlong = (project: Project, path: string): string | undefined =>
  recordsAlong(project, path)
    ?.map(({ name }) => name)
    .join(' · ');

/** The sections of all parts that are placed, in groups too, each with the path of its placement. */
export function placedSections({ assembly, groups = {}, parts }: Project): { at: string; section: Id }[] {
  const look = ({ placements }: Pick<Assembly, 'placements'>, before?: PlacementPath): { at: string; section: Id }[] =>
    Object.entries(placements).flatMap(([id, { of }]) => {
      const at = within(before, id);
      if ('part' in of) return Object.keys(parts[of.part]?.sections ?? {}).map((section) => ({ at, section }));
      const group = groups[of.group];
      return group ? look(group, at) : [];
    });
  return assembly ? look(assembly) : [];
}

/** What the sections of a part are called, and those of the parts that are placed: "Through the shaft of Bearing". */
export const sectionNamesFor =
  (project: Project, part: Id | undefined): SectionName =>
  (section, at) => {
    const named = (id: Id | undefined) => (id === undefined ? undefined : project.parts[id]?.sections?.[section]?.name);
    if (at === undefined) return named(part) ?? '?';
    const placed = project.assembly && partAt(project, project.assembly, at);
    return `${named(placed) ?? '?'} of ${namesAlong(project, at) ?? '?'}`;
  };

/** What the steps of a part are called, and those of the parts that are placed. */
export const namesFor =
  (project: Project | undefined, part: Id | undefined): NameOf =>
  (step, at) => {
    const named = (id: Id | undefined) =>
      project && id !== undefined ? drawnPart(project, id)?.steps[step]?.name : undefined;
    if (at === undefined) return named(part) ?? '?';
    const { assembly } = project ?? {};
    if (!project || !assembly) return '?';
    const path = placementOfMember(at);
    return (step === '' ? namesAlong(project, path) : named(partAt(project, assembly, path))) ?? '?';
  };
