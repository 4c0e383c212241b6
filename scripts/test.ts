import { spawn } from 'node:child_process';
import { mkdir, readdir, readFile, rm } from 'node:fs/promises';
import { setPriority } from 'node:os';
import { join } from 'node:path';
import { buildServer, ROOT } from './build-server.ts';
import { buildWeb } from './build-web.ts';

// `./helb test`: everything. `./helb test NAME`: a room ("core"), a journey ("sheets") or the tests of a path ("naming").

const RESULTS = join(ROOT, 'test-results');
const ROOMS = ['core', 'kernel', 'engine', 'server', 'web', 'fuzz', 'scripts'];
const bin = (name: string) => join(ROOT, 'node_modules/.bin', name);

interface Counts {
  passed: number;
  failed: number;
}

interface Program {
  readonly title: string;
  readonly program: string;
  readonly args: readonly string[];
  readonly env?: Record<string, string>;
  /** Beside something that people wait for: it takes what that leaves, and what it says is shown when it has ended. */
  readonly aside?: boolean;
}

/** How much less it asks for than what runs beside it, as `nice` counts. */
const ASIDE = 10;

/** Runs a program; resolves to whether it ended well. */
function run({ title, program, args, env = {}, aside = false }: Program): Promise<boolean> {
  const since = performance.now();
  const said: Buffer[] = [];
  if (!aside) process.stdout.write(`\n== ${title}\n`);
  return new Promise((resolve) => {
    const child = spawn(program, args, {
      cwd: ROOT,
      stdio: aside ? ['ignore', 'pipe', 'pipe'] : 'inherit',
      env: { ...process.env, NODE_OPTIONS: '', ...env },
    });
    if (aside && child.pid !== undefined) setPriority(child.pid, ASIDE);
    for (const stream of [child.stdout, child.stderr]) stream?.on('data', (chunk: Buffer) => said.push(chunk));
    const ended = (good: boolean) => {
      if (aside) process.stdout.write(`\n== ${title}\n${Buffer.concat(said).toString()}`);
      process.stdout.write(`== ${title}: ${Math.round((performance.now() - since) / 1000)} s\n`);
      resolve(good);
    };
    child.once('close', (code) => ended(code === 0));
    child.once('error', () => ended(false));
  });
}

/** A stage without counts of its own: it counts only when it fails. */
const stage = async (good: Promise<boolean>): Promise<Counts> => ({ passed: 0, failed: (await good) ? 0 : 1 });

async function jest(args: readonly string[]): Promise<Counts> {
  const file = join(RESULTS, 'jest.json');
  const good = await run({
    title: 'Jest',
    program: bin('jest'),
    args: ['--json', `--outputFile=${file}`, '--ci', ...args],
    env: { NODE_OPTIONS: '--experimental-vm-modules --disable-warning=ExperimentalWarning' },
  });
  const report = await readJson<{ numPassedTests: number; numFailedTests: number; numFailedTestSuites: number }>(file);
  if (!report) return { passed: 0, failed: 1 };
  const failed = report.numFailedTests || report.numFailedTestSuites;
  return { passed: report.numPassedTests, failed: failed || (good ? 0 : 1) };
}

async function playwright(args: readonly string[] = []): Promise<Counts> {
  const file = join(RESULTS, 'playwright.json');
  const good = await run({
    title: 'Playwright',
    program: bin('playwright'),
    args: ['test', '--reporter=list,json', ...args],
    env: { PLAYWRIGHT_JSON_OUTPUT_NAME: file },
  });
  const report = await readJson<{ stats: { expected: number; unexpected: number; flaky: number } }>(file);
  if (!report) return { passed: 0, failed: 1 };
  const { expected, unexpected, flaky } = report.stats;
  return { passed: expected + flaky, failed: unexpected || (good ? 0 : 1) };
}

const readJson = async <T>(file: string): Promise<T | undefined> => {
  const text = await readFile(file, 'utf8').catch(() => undefined);
  return text === undefined ? undefined : (JSON.parse(text) as T);
};

async function build(): Promise<boolean> {
  process.stdout.write('\n== Build\n');
  try {
    await Promise.all([buildServer(), buildWeb()]);
    return true;
  } catch (error) {
    process.stdout.write(`${(error as Error).message}\n`);
    return false;
  }
}

/** The journeys have the machine to themselves, as they wait for a page; what has no clocks goes on beside Jest. */
async function everything(): Promise<Counts[]> {
  const built = await stage(build());
  const journeys = await playwright();
  const [tests, ...others] = await Promise.all([
    jest([]),
    stage(run({ title: 'Lint', program: bin('eslint'), args: ['.', '--max-warnings', '0'], aside: true })),
    stage(
      run({ title: 'Format', program: bin('prettier'), args: ['--check', '--log-level', 'warn', '.'], aside: true }),
    ),
    stage(run({ title: 'Types', program: 'npm', args: ['run', '--silent', 'types'], aside: true })),
  ]);
  return [built, journeys, tests, ...others];
}

/** What concerns one room or one journey. */
async function only(name: string): Promise<Counts[]> {
  if (ROOMS.includes(name)) return [await jest(['--selectProjects', name])];
  const journeys = (await readdir(join(ROOT, 'e2e'))).filter((file) => file === `${name}.spec.ts`);
  if (journeys.length === 0) return [await jest([name])];
  return [await stage(build()), await playwright(journeys)];
}

await rm(RESULTS, { recursive: true, force: true });
await mkdir(RESULTS, { recursive: true });
const [name] = process.argv.slice(2);
const counts = await (name === undefined ? everything() : only(name));
const passed = counts.reduce((sum, count) => sum + count.passed, 0);
const failed = counts.reduce((sum, count) => sum + count.failed, 0);
process.exitCode = failed === 0 && passed > 0 ? 0 : 1;
process.stdout.write(`\n${passed} passed, ${failed} failed\n`);
