import { z } from 'zod';
import {
  assemblyRelationSchema,
  contactSchema,
  emptyAssembly,
  jointSchema,
  placementSchema,
  pressedSchema,
  ratioSchema,
  traceSchema,
  type Assembly,
} from '../../assembly/index.ts';
import { idSchema, type Id } from '../../records/index.ts';
import { isPlaced } from '../placed.ts';
import type { Project } from '../schema.ts';
import { withoutGone } from '../studied.ts';
import { command, insert, refuse } from './command.ts';

/** In which assembly: that of the project itself, or that of a group. */
const where = { group: idSchema.optional() };

/** The assembly itself, or that of a group; refuses a group that is not there. */
export function assemblyIn(draft: Project, group: Id | undefined): Assembly {
  if (group === undefined) return (draft.assembly ??= emptyAssembly());
  return draft.groups?.[group] ?? refuse('group.unknown', { id: group });
}

type Kind = 'placements' | 'joints' | 'relations' | 'ratios' | 'traces';

/** Commands that add, change and remove records of one kind. */
function recordCommands<S extends z.ZodObject>(kind: Kind, word: string, schema: S) {
  const recordsOf = (draft: Project, group: Id | undefined) =>
    assemblyIn(draft, group)[kind] as unknown as Record<Id, { name: string }>;
  return {
    add: command(z.strictObject({ ...where, id: idSchema, record: schema }), (draft, input) => {
      const { group, id, record } = input as { group?: Id; id: Id; record: { name: string } };
      insert(recordsOf(draft, group), id, record);
      return `Add the ${word} ${record.name}`;
    }),
    /** Sets some fields, and takes others away. */
    set: command(
      z.strictObject({
        ...where,
        id: idSchema,
        fields: schema.partial(),
        without: z.array(z.string().max(20)).max(10).optional(),
      }),
      (draft, input) => {
        const { group, id, fields, without = [] } = input as { group?: Id; id: Id; fields: object; without?: string[] };
        const record = recordsOf(draft, group)[id] ?? refuse('assembly.gone', { what: word });
        Object.assign(record, fields);
        for (const field of without)
          if (isOptional(schema.shape, field)) delete (record as Record<string, unknown>)[field];
        // what a joint leaves now may be less
        const taken = withoutGone(draft);
        return `Change ${record.name}${taken.length > 0 ? ` and remove ${listed(taken)}` : ''}`;
      },
    ),
    /** With all that stands on it. */
    remove: command(z.strictObject({ ...where, ids: z.array(idSchema).min(1).max(500) }), (draft, { group, ids }) => {
      const records = recordsOf(draft, group);
      const names = ids.map((id) => records[id]?.name ?? refuse('assembly.gone', { what: word }));
      for (const id of ids) delete records[id];
      const taken = letGo(draft);
      const what = names.length === 1 ? names[0] : `${names.length} ${word}s`;
      return `Remove ${what}${taken.length > 0 ? ` with ${listed(taken)}` : ''}`;
    }),
  };
}

/** Every assembly: that of the project, and those of its groups. */
export const assembliesOf = ({ assembly, groups = {} }: Project): Assembly[] => [
  ...(assembly ? [assembly] : []),
  ...Object.values(groups),
];

/** Can the field of a record be left out? */
const isOptional = (shape: object, field: string): boolean =>
  Object.hasOwn(shape, field) && (shape as Record<string, z.ZodType>)[field]!.safeParse(undefined).success;

const MOST_LISTED = 4;
const listed = (names: readonly string[]): string =>
  names.length <= MOST_LISTED
    ? names.join(', ')
    : `${names.slice(0, MOST_LISTED).join(', ')} and ${names.length - MOST_LISTED} more`;

/**
 * Takes away what stands on something that is not there any more, here or in a group that is placed here, and tells what
 * that was.
 */
function letGo(draft: Project): string[] {
  const taken: string[] = [];
  for (const assembly of assembliesOf(draft)) {
    const there = (path: string) => isPlaced(draft, assembly, path);
    const drop = <T>(records: Record<Id, T>, stands: (record: T) => boolean, what = '') => {
      for (const [id, record] of Object.entries(records)) {
        if (stands(record)) continue;
        taken.push((record as { name?: string }).name ?? what);
        delete records[id];
      }
    };
    for (const placement of Object.values(assembly.placements))
      if (placement.repeat?.layout === 'round' && !there(placement.repeat.about.placement)) {
        taken.push(`the repeat of ${placement.name}`);
        delete placement.repeat;
      }
    drop(assembly.joints, ({ a, b }) => there(a.placement) && there(b.placement));
    drop(assembly.relations, ({ a, b }) => there(a.placement) && there(b.placement));
    drop(assembly.traces, ({ placement }) => there(placement));
    drop(assembly.pressed, ({ a, b }) => there(a) && there(b), 'a pair that presses');
    const isThere = (side: string | undefined) => side === undefined || there(side);
    drop(assembly.contacts ?? {}, ({ a, b }) => isThere(a) && isThere(b), 'a pair that touches');
    drop(assembly.ratios, ({ first, second }) =>
      [first, second].every(({ joint }) => assembly.joints[joint] !== undefined),
    );
  }
  return [...taken, ...withoutGone(draft)];
}

/** Takes away the placements of a part, or of a group, that is removed, and all that stands on them. */
export function unplace(draft: Project, isGone: (of: Assembly['placements'][string]['of']) => boolean): void {
  for (const { placements } of assembliesOf(draft))
    for (const [id, { of }] of Object.entries(placements)) if (isGone(of)) delete placements[id];
  letGo(draft);
}

const placements = recordCommands('placements', 'placement', placementSchema);
const joints = recordCommands('joints', 'joint', jointSchema);
const relations = recordCommands('relations', 'relation', assemblyRelationSchema);
const ratios = recordCommands('ratios', 'ratio', ratioSchema);
const traces = recordCommands('traces', 'trace', traceSchema);

export const assemblyCommands = {
  'placement.add': placements.add,
  'placement.set': placements.set,
  'placement.remove': placements.remove,
  'joint.add': joints.add,
  'joint.set': joints.set,
  'joint.remove': joints.remove,
  'assembly-relation.add': relations.add,
  'assembly-relation.set': relations.set,
  'assembly-relation.remove': relations.remove,
  'ratio.add': ratios.add,
  'ratio.set': ratios.set,
  'ratio.remove': ratios.remove,
  'trace.add': traces.add,
  'trace.set': traces.set,
  'trace.remove': traces.remove,

  /** Says that two are meant to press into each other, or not any more. */
  'pair.press': command(
    z.strictObject({ ...where, id: idSchema, pair: pressedSchema.optional() }),
    (draft, { group, id, pair }) => {
      const { pressed } = assemblyIn(draft, group);
      if (pair) insert(pressed, id, pair);
      else delete pressed[id];
      return pair ? 'Leave a pair to press' : 'Look at a pair again';
    },
  ),

  /** Says what is kept out of each other while it moves, or not any more. */
  'contact.set': command(
    z.strictObject({ id: idSchema, contact: contactSchema.optional() }),
    (draft, { id, contact }) => {
      const assembly = (draft.assembly ??= emptyAssembly());
      if (contact) (assembly.contacts ??= {})[id] = contact;
      else delete assembly.contacts?.[id];
      if (!contact) return 'Let what touches pass';
      return contact.on ? 'Let parts touch' : 'Let parts pass through each other';
    },
  ),
};
