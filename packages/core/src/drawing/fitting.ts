import type { Frame } from '../math/index.ts';
import type { Id } from '../records/index.ts';
import { markTries, readMark, type Held, type Mark, type MarkContext, type Picked } from './marks/index.ts';
import { spotOf } from './witness/index.ts';

/** A mark that could be made of what is picked, with what it would say. */
export interface FittingMark {
  readonly mark: Mark;
  readonly words: string;
}

/** The dimensions that make sense for what is picked in a view, the likeliest first. */
export function fittingMarks(
  picks: readonly Picked[],
  view: Id,
  eye: Frame,
  context: Omit<MarkContext, 'eye'>,
): FittingMark[] {
  const found: FittingMark[] = [];
  for (const { mark, things } of markTries(picks, view)) {
    const held = things.map((thing): Held => ({ thing, spot: spotOf(thing, context.faces, eye) }));
    const read = readMark(mark, held, { ...context, eye });
    if (read.ok && !found.some(({ words, mark: { kind } }) => words === read.value.words && kind === mark.kind))
      found.push({ mark, words: read.value.words });
  }
  return found;
}
