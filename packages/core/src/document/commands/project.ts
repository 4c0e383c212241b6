import { z } from 'zod';
import { expressionSchema, nameSchema } from '../../records/index.ts';
import { LENGTH_UNITS } from '../../units/index.ts';
import { limitsSchema, type Limits } from '../schema.ts';
import { command } from './command.ts';

const LIMIT_WORDS: Readonly<Record<keyof Limits, string>> = { wall: 'walls under', web: 'beside holes less than' };

export const projectCommands = {
  'project.rename': command(z.strictObject({ name: nameSchema }), (draft, { name }) => {
    draft.name = name;
    return `Rename project to ${name}`;
  }),

  /** What checks take for too little. */
  'project.limit': command(
    z.strictObject({ limit: limitsSchema.keyof(), expression: expressionSchema }),
    (draft, { limit, expression }) => {
      draft.limits ??= {};
      draft.limits[limit] = expression;
      return `Check for ${LIMIT_WORDS[limit]} ${expression}`;
    },
  ),

  'project.unit': command(z.strictObject({ unit: z.enum(LENGTH_UNITS) }), (draft, { unit }) => {
    draft.unit = unit;
    return `Work in ${unit}`;
  }),
};
