import { z } from 'zod';
import { direction2, sub2, type Vec2 } from '../../../math/index.ts';
import { ok, type Result } from '../../../result/index.ts';
import { segment } from '../../picture.ts';
import { markFields, things } from '../fields.ts';
import { labelOf, withLabel } from '../ink.ts';
import type { MarkKind, ReadMark } from '../kind.ts';
import { nearest, pointing, tipsOf } from '../pointing.ts';

/** A face, edge or axis to which geometrical tolerances refer by a letter (ISO 5459). */
const datumSchema = z.strictObject({
  kind: z.literal('datum'),
  ...markFields,
  of: things(1).max(1),
  letter: z.string().regex(/^[A-Z]{1,2}$/),
});
type DatumMark = z.infer<typeof datumSchema>;

/** Letters that are read easily (ISO 5459 leaves out I, O, Q). */
const LETTERS = [...'ABCDEFGHJKLMNPRSTUVWXYZ'];

/** The first letter that no datum has. */
function freeLetter(marks: readonly object[]): string {
  const used = new Set(marks.flatMap((mark) => ('letter' in mark ? [mark.letter] : [])));
  return LETTERS.find((letter) => !used.has(letter)) ?? 'A';
}

export const datum: MarkKind<DatumMark> = {
  schema: datumSchema,
  title: 'Datum letter',
  written: {
    words: 'a datum letter',
    begin: (view, of, others) => ({ kind: 'datum', view, of, letter: freeLetter(others) }),
  },
  read({ letter }, held, context): Result<ReadMark> {
    const label = labelOf(context, [{ cells: [[letter]] }]);
    const tips = tipsOf(held[0]!, context);
    const h = context.height;
    return ok({
      tells: [],
      words: `datum ${letter}`,
      places: pointing(held[0]!, [[{ cells: [[letter]] }]], context).places,
      draw(at) {
        const foot = tips.length > 0 ? nearest(tips, at) : at;
        const out: Vec2 = direction2(sub2(at, foot)) ?? [0, 1];
        const place = (u: number, v: number): Vec2 => [
          foot[0] + h * (u * out[0] - v * out[1]),
          foot[1] + h * (u * out[1] + v * out[0]),
        ];
        const [left, right, top] = [place(0, -0.6), place(0, 0.6), place(1, 0)];
        const to: Vec2 = [at[0] - out[0] * h * 1.1, at[1] - out[1] * h * 1.1];
        const pieces = [segment(left, right), segment(right, top), segment(top, left), segment(top, to)];
        return { ...withLabel(pieces, label, at), lines: [[foot, to]] };
      },
    });
  },
};
