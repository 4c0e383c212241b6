import { spawn } from 'node:child_process';
import { mkdir, readFile, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { buildServer, ROOT } from './build-server.ts';
import { buildWeb } from './build-web.ts';

const RESULTS = join(ROOT, 'test-results');
const bin = (name: string) => join(ROOT, 'node_modules/.bin', name);

interface Counts {
  passed: number;
  failed: number;
}

/** Runs a program with its output shown; resolves to whether it ended well. */
function run(
  title: string,
  program: string,
  args: readonly string[],
  env: Record<string, string> = {},
): Promise<boolean> {
  process.stdout.write(`\n== ${title}\n`);
  return new Promise((resolve) => {
    const child = spawn(program, args, {
      cwd: ROOT,
      stdio: 'inherit',
      env: { ...process.env, NODE_OPTIONS: '', ...env },
    });
    child.once('exit', (code) => resolve(code === 0));
    child.once('error', () => resolve(false));
  });
}

/** A stage without counts of its own: it counts only when it fails. */
async function stage(good: Promise<boolean>): Promise<Counts> {
  return { passed: 0, failed: (await good) ? 0 : 1 };
}

async function jest(): Promise<Counts> {
  const file = join(RESULTS, 'jest.json');
  const good = await run('Jest', bin('jest'), ['--json', `--outputFile=${file}`, '--ci'], {
    NODE_OPTIONS: '--experimental-vm-modules --disable-warning=ExperimentalWarning',
  });
  const report = await readJson<{ numPassedTests: number; numFailedTests: number; numFailedTestSuites: number }>(file);
  if (!report) return { passed: 0, failed: 1 };
  const failed = report.numFailedTests || report.numFailedTestSuites;
  return { passed: report.numPassedTests, failed: failed || (good ? 0 : 1) };
}

async function playwright(): Promise<Counts> {
  const file = join(RESULTS, 'playwright.json');
  const good = await run('Playwright', bin('playwright'), ['test', '--reporter=list,json'], {
    PLAYWRIGHT_JSON_OUTPUT_NAME: file,
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

await rm(RESULTS, { recursive: true, force: true });
await mkdir(RESULTS, { recursive: true });
const counts = [
  await stage(run('Lint', bin('eslint'), ['.', '--max-warnings', '0'])),
  await stage(run('Format', bin('prettier'), ['--check', '--log-level', 'warn', '.'])),
  await stage(run('Types', 'npm', ['run', '--silent', 'types'])),
  await jest(),
  await stage(build()),
  await playwright(),
];
const passed = counts.reduce((sum, count) => sum + count.passed, 0);
const failed = counts.reduce((sum, count) => sum + count.failed, 0);
process.exitCode = failed === 0 && passed > 0 ? 0 : 1;
process.stdout.write(`\n${passed} passed, ${failed} failed\n`);
