import { z } from 'zod';
import type { Vec2 } from '../../../math/index.ts';
import { ok, type Result } from '../../../result/index.ts';
import { segment } from '../../picture.ts';
import { markFields, things } from '../fields.ts';
import { labelOf, withLabel } from '../ink.ts';
import { labelSize } from '../../label.ts';
import type { MarkKind, ReadMark } from '../kind.ts';
import { nearest, tipsOf } from '../pointing.ts';

/** The texture of a surface (ISO 21920-1): as it has to be, and whether material is removed for it. */
const surfaceSchema = z.strictObject({
  kind: z.literal('surface'),
  ...markFields,
  of: things(1).max(1),
  /** As "Ra 3.2". */
  text: z.string().trim().min(1).max(40),
  removed: z.enum(['any', 'yes', 'no']),
});
type SurfaceMark = z.infer<typeof surfaceSchema>;

/** The sign in heights of capitals: a short and a long arm from its tip, 60 degrees apart. */
const [SHORT, LONG] = [1.4, 2.8];
const SLOPE = Math.tan(Math.PI / 6);

export const surface: MarkKind<SurfaceMark> = {
  schema: surfaceSchema,
  title: 'Surface',
  written: {
    words: 'a surface',
    begin: (view, of) => ({ kind: 'surface', view, of, text: 'Ra 3.2', removed: 'yes' }),
  },
  read({ text, removed }, held, context): Result<ReadMark> {
    const label = labelOf(context, [text]);
    const tips = tipsOf(held[0]!, context);
    const h = context.height;
    const [width, tall] = labelSize(label);
    /** The tip of the sign, told by where its text stands. */
    const tipOf = ([x, y]: Vec2): Vec2 => [x - width / 2 - LONG * h * SLOPE, y + tall / 2 + 0.35 * h - LONG * h];
    const atTip = ([x, y]: Vec2): Vec2 => [x + width / 2 + LONG * h * SLOPE, y - tall / 2 - 0.35 * h + LONG * h];
    return ok({
      tells: [],
      words: text,
      places: () => tips.flatMap((tip) => [atTip(tip), atTip([tip[0], tip[1] + 4 * h])]),
      draw(at) {
        const tip = tipOf(at);
        const on = (u: number, v: number): Vec2 => [tip[0] + u * h, tip[1] + v * h];
        const [left, right, far] = [on(-SHORT * SLOPE, SHORT), on(SHORT * SLOPE, SHORT), on(LONG * SLOPE, LONG)];
        const pieces = [segment(left, tip), segment(tip, far), segment(far, [far[0] + width + 0.6 * h, far[1]])];
        if (removed === 'yes') pieces.push(segment(left, right));
        const foot = tips.length > 0 ? nearest(tips, tip) : tip;
        if (Math.hypot(foot[0] - tip[0], foot[1] - tip[1]) > h) pieces.push(segment(tip, foot));
        return { ...withLabel(pieces, label, at), lines: [[tip, foot]] };
      },
    });
  },
};
