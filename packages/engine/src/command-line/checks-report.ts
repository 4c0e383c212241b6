import { drawnPart, type Project } from '@helb/core';
import { BLOCKS, type Blocks, type CheckFinding } from '../checks/index.ts';

/** A finding by the names of what it is about, as `./helb check --json` prints it. */
interface PlainFinding {
  readonly code: string;
  readonly blocks: Blocks;
  readonly part: string | null;
  readonly step: string | null;
  readonly sheet: string | null;
  readonly message: string;
}

/** Findings as `check --json` prints them: names instead of ids. */
export const toldPlainly = (project: Project, found: readonly CheckFinding[]): PlainFinding[] =>
  found.map(({ code, blocks, part, step, sheet, words }) => ({
    ...{ code, blocks, message: words },
    part: part === undefined ? null : (project.parts[part]?.name ?? null),
    step: part === undefined || step === undefined ? null : (drawnPart(project, part)?.steps[step]?.name ?? null),
    sheet: sheet === undefined ? null : (project.sheets?.[sheet]?.name ?? null),
  }));

/** Findings as text, by what they stand in the way of. */
export function checksReport(project: Project, found: readonly CheckFinding[]): string {
  if (found.length === 0) return 'Nothing found. Nothing here proves strength.';
  const all = toldPlainly(project, found);
  return (Object.entries(BLOCKS) as [Blocks, string][])
    .flatMap(([blocks, title]) => {
      const rows = all.filter((one) => one.blocks === blocks);
      return rows.length === 0 ? [] : [title, ...rows.map(rowOf), ''];
    })
    .join('\n')
    .trimEnd();
}

function rowOf({ part, step, sheet, message }: PlainFinding): string {
  const name = [sheet === null ? part : `sheet ${sheet}`, sheet === null ? step : null].filter(Boolean).join(' · ');
  return `  ${name ? `${name}: ` : ''}${message}`;
}
