import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { coordinateKey, ProjectScript, writeProject, type CoordinateKey, type Project } from '@helb/core';
import { placementOf } from '@helb/core/assembly';
import { StudyOutcome, type Study } from '@helb/core/study';
import { rectangle } from '@helb/core/samples';
import { startKernelInNode } from '@helb/kernel/node';
import { run } from './command-line/run.ts';
import { checkedProject, Engine } from './index.ts';
import { preparedStudy, studyNamed } from './studying.ts';
import { Plates } from './test-touching.ts';

let engine: Engine;
let folder: string;
beforeAll(async () => {
  engine = new Engine(await startKernelInNode());
  folder = await mkdtemp(join(tmpdir(), 'helb-study-'));
});
afterAll(() => rm(folder, { recursive: true }));

const DEGREE = Math.PI / 180;
/** The corner of the post that the arm comes to. */
const CORNER = { r: Math.hypot(50, 30), at: Math.atan2(30, 50) / DEGREE };
const meets = CORNER.at - Math.asin(4 / CORNER.r) / DEGREE;

const study: Study = {
  name: 'Against the post',
  drives: [{ joint: 'j-arm', coordinate: 'turn', from: '-10 deg', to: '80 deg' }],
  ...{ law: 'even', seconds: '3', steps: '18', touching: true },
  charts: { gap: { of: 'distance', a: 'arm', b: 'post' }, held: { of: 'holding' } },
};

/** An arm that turns about z, and a post that stands in its way. */
function armAndPost(of: Study = study): Project {
  const plates = new Plates()
    .part('arm', [{ entities: rectangle(0, -4, 80, 8), height: '8 mm' }])
    .part('post', [{ entities: rectangle(30, 30, 20, 20), height: '8 mm', from: '2 mm' }])
    .turning('arm', '0 mm')
    .fixed('post');
  plates.touching();
  return plates.script.do('study.add', { id: 'st', study: of }).project;
}

async function ran(project: Project): Promise<StudyOutcome> {
  const found = studyNamed(project, undefined);
  if (!found.ok) throw new Error(found.issue.code);
  const { input } = await preparedStudy(engine, project, found.value);
  if (!input.ok) throw new Error(input.issue.code);
  const outcome = new StudyOutcome(input.value);
  for (const frame of outcome.run()) void frame;
  return outcome;
}

test('an arm stops at a post at the time of the formula, and how far it was before is exact', async () => {
  const outcome = await ran(armAndPost());
  expect(outcome.stop!.time).toBeCloseTo((meets + 10) / 30, 7);
  expect(outcome.stop!.against[0]).toMatchObject({ a: 'arm', b: 'post' });
  const [gap] = outcome.series(study.charts['gap']!);
  outcome.frames.forEach(({ time }, k) => {
    const angle = -10 + 30 * time;
    const corners = [CORNER, { r: Math.hypot(30, 30), at: 45 }];
    const apart = corners.map(({ r, at }) => r * Math.sin((at - angle) * DEGREE) - 4);
    expect(gap!.values[k]).toBeCloseTo(Math.min(...apart), 6);
  });
  expect(outcome.frames.at(-1)!.touching).toMatchObject([{ a: 'arm', b: 'post' }]);
  expect(outcome.frames.slice(0, -1).flatMap(({ touching }) => touching)).toEqual([]);
  // no part has a material
  expect(outcome.series(study.charts['held']!)[0]!.values).toEqual(outcome.frames.map(() => null));
  const passing = await ran(armAndPost({ ...study, touching: false }));
  expect(passing.stop).toBeUndefined();
  expect(passing.frames).toHaveLength(19);
});

test('what stands in each other where a study begins is told, and so is what is not as it is told', async () => {
  const told = async (project: Project) => {
    const complaints: string[] = [];
    const file = join(folder, 'doubt.helb.json');
    await writeFile(file, writeProject(project));
    const world = { print: () => {}, complain: (text: string) => void complaints.push(text) };
    const code = await run(['move', file], { ...world, startEngine: () => Promise.resolve(engine) });
    return { code, complaints };
  };
  const inside = new Plates()
    .part('arm', [{ entities: rectangle(0, -4, 80, 8), height: '8 mm' }])
    .part('post', [{ entities: rectangle(2, 2, 20, 20), height: '8 mm', from: '2 mm' }])
    .turning('arm', '0 mm')
    .fixed('post');
  inside.touching();
  const standing = inside.script.do('study.add', { id: 'st', study }).project;
  expect((await ran(standing)).overlaps).toEqual([['arm', 'post']]);
  expect(await told(standing)).toMatchObject({
    code: 3,
    complaints: ['arm and post stand in each other at rest: they pass through each other until they are apart.'],
  });
  // a step of a part that moves fails: all that is shown is of the last that was good
  const script = new ProjectScript('Broken');
  script.project = armAndPost({ ...study, touching: false });
  const failing = { kind: 'extrude', name: 'Too far', sketch: 's0', distance: '0 mm' } as const;
  script.do('step.add', { part: 'arm', id: 'wrong', step: failing });
  const broken = await told(script.project);
  expect(broken.code).toBe(3);
  expect(broken.complaints[0]).toMatch(/"arm" is not as it is told: its step "Too far" fails/);
});

/** How near an arm comes to a post of its own size and place, both of which are told by their corners. */
async function nearness(post: readonly [x: number, y: number, width: number, height: number], of: Partial<Study>) {
  const plates = new Plates()
    .part('arm', [{ entities: rectangle(0, -4, 80, 8), height: '8 mm' }])
    .part('post', [{ entities: rectangle(...post), height: '8 mm', from: '2 mm' }])
    .turning('arm', '0 mm')
    .fixed('post');
  const { project } = plates.script.do('study.add', { id: 'st', study: { ...study, charts: {}, ...of } });
  const outcome = await ran(project);
  return finished(outcome.nearest({ a: 'arm', b: 'post' }));
}
function finished<T>(going: Generator<unknown, T>): T {
  let next = going.next();
  while (!next.done) next = going.next();
  return next.value;
}
const passing = { touching: false, approaches: { n: {} } } as const;
const degrees = (pose: { readonly coordinates: ReadonlyMap<CoordinateKey, number> }) =>
  pose.coordinates.get(coordinateKey('j-arm', 'turn'))! / DEGREE;

test.each([7, 18, 90])('in %d steps, the corner of an arm passes a wall as near as the formula says', async (steps) => {
  const [found, ...others] = await nearness([85, -40, 10, 80], { ...passing, steps: `${steps}` });
  expect(others).toEqual([]);
  expect(found!.distance).toBeCloseTo(85 - Math.hypot(80, 4), 6);
  expect(Math.abs(degrees(found!.pose))).toBeCloseTo(Math.atan2(4, 80) / DEGREE, 3);
  expect(found!.touches).toBeUndefined();
  expect(found!.sure).toBeGreaterThan(found!.distance - 0.3);
  const [p, q] = found!.places;
  expect(q[0]).toBeCloseTo(85, 6);
  expect(Math.hypot(p[0] - q[0], p[1] - q[1], p[2] - q[2])).toBeCloseTo(found!.distance, 9);
});

test.each([
  // all of it, and a narrow post that lies between two of three steps
  [[30, 30, 20, 20], 18],
  [[45, 30, 0.5, 0.5], 3],
] as const)('what passes through %j touches first and last when the formulas say', async (post, steps) => {
  const [x, y, width, height] = post;
  const [found] = await nearness(post, { ...passing, steps: `${steps}` });
  expect(found!.distance).toBe(0);
  // of the corners the lower right one meets the upper side of the arm first, the upper left one leaves the lower side last
  const at = (u: number, v: number, sign: 1 | -1) =>
    Math.atan2(v, u) / DEGREE + (sign * Math.asin(4 / Math.hypot(u, v))) / DEGREE;
  const time = (angle: number) => (3 * (angle + 10)) / 90;
  expect(found!.touches!.from).toBeCloseTo(time(at(x + width, y, -1)), 6);
  expect(found!.touches!.to).toBeCloseTo(time(at(x, y + height, 1)), 6);
});

test('what stops at something touches there at last; what a joint holds is left out where all are looked at', async () => {
  const outcome = await ran(armAndPost({ ...study, approaches: { all: {} } }));
  const found = finished(outcome.nearest({}));
  expect(found.map(({ a, b }) => [a, b].sort().join(' '))).toEqual(['arm post']);
  expect(found[0]!.touches!.from).toBeCloseTo((3 * (meets + 10)) / 90, 6);
  expect(found[0]!.touches!.to).toBeCloseTo((3 * (meets + 10)) / 90, 6);
});

test('a command runs a study, tells what stops it and writes its figures', async () => {
  const [said, wrong]: [string[], string[]] = [[], []];
  const world = {
    print: (text: string) => void said.push(text),
    complain: (text: string) => void wrong.push(text),
    startEngine: () => Promise.resolve(engine),
  };
  const [file, csv] = [join(folder, 'arm.helb.json'), join(folder, 'arm.csv')];
  await writeFile(file, writeProject(armAndPost()));
  expect(await run(['move', file, '--csv', csv], world)).toBe(3);
  expect(said.join('\n')).toContain('It stops at 1.234 s: arm stands against post.');
  const rows = (await readFile(csv, 'utf8')).trim().split('\r\n');
  expect(rows[0]).toBe('time (s),arm turns turn (deg),arm to post (mm),what holds it against its weight (N mm)');
  expect(rows).toHaveLength(1 + 9);
  expect(await run(['move', file, '--study', 'Against the post', '--json'], world)).toBe(3);
  const told = JSON.parse(said.at(-1)!) as {
    charts: { title: string; least: { value: number } }[];
    touching: object[];
  };
  expect(told.charts[0]).toMatchObject({
    title: 'arm to post',
    unit: 'mm',
    least: { value: expect.closeTo(0, 7) as number },
  });
  expect(told.charts[1]).toMatchObject({ least: null });
  expect(told.touching).toHaveLength(1);
  expect(await run(['move', file, '--study', 'Nobody'], world)).toBe(1);
  expect(wrong.at(-1)).toBe('There is no single study "Nobody". There are: Against the post.');
});

test('what comes nearer than it may is a finding, and a command says so', async () => {
  const [said, wrong]: [string[], string[]] = [[], []];
  const world = {
    print: (text: string) => void said.push(text),
    complain: (text: string) => void wrong.push(text),
    startEngine: () => Promise.resolve(engine),
  };
  const asking = (least: string, steps = '200'): Project => {
    const plates = new Plates()
      .part('arm', [{ entities: rectangle(0, -4, 80, 8), height: '8 mm' }])
      .part('post', [{ entities: rectangle(85, -40, 10, 80), height: '8 mm' }])
      .turning('arm', '0 mm')
      .fixed('post');
    const approaches = { n: { a: 'arm', least } };
    const of = { ...study, steps, touching: false, charts: {}, approaches };
    return plates.script.do('study.add', { id: 'st', study: of }).project;
  };
  const words = async (project: Project) =>
    (await checkedProject(engine, project)).flatMap(({ code, words }) => (code.startsWith('study.') ? [words] : []));
  expect(await words(asking('4.5 mm'))).toEqual([]);
  const near = 'arm and post come within 4.9 mm at 0.238 s, where 5 mm is asked for';
  expect(await words(asking('5 mm'))).toEqual([`Against the post: ${near}.`]);
  // with few steps it is not sure that they come no nearer
  expect(await words(asking('4.895 mm', '5'))).toEqual([
    expect.stringMatching(/no nearer than 4\.[78]\d* mm .* more steps/),
  ]);
  expect(await words(asking('-1 mm'))).toEqual(['Against the post: How near parts may come can not be below 0.']);

  const file = join(folder, 'near.helb.json');
  await writeFile(file, writeProject(asking('5 mm')));
  expect(await run(['move', file], world)).toBe(3);
  expect(wrong.at(-1)).toBe(`${near}.`);
  expect(said.at(-1)).toMatch(/arm and post come within 4\.9 mm at 0\.238 s \(arm turns turn -2\.86\d deg\)/);
  await writeFile(file, writeProject(asking('1 mm')));
  expect(await run(['move', file, '--json'], world)).toBe(0);
  const { nearest } = JSON.parse(said.at(-1)!) as { nearest: { distance_mm: number; touches: null }[][] };
  expect(nearest[0]![0]!.distance_mm).toBeCloseTo(85 - Math.hypot(80, 4), 6);
});

test('all that come nearer than they may are told, however many, and what is rigidly one with them is not', async () => {
  const plates = new Plates()
    .part('arm', [{ entities: rectangle(0, -4, 80, 8), height: '8 mm' }])
    .part('post', [{ entities: rectangle(85, 0, 2, 2), height: '8 mm' }])
    .turning('arm', '0 mm');
  // ten posts round the arm, as one placement that is repeated round the axis
  const about = { placement: 'base', on: { to: 'origin', name: 'z' } } as const;
  const round = { layout: 'round', count: '10', over: '60 deg', about } as const;
  const record = { ...placementOf('post', { part: 'post' }, true), repeat: round };
  plates.script.do('placement.add', { id: 'post', record });
  const asked = { a: 'arm', b: 'post', least: 6 };
  const of: Study = { ...study, ...passing, steps: '40', charts: {} };
  const outcome = await ran(plates.script.do('study.add', { id: 'st', study: of }).project);
  const found = finished(outcome.nearest(asked));
  expect(found).toHaveLength(10);
  // the corner of the arm goes round with a radius of 80.1, the nearest of a post is on its side: at 85 from the axis
  for (const one of found) expect(one.distance).toBeCloseTo(85 - Math.hypot(80, 4), 6);
  expect(finished(outcome.nearest({ ...asked, least: 1 }))).toHaveLength(8);
  // the posts stand still together
  expect(finished(outcome.nearest({ a: 'post', b: 'post' }))).toEqual([]);
});
