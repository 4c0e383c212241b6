import { perform, defaultSheet, type Action, type Project } from '@helb/core';
import { startKernelInNode } from '@helb/kernel/node';
import { Engine } from '../index.ts';
import { PartFixture, circle, face, rectangle } from '../test-fixture.ts';
import { checksReport } from '../command-line/checks-report.ts';
import { checkedProject, type CheckFinding } from './index.ts';

beforeAll(async () => (PartFixture.engine = new Engine(await startKernelInNode())));

const checked = (project: Project) => checkedProject(PartFixture.engine, project);
const codes = (found: readonly CheckFinding[]) => found.map(({ code, blocks }) => `${blocks} ${code}`);
const steel = { id: 'part', material: { name: 'Steel', density_kg_m3: 7850 } };

test('a block: what can not be weighed, what has no name', async () => {
  const found = await checked(new PartFixture().block('e', 40, 30, 8).script.project);
  expect(codes(found)).toEqual(['shop part.material', 'later sketch.loose', 'later number.unnamed']);
  expect(found.every(({ part }) => part === 'part')).toBe(true);
});

test('what is thin, and what is near an edge, by limits that are set', async () => {
  const bench = new PartFixture()
    .block('e', 40, 30, 20)
    .step('s', 'shell', { open: [face('e/end')], wall: '0.8 mm' })
    .sketch('h', circle(38, 28, 0.5))
    .step('x', 'extrude', { sketch: 'h', distance: '5 mm', result: 'cut' });
  bench.script.do('part.material', steel);
  const shop = async (project: Project) => (await checked(project)).filter(({ blocks }) => blocks === 'shop');
  const found = await shop(bench.script.project);
  // the hole of 1 mm is 2 mm from two rims of the block, and 1.2 - 0.5 = 0.7 mm from the walls inside: more than half of it
  expect(found.map(({ words }) => words)).toEqual([expect.stringMatching(/thinnest wall is 0\.8 mm; at least 1 mm/)]);
  const strict = perform(bench.script.project, [
    { command: 'project.limit', input: { limit: 'web', expression: '2' } },
    { command: 'project.limit', input: { limit: 'wall', expression: '0.5 mm' } },
  ] as Action[]);
  if (!strict.ok) throw new Error(strict.issue.code);
  const now = await shop(strict.value.project);
  expect(now.map(({ words, step }) => [words, step])).toEqual([
    [expect.stringMatching(/beside a hole of ⌀1 mm: 1\.5 mm, where 2 mm/), 'x'],
  ]);
});

test('holes near each other', async () => {
  const bench = new PartFixture()
    .block('e', 60, 40, 8)
    .sketch('h', {
      ...circle(20, 20, 3),
      n: { kind: 'point', x: 28, y: 20 },
      q: { kind: 'circle', centre: 'n', radius: 3 },
    })
    .step('x', 'extrude', { sketch: 'h', distance: '8 mm', result: 'cut' });
  bench.script.do('part.material', steel);
  const found = (await checked(bench.script.project)).filter(({ code }) => code === 'hole.near');
  expect(found.map(({ words }) => words)).toEqual([
    'Too little is left beside 2 holes; beside one of ⌀6 mm it is 2 mm, where 3 mm are asked for.',
  ]);
});

test('what is missing on sheets is told at once; sheets that went out are dated', async () => {
  const bench = new PartFixture().block('e', 40, 30, 8);
  bench.script.do('part.material', steel);
  const record = defaultSheet({ id: 'part', name: 'Part' }, { paper: 'A4', projection: 'first' });
  bench.script.do('sheet.add', { id: 'd', record });
  let { project } = bench.script;
  const paper = async () =>
    (await checked(project)).filter(({ blocks, code }) => blocks === 'paper' && code !== 'sheet.idle');
  const missing = await paper();
  expect(missing.map(({ code }) => code)).toEqual(['sheet.missing', 'sheet.missing', 'sheet.missing']);
  for (let k = 0; k < 3; k++) {
    const [next] = await paper();
    const done = perform(project, [...next!.cure!.actions]);
    if (!done.ok) throw new Error(done.issue.code);
    project = done.value.project;
  }
  expect((await paper()).map(({ code }) => code)).toEqual([]);
  const issued = { revision: 'A', date: '', words: '', said: { m1: '7' }, looks: {} };
  const out = perform(project, [{ command: 'sheet.issue', input: { sheet: 'd', issued } }]);
  if (!out.ok) throw new Error(out.issue.code);
  project = out.value.project;
  expect((await paper()).map(({ code, sheet }) => [code, sheet])).toEqual([['sheet.dated', 'd']]);
});

test('parts that stand in each other, and a step that fails', async () => {
  const bench = new PartFixture().block('e', 40, 30, 8).step('f', 'fillet', { edges: [], radius: '1 mm' });
  const placed = (x: string) => ({
    name: `at ${x}`,
    of: { part: 'part' },
    at: { x, y: '0 mm', z: '0 mm' },
    turn: { x: '0 deg', y: '0 deg', z: '0 deg' },
    held: true,
  });
  bench.script.do('placement.add', { id: 'a', record: placed('0 mm') });
  bench.script.do('placement.add', { id: 'b', record: placed('20 mm') });
  const found = await checked(bench.script.project);
  expect(codes(found).slice(0, 2)).toEqual([expect.stringMatching(/^model /), 'fit assembly.overlap']);
  expect(found[0]).toMatchObject({ part: 'part', step: 'f' });
  expect(found[1]!.placements).toEqual(['a', 'b']);
  const report = checksReport(bench.script.project, found).split('\n');
  expect(report[0]).toBe('The model is not whole');
  expect(report).toContain('Parts do not go together');
});

test('it can be stopped', async () => {
  const stop = new Error('stop');
  const { project } = new PartFixture().sketch('s', rectangle(0, 0, 3, 3)).script;
  await expect(checkedProject(PartFixture.engine, project, () => Promise.reject(stop))).rejects.toBe(stop);
});
