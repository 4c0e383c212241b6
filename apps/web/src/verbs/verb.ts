/** Something that can be done here. */
export interface Verb {
  readonly id: string;
  readonly title: string;
  /** One letter; empty for none. */
  readonly key: string;
  /** What it does, in one sentence. */
  readonly says: string;
  /** Why it can not be done yet: "Pick two lines first." Absent where it can. */
  readonly lacks?: string;
  readonly run: () => void;
}

/** The same verb as what can not be done before something is picked: "two lines". */
export const wanting = (verb: Verb, what: string): Verb => ({ ...verb, lacks: `Pick ${what} first.` });

/** Keeps what is in the making. */
export const accepting = (run: () => void): Verb => ({
  ...{ id: 'accept', title: 'Accept', key: 'Enter', says: 'Keeps it as it is told on the desk.' },
  run,
});
/** Drops what is in the making. */
export const leaving = (run: () => void): Verb => ({
  ...{ id: 'leave', title: 'Leave', key: 'Esc', says: 'Drops what is in the making, or what was changed of it.' },
  run,
});

/** Shows the three short tasks. */
export const showingTasks = (run: () => void): Verb => ({
  ...{ id: 'tasks', title: 'Three short tasks', key: '' },
  says: 'Shows how one draws, makes and moves, step by step in this project: for the first hour.',
  run,
});

/** How well a verb is called what is sought: exactly so, beginning so, a word of it doing so, somewhere in it, in what it does. */
const RANKS: readonly ((verb: Verb, sought: string) => boolean)[] = [
  ({ title }, sought) => title.toLowerCase() === sought,
  ({ title }, sought) => title.toLowerCase().startsWith(sought),
  ({ title }, sought) => title.toLowerCase().includes(` ${sought}`),
  ({ title }, sought) => title.toLowerCase().includes(sought),
  ({ says }, sought) => ` ${says.toLowerCase()}`.includes(` ${sought}`),
];

/** The verbs that a text may mean, best first; of equals what can be done now comes first. All of them for no text. */
export function sought(verbs: readonly Verb[], text: string): readonly Verb[] {
  const words = text.trim().toLowerCase();
  const ranked = verbs.flatMap((verb) => {
    const rank = RANKS.findIndex((fits) => fits(verb, words));
    return rank < 0 ? [] : [{ verb, rank: words === '' ? 0 : rank, late: verb.lacks === undefined ? 0 : 1 }];
  });
  return ranked.toSorted((a, b) => a.rank - b.rank || a.late - b.late).map(({ verb }) => verb);
}
