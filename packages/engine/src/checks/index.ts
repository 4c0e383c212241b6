import type { Project } from '@helb/core';
import type { Engine } from '../engine.ts';
import { BLOCKS, type Blocks, type Check, type CheckFinding } from './kind.ts';
import { ofHoles } from './of-holes.ts';
import { modelFindings } from './of-model.ts';
import { ofSheets } from './of-sheets.ts';
import { ofStudies } from './of-studies.ts';
import { ofWalls } from './of-walls.ts';
import { together } from './together.ts';
import { unnamed } from './unnamed.ts';

export { BLOCKS, type Blocks, type CheckFinding } from './kind.ts';

/** The register: a new rule is a file beside these and a line here. */
const CHECKS: readonly Check[] = [
  { title: 'the model', look: ({ project, model }) => modelFindings(project, model) },
  unnamed,
  ofHoles,
  together,
  ofStudies,
  ofWalls,
  ofSheets,
];

/**
 * Every finding of a project, the worst first.
 * @param pause called before each thing that is looked at, with what it is; may throw to stop
 */
export async function checkedProject(
  engine: Engine,
  project: Project,
  pause: (words: string) => Promise<void> = () => Promise.resolve(),
): Promise<CheckFinding[]> {
  const model = await engine.build(project, {
    mesh: { deflection: 0.5, angle: 0.5 },
    pause: () => pause('the model'),
  });
  const found: CheckFinding[] = [];
  for (const { title, look } of CHECKS) {
    await pause(title);
    found.push(...(await look({ project, engine, model, pause })));
  }
  const order = Object.keys(BLOCKS) as Blocks[];
  return found.sort((a, b) => order.indexOf(a.blocks) - order.indexOf(b.blocks));
}
