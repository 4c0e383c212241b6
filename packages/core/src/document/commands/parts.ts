import { z } from 'zod';
import { expressionSchema, idSchema, nameSchema, type Id } from '../../records/index.ts';
import { stepKind, type Step } from '../../steps/index.ts';
import { materialSchema, originSchema, type Project } from '../schema.ts';
import { unplace } from './assembly.ts';
import { command, insert, partIn, refuse } from './command.ts';
import { withoutSheetsOf } from './sheets.ts';

const takes = (step: Step, part: Id): boolean => stepKind(step.kind).parts?.(step).includes(part) ?? false;

export const partCommands = {
  'part.add': command(
    z.strictObject({ id: idSchema, name: nameSchema, colour: z.int().min(0).max(11).optional() }),
    (draft, { id, name, colour }) => {
      insert(draft.parts, id, { name, colour: colour ?? draft.partOrder.length % 12, steps: {}, stepOrder: [] });
      draft.partOrder.push(id);
      return `Add part ${name}`;
    },
  ),

  /** Brings a part from another project: called and made of what it is there. */
  'part.bring': command(
    z.strictObject({ id: idSchema, name: nameSchema.optional(), from: originSchema }),
    (draft, { id, name, from }) => {
      const source = from.design.parts[from.part];
      const called = name ?? source?.name ?? from.design.name;
      const colour = source?.colour ?? draft.partOrder.length % 12;
      const material = source?.material && { material: source.material };
      insert(draft.parts, id, { name: called, colour, ...material, steps: {}, stepOrder: [], from });
      draft.partOrder.push(id);
      return `Bring ${called} from ${from.design.name}`;
    },
  ),

  /** Takes a part as it is in another revision; what it is given here and what was made of it here stays. */
  'part.update': command(
    z.strictObject({ id: idSchema, from: originSchema.omit({ given: true }) }),
    (draft, { id, from }) => {
      const part = partIn(draft, id);
      const before = part.from ?? refuse('part.own', { name: part.name });
      const [old, next] = [before.design.parts[before.part]?.material, from.design.parts[from.part]?.material];
      const isAsThere = part.material?.name === old?.name && part.material?.density_kg_m3 === old?.density_kg_m3;
      if (isAsThere && next) part.material = next;
      else if (isAsThere) delete part.material;
      const all = Object.entries(before.given ?? {});
      const given = all.filter(([value]) => from.design.values[value]);
      part.from = { ...from, ...(given.length > 0 ? { given: Object.fromEntries(given) } : {}) };
      const lost = all.flatMap(([value]) => (from.design.values[value] ? [] : before.design.values[value]!.name));
      const without = lost.length > 0 ? `, without what was given for ${lost.join(', ')}` : '';
      return `Take ${part.name} as it is in revision ${from.revision}${without}`;
    },
  ),

  /** Gives a value of a part that comes from another project, or lets it be as it is there. */
  'part.give': command(
    z.strictObject({ id: idSchema, value: idSchema, expression: expressionSchema.optional() }),
    (draft, { id, value, expression }) => {
      const part = partIn(draft, id);
      const from = part.from ?? refuse('part.own', { name: part.name });
      const { name } = from.design.values[value] ?? refuse('value.gone', { id: value });
      const { [value]: own, ...others } = from.given ?? {};
      void own;
      const given = expression === undefined ? others : { ...others, [value]: expression };
      if (Object.keys(given).length > 0) from.given = given;
      else delete from.given;
      return expression === undefined ? `Leave ${name} of ${part.name} as it is there` : `Give ${part.name} ${name}`;
    },
  ),

  'part.rename': command(z.strictObject({ id: idSchema, name: nameSchema }), (draft, { id, name }) => {
    const part = partIn(draft, id);
    renamePlacements(draft, id, name);
    part.name = name;
    return `Rename part to ${name}`;
  }),

  'part.colour': command(z.strictObject({ id: idSchema, colour: z.int().min(0).max(11) }), (draft, { id, colour }) => {
    const part = partIn(draft, id);
    part.colour = colour;
    return `Colour ${part.name}`;
  }),

  'part.material': command(
    z.strictObject({ id: idSchema, material: materialSchema.optional() }),
    (draft, { id, material }) => {
      const part = partIn(draft, id);
      if (material) part.material = material;
      else delete part.material;
      return `Make ${part.name} of ${material?.name ?? 'no material'}`;
    },
  ),

  'part.remove': command(z.strictObject({ id: idSchema }), (draft, { id }) => {
    const { name } = partIn(draft, id);
    // what sees it where it is placed is told that it is gone; a body of it can not be had otherwise
    const users = Object.entries(draft.parts)
      .filter(([other, { steps }]) => other !== id && Object.values(steps).some((step) => takes(step, id)))
      .map(([, user]) => user.name);
    if (users.length > 0) refuse('part.used', { name, users, count: users.length });
    unplace(draft, (of) => 'part' in of && of.part === id);
    withoutSheetsOf(draft, id);
    delete draft.parts[id];
    draft.partOrder = draft.partOrder.filter((other) => other !== id);
    return `Remove part ${name}`;
  }),
};

/** Placements of a part that are called as it is, perhaps counted, go on being called so, where nothing else is. */
function renamePlacements(draft: Project, part: Id, name: string): void {
  const before = draft.parts[part]!.name;
  const placements = Object.values(draft.assembly?.placements ?? {});
  const taken = new Set(placements.map((placement) => placement.name));
  for (const placement of placements) {
    const isOwn = 'part' in placement.of && placement.of.part === part && placement.name.startsWith(before);
    const count = placement.name.slice(before.length);
    const next = `${name}${count}`;
    if (!isOwn || !/^( \d+)?$/.test(count) || taken.has(next) || !nameSchema.safeParse(next).success) continue;
    placement.name = next;
    taken.add(next);
  }
}
