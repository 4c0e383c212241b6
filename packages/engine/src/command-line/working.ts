import { parentPort, workerData } from 'node:worker_threads';
import { explain, issue, KernelHurt } from '@helb/core';
import { startKernelInNode } from '@helb/kernel/node';
import { Engine } from '../engine.ts';
import { run } from './run.ts';
import { EXIT } from './surroundings.ts';

/** What the thread of a command is told. */
export interface Watched {
  readonly args: readonly string[];
  /** Digests of steps that did not end, and after how many seconds they were given up. */
  readonly avoid: readonly string[];
  readonly seconds: number;
}

/** What it tells: words, which step it is at, that this one is done, and how all ended. */
export type Report =
  | { readonly form: 'print'; readonly text: string }
  | { readonly form: 'complain'; readonly text: string }
  | { readonly form: 'step'; readonly digest: string }
  | { readonly form: 'done' }
  | { readonly form: 'ended'; readonly code: number };

const { args, avoid, seconds } = workerData as Watched;
const report = (what: Report): void => parentPort!.postMessage(what);
const complain = (text: string) => report({ form: 'complain', text });

async function code(): Promise<number> {
  try {
    return await run(args, {
      print: (text) => report({ form: 'print', text }),
      complain,
      async startEngine(files) {
        const watch = (digest?: string) => report(digest === undefined ? { form: 'done' } : { form: 'step', digest });
        const engine = new Engine(await startKernelInNode(), { files, watch });
        avoid.forEach((digest) => engine.avoid(digest, seconds));
        return engine;
      },
    });
  } catch (error) {
    if (!(error instanceof KernelHurt)) throw error;
    complain(explain(issue('kernel.hurt', { reason: error.message })));
    return EXIT.failed;
  }
}
report({ form: 'ended', code: await code() });
