import { explain, issue, unnamedNumbers } from '@helb/core';
import type { Check, CheckFinding } from './kind.ts';

/** Numbers in which no name stands: one by one they have to be found again when something is to change. */
export const unnamed: Check = {
  title: 'numbers',
  look({ project }) {
    const counts = new Map<string, number>();
    for (const { part } of unnamedNumbers(project)) if (part) counts.set(part, (counts.get(part) ?? 0) + 1);
    return [...counts].map(([part, count]): CheckFinding => {
      const wrong = issue('number.unnamed', { count });
      return { code: wrong.code, blocks: 'later', words: explain(wrong), part };
    });
  },
};
