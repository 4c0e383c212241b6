import { z } from 'zod';
import { nameSchema } from '../../records/index.ts';
import { LENGTH_UNITS } from '../../units/index.ts';
import { command } from './command.ts';

export const projectCommands = {
  'project.rename': command(z.strictObject({ name: nameSchema }), (draft, { name }) => {
    draft.name = name;
    return `Rename project to ${name}`;
  }),

  'project.unit': command(z.strictObject({ unit: z.enum(LENGTH_UNITS) }), (draft, { unit }) => {
    draft.unit = unit;
    return `Work in ${unit}`;
  }),
};
