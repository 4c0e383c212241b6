import { OFFERED_RELATIONS, OFFERED_STEPS } from '@helb/core';
import { JOINTS, offeredJoints } from '@helb/core/assembly';
import { EDIT_VERBS } from '../editor/edit-verbs.ts';
import { DRAWING_TOOLS, EDIT_TOOLS } from '../verbs/tool-verbs.ts';
import { TOPICS, type Topic } from './topics.ts';

/** A topic, or a verb with its key and its drawing. */
interface Entry extends Topic {
  /** Its id as a verb. */
  readonly verb?: string;
  readonly key?: string;
  /** What is picked for it. */
  readonly wants?: string;
}

interface Chapter {
  readonly title: string;
  readonly entries: readonly Entry[];
}

const verb = ({
  id,
  title,
  key,
  says,
  wants,
}: Required<Pick<Entry, 'title' | 'key' | 'says'>> & { id: string; wants?: string }): Entry => ({
  ...{ verb: id, title, key, says },
  ...(wants === undefined ? {} : { wants }),
});
const {
  'Drawing well': drawing,
  Picking: picking,
  'Parts together': together,
  'From here to the shop': shop,
  ...first
} = TOPICS;
const told = (topics: Readonly<Record<string, readonly Topic[] | undefined>>): Chapter[] =>
  Object.entries(topics).map(([title, entries = []]) => ({ title, entries }));

/** All that is told, in the order of the page. */
export const CHAPTERS: readonly Chapter[] = [
  ...told(first),
  {
    title: 'Tools of sketches',
    entries: [...DRAWING_TOOLS, ...EDIT_TOOLS].map(({ tool, ...one }) => verb({ id: tool, ...one })),
  },
  { title: 'On what is selected in a sketch', entries: EDIT_VERBS.map(verb) },
  { title: 'Relations and sizes', entries: OFFERED_RELATIONS.map(({ kind, ...one }) => verb({ id: kind, ...one })) },
  ...told({ 'Drawing well': drawing }),
  { title: 'Steps', entries: OFFERED_STEPS.map(({ kind, ...one }) => verb({ id: kind, ...one })) },
  ...told({ Picking: picking }),
  { title: 'Joints', entries: offeredJoints(JOINTS).map(({ kind, ...one }) => verb({ id: `joint-${kind}`, ...one })) },
  ...told({ 'Parts together': together, 'From here to the shop': shop }),
];

/** The chapters with the entries in which words begin as each of these does; all of them for no words. */
export function searched(text: string): readonly Chapter[] {
  const words = text.toLowerCase().split(/\s+/).filter(Boolean);
  return CHAPTERS.flatMap((chapter) => {
    const entries = chapter.entries.filter(({ title, says, wants = '' }) => {
      const all = ` ${chapter.title} ${title} ${says} ${wants}`.toLowerCase().replaceAll(/[("“]/g, ' ');
      return words.every((word) => all.includes(` ${word}`));
    });
    return entries.length > 0 ? [{ ...chapter, entries }] : [];
  });
}
