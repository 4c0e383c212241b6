import { JOINTS } from '../assembly/index.ts';
import { mentionedBy, type Approach, type Chart, type Study, type StudyEnd } from '../study/index.ts';
import { isPlaced, recordsAlong } from './placed.ts';
import type { Project } from './schema.ts';

// What studies drive and show, and whether that is there.

/** Is there a joint, in a group that is placed too, which moves in this way? */
function isEnd(project: Project, { joint, coordinate }: StudyEnd): boolean {
  const found = recordsAlong(project, joint)?.at(-1);
  if (!found || !('kind' in found) || !Object.hasOwn(JOINTS, found.kind)) return false;
  return (JOINTS[found.kind as keyof typeof JOINTS].leaves as readonly string[]).includes(coordinate);
}

/** Is there all that a chart shows? */
function isShown(project: Project, chart: Chart): boolean {
  const { assembly } = project;
  const { ends = [], placements = [], traces = [] } = mentionedBy(chart);
  return (
    ends.every((end) => isEnd(project, end)) &&
    placements.every((path) => assembly !== undefined && isPlaced(project, assembly, path)) &&
    traces.every((id) => assembly?.traces[id] !== undefined)
  );
}

/** Are there both that are looked at for how near they come? */
const isNear = (project: Project, { a, b }: Approach): boolean =>
  [a, b].every(
    (path) => path === undefined || (project.assembly !== undefined && isPlaced(project, project.assembly, path)),
  );

/** Tells studies how joints and placements are reached now. */
export function repathStudies({ studies = {} }: Project, to: (path: string) => string): void {
  const end = (one: StudyEnd) => (one.joint = to(one.joint));
  for (const { drives, charts, approaches = {} } of Object.values(studies)) {
    drives.forEach(end);
    for (const approach of Object.values(approaches))
      for (const side of ['a', 'b'] as const) if (approach[side] !== undefined) approach[side] = to(approach[side]);
    for (const chart of Object.values(charts)) {
      mentionedBy(chart).ends?.forEach(end);
      if (chart.of === 'distance') [chart.a, chart.b] = [to(chart.a), to(chart.b)];
    }
  }
}

/** Takes from studies what is not there any more, and those that drive nothing then; tells what that was. */
export function withoutGone(project: Project): string[] {
  return Object.entries(project.studies ?? {}).flatMap(([id, study]) => {
    const { name, drives, charts, approaches = {} } = study;
    study.drives = drives.filter((drive) => isEnd(project, drive));
    if (study.drives.length === 0) {
      delete project.studies![id];
      return [name];
    }
    const hidden = Object.keys(charts).filter((chart) => !isShown(project, charts[chart]!));
    for (const chart of hidden) delete charts[chart];
    const lost = Object.keys(approaches).filter((approach) => !isNear(project, approaches[approach]!));
    for (const approach of lost) delete approaches[approach];
    return [
      ...(study.drives.length < drives.length ? [`what ${name} drives there`] : []),
      ...(hidden.length + lost.length > 0 ? [`what ${name} shows of it`] : []),
    ];
  });
}

/** The first study that drives or shows something that is not there. */
export const danglingStudy = (project: Project): Study | undefined =>
  Object.values(project.studies ?? {}).find(
    ({ drives, charts, approaches = {} }) =>
      !drives.every((drive) => isEnd(project, drive)) ||
      !Object.values(approaches).every((approach) => isNear(project, approach)) ||
      !Object.values(charts).every((chart) => isShown(project, chart)),
  );
