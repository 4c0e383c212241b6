import { explain, fail, ok, valueScope, type Project, type Result } from '@helb/core';
import type { Assembled, TouchingBody } from '@helb/core/assembly';
import { planOf, type MemberMass, type Study, type StudyInput } from '@helb/core/study';
import { partTotals, type Weighed } from './bill-of-materials.ts';
import type { Engine } from './engine.ts';
import { assemblyFindings } from './inspect-assembly.ts';

/** Does a study need the bodies of what it moves? */
export const needsBodies = ({ touching, charts, approaches = {} }: Study): boolean =>
  touching || Object.keys(approaches).length > 0 || Object.values(charts).some(({ of }) => of === 'distance');

/** What weighs on a mechanism; undefined where a part that has a body has no material. */
function massesOf(project: Project, model: Weighed, { members }: Assembled): readonly MemberMass[] | undefined {
  const totals = partTotals(project, model);
  const found: MemberMass[] = [];
  for (const { id, part } of members) {
    const { bodies = 0, mass_g, centre_mm } = totals.get(part) ?? {};
    if (bodies === 0) continue;
    if (mass_g == null || !centre_mm) return undefined;
    found.push({ member: id, mass_g, centre_mm });
  }
  return found;
}

/** All that a study needs to be run; fails where it can't be read, or what it moves does not hold together. */
export function studyInput(
  project: Project,
  study: Study,
  assembled: Assembled,
  model: Weighed,
  bodies: readonly TouchingBody[],
): Result<StudyInput> {
  if (assembled.conflict.length > 0) return fail('assembly.fights');
  const { mechanism, members, rest, traces } = assembled;
  const plan = planOf(study, mechanism, valueScope(Object.values(project.values), project.unit));
  if (!plan.ok) return plan;
  const { pressed = {}, contacts = {} } = project.assembly ?? {};
  return ok({
    plan: plan.value,
    assembly: { pressed, contacts },
    assembled: { mechanism, members, rest, traces },
    bodies,
    masses: massesOf(project, model, assembled),
  });
}

/** A study of a project by its name; fails where there is none, or several. */
export function studyNamed({ studies = {} }: Project, name: string | undefined): Result<Study> {
  const all = Object.values(studies);
  const found = all.filter((study) => name === undefined || study.name === name);
  if (found.length === 1) return ok(found[0]!);
  return fail('study.named', { name: name ?? '', names: all.map((study) => study.name) });
}

/** A study made ready by the engine, with all that it needs of the project, and why that is not as it is told. */
export async function preparedStudy(
  engine: Engine,
  project: Project,
  study: Study,
): Promise<{ readonly input: Result<StudyInput>; readonly assembled: Assembled; readonly doubts: readonly string[] }> {
  const { model, assembled } = await engine.assemble(project);
  const bodies = needsBodies(study) ? await engine.touching(project) : [];
  return {
    input: studyInput(project, study, assembled, model, bodies),
    assembled,
    doubts: [
      ...model.parts.flatMap(({ trouble }) => (trouble ? [explain(trouble, project.unit)] : [])),
      ...assemblyFindings(project, assembled).map(({ message }) => message),
    ],
  };
}
