import { z } from 'zod';
import { add2, distance2, left2, scale2, sub2, type Vec2 } from '../../../math/index.ts';
import { idSchema } from '../../../records/index.ts';
import { fromQuadratic, type Piece } from '../../pieces/index.ts';
import type { EntityKind } from '../kind.ts';
import { CAP_HEIGHT, GLYPHS } from './source-sans-3.ts';

const MOST_LETTERS = 60;

/** Lettering as outlines: it begins at point `at`; from there to point `top` is the height of a capital letter. */
export const textSchema = z.strictObject({
  kind: z.literal('text'),
  at: idSchema,
  top: idSchema,
  text: z
    .string()
    .min(1)
    .max(MOST_LETTERS)
    .refine((text) => [...text].every((letter) => Object.hasOwn(GLYPHS, letter)), 'the font has Latin letters only'),
  construction: z.boolean().optional(),
});
type Text = z.infer<typeof textSchema>;

export const text: EntityKind<Text> = {
  schema: textSchema,
  title: 'text',
  role: 'text',
  uses: ({ at, top }) => [at, top],
  onto: (entity, point) => ({ ...entity, at: point(entity.at), top: point(entity.top) }),
  unknowns: () => [],
  moved: (entity) => entity,
  trace: (id, { at, top, text: letters }, point) => outlines(id, letters, point(at), point(top)),
};

/** The outlines of all letters as closed loops of lines and curves. */
function outlines(entity: string, letters: string, at: Vec2, top: Vec2): Piece[] {
  const up = scale2(sub2(top, at), 1 / CAP_HEIGHT);
  const right = scale2(left2(up), -1);
  const pieces: Piece[] = [];
  let advance = 0;
  for (const letter of letters) {
    const [width, path] = GLYPHS[letter] ?? GLYPHS['?']!;
    const pen = advance;
    const place = (x: number, y: number): Vec2 => add2(at, add2(scale2(right, pen + x), scale2(up, y)));
    pieces.push(...loops(entity, path, place));
    advance += width;
  }
  return pieces;
}

/** The path of one letter: M, L, Q, C and Z with absolute numbers, as the font writes it. */
function loops(entity: string, path: string, place: (x: number, y: number) => Vec2): Piece[] {
  const pieces: Piece[] = [];
  let [first, here]: Vec2[] = [place(0, 0), place(0, 0)];
  const to = (next: Vec2, inner?: readonly [Vec2, Vec2]) => {
    if (distance2(here!, next) > 1e-9)
      pieces.push(
        inner
          ? { form: 'bezier', entity, from: here!, to: next, inner }
          : { form: 'segment', entity, from: here!, to: next },
      );
    here = next;
  };
  for (const [, command, numbers] of path.matchAll(/([MLQCZ])([-\d ]*)/g)) {
    const n = numbers === '' ? [] : numbers!.split(' ').map(Number);
    const places = Array.from({ length: n.length / 2 }, (_, k) => place(n[2 * k]!, n[2 * k + 1]!));
    if (command === 'M') first = here = places[0]!;
    else if (command === 'L') to(places[0]!);
    else if (command === 'Q') to(places[1]!, fromQuadratic(here!, places[0]!, places[1]!));
    else if (command === 'C') to(places[2]!, [places[0]!, places[1]!]);
    else to(first!);
  }
  return pieces;
}
