import { z } from 'zod';
import { idSchema, nameSchema, type Id } from '../../records/index.ts';
import { stepKind, stepSchema, type Step } from '../../steps/index.ts';
import { madeBy, referenceSchema } from '../../references/index.ts';
import type { Part } from '../schema.ts';
import { valueAt } from '../value-at.ts';
import { command, insert, partIn, refuse, stepIn } from './command.ts';

/** Steps that need this one directly: they can't be without it. */
const dependents = (part: Part, id: Id): Id[] =>
  part.stepOrder.filter((other) => {
    const step = part.steps[other]!;
    return stepKind(step.kind).uses(step).includes(id);
  });

/** Steps that can not be without these, and those that only name faces which these made: they would have to choose again. */
export function standingOn(part: Part, ids: readonly Id[]): { readonly needing: Id[]; readonly naming: Id[] } {
  const gone = new Set(ids);
  for (const id of part.stepOrder)
    if (
      stepKind(part.steps[id]!.kind)
        .uses(part.steps[id]!)
        .some((used) => gone.has(used))
    )
      gone.add(id);
  const needing = part.stepOrder.filter((id) => gone.has(id) && !ids.includes(id));
  const naming = part.stepOrder.filter(
    (id) => !gone.has(id) && buildsOn(part.steps[id]!).some((used) => gone.has(used)),
  );
  return { needing, naming };
}

/** The steps that a step builds on: what it needs, and what made the faces that it names. */
const buildsOn = (step: Step): Id[] => {
  const kind = stepKind(step.kind);
  return [...kind.uses(step), ...(kind.references?.(step) ?? []).flatMap(({ reference }) => madeBy(reference))];
};

/** Refuses an order in which a step would stand before one that it builds on. */
function checkOrder(part: Part, order: readonly Id[]): void {
  for (const [at, id] of order.entries()) {
    const later = buildsOn(part.steps[id]!).find((other) => order.indexOf(other) > at);
    if (later) refuse('step.needs', { step: part.steps[id]!.name, needs: part.steps[later]!.name });
  }
}

const where = { part: idSchema, step: idSchema };

export const stepCommands = {
  /** Appends a step, or inserts it at a place of the build order. */
  'step.add': command(
    z.strictObject({ part: idSchema, id: idSchema, step: stepSchema, at: z.int().min(0).max(500).optional() }),
    (draft, { part: partId, id, step, at }) => {
      const part = partIn(draft, partId);
      insert(part.steps, id, step);
      part.stepOrder.splice(at ?? part.stepOrder.length, 0, id);
      return `${stepKind(step.kind).title} ${step.name}`;
    },
  ),

  /** Sets fields of a step; the kind and the contents of a sketch have commands of their own. */
  'step.set': command(
    z.strictObject({
      ...where,
      fields: z.record(
        z
          .string()
          .regex(
            /^(?!(kind|name|suppressed|entities|relations|patterns|loans)$)[a-zA-Z]{1,20}$/,
            'not a field that can be set',
          ),
        // what a field may hold is said by the step's own schema, which the result has to meet
        z.unknown(),
      ),
    }),
    (draft, { part, step: id, fields }) => {
      const step = stepIn(draft, part, id);
      const changed = stepSchema.safeParse({ ...step, ...fields });
      if (!changed.success) {
        const [wrong] = changed.error.issues;
        refuse('command.input', { command: 'step.set', path: wrong!.path.join('.'), reason: wrong!.message });
      }
      Object.assign(step, fields);
      const [field, value] = Object.entries(fields)[0] ?? ['', ''];
      return `${step.name}: ${field} ${typeof value === 'string' ? value : ''}`.trim();
    },
  ),

  /** Points a reference of a step to something else: a replacement for what is gone, or what was recovered. */
  'step.repoint': command(
    z.strictObject({ ...where, path: z.array(z.string().max(40)).min(1).max(6), reference: referenceSchema }),
    (draft, { part, step: id, path, reference }) => {
      const step = stepIn(draft, part, id);
      const known = stepKind(step.kind).references?.(step) ?? [];
      if (!known.some((place) => place.path.join('/') === path.join('/')))
        refuse('reference.unknown', { step: step.name });
      const parent = valueAt(step, path.slice(0, -1)) as Record<string, unknown>;
      parent[path.at(-1)!] = reference;
      return `${step.name}: choose again`;
    },
  ),

  'step.rename': command(z.strictObject({ ...where, name: nameSchema }), (draft, { part, step: id, name }) => {
    const step = stepIn(draft, part, id);
    const before = step.name;
    step.name = name;
    return `Rename ${before} to ${name}`;
  }),

  'step.suppress': command(z.strictObject({ ...where, on: z.boolean() }), (draft, { part, step: id, on }) => {
    const step = stepIn(draft, part, id);
    if (on) step.suppressed = true;
    else delete step.suppressed;
    return `${on ? 'Leave out' : 'Take in'} ${step.name}`;
  }),

  'step.move': command(
    z.strictObject({ ...where, to: z.int().min(0).max(500) }),
    (draft, { part: partId, step: id, to }) => {
      const part = partIn(draft, partId);
      const step = stepIn(draft, partId, id);
      const order = part.stepOrder.filter((other) => other !== id);
      order.splice(to, 0, id);
      checkOrder(part, order);
      part.stepOrder = order;
      return `Move ${step.name}`;
    },
  ),

  /** Removes steps together; refused where one that stays needs one that goes. */
  'step.remove': command(
    z.strictObject({ part: idSchema, steps: z.array(idSchema).min(1).max(500) }),
    (draft, { part: partId, steps }) => {
      const part = partIn(draft, partId);
      const names = steps.map((id) => stepIn(draft, partId, id).name);
      const users = [...new Set(steps.flatMap((id) => dependents(part, id)))].filter((id) => !steps.includes(id));
      if (users.length > 0) {
        const facts = { name: names.join('", "'), users: users.map((id) => part.steps[id]!.name), count: users.length };
        refuse('step.used', facts);
      }
      for (const id of steps) delete part.steps[id];
      part.stepOrder = part.stepOrder.filter((other) => !steps.includes(other));
      return `Remove ${names.length === 1 ? names[0] : `${names.length} steps`}`;
    },
  ),

  /** A copy of a step right after it. */
  'step.duplicate': command(
    z.strictObject({ ...where, id: idSchema, name: nameSchema }),
    (draft, { part: partId, step, id, name }) => {
      const part = partIn(draft, partId);
      const original = stepIn(draft, partId, step);
      insert(part.steps, id, { ...original, name });
      part.stepOrder.splice(part.stepOrder.indexOf(step) + 1, 0, id);
      return `Duplicate ${original.name}`;
    },
  ),
};
