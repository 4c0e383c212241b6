import { seedSieve } from '@helb/core';
import { Engine } from '@helb/engine';
import { KINDS, type Kind } from '@helb/fuzz/kinds';
import { keptCases, sampleCase, samples } from '@helb/fuzz/sample-cases';
import { startKernelInNode } from '@helb/kernel/node';
import type { Figure } from './measure.ts';

/** Fixed: the same cases in every run. */
const SEED = 500;
const COUNTS = { parts: 30, sketches: 1000, assemblies: 200, edits: 60, files: 200 } as const satisfies Partial<
  Record<Kind, number>
>;

/** What is no step, but told of a part that was built. */
const AFTERWARDS: readonly string[] = ['larger', 'other-order', 'figures'];

/**
 * What the witness of all measures costs, how a short campaign of random cases ends, and whether each shape that was broken
 * once holds now: `./helb fuzz` runs longer ones.
 */
export async function truthFigures(): Promise<Figure[]> {
  return [await witness(), ...(await campaign())];
}

/** Bodies as they come from a file have been measured by nobody: measuring them, against building them. */
async function witness(): Promise<Figure> {
  const kernel = await startKernelInNode();
  const engine = new Engine(kernel);
  const project = seedSieve();
  let [build, measure] = [0, 0];
  for (const part of project.partOrder) {
    const start = performance.now();
    await engine.build(project, { parts: [part] });
    build += performance.now() - start;
    const file = await engine.partFile(project, part, 'step');
    if (!file.ok) continue;
    kernel.keepFile(part, file.value);
    const read = kernel.readStep({ file: part, step: 'r' });
    if (!read.ok) continue;
    // reading has measured them already: copies have faces of their own
    const copies = read.value.map((body) =>
      kernel.transformed({
        body,
        step: 'm',
        instance: '1',
        transform: [
          [1, 0, 0, 1e3],
          [0, 1, 0, 0],
          [0, 0, 1, 0],
        ],
      }),
    );
    const before = performance.now();
    copies.forEach((copy) => copy.ok && kernel.measure(copy.value));
    measure += performance.now() - before;
  }
  const ratio = measure / build;
  return {
    ...{ name: 'truth: measuring all bodies of the demo anew, two ways and more', value: measure, unit: 'ms' },
    ...{ floor: build, ratio, aim: 'at most 0.2 of building them', met: ratio <= 0.2 },
  };
}

async function campaign(): Promise<Figure[]> {
  const kernel = await startKernelInNode();
  const engine = new Engine(kernel);
  const count = (name: string, value: number, unit: string): Figure => ({
    ...{ name: `truth: ${name}`, value, unit, floor: null, ratio: null },
    ...{ aim: 'none', met: value === 0 },
  });
  const figures: Figure[] = [];
  const steps = { tried: 0, refused: 0 };
  for (const [kind, cases] of Object.entries(COUNTS) as [Kind, number][]) {
    let broken = 0;
    for (let k = 0; k < cases; k++) {
      const outcome = await KINDS[kind](kernel, engine, SEED + k);
      broken += outcome.broken ? 1 : 0;
      if (kind !== 'parts') continue;
      steps.tried += outcome.tried.length;
      steps.refused += outcome.refused.filter((one) => !AFTERWARDS.includes(one.kind)).length;
    }
    figures.push(count(`of ${cases} random ${kind} break a law`, broken, kind));
  }
  const share = (100 * steps.refused) / steps.tried;
  figures.push({
    ...{ name: 'truth: random steps that are refused', value: share, unit: '%', floor: null, ratio: null },
    ...{ aim: 'under 3', met: share < 3 },
  });
  const kept = new Set(await keptCases());
  for (const [k, { name }] of (await samples()).entries()) {
    const [project] = name.split(' · ') as [string];
    if (!kept.has(project)) continue;
    const { broken } = await sampleCase(kernel, engine, k);
    figures.push(count(`${project} breaks a law`, broken ? 1 : 0, 'cases'));
  }
  return figures;
}
