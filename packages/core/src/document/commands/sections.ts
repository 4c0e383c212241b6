import { z } from 'zod';
import { idSchema } from '../../records/index.ts';
import { LIMITS, sectionSchema } from '../schema.ts';
import { command, insert, partIn, refuse } from './command.ts';
import { withoutViewsOf } from './sheets.ts';

const where = { part: idSchema };

export const sectionCommands = {
  'section.add': command(z.strictObject({ ...where, id: idSchema, section: sectionSchema }), (draft, input) => {
    const part = partIn(draft, input.part);
    part.sections ??= {};
    if (Object.keys(part.sections).length >= LIMITS.sections) refuse('section.many', { most: LIMITS.sections });
    insert(part.sections, input.id, input.section);
    return `Add ${input.section.name}`;
  }),

  'section.set': command(
    z.strictObject({ ...where, section: idSchema, fields: sectionSchema.partial() }),
    (draft, { part, section, fields }) => {
      const record = partIn(draft, part).sections?.[section] ?? refuse('section.unknown', { id: section });
      Object.assign(record, fields);
      return `Change ${record.name}`;
    },
  ),

  'section.remove': command(z.strictObject({ ...where, section: idSchema }), (draft, { part, section }) => {
    const { sections } = partIn(draft, part);
    const { name } = sections?.[section] ?? refuse('section.unknown', { id: section });
    delete sections![section];
    withoutViewsOf(draft, part, section);
    return `Remove ${name}`;
  }),
};
