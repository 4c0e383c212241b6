import { readdir, readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { explain, parseProject, seedSieve, type Id, type Project } from '@helb/core';
import type { Engine } from '@helb/engine';
import type { OpenCascadeKernel } from '@helb/kernel';
import { brokenBy, type Outcome } from './case.ts';
import { builderOf, holdTrue } from './laws.ts';

const FOLDER = join(import.meta.dirname, 'cases');

/** A case that was broken once. */
export async function keptCase(name: string): Promise<Project> {
  const read = parseProject(await readFile(join(FOLDER, `${name}.helb.json`), 'utf8'));
  if (!read.ok) throw new Error(explain(read.issue));
  return read.value;
}

export const keptCases = async (): Promise<string[]> =>
  (await readdir(FOLDER)).filter((file) => file.endsWith('.helb.json')).map((file) => file.replace('.helb.json', ''));

/** Every part of the demo, and of all cases that were broken once. */
export async function samples(): Promise<{ readonly name: string; readonly project: Project; readonly part: Id }[]> {
  const demo = seedSieve();
  const kept = await Promise.all((await keptCases()).map(async (name) => ({ name, project: await keptCase(name) })));
  return [{ name: 'demo', project: demo }, ...kept].flatMap(({ name, project }) =>
    project.partOrder.map((part) => ({ name: `${name} · ${project.parts[part]!.name}`, project, part })),
  );
}

/** One of the samples held against all laws of parts; a part without a body has none. */
export async function sampleCase(kernel: OpenCascadeKernel, engine: Engine, seed: number): Promise<Outcome> {
  const all = await samples();
  const { name, project, part } = all[seed % all.length]!;
  try {
    const model = await builderOf(engine, project, part).build(project);
    // over what breaks the library nothing else can be held
    const hurts = model.steps.some(({ issue }) => issue?.code === 'kernel.hurt');
    if (model.bodies.length > 0 && !hurts) await holdTrue({ kernel, engine, project, part, model });
    return { seed, refused: [], tried: ['sample'] };
  } catch (error) {
    const { law, found } = brokenBy(error);
    return { seed, refused: [], tried: ['sample'], broken: { law, found: `${name}: ${found}` } };
  }
}
