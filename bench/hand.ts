import { spawn } from 'node:child_process';
import { mkdtemp, readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { DoneCard } from '@helb/e2e/jobs/hand.ts';
import { buildServer, ROOT } from '@helb/scripts/build-server.ts';
import { buildWeb } from '@helb/scripts/build-web.ts';
import type { Figure } from './measure.ts';

const ARGS = ['test', 'e2e/jobs', '--retries', '0', '--workers', '1'];

/** The job cards done on the built page: actions against the aim, and figures that came out wrong. */
export async function handFigures(): Promise<Figure[]> {
  const folder = await mkdtemp(join(tmpdir(), 'helb-hand-'));
  const file = join(folder, 'done.jsonl');
  await Promise.all([buildServer(), buildWeb()]);
  const env = { ...process.env, NODE_OPTIONS: '', HELB_HAND: file };
  await new Promise<void>((resolve, reject) => {
    // what it says of itself is in the way of the figures
    const child = spawn(join(ROOT, 'node_modules/.bin/playwright'), ARGS, { cwd: ROOT, stdio: 'ignore', env });
    child.once('error', reject);
    child.once('close', () => resolve());
  });
  const text = await readFile(file, 'utf8');
  await rm(folder, { recursive: true });
  const lines = text.split('\n').filter(Boolean);
  return lines.flatMap((line) => figuresOf(JSON.parse(line) as DoneCard));
}

function figuresOf({ name, today, aim, isDone, actions, right, wrong }: DoneCard): Figure[] {
  const bare = { floor: null, ratio: null };
  return [
    {
      ...{ name: `hand: ${name}${isDone ? '' : ', not to its end'}`, value: actions, unit: 'actions', ...bare },
      ...{ aim: `at most ${aim}; people need ${today} today`, met: isDone && actions <= aim },
    },
    {
      ...{ name: `hand: ${name}, figures wrong`, value: wrong, unit: `of ${right + wrong}`, ...bare },
      ...{ aim: 'none', met: isDone && wrong === 0 },
    },
  ];
}
