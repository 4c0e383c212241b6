import { explain, type Project } from '@helb/core';
import type { Assembled } from '@helb/core/assembly';
import { stopWords, StudyOutcome, tooNearWords, type Study } from '@helb/core/study';
import { namesIn } from '../inspect-assembly.ts';
import { preparedStudy } from '../studying.ts';
import type { Check, CheckFinding } from './kind.ts';

/** Studies that are told how near parts may come, and in which they come nearer. */
export const ofStudies: Check = {
  title: 'studies',
  async look({ project, engine, pause }) {
    const found: CheckFinding[] = [];
    for (const study of Object.values(project.studies ?? {})) {
      if (Object.values(study.approaches ?? {}).every(({ least }) => least === undefined)) continue;
      const where = `the study ${study.name}`;
      await pause(where);
      const { input, assembled } = await preparedStudy(engine, project, study);
      if (!input.ok) {
        const words = `${study.name}: ${explain(input.issue, project.unit)}`;
        found.push({ code: input.issue.code, blocks: 'fit', words, placements: [] });
        continue;
      }
      const outcome = new StudyOutcome(input.value);
      for (const frame of outcome.run()) if (frame) await pause(where);
      found.push(...(await foundIn(project, study, assembled, outcome, () => pause(where))));
    }
    return found;
  },
};

async function foundIn(
  project: Project,
  { name }: Study,
  assembled: Assembled,
  outcome: StudyOutcome,
  pause: () => Promise<void>,
): Promise<CheckFinding[]> {
  const nameAt = namesIn(project, assembled);
  const about = (...members: readonly string[]) =>
    assembled.members.flatMap(({ id }) => (members.includes(id) ? [id] : []));
  const found: CheckFinding[] = [];
  if (outcome.stop) {
    const words = `${name}: ${stopWords(outcome.stop, nameAt)} How near parts come after that was not looked at.`;
    found.push({ code: 'study.stops', blocks: 'fit', words, placements: [] });
  }
  for (const approach of outcome.approaches) {
    if (approach.least === undefined) continue;
    const going = outcome.nearest(approach);
    let next = going.next();
    for (; !next.done; next = going.next()) await pause();
    for (const one of next.value) {
      const words = tooNearWords(one, approach.least, nameAt, project.unit);
      if (words)
        found.push({ code: 'study.near', blocks: 'fit', words: `${name}: ${words}`, placements: about(one.a, one.b) });
    }
  }
  return found;
}
