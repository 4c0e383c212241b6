import { z } from 'zod';
import { idSchema, nameSchema } from '../../records/index.ts';
import { materialSchema } from '../schema.ts';
import { unplace } from './assembly.ts';
import { command, insert, partIn } from './command.ts';

export const partCommands = {
  'part.add': command(
    z.strictObject({ id: idSchema, name: nameSchema, colour: z.int().min(0).max(11).optional() }),
    (draft, { id, name, colour }) => {
      insert(draft.parts, id, { name, colour: colour ?? draft.partOrder.length % 12, steps: {}, stepOrder: [] });
      draft.partOrder.push(id);
      return `Add part ${name}`;
    },
  ),

  'part.rename': command(z.strictObject({ id: idSchema, name: nameSchema }), (draft, { id, name }) => {
    partIn(draft, id).name = name;
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
    unplace(draft, (of) => 'part' in of && of.part === id);
    delete draft.parts[id];
    draft.partOrder = draft.partOrder.filter((other) => other !== id);
    return `Remove part ${name}`;
  }),
};
