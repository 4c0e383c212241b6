import type { Id } from '../records/index.ts';
import { lengthOf, type Box, type Piece } from '../sketch/pieces/index.ts';
import type { ComposedSheet } from './compose.ts';
import type { Issued, Sheet } from './schema.ts';
import { viewWords, type SectionName } from './view-words.ts';

/** A short print of what a view shows, whatever its scale: it changes where that does. */
export function lookOf({ low, high }: Box, visible: readonly Piece[], factor: number): string {
  const length = visible.reduce((sum, piece) => sum + lengthOf(piece), 0);
  const sizes = [high[0] - low[0], high[1] - low[1], length].map((n) => (n / factor).toPrecision(6));
  return `${sizes.join(' ')} ${visible.length}`;
}

/** Something that is otherwise than when the sheet went out. */
interface SheetChange {
  readonly kind: 'new' | 'gone' | 'lost' | 'otherwise' | 'look' | 'view' | 'closed';
  readonly mark?: Id;
  readonly view?: Id;
  readonly before: string;
  readonly now: string;
}

/** What has changed since a sheet went out. */
export function changesSince(
  { said, looks }: Issued,
  sheet: Sheet,
  composed: Pick<ComposedSheet, 'marks' | 'looks'>,
): SheetChange[] {
  const marks = sheet.markOrder ?? [];
  const written = marks.flatMap((mark): SheetChange[] => {
    const [before, now] = [said[mark], composed.marks[mark]?.words];
    if (before === undefined) return [{ kind: 'new', mark, before: '', now: now ?? '' }];
    if (now === undefined) return [{ kind: 'lost', mark, before, now: '' }];
    return before === now ? [] : [{ kind: 'otherwise', mark, before, now }];
  });
  const gone = Object.entries(said).flatMap(([mark, before]): SheetChange[] =>
    marks.includes(mark) ? [] : [{ kind: 'gone', before, now: '' }],
  );
  const views = sheet.viewOrder.flatMap((view): SheetChange[] => {
    const [before, now] = [looks[view], composed.looks[view]];
    if (before === now || now === undefined) return [];
    return [before === undefined ? { kind: 'view', view, before: '', now } : { kind: 'look', view, before, now }];
  });
  const closed = Object.entries(looks).flatMap(([view, before]): SheetChange[] =>
    Object.hasOwn(sheet.views, view) ? [] : [{ kind: 'closed', before, now: '' }],
  );
  return [...written, ...gone, ...views, ...closed];
}

type ChangeWords = Readonly<Record<SheetChange['kind'], (change: SheetChange, viewCalled: () => string) => string>>;
const WORDS: ChangeWords = {
  new: ({ now }) => `New: ${now}.`,
  gone: ({ before }) => `Taken off: ${before}.`,
  lost: ({ before }) => `What ${before} belonged to is gone.`,
  otherwise: ({ before, now }) => `${before} is ${now} now.`,
  look: (_, viewCalled) => `The view ${viewCalled()} looks otherwise.`,
  view: (_, viewCalled) => `The view ${viewCalled()} is new.`,
  closed: () => 'A view was taken off.',
};
/** A change of a sheet as a sentence. @param nameOf the names of sections */
export const changeWords = (change: SheetChange, sheet: Sheet, nameOf: SectionName): string =>
  WORDS[change.kind](change, () => viewWords(sheet.views[change.view!]!, sheet, nameOf));

/** A sheet as it goes out now. */
export const issuedNow = (
  composed: Pick<ComposedSheet, 'marks' | 'looks'>,
  { revision, date, words }: Pick<Issued, 'revision' | 'date' | 'words'>,
): Issued => ({
  ...{ revision, date, words },
  said: Object.fromEntries(Object.entries(composed.marks).map(([id, mark]) => [id, mark.words])),
  looks: { ...composed.looks },
});

/** The revision after another: A, B ... Z, AA, where I and O are left out; or 1, 2 ... */
export function nextRevision(revision: string | undefined): string {
  const letters = 'ABCDEFGHJKLMNPQRSTUVWXYZ';
  if (revision !== undefined && /^\d+$/.test(revision)) return `${Number(revision) + 1}`;
  const last = revision?.at(-1)?.toUpperCase();
  if (revision === undefined || last === undefined || !letters.includes(last)) return 'A';
  const next = letters[letters.indexOf(last) + 1];
  return next === undefined ? `${nextRevision(revision.slice(0, -1) || undefined)}A` : revision.slice(0, -1) + next;
}
