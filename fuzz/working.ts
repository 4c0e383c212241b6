import { parentPort, workerData } from 'node:worker_threads';
import { Engine } from '@helb/engine';
import { startKernelInNode } from '@helb/kernel/node';
import { partCase } from './part-cases.ts';
import { sketchCase } from './sketch-cases.ts';

/** What a thread does: cases of a kind, one seed after the other. */
export interface Errand {
  readonly kind: Kind;
  readonly from: number;
  readonly to: number;
}
export type Kind = 'parts' | 'sketches';

const { kind, from, to } = workerData as Errand;
/** WebAssembly memory never shrinks: after so many parts a fresh kernel. */
const TIRED = 60;

if (kind === 'sketches') for (let seed = from; seed < to; seed++) parentPort!.postMessage(sketchCase(seed));
else {
  let kernel = await startKernelInNode();
  let engine = new Engine(kernel);
  for (let seed = from; seed < to; seed++) {
    parentPort!.postMessage(await partCase(kernel, engine, seed));
    if ((seed - from) % TIRED !== TIRED - 1) continue;
    kernel = await startKernelInNode();
    engine = new Engine(kernel);
  }
}
parentPort!.postMessage('done');
