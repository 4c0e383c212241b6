import { z } from 'zod';
import { nameIssue, renameIn, tidyName } from '../../expressions/index.ts';
import { expressionSchema, idSchema, nameSchema } from '../../records/index.ts';
import { IssueError } from '../../result/index.ts';
import { placedExpressions, usersOf } from '../expression-places.ts';
import { valueSchema, type Project, type Value } from '../schema.ts';
import { command, insert, preparing, refuse } from './command.ts';

const nameInput = z.string().min(1).max(60).transform(tidyName);

function valueIn(draft: Project, id: string): Value {
  return draft.values[id] ?? refuse('value.gone', { id });
}

function checkName(draft: Project, name: string, except?: string) {
  const others = Object.entries(draft.values).flatMap(([id, value]) => (id === except ? [] : [value.name]));
  const wrong = nameIssue(name, others);
  if (wrong) throw new IssueError(wrong);
}

/** Sets the string at a path of the draft. */
function write(draft: Project, path: readonly string[], text: string) {
  const parent = path
    .slice(0, -1)
    .reduce<Record<string, unknown>>(
      (node, key) => node[key] as Record<string, unknown>,
      draft as unknown as Record<string, unknown>,
    );
  parent[path.at(-1)!] = text;
}

export const valueCommands = {
  'value.add': preparing(
    z.strictObject({
      id: idSchema,
      name: nameInput,
      expression: expressionSchema,
      note: z.string().max(200).optional(),
    }),
    (draft, { id, name, expression, note }) => {
      checkName(draft, name);
      insert(draft.values, id, note === undefined ? { name, expression } : { name, expression, note });
      draft.valueOrder.push(id);
      return `Name a value ${name} = ${expression}`;
    },
  ),

  'value.set': command(z.strictObject({ id: idSchema, expression: expressionSchema }), (draft, { id, expression }) => {
    const value = valueIn(draft, id);
    value.expression = expression;
    return `Set ${value.name} = ${expression}`;
  }),

  'value.note': command(z.strictObject({ id: idSchema, note: z.string().max(200) }), (draft, { id, note }) => {
    const value = valueIn(draft, id);
    value.note = note;
    return `Note on ${value.name}`;
  }),

  /** Without a group it stands above them all. */
  'value.group': command(z.strictObject({ id: idSchema, group: nameSchema.optional() }), (draft, { id, group }) => {
    const value = valueIn(draft, id);
    if (group === undefined) delete value.group;
    else value.group = group;
    return group === undefined ? `Take ${value.name} out of its group` : `Put ${value.name} into ${group}`;
  }),

  'value.allow': command(
    z.strictObject({ id: idSchema, allowed: valueSchema.shape.allowed }),
    (draft, { id, allowed }) => {
      const value = valueIn(draft, id);
      if (allowed === undefined) delete value.allowed;
      else value.allowed = allowed;
      return allowed === undefined ? `Allow anything for ${value.name}` : `Bounds of ${value.name}`;
    },
  ),

  /** Sets any expression of the project where it stands: a size of a sketch, a number of a step, a value. */
  'expression.set': command(
    z.strictObject({ path: z.array(z.string().max(60)).min(2).max(12), expression: expressionSchema }),
    (draft, { path, expression }) => {
      const place = placedExpressions(draft).find((other) => other.path.join('/') === path.join('/'));
      if (!place) return refuse('expression.gone', { path });
      write(draft, path, expression);
      return `Set ${place.label} = ${expression}`;
    },
  ),

  /** Renames the value and every use of it, so that nothing breaks. */
  'value.rename': command(z.strictObject({ id: idSchema, name: nameInput }), (draft, { id, name }) => {
    const value = valueIn(draft, id);
    checkName(draft, name, id);
    const before = value.name;
    for (const { path, text } of placedExpressions(draft)) {
      const renamed = renameIn(text, before, name);
      if (renamed !== text) write(draft, path, renamed);
    }
    value.name = name;
    return `Rename ${before} to ${name}`;
  }),

  'value.remove': command(z.strictObject({ id: idSchema }), (draft, { id }) => {
    const { name } = valueIn(draft, id);
    const users = usersOf(draft, name);
    if (users.length > 0)
      refuse('value.used', { name, users: users.slice(0, 5).map((user) => user.label), count: users.length });
    delete draft.values[id];
    for (const { values } of Object.values(draft.variants ?? {})) delete values[id];
    draft.valueOrder = draft.valueOrder.filter((other) => other !== id);
    return `Remove the value ${name}`;
  }),

  'value.move': command(z.strictObject({ id: idSchema, to: z.int().min(0).max(500) }), (draft, { id, to }) => {
    const { name } = valueIn(draft, id);
    const order = draft.valueOrder.filter((other) => other !== id);
    order.splice(to, 0, id);
    draft.valueOrder = order;
    return `Move the value ${name}`;
  }),
};
