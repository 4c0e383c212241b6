import {
  explain,
  perform,
  scaleFactor,
  defaultSheet,
  type ComposedSheet,
  type Id,
  type Mark,
  type Vec2,
  type View,
} from '@helb/core';
import { startKernelInNode } from '@helb/kernel/node';
import { Engine } from './engine.ts';
import { PartFixture, circle, rectangle, piecesOf, uprights } from './test-fixture.ts';

let engine: Engine;
beforeAll(async () => {
  engine = new Engine(await startKernelInNode());
});

/** A plate of 60 x 40 x 10 with two bores at different depths of y, and sections through them. */
function plate(): PartFixture {
  const bench = new PartFixture();
  const bore = (at: Id, x: number, y: number) =>
    Object.fromEntries(
      Object.entries(circle(x, y, 4)).map(([id, entity]) => [
        `${at}${id}`,
        'centre' in entity ? { ...entity, centre: `${at}m` } : entity,
      ]),
    );
  bench.sketch('s', { ...rectangle(0, 0, 60, 40), ...bore('a', 15, 10), ...bore('b', 45, 30) });
  bench.step('e', 'extrude', { sketch: 's', distance: '10 mm' });
  const section = (id: Id, plane: 'front' | 'right', offset: string) =>
    bench.script.do('section.add', {
      ...{ part: 'part', id },
      section: { name: id, plane: { to: 'origin', name: plane }, offset, turned: false },
    });
  section('first', 'front', '-10 mm');
  section('second', 'front', '-30 mm');
  section('beyond', 'right', '30 mm');
  section('along', 'front', '-1 mm');
  const record = defaultSheet({ id: 'part', name: 'Part' }, { paper: 'A4', projection: 'first' });
  const views: Record<Id, View> = { top: { kind: 'base', from: 'top' } };
  bench.script.do('sheet.add', { id: 'd', record: { ...record, views, viewOrder: ['top'] } });
  return bench;
}
async function drawn(bench: PartFixture): Promise<ComposedSheet> {
  const sheet = await engine.sheet(bench.script.project, 'd');
  if (!sheet.ok) throw new Error(explain(sheet.issue));
  return sheet.value;
}
async function cutOpen(view: Extract<View, { kind: 'section' }>): Promise<ComposedSheet> {
  const bench = plate();
  bench.script.do('view.add', { sheet: 'd', id: 'cut', view });
  return drawn(bench);
}
/** How long hatched stretches are together: as their area. */
const hatched = (sheet: ComposedSheet) =>
  piecesOf(sheet, 'hatch', 'cut').reduce((sum, { from, to }) => sum + Math.hypot(to[0] - from[0], to[1] - from[1]), 0) /
  sheet.views['cut']!.factor ** 2;

describe('sections', () => {
  test('whole: the bore that it goes through is open, the other is not seen', async () => {
    const sheet = await cutOpen({ kind: 'section', section: 'first' });
    expect(uprights(sheet, 'cut')).toEqual([0, 11, 19, 60]);
  });

  test('that go on at another plane open both bores, and draw nothing where they change', async () => {
    const steps = [{ at: 'beyond', section: 'second' }];
    const sheet = await cutOpen({ kind: 'section', section: 'first', steps });
    expect(uprights(sheet, 'cut')).toEqual([0, 11, 19, 41, 49, 60]);
    // the sign in the other view bends twice
    expect(sheet.picture.letters.filter(({ text }) => text === 'A')).toHaveLength(2);
  });

  test('by half are hatched on one side only, and speak for themselves', async () => {
    const whole = await cutOpen({ kind: 'section', section: 'first' });
    const half = await cutOpen({ kind: 'section', section: 'first', steps: [{ at: 'beyond' }] });
    expect(uprights(half, 'cut')).toEqual([0, 11, 19, 60]);
    // 22 of 52 mm are cut
    expect(hatched(half) / hatched(whole)).toBeCloseTo(22 / 52, 1);
    expect(half.picture.letters.filter(({ text }) => text.startsWith('A–') || text === 'A')).toEqual([]);
  });

  test('whose planes do not stand square to each other are refused in words', async () => {
    const bench = plate();
    const view = { kind: 'section', section: 'first', steps: [{ at: 'along' }] } as const;
    bench.script.do('view.add', { sheet: 'd', id: 'cut', view: { ...view, steps: [...view.steps] } });
    const sheet = await engine.sheet(bench.script.project, 'd');
    expect(sheet.ok ? '' : explain(sheet.issue)).toMatch(/“cut: first” can not be drawn.*square/);
  });
});

test('a section whose plane is gone is told by its name, and harms no other sheet of the part', async () => {
  const bench = plate();
  const lost = { to: 'face', name: 'e/side/nothing' } as const;
  bench.script.do('section.add', {
    ...{ part: 'part', id: 'lost' },
    section: { name: 'Lost', plane: lost, offset: '0 mm', turned: false },
  });
  const record = bench.script.project.sheets!['d']!;
  const views: Record<Id, View> = {
    cut: { kind: 'section', section: 'lost' },
    side: { kind: 'projected', of: 'cut', beside: 'right' },
    z: { kind: 'detail', of: 'side', at: [0, 0], radius: 5, times: 2 },
  };
  const note: Mark = { kind: 'note', view: 'side', of: [], text: 'Note' };
  const other = { ...record, views, viewOrder: Object.keys(views), marks: { n: note }, markOrder: ['n'] };
  bench.script.do('sheet.add', { id: 'o', record: other });
  const sheet = await engine.sheet(bench.script.project, 'o');
  expect(sheet.ok ? '' : explain(sheet.issue)).toMatch(/^The view “cut: Lost” can not be drawn\. /);
  expect(await engine.fittingMarks(bench.script.project, 'o', 'z', [])).toEqual([]);
  expect((await drawn(bench)).views).toHaveProperty('top');
});

test('a detail shows what lies in its circle, as many times as large, under its own name', async () => {
  const bench = plate();
  const view = { kind: 'detail', of: 'top', at: [15, 10], radius: 6, times: 5 } as const;
  bench.script.do('view.add', { sheet: 'd', id: 'z', view: { ...view, at: [15, 10] } });
  const sheet = await drawn(bench);
  const { box, factor } = sheet.views['z']!;
  expect(factor).toBe(5 * sheet.views['top']!.factor);
  expect(box.high[0] - box.low[0]).toBeCloseTo(12 * factor, 6);
  const seen = piecesOf(sheet, 'visible', 'z');
  expect(seen.every(({ form }) => form === 'arc')).toBe(true);
  const names = sheet.picture.letters.map(({ text }) => text);
  expect(names).toContain('Z');
  expect(names.some((text) => /^Z \(\d+:1\)$/.test(text))).toBe(true);
  // what lies outside of it is not picked either: the bore is, the outline is not
  const picked = sheet.handles.filter((handle) => handle.view === 'z');
  expect(picked.length).toBeGreaterThan(0);
  const middle = box.low.map((low, k) => (low + box.high[k]!) / 2) as unknown as Vec2;
  for (const [x, y] of picked.flatMap(({ path }) => path))
    expect(Math.hypot(x - middle[0], y - middle[1]) / factor).toBeCloseTo(4, 6);
});

test('of a long bar the middle is left out: the scale is larger, its length is told as it is, what is folded out stays in line', async () => {
  const bench = new PartFixture().block('b', 400, 12, 12);
  bench.sketch('h', circle(390, 6, 3), 'top').step('c', 'extrude', { sketch: 'h', distance: '12 mm', result: 'cut' });
  const record = defaultSheet({ id: 'part', name: 'Part' }, { paper: 'A4', projection: 'first' });
  const views: Record<Id, View> = {
    front: { kind: 'base', from: 'front' },
    top: { kind: 'projected', of: 'front', beside: 'above' },
  };
  const faces = ['b/side/d', 'b/side/b'];
  const length: Mark = { kind: 'distance', view: 'front', of: faces.map((name) => ({ to: 'face', name })) };
  const title = { marks: { a: length }, markOrder: ['a'] };
  bench.script.do('sheet.add', { id: 'd', record: { ...record, ...title, views, viewOrder: Object.keys(views) } });
  const whole = await drawn(bench);
  expect(whole.scale).toBe('1:2');
  bench.script.do('view.set', { sheet: 'd', view: 'front', fields: { broken: true } });
  const broken = await drawn(bench);
  expect(scaleFactor(broken.scale)).toBeGreaterThan(1);
  expect(broken.marks['a']!.words).toBe(whole.marks['a']!.words);
  expect(broken.marks['a']!.words).toBe('400');
  const [front, top] = [broken.views['front']!, broken.views['top']!];
  expect(front.breaks).toEqual(top.breaks);
  expect(front.box.low[0]).toBeCloseTo(top.box.low[0], 6);
  expect(front.box.high[0]).toBeCloseTo(top.box.high[0], 6);
  // the bore is where it is, a little before the end
  const [from] = piecesOf(broken, 'visible', 'top').filter(({ form }) => form === 'arc');
  expect(from!.from[0]).toBeCloseTo(top.box.high[0] - 7 * top.factor, 4);
  expect(piecesOf(broken, 'thin', 'front')).toHaveLength(10);
  // the middle of the figure leads back to a place of the bar
  const [x] = broken.marks['a']!.at;
  expect(x > 0 && x < 400).toBe(true);
  // a corner view has nothing to leave out along
  const refused = perform(bench.script.project, [
    { command: 'view.add', input: { sheet: 'd', id: 'z', view: { kind: 'corner', broken: true } } } as never,
  ]);
  expect(refused.ok).toBe(false);
});

test('a thread shown by a sign has its thin lines: in a section of its bore, not from outside', async () => {
  const bench = new PartFixture();
  bench.sketch('s', { ...rectangle(-10, -10, 20, 20), ...circle(0, 0, 3.4) });
  bench.step('e', 'extrude', { sketch: 's', distance: '12 mm' });
  bench.step('t', 'thread', { faces: [{ to: 'face', name: 'e/side/o' }], size: 'm8' });
  bench.script.do('section.add', {
    ...{ part: 'part', id: 'middle' },
    section: { name: 'middle', plane: { to: 'origin', name: 'front' }, offset: '0 mm', turned: false },
  });
  const record = defaultSheet({ id: 'part', name: 'Part' }, { paper: 'A4', projection: 'first' });
  const views: Record<Id, View> = {
    front: { kind: 'base', from: 'front', hidden: false },
    top: { kind: 'base', from: 'top' },
    cut: { kind: 'section', section: 'middle' },
  };
  bench.script.do('sheet.add', { id: 'd', record: { ...record, views, viewOrder: Object.keys(views) } });
  const sheet = await drawn(bench);
  expect(piecesOf(sheet, 'thread', 'front')).toEqual([]);
  expect(piecesOf(sheet, 'thread', 'top').map(({ form }) => form)).toEqual(['arc']);
  const lines = piecesOf(sheet, 'thread', 'cut');
  expect(lines).toHaveLength(2);
  const { factor } = sheet.views['cut']!;
  expect(Math.abs(lines[0]!.from[0] - lines[1]!.from[0]) / factor).toBeCloseTo(8, 6);
});
