import type { Id } from '../records/index.ts';
import type { BESIDE, Sheet, SIDES, View } from './schema.ts';

export const SIDE_WORDS: Readonly<Record<(typeof SIDES)[number], string>> = {
  front: 'from the front',
  top: 'from above',
  right: 'from the right',
  back: 'from behind',
  under: 'from under',
  left: 'from the left',
};
export const BESIDE_WORDS: Readonly<Record<(typeof BESIDE)[number], string>> = {
  right: 'from its right',
  left: 'from its left',
  above: 'from above it',
  below: 'from below it',
};

/** What a section is called, of the part that is drawn or of one that is placed. */
export type SectionName = (section: Id, at?: string) => string;

type Words = {
  readonly [K in View['kind']]: (view: Extract<View, { kind: K }>, sheet: Sheet, nameOf: SectionName) => string;
};
const WORDS: Words = {
  base: ({ from }) => SIDE_WORDS[from],
  projected: ({ of, beside }, sheet, nameOf) =>
    `${viewWords(sheet.views[of]!, sheet, nameOf)}, ${BESIDE_WORDS[beside]}`,
  corner: ({ apart }) => (apart ? 'from a corner, drawn apart' : 'from a corner'),
  section: ({ section, at }, _, nameOf) => `cut: ${nameOf(section, at)}`,
  detail: ({ of }, sheet, nameOf) => `a detail of: ${viewWords(sheet.views[of]!, sheet, nameOf)}`,
};

/** What a view is called: "from the front, from its left". @param nameOf the names of sections of the part */
export const viewWords = (view: View, sheet: Sheet, nameOf: SectionName): string =>
  WORDS[view.kind](view as never, sheet, nameOf);
