import { z } from 'zod';
import { expressionSchema, idSchema, nameSchema } from '../../records/index.ts';
import { LIMITS, type Project, type Variant } from '../schema.ts';
import { basisOf, variantsOf } from '../variants.ts';
import { command, insert, refuse, stepIn } from './command.ts';

const variantIn = (draft: Project, id: string): Variant => draft.variants?.[id] ?? refuse('variant.gone', { id });

/** No two are called the same; what the project itself is called counts among them. */
function checkName(draft: Project, name: string, own: string) {
  if (name !== own && variantsOf(draft).some((other) => other.name === name)) refuse('variant.taken', { name });
}

export const variantCommands = {
  /** Like the project itself, or like another variant. */
  'variant.add': command(
    z.strictObject({ id: idSchema, name: nameSchema, like: idSchema.optional() }),
    (draft, { id, name, like }) => {
      checkName(draft, name, '');
      draft.variants ??= {};
      draft.variantOrder ??= [];
      if (draft.variantOrder.length >= LIMITS.variants) refuse('variant.many', { most: LIMITS.variants });
      const source = like === undefined ? undefined : variantIn(draft, like);
      insert(draft.variants, id, {
        name,
        values: { ...source?.values },
        leftOut: Object.fromEntries(Object.entries(source?.leftOut ?? {}).map(([part, steps]) => [part, [...steps]])),
      });
      draft.variantOrder.push(id);
      return `Add the variant ${name}`;
    },
  ),

  /** Without an id what the project itself is called. */
  'variant.rename': command(z.strictObject({ id: idSchema.optional(), name: nameSchema }), (draft, { id, name }) => {
    checkName(draft, name, id === undefined ? basisOf(draft) : variantIn(draft, id).name);
    if (id !== undefined) variantIn(draft, id).name = name;
    else draft.basis = name;
    return `Call it ${name}`;
  }),

  'variant.remove': command(z.strictObject({ id: idSchema }), (draft, { id }) => {
    const { name } = variantIn(draft, id);
    delete draft.variants![id];
    draft.variantOrder = draft.variantOrder!.filter((other) => other !== id);
    return `Remove the variant ${name}`;
  }),

  /** Another expression of a value; without one it is as in the project itself. */
  'variant.set': command(
    z.strictObject({ id: idSchema, value: idSchema, expression: expressionSchema.optional() }),
    (draft, { id, value, expression }) => {
      const variant = variantIn(draft, id);
      const { name } = draft.values[value] ?? refuse('value.gone', { id: value });
      if (expression === undefined) delete variant.values[value];
      else variant.values[value] = expression;
      return expression === undefined
        ? `${name} of ${variant.name} as in ${basisOf(draft)}`
        : `Set ${name} of ${variant.name} = ${expression}`;
    },
  ),

  'variant.leave-out': command(
    z.strictObject({ id: idSchema, part: idSchema, step: idSchema, out: z.boolean() }),
    (draft, { id, part, step, out }) => {
      const variant = variantIn(draft, id);
      const { name } = stepIn(draft, part, step);
      const rest = (variant.leftOut[part] ?? []).filter((other) => other !== step);
      variant.leftOut[part] = out ? [...rest, step] : rest;
      if (variant.leftOut[part].length === 0) delete variant.leftOut[part];
      return out ? `Leave ${name} out of ${variant.name}` : `Keep ${name} in ${variant.name}`;
    },
  ),
};
