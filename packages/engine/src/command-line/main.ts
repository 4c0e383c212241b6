import { Worker } from 'node:worker_threads';
import type { Report, Watched } from './working.ts';

// The command itself runs in a thread of its own: where a step never ends, that thread is ended, and the command is run once
// more without trying that step.

/** Longer than any step that is known to end, s. */
const STEP_LIMIT = Number(process.env['HELB_STEP_LIMIT'] ?? 120);

/** A thread does not inherit the reader of TypeScript: it is registered there before anything else. */
const ENTRY = `import('tsx/esm/api').then(({ register }) => {
  register();
  return import(${JSON.stringify(new URL('./working.ts', import.meta.url).href)});
});`;

/** Runs the command; its exit code, or the step that did not end. */
function attempt(avoid: readonly string[]): Promise<number | { readonly endless: string }> {
  return new Promise((resolve, reject) => {
    const workerData: Watched = { args: process.argv.slice(2), avoid, seconds: STEP_LIMIT };
    const worker = new Worker(ENTRY, { eval: true, workerData });
    const said: (() => void)[] = [];
    let timer: NodeJS.Timeout | undefined;
    worker.once('error', reject);
    worker.on('message', (report: Report) => {
      const take: { readonly [F in Report['form']]: (report: Extract<Report, { form: F }>) => void } = {
        print: ({ text }) => said.push(() => process.stdout.write(`${text}\n`)),
        complain: ({ text }) => said.push(() => process.stderr.write(`${text}\n`)),
        step({ digest }) {
          clearTimeout(timer);
          timer = setTimeout(() => {
            void worker.terminate();
            resolve({ endless: digest });
          }, STEP_LIMIT * 1000);
        },
        done: () => clearTimeout(timer),
        ended({ code }) {
          clearTimeout(timer);
          // what was said in a run that was ended is said again by the next
          said.forEach((say) => say());
          resolve(code);
        },
      };
      take[report.form](report as never);
    });
  });
}

const avoid: string[] = [];
for (;;) {
  const outcome = await attempt(avoid);
  if (typeof outcome === 'number') {
    process.exitCode = outcome;
    break;
  }
  avoid.push(outcome.endless);
}
