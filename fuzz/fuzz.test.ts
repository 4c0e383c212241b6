import { Engine } from '@helb/engine';
import type { OpenCascadeKernel } from '@helb/kernel';
import { startKernelInNode } from '@helb/kernel/node';
import { KINDS, type Kind } from './kinds.ts';

let kernel: OpenCascadeKernel;
let engine: Engine;
beforeAll(async () => {
  kernel = await startKernelInNode();
  engine = new Engine(kernel);
});

// short runs of fixed seeds; `./helb fuzz` runs longer ones
test.each<[Kind, number]>([
  ['sketches', 60],
  ['assemblies', 25],
  ['edits', 16],
  ['files', 60],
  ['parts', 5],
])(
  'random %s keep all laws',
  async (kind, count) => {
    for (let seed = 1; seed <= count; seed++)
      expect([seed, (await KINDS[kind](kernel, engine, seed)).broken]).toEqual([seed, undefined]);
  },
  300_000,
);
