import { execFile } from 'node:child_process';
import { mkdtemp, readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { seedSieve } from '@helb/core';
import { Engine } from '@helb/engine';
import { KINDS, type Kind } from '@helb/fuzz/kinds';
import { keptCases, sampleCase, samples } from '@helb/fuzz/sample-cases';
import { startKernelInNode } from '@helb/kernel/node';
import { ROOT } from '@helb/scripts/build-server.ts';
import type { Figure } from './measure.ts';

/** Fixed: the same cases in every run. */
const SEED = 500;
const COUNTS = { parts: 30, sketches: 1000, assemblies: 200, edits: 60, files: 200 } as const satisfies Partial<
  Record<Kind, number>
>;

/** What is no step, but told of a part that was built. */
const AFTERWARDS: readonly string[] = ['larger', 'other-order', 'figures'];

/** Families of faults that were found once, each with the tests that hold its cases. */
const FAULTS: Readonly<Record<string, readonly string[]>> = {
  'figures without a witness': ['packages/kernel/src/measure.test.ts'],
  'a step that breaks the library': ['packages/engine/src/hurt.test.ts'],
  'what is built on a failure does not say so': ['packages/engine/src/trouble.test.ts'],
  'areas from relations': ['packages/core/src/sketch/regions/touching.test.ts'],
  'angles and sides': [
    'packages/core/src/sketch/turning.test.ts',
    'packages/engine/src/leaning-faces.test.ts',
    'packages/engine/src/turning-axes.test.ts',
  ],
  repeats: ['packages/engine/src/repeats.test.ts'],
  'shell, offset, fillet, up to': [
    'packages/engine/src/walls.test.ts',
    'packages/engine/src/inset-shells.test.ts',
    'packages/engine/src/offset-and-next.test.ts',
    'packages/engine/src/local-operations.test.ts',
  ],
  references: ['packages/engine/src/borrowed-edges.test.ts', 'packages/engine/src/taking.test.ts'],
  'parts together': ['packages/core/src/assembly/together.test.ts'],
  'numbers as people write them': ['packages/core/src/expressions/expressions.test.ts'],
};

/**
 * What the witness of all measures costs, how a short campaign of random cases ends, and whether each shape that was broken
 * once holds now: `./helb fuzz` runs longer ones.
 */
export async function truthFigures(): Promise<Figure[]> {
  return [await witness(), ...(await campaign()), ...(await faults())];
}

/** Bodies as they come from a file have been measured by nobody: measuring them, against building them. */
async function witness(): Promise<Figure> {
  const kernel = await startKernelInNode();
  const engine = new Engine(kernel);
  const project = seedSieve();
  let [build, measure] = [0, 0];
  for (const part of project.partOrder) {
    const start = performance.now();
    await engine.build(project, { parts: [part] });
    build += performance.now() - start;
    const file = await engine.partFile(project, part, 'step');
    if (!file.ok) continue;
    kernel.keepFile(part, file.value);
    const read = kernel.readStep({ file: part, step: 'r' });
    if (!read.ok) continue;
    // reading has measured them already: copies have faces of their own
    const copies = read.value.map((body) =>
      kernel.transformed({
        body,
        step: 'm',
        instance: '1',
        transform: [
          [1, 0, 0, 1e3],
          [0, 1, 0, 0],
          [0, 0, 1, 0],
        ],
      }),
    );
    const before = performance.now();
    copies.forEach((copy) => copy.ok && kernel.measure(copy.value));
    measure += performance.now() - before;
  }
  const ratio = measure / build;
  return {
    ...{ name: 'truth: measuring all bodies of the demo anew, two ways and more', value: measure, unit: 'ms' },
    ...{ floor: build, ratio, aim: 'at most 0.2 of building them', met: ratio <= 0.2 },
  };
}

async function campaign(): Promise<Figure[]> {
  const kernel = await startKernelInNode();
  const engine = new Engine(kernel);
  const count = (name: string, value: number, unit: string): Figure => ({
    ...{ name: `truth: ${name}`, value, unit, floor: null, ratio: null },
    ...{ aim: 'none', met: value === 0 },
  });
  const figures: Figure[] = [];
  const steps = { tried: 0, refused: 0 };
  const [triedBy, refusedBy] = [new Map<string, number>(), new Map<string, number>()];
  const more = (counts: Map<string, number>, kind: string) => counts.set(kind, (counts.get(kind) ?? 0) + 1);
  for (const [kind, cases] of Object.entries(COUNTS) as [Kind, number][]) {
    let broken = 0;
    for (let k = 0; k < cases; k++) {
      const outcome = await KINDS[kind](kernel, engine, SEED + k);
      broken += outcome.broken ? 1 : 0;
      if (kind !== 'parts') continue;
      const refused = outcome.refused.filter((one) => !AFTERWARDS.includes(one.kind));
      steps.tried += outcome.tried.length;
      steps.refused += refused.length;
      for (const one of outcome.tried) more(triedBy, one);
      for (const one of refused) more(refusedBy, one.kind);
    }
    figures.push(count(`of ${cases} random ${kind} break a law`, broken, kind));
  }
  const share = (100 * steps.refused) / steps.tried;
  figures.push({
    ...{ name: 'truth: random steps that are refused', value: share, unit: '%', floor: null, ratio: null },
    ...{ aim: 'under 3', met: share < 3 },
  });
  for (const [kind, refused] of refusedBy) {
    const tried = triedBy.get(kind) ?? 0;
    figures.push({
      ...{ name: `truth: of ${tried} random steps of the kind ${kind} are refused`, value: refused, unit: 'steps' },
      ...{ floor: null, ratio: null, aim: '', met: null },
    });
  }
  const kept = new Set(await keptCases());
  for (const [k, { name }] of (await samples()).entries()) {
    const [project] = name.split(' · ') as [string];
    if (!kept.has(project)) continue;
    const { broken } = await sampleCase(kernel, engine, k);
    figures.push(count(`${project} breaks a law`, broken ? 1 : 0, 'cases'));
  }
  return figures;
}

/** How many tests of each family of faults fail. */
async function faults(): Promise<Figure[]> {
  const folder = await mkdtemp(join(tmpdir(), 'helb-faults-'));
  const file = join(folder, 'found.json');
  const files = Object.values(FAULTS).flat();
  const options = { cwd: ROOT, env: { ...process.env, NODE_OPTIONS: '--experimental-vm-modules' }, maxBuffer: 1e8 };
  // jest ends with 1 where a test fails: what it wrote tells which
  await promisify(execFile)('npx', ['jest', '--json', `--outputFile=${file}`, '--', ...files], options).catch(() => {});
  const { testResults } = JSON.parse(await readFile(file, 'utf8')) as {
    testResults: { name: string; assertionResults: { status: string }[] }[];
  };
  await rm(folder, { recursive: true });
  return Object.entries(FAULTS).map(([name, own]): Figure => {
    const results = testResults.filter((one) => own.some((path) => one.name.endsWith(path)));
    const tests = results.flatMap(({ assertionResults }) => assertionResults);
    const failed = tests.filter(({ status }) => status !== 'passed').length;
    return {
      ...{ name: `truth: of ${tests.length} tests of the fault "${name}" fail`, value: failed, unit: 'tests' },
      ...{
        floor: null,
        ratio: null,
        aim: 'none',
        met: failed === 0 && results.length === own.length && tests.length > 0,
      },
    };
  });
}
