import { z } from 'zod';
import { referenceSchema } from '../../../references/index.ts';
import { ok, type Result } from '../../../result/index.ts';
import { MARK_LIMITS, markFields } from '../fields.ts';
import { labelOf, withLabel } from '../ink.ts';
import type { MarkKind, ReadMark } from '../kind.ts';
import { pointing } from '../pointing.ts';

/** Words on the sheet, pointing to a thing or standing by themselves. What it points to is taken as told by it. */
const noteSchema = z.strictObject({
  kind: z.literal('note'),
  ...markFields,
  of: z.array(referenceSchema).max(MARK_LIMITS.things),
  text: z.string().trim().min(1).max(MARK_LIMITS.text),
});
type NoteMark = z.infer<typeof noteSchema>;

export const note: MarkKind<NoteMark> = {
  schema: noteSchema,
  title: 'Note',
  written: { words: 'a note', begin: (view, of) => ({ kind: 'note', view, of, text: 'Note' }) },
  read({ text }, held, context): Result<ReadMark> {
    const rows = text.split('\n').map((line) => [line]);
    const common = {
      tells: [],
      covers: held.flatMap(({ thing }) => (thing.to === 'face' ? [thing.face.name] : [])),
      words: text.split('\n')[0]!,
    };
    if (held[0]) return ok({ ...common, ...pointing(held[0], rows, context) });
    const label = labelOf(context, ...rows);
    const { low, high } = context.box;
    return ok({
      ...common,
      places: () => [[(low[0] + high[0]) / 2, low[1] - 4 * context.height]],
      draw: (at) => ({ ...withLabel([], label, at), lines: [] }),
    });
  },
};
