import { explain, writeProject, type Project } from '@helb/core';
import { Engine, type PartModel } from '@helb/engine';
import type { OpenCascadeKernel } from '@helb/kernel';
import { Broken, brokenBy, same, type Outcome } from './case.ts';
import { Chance } from './chance.ts';
import { facesOf, holdTrue, MESH, TOLD, unsure, volumeOf } from './laws.ts';
import { begin, more, projectOf, type Grown } from './parts.ts';

const LARGER = 1.7;

type Refused = { kind: string; code: string };
/** Steps that belong together: a sketch and what is made of it. */
type Group = readonly Grown[];

/** A random part, held against laws that need no answer key; what breaks one is shrunk to as few steps as show it. */
export async function partCase(kernel: OpenCascadeKernel, engine: Engine, seed: number): Promise<Outcome> {
  const chance = new Chance(seed);
  const refused: Refused[] = [];
  const tried: string[] = [];
  const groups: Group[] = [];
  const build = async (project: Project) => (await engine.build(project, { mesh: MESH })).parts[0]!;
  try {
    let model: PartModel | undefined;
    const wanted = chance.whole(1, 6);
    for (let n = 0; n <= wanted; n++) {
      const bodies = model?.bodies.map(({ topology, mesh }) => ({ topology: topology!, mesh: mesh! })) ?? [];
      const next = (n === 0 ? begin : more)(chance, `s${n}`, bodies);
      if (next.length === 0) continue;
      tried.push(next.at(-1)!.kind);
      const built = await build(projectOf([...groups, next].flat()));
      const failed = built.steps.find(({ state }) => state === 'failed');
      if (failed) {
        refused.push({ kind: next.find(({ id }) => id === failed.id)?.kind ?? 'earlier', code: failed.issue!.code });
        if (explain(failed.issue!).startsWith('Something is wrong'))
          throw new Broken('a refusal has words', failed.issue!.code);
        if (n === 0) return { seed, refused, tried };
        continue;
      }
      groups.push(next);
      model = built;
    }
    const larger = await judged(kernel, engine, groups);
    if (larger !== undefined) refused.push({ kind: 'larger', code: larger });
    const isTold = model!.bodies.some(({ measures }) => measures.off.volume_mm3 > TOLD * measures.volume_mm3);
    if (isTold) refused.push({ kind: 'figures', code: 'shown-with-their-uncertainty' });
    return { seed, refused, tried };
  } catch (error) {
    const broken = brokenBy(error);
    const fewest = await shrunk(kernel, engine, groups, broken.law);
    return { seed, refused, tried, broken, shown: writeProject(projectOf(fewest.flat())) };
  }
}

/** Holds a part of steps against all laws; why it can't be built in another size, where that is so. */
async function judged(
  kernel: OpenCascadeKernel,
  engine: Engine,
  groups: readonly Group[],
): Promise<string | undefined> {
  const steps = groups.flat();
  const build = async (project: Project) => (await engine.build(project, { mesh: MESH })).parts[0]!;
  const model = await build(projectOf(steps));
  await holdTrue(kernel, engine, projectOf(steps), 'part', model);
  const large = await build(projectOf(steps, LARGER));
  // the library measures by absolute lengths: what it refuses in another size is counted as refused
  const failed = large.steps.find(({ state }) => state === 'failed');
  if (!failed) {
    same('all larger: volume by the cube', volumeOf(large), volumeOf(model) * LARGER ** 3, unsure(model));
    same('all larger: as many faces', facesOf(large), facesOf(model), 0);
  }
  return failed?.issue?.code;
}

/** As few steps as break the same law: one group after the other is left out where that does not mend it. */
async function shrunk(
  kernel: OpenCascadeKernel,
  engine: Engine,
  groups: readonly Group[],
  law: string,
): Promise<readonly Group[]> {
  let left = groups;
  for (const group of groups.slice(1).toReversed()) {
    const without = left.filter((other) => other !== group);
    const breaks = await judged(kernel, engine, without).then(
      () => false,
      (error: unknown) => brokenBy(error).law === law,
    );
    if (breaks) left = without;
  }
  return left;
}
