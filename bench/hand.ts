import { spawn } from 'node:child_process';
import { mkdtemp, readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { buildServer, ROOT } from '@helb/scripts/build-server.ts';
import { buildWeb } from '@helb/scripts/build-web.ts';
import type { Figure } from './measure.ts';

/** What a card asks for: actions that people need today for the same work, and the aim. */
const CARDS: Readonly<Record<string, { readonly today: number; readonly aim: number }>> = {
  '21 drop dibber': { today: 91, aim: 55 },
};

interface Done {
  readonly card: string;
  readonly actions: number;
  readonly right: number;
  readonly wrong: number;
}

/** The job cards done on the built page: actions against the aim, and figures that came out wrong. */
export async function handFigures(): Promise<Figure[]> {
  const folder = await mkdtemp(join(tmpdir(), 'helb-hand-'));
  const file = join(folder, 'done.jsonl');
  await Promise.all([buildServer(), buildWeb()]);
  await new Promise<void>((resolve, reject) => {
    const child = spawn(
      join(ROOT, 'node_modules/.bin/playwright'),
      ['test', 'e2e/jobs', '--retries', '0', '--workers', '1'],
      {
        cwd: ROOT,
        stdio: ['ignore', 'ignore', 'inherit'],
        env: { ...process.env, NODE_OPTIONS: '', HELB_HAND: file },
      },
    );
    child.once('error', reject);
    child.once('close', () => resolve());
  });
  const text = await readFile(file, 'utf8').catch(() => '');
  await rm(folder, { recursive: true });
  const done = new Map(
    text
      .split('\n')
      .filter(Boolean)
      .map((line) => JSON.parse(line) as Done)
      .map((one) => [one.card, one]),
  );
  return Object.entries(CARDS).flatMap(([card, { today, aim }]) => told(card, done.get(card), today, aim));
}

function told(card: string, done: Done | undefined, today: number, aim: number): Figure[] {
  const figure = (name: string, value: number, unit: string, words: string, met: boolean): Figure => ({
    ...{ name: `hand: ${card}${name}`, value, unit, floor: null, ratio: null, aim: words, met },
  });
  if (!done) return [figure(', not done', 0, 'actions', `at most ${aim}; people need ${today} today`, false)];
  return [
    figure('', done.actions, 'actions', `at most ${aim}; people need ${today} today`, done.actions <= aim),
    figure(', figures wrong', done.wrong, `of ${done.right + done.wrong}`, 'none', done.wrong === 0),
  ];
}
