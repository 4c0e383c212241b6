import { seedSieve } from '@helb/core';
import { Engine } from '@helb/engine';
import { partCase } from '@helb/fuzz/part-cases';
import { sketchCase } from '@helb/fuzz/sketch-cases';
import { startKernelInNode } from '@helb/kernel/node';
import type { Figure } from './measure.ts';

/** Fixed: the same cases in every run. */
const SEED = 500;
const PARTS = 30;
const SKETCHES = 1000;

/**
 * What the witness of all measures costs, and how a short campaign of random parts and sketches ends: `./helb fuzz` runs
 * longer ones.
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
      kernel.moved({
        body,
        step: 'm',
        instance: '1',
        movement: [
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
  let [broken, tried, refused] = [0, 0, 0];
  for (let k = 0; k < PARTS; k++) {
    const outcome = await partCase(kernel, engine, SEED + k);
    broken += outcome.broken ? 1 : 0;
    tried += outcome.tried.length;
    refused += outcome.refused.length;
  }
  let crooked = 0;
  for (let k = 0; k < SKETCHES; k++) crooked += sketchCase(SEED + k).broken ? 1 : 0;
  const count = (name: string, value: number, unit: string): Figure => ({
    ...{ name: `truth: ${name}`, value, unit, floor: null, ratio: null },
    ...{ aim: 'none', met: value === 0 },
  });
  return [
    count(`of ${PARTS} random parts break a law`, broken, 'parts'),
    count(`of ${SKETCHES} random sketches break a law`, crooked, 'sketches'),
    {
      ...{ name: 'truth: random steps that are refused', value: (100 * refused) / tried, unit: '%' },
      ...{ floor: null, ratio: null, aim: 'to be watched', met: null },
    },
  ];
}
