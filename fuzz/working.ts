import { parentPort, workerData } from 'node:worker_threads';
import { Engine } from '@helb/engine';
import { startKernelInNode } from '@helb/kernel/node';
import { KINDS, type Kind } from './kinds.ts';

/** What a thread does: cases of a kind, one seed after the other. */
export interface Errand {
  readonly kind: Kind;
  readonly inTurn: boolean;
  readonly from: number;
  readonly to: number;
}

const { kind, inTurn, from, to } = workerData as Errand;
/** WebAssembly memory never shrinks: after so many cases a fresh kernel. */
const TIRED = 60;

let kernel = await startKernelInNode();
let engine = new Engine(kernel);
for (let seed = from; seed < to; seed++) {
  parentPort!.postMessage(await KINDS[kind](kernel, engine, seed, inTurn));
  if ((seed - from) % TIRED !== TIRED - 1 || kind === 'sketches' || kind === 'assemblies') continue;
  kernel = await startKernelInNode();
  engine = new Engine(kernel);
}
parentPort!.postMessage('done');
