import { headOf, placementOfMember, within } from '../../naming/index.ts';
import { z } from 'zod';
import {
  amountsOf,
  drawnPose,
  emptyAssembly,
  groupSchema,
  originOf,
  placementOf,
  triple,
  turnsOf,
  type Assembly,
  type Group,
  type Placement,
  type Triple,
} from '../../assembly/index.ts';
import { markReferences } from '../../drawing/index.ts';
import { MAX_LENGTH, namesUsed, valueScope, type Scope } from '../../expressions/index.ts';
import { compose, transformDirection, type RigidTransform, type Vec3 } from '../../math/index.ts';
import { idSchema, nameSchema, type Id } from '../../records/index.ts';
import { unwrap } from '../../result/index.ts';
import { formatAmount, LENGTH } from '../../units/index.ts';
import { othersOf } from '../part-links.ts';
import type { Project } from '../schema.ts';
import { repathStudies } from '../studied.ts';
import { assembliesOf, assemblyIn, unplace } from './assembly.ts';
import { command, insert, refuse } from './command.ts';

export const groupCommands = {
  'group.add': command(z.strictObject({ id: idSchema, name: nameSchema }), (draft, { id, name }) => {
    draft.groups ??= {};
    insert(draft.groups, id, { name, ...emptyAssembly() });
    return `Add the group ${name}`;
  }),

  'group.rename': command(z.strictObject({ id: idSchema, name: groupSchema.shape.name }), (draft, { id, name }) => {
    const group = draft.groups?.[id] ?? refuse('group.unknown', { id });
    group.name = name;
    return `Call the group ${name}`;
  }),

  /**
   * Makes a group of placements: with the joints and relations between them they go into it, and one placement of it
   * takes their place. Joints to others reach into it.
   */
  'group.gather': command(
    z.strictObject({ id: idSchema, name: nameSchema, placement: idSchema, of: z.array(idSchema).min(1).max(500) }),
    (draft, { id, name, placement, of }) => {
      const outer = assemblyIn(draft, undefined);
      const inside = new Set(of);
      draft.groups ??= {};
      const group = { name, ...emptyAssembly() };
      const isInside = (path: string) => inside.has(placementOfMember(headOf(path)));
      const letGone: string[] = [];
      for (const one of of) {
        group.placements[one] = outer.placements[one] ?? refuse('assembly.gone', { what: 'placement' });
        delete outer.placements[one];
      }
      for (const other of Object.values(group.placements))
        if (other.repeat?.layout === 'round' && !isInside(other.repeat.about.placement)) {
          // what stands in the group knows nothing outside
          letGone.push(`the repeats of ${other.name}`);
          delete other.repeat;
        }
      const divide = <T extends { a: { placement: string }; b: { placement: string } }>(
        outside: Record<Id, T>,
        inner: Record<Id, T>,
      ) => {
        for (const [key, record] of Object.entries(outside)) {
          if (!isInside(record.a.placement) || !isInside(record.b.placement)) continue;
          inner[key] = record;
          delete outside[key];
        }
      };
      divide(outer.joints, group.joints);
      divide(outer.relations, group.relations);
      for (const [key, ratio] of Object.entries(outer.ratios)) {
        const own = [ratio.first, ratio.second].map(({ joint }) => group.joints[joint] !== undefined);
        if (own.every(Boolean)) group.ratios[key] = ratio;
        // between the inside and the outside nothing is tied
        else if (own.some(Boolean)) letGone.push(ratio.name);
        if (own.some(Boolean)) delete outer.ratios[key];
      }
      const goesIn = (path: string) => isInside(path) || group.joints[path] !== undefined;
      repath(draft, outer, (path) => (goesIn(path) ? within(placement, path) : path));
      insert(draft.groups, id, group);
      const held = Object.values(group.placements).some((one) => one.held);
      insert(outer.placements, placement, placementOf(name, { group: id, stiff: false }, held));
      return `Make the group ${name}${letGone.length > 0 ? `, without ${letGone.join(', ')}` : ''}`;
    },
  ),

  /**
   * Takes a placed group apart: what is in it stands where it stood, joined as it was. Expressions stay as typed unless
   * the group is turned: then they become numbers.
   */
  'group.dissolve': command(z.strictObject({ placement: idSchema }), (draft, { placement: id }) => {
    const outer = assemblyIn(draft, undefined);
    const placement = outer.placements[id] ?? refuse('assembly.gone', { what: 'placement' });
    const { of, name, repeat } = placement;
    if (!('group' in of)) return refuse('group.part', { name });
    if (repeat) refuse('group.repeated', { name });
    const group = draft.groups?.[of.group] ?? refuse('group.unknown', { id: of.group });
    const scope = valueScope(Object.values(draft.values), draft.unit);
    delete outer.placements[id];
    const names = freeIds(outer, group);
    const renamed = (path: string) => {
      const head = placementOfMember(headOf(path));
      return `${names.get(head) ?? head}${path.slice(head.length)}`;
    };
    const inner = copied(group);
    for (const one of Object.values(inner.placements))
      Object.assign(one, standing(placement, one, scope), { held: placement.held && one.held });
    repathIn(inner, renamed);
    for (const { first, second } of Object.values(inner.ratios))
      for (const end of [first, second]) end.joint = names.get(end.joint)!;
    repath(draft, outer, (path) => (headOf(path) === id ? renamed(path.slice(id.length + 1)) : path));
    for (const kind of KINDS)
      for (const [key, record] of Object.entries(inner[kind]))
        insert(outer[kind] as Record<Id, unknown>, names.get(key)!, record);
    const isElsewhere = assembliesOf(draft).some(({ placements }) =>
      Object.values(placements).some((other) => 'group' in other.of && other.of.group === of.group),
    );
    if (!isElsewhere) delete draft.groups![of.group];
    return `Take the group ${name} apart`;
  }),

  'group.remove': command(z.strictObject({ id: idSchema }), (draft, { id }) => {
    const { name } = draft.groups?.[id] ?? refuse('group.unknown', { id });
    unplace(draft, (of) => 'group' in of && of.group === id);
    delete draft.groups![id];
    return `Remove the group ${name}`;
  }),
};

/** Tells everything that refers to placements of an assembly how these are reached now. */
function repathIn(
  { placements, joints, relations, traces, pressed, contacts = {} }: Assembly,
  to: (path: string) => string,
): void {
  for (const { a, b } of [...Object.values(joints), ...Object.values(relations)])
    for (const side of [a, b]) side.placement = to(side.placement);
  for (const trace of Object.values(traces)) trace.placement = to(trace.placement);
  for (const pair of Object.values(pressed)) [pair.a, pair.b] = [to(pair.a), to(pair.b)];
  for (const contact of Object.values(contacts)) {
    if (contact.a !== undefined) contact.a = to(contact.a);
    if (contact.b !== undefined) contact.b = to(contact.b);
  }
  for (const { repeat } of Object.values(placements))
    if (repeat?.layout === 'round') repeat.about.placement = to(repeat.about.placement);
}

/** The same for the assembly of the project, for studies of it, for what parts take from each other there, and for sheets of the whole. */
function repath(draft: Project, outer: Assembly, to: (path: string) => string): void {
  repathIn(outer, to);
  repathStudies(draft, to);
  for (const step of Object.values(draft.parts).flatMap(({ steps }) => Object.values(steps)))
    for (const reference of othersOf(step)) {
      reference.at = to(reference.at);
      if (reference.from !== undefined) reference.from = to(reference.from);
    }
  for (const { views, marks = {} } of Object.values(draft.sheets ?? {})) {
    for (const view of Object.values(views))
      if (view.kind === 'section' && view.at !== undefined) view.at = to(view.at);
    for (const reference of Object.values(marks).flatMap(markReferences))
      if (reference.to === 'other') reference.at = to(reference.at);
  }
}

const KINDS = ['placements', 'joints', 'relations', 'ratios', 'traces', 'pressed'] as const;

const copied = ({ name, ...assembly }: Group): Assembly => {
  void name;
  return JSON.parse(JSON.stringify(assembly)) as Assembly;
};

/** What the records of an assembly are called within another: as they are where those ids are free. */
function freeIds(outer: Assembly, inner: Assembly): ReadonlyMap<Id, Id> {
  const idsOf = (assembly: Assembly) => KINDS.flatMap((kind) => Object.keys(assembly[kind]));
  const used = new Set(idsOf(outer));
  return new Map(
    [...new Set(idsOf(inner))].map((id) => {
      let free = id;
      for (let k = 2; used.has(free); k++) free = `${id.slice(0, 20)}-${k}`;
      used.add(free);
      return [id, free];
    }),
  );
}

/** Where something in a group stands without it, and where its repeats do. */
function standing(
  group: Placement,
  { at, turn, repeat }: Placement,
  scope: Scope,
): Pick<Placement, 'at' | 'turn' | 'repeat'> {
  const [space, pose] = [group, { at, turn }].map((one) => unwrap(drawnPose(one, scope))) as [
    RigidTransform,
    RigidTransform,
  ];
  const sum = (k: 'x' | 'y' | 'z') => sumOf(group.at[k], at[k]);
  const sums = triple(sum('x'), sum('y'), sum('z'));
  const isTurned = turnsOf(space).some((angle) => angle !== 0);
  if (!isTurned && Object.values(sums).every((text) => text.length <= MAX_LENGTH)) return { at: sums, turn };
  const is = compose(pose, space);
  return {
    at: typed(originOf(is), 'mm'),
    turn: typed(turnsOf(is).map((angle) => (angle * 180) / Math.PI) as unknown as Vec3, 'deg'),
    ...(repeat?.layout === 'line'
      ? {
          repeat: {
            ...repeat,
            by: typed(transformDirection(space, unwrap(amountsOf(repeat.by, LENGTH, scope))), 'mm'),
          },
        }
      : {}),
  };
}

const typed = (numbers: Vec3, unit: string): Triple =>
  triple(...(numbers.map((one) => `${formatAmount(one, 9)} ${unit}`) as [string, string, string]));

/** The sum of two expressions as one would type it. */
function sumOf(a: string, b: string): string {
  const isNothing = (text: string) => namesUsed(text).length === 0 && /^-?0(\.0*)? *[a-z"]*$/i.test(text.trim());
  if (isNothing(a)) return b;
  if (isNothing(b)) return a;
  return b.trim().startsWith('-') ? `${a} - ${b.trim().slice(1)}` : `${a} + ${b}`;
}
