import { mkdir, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { Worker } from 'node:worker_threads';
import type { Outcome } from './case.ts';
import type { Kind } from './kinds.ts';
import type { Errand } from './working.ts';

// ./helb fuzz [KIND] [--seed N] [--count N] [--in-turn] [--limit S]: random but sensible inputs, each held against laws that
// need no answer key. A case that breaks a law is shrunk and written to test-results/fuzz, from where it goes to fuzz/cases once it is
// understood; one that does not end is given up, as the application would. With --in-turn each part is held against one of the
// dear laws, the next part against the next.

const { values, positionals } = parseArgs({
  allowPositionals: true,
  options: {
    seed: { type: 'string', default: '1' },
    count: { type: 'string', default: '100' },
    'in-turn': { type: 'boolean', default: false },
    limit: { type: 'string', default: '150' },
  },
});
const kind = (positionals[0] ?? 'parts') as Kind;
const [seed, count] = [Number(values.seed), Number(values.count)];
/** As usual longer than any case that is known to end, and than the application lets a step take. */
const CASE_LIMIT_S = Number(values.limit);
const ALL: readonly Kind[] = ['parts', 'sketches', 'assemblies', 'edits', 'files', 'samples'];
if (!ALL.includes(kind) || !Number.isInteger(seed) || !Number.isInteger(count) || count < 1 || !(CASE_LIMIT_S > 0)) {
  process.stderr.write(`Usage: ./helb fuzz [${ALL.join('|')}] [--seed N] [--count N] [--in-turn] [--limit SECONDS]\n`);
  process.exit(1);
}

const ENTRY = `import('tsx/esm/api').then(({ register }) => {
  register();
  return import(${JSON.stringify(new URL('./working.ts', import.meta.url).href)});
});`;
const FOLDER = join(import.meta.dirname, '../test-results/fuzz');
/** The folder is that of all results: journeys begin it anew while a long campaign runs. */
async function keep(name: string, what: string): Promise<void> {
  await mkdir(FOLDER, { recursive: true });
  await writeFile(join(FOLDER, name), what);
}

/** Runs cases in a thread until all are done or one does not end; the seed to go on with. */
function run(from: number, told: (outcome: Outcome) => void): Promise<number> {
  return new Promise((resolve) => {
    const workerData: Errand = { kind, inTurn: values['in-turn'], from, to: seed + count };
    const worker = new Worker(ENTRY, { eval: true, workerData });
    let next = from;
    const give = (outcome: Partial<Outcome>) => {
      clearTimeout(timer);
      void worker.terminate();
      told({ seed: next, refused: [], tried: [], ...outcome });
      resolve(next + 1);
    };
    const wait = () => setTimeout(() => give({ isEndless: true }), CASE_LIMIT_S * 1000);
    let timer = wait();
    worker.on('error', (error) => give({ broken: { law: 'nothing crashes', found: error.message } }));
    worker.on('message', (message: Outcome | 'done') => {
      clearTimeout(timer);
      if (message === 'done') {
        resolve(seed + count);
        return;
      }
      told(message);
      next = message.seed + 1;
      timer = wait();
    });
  });
}

const tally = () => new Map<string, number>();
const counts = { held: 0, broken: 0, endless: 0, tried: tally(), refused: tally(), named: tally() };
const more = (map: Map<string, number>, key: string) => map.set(key, (map.get(key) ?? 0) + 1);
const shown: Promise<void>[] = [];

/** What came of the cases so far. */
function report(): void {
  const sum = (map: Map<string, number>) => [...map.values()].reduce((a, b) => a + b, 0);
  const share = (part: number, all: number) => `${((100 * part) / Math.max(1, all)).toFixed(1)} %`;
  process.stdout.write(
    `\n${counts.held + counts.broken + counts.endless} ${kind} from seed ${seed}: ${counts.held} held, ` +
      `${counts.broken} broken, ${counts.endless} ended after ${CASE_LIMIT_S} s\n`,
  );
  process.stdout.write(
    `steps tried ${sum(counts.tried)}, refused ${sum(counts.refused)} (${share(sum(counts.refused), sum(counts.tried))})\n`,
  );
  tell(counts.refused);
  if (counts.named.size === 0) return;
  process.stdout.write(`refused, and what the refusal named was built: ${sum(counts.named)}\n`);
  tell(counts.named);

  function tell(map: Map<string, number>): void {
    for (const [what, times] of [...map].sort((a, b) => b[1] - a[1])) {
      const [kindOf] = what.split(' ') as [string];
      process.stdout.write(`  ${what}: ${times} (${share(times, counts.tried.get(kindOf) ?? 0)} of ${kindOf})\n`);
    }
  }
}
// a long campaign that is ended tells how far it came
process.on('SIGTERM', () => {
  report();
  process.exit(counts.broken === 0 ? 0 : 3);
});

let next = seed;
while (next < seed + count)
  next = await run(next, ({ seed: at, broken, isEndless, refused, tried, shown: what }) => {
    tried.forEach((one) => more(counts.tried, one));
    refused.forEach(({ kind: of, code, isNamed }) => more(isNamed ? counts.named : counts.refused, `${of} ${code}`));
    if (isEndless) counts.endless++;
    else if (!broken) counts.held++;
    else {
      counts.broken++;
      process.stdout.write(`seed ${at}: ${broken.law}: ${broken.found.split('\n').slice(0, 3).join(' ')}\n`);
      if (what !== undefined) shown.push(keep(`${kind}-${at}.helb.json`, what));
    }
  });
await Promise.all(shown);
report();
process.exitCode = counts.broken === 0 ? 0 : 3;
