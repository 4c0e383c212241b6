import { z } from 'zod';
import { idSchema, nameSchema, type Id } from '../../records/index.ts';
import { stepKind, type Step } from '../../steps/index.ts';
import { materialSchema } from '../schema.ts';
import { unplace } from './assembly.ts';
import { command, insert, partIn, refuse } from './command.ts';

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
    // what sees it where it is placed is told that it is gone; a body of it can not be had otherwise
    const users = Object.entries(draft.parts)
      .filter(([other, { steps }]) => other !== id && Object.values(steps).some((step) => takes(step, id)))
      .map(([, user]) => user.name);
    if (users.length > 0) refuse('part.used', { name, users, count: users.length });
    unplace(draft, (of) => 'part' in of && of.part === id);
    delete draft.parts[id];
    draft.partOrder = draft.partOrder.filter((other) => other !== id);
    return `Remove part ${name}`;
  }),
};
