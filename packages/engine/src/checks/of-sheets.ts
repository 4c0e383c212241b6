import { changesSince, explain, issue, telling } from '@helb/core';
import type { Check, CheckFinding } from './kind.ts';

/** Sheets: what is missing on them, and whether they show the model as they went out. */
export const ofSheets: Check = {
  title: 'sheets',
  async look({ project, engine, pause }) {
    const found: CheckFinding[] = [];
    for (const id of project.sheetOrder ?? []) {
      const sheet = project.sheets![id]!;
      const drawn = await engine.sheet(project, id, () => pause(`the sheet ${sheet.name}`));
      const of = sheet.part === undefined ? {} : { part: sheet.part };
      const where = { blocks: 'paper', sheet: id, ...of } as const;
      if (!drawn.ok) {
        found.push({ ...where, code: drawn.issue.code, words: explain(drawn.issue) });
        continue;
      }
      for (const { issue: wrong, place } of drawn.value.findings)
        found.push({
          ...{ ...where, code: wrong.code, words: explain(wrong) },
          ...(place ? { cure: { label: 'tell it', actions: telling(project, id, [place]) } } : {}),
        });
      const last = sheet.issued?.at(-1);
      const changes = last ? changesSince(last, sheet, drawn.value) : [];
      if (last && changes.length > 0) {
        const dated = issue('sheet.dated', { revision: last.revision, count: changes.length });
        found.push({ ...where, code: dated.code, words: explain(dated) });
      }
    }
    return found;
  },
};
