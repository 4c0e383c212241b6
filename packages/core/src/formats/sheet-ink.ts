import type { Lettering, SheetPicture, Stroke } from '../drawing/index.ts';
import type { Vec2 } from '../math/index.ts';
import type { Id } from '../records/index.ts';
import { sheetPaths, type SheetPath } from './sheet-svg.ts';

/** Lines as path data, mm from the upper left corner of the paper, and letters. */
interface Ink {
  readonly paths: readonly SheetPath[];
  readonly letters: readonly Lettering[];
}

/** A sheet as it is shown: what is dragged by itself apart from the rest. */
export interface SheetInk {
  readonly size: Vec2;
  readonly paper: Ink;
  readonly views: Readonly<Record<Id, readonly SheetPath[]>>;
  /** By the ids of marks and the keys of signs. */
  readonly marks: Readonly<Record<string, Ink>>;
}

/** A picture of a sheet as it is shown. */
export function inkOf({ size, strokes, letters }: SheetPicture): SheetInk {
  const { '': unmarked = [], ...ofMarks } = by(strokes, ({ mark = '' }) => mark);
  const { '': still = [], ...ofViews } = by(unmarked, ({ view = '' }) => view);
  const { '': words = [], ...said } = by(letters, ({ mark = '' }) => mark);
  const pathsOf = (own: readonly Stroke[] = []) => sheetPaths({ size, letters: [], strokes: own });
  const marks = Object.keys({ ...ofMarks, ...said });
  return {
    size,
    paper: { paths: pathsOf(still), letters: words },
    views: Object.fromEntries(Object.entries(ofViews).map(([id, own]) => [id, pathsOf(own)])),
    marks: Object.fromEntries(
      marks.map((mark) => [mark, { paths: pathsOf(ofMarks[mark]), letters: said[mark] ?? [] }]),
    ),
  };
}

function by<T>(items: readonly T[], key: (item: T) => string): Record<string, T[]> {
  const groups = new Map<string, T[]>();
  for (const item of items) {
    const group = groups.get(key(item));
    if (group) group.push(item);
    else groups.set(key(item), [item]);
  }
  return Object.fromEntries(groups);
}
