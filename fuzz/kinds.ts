import type { Engine } from '@helb/engine';
import type { OpenCascadeKernel } from '@helb/kernel';
import { assemblyCase } from './assembly-cases.ts';
import type { Outcome } from './case.ts';
import { editCase } from './edit-cases.ts';
import { fileCase } from './file-cases.ts';
import { partCase } from './part-cases.ts';
import { sampleCase } from './sample-cases.ts';
import { sketchCase } from './sketch-cases.ts';

/** What cases can be of, each by what runs one of a seed, all laws held or those that are dear in turn. `samples` goes through the demo and all that was broken once. */
export const KINDS = {
  parts: partCase,
  sketches: (_, __, seed) => sketchCase(seed),
  assemblies: (_, __, seed) => assemblyCase(seed),
  edits: editCase,
  files: (_, engine, seed) => fileCase(engine, seed),
  samples: sampleCase,
} as const satisfies Record<
  string,
  (kernel: OpenCascadeKernel, engine: Engine, seed: number, inTurn?: boolean) => Outcome | Promise<Outcome>
>;
export type Kind = keyof typeof KINDS;
