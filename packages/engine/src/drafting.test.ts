import {
  explain,
  perform,
  placedSections,
  sectionNamesFor,
  ProjectScript,
  scaleFactor,
  seedSieve,
  usualSheet,
  usualWhole,
  type ComposedSheet,
  type Id,
  type Mark,
  type Piece,
  type View,
} from '@helb/core';
import { placementOf, triple } from '@helb/core/assembly';
import { startKernelInNode } from '@helb/kernel/node';
import { Engine } from './engine.ts';
import { Bench, circle, rectangle } from './test-bench.ts';

let engine: Engine;
beforeAll(async () => {
  engine = new Engine(await startKernelInNode());
});

/** A plate of 60 x 40 x 10 with two bores at different depths of y, and sections through them. */
function plate(): Bench {
  const bench = new Bench();
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
  const record = usualSheet({ id: 'part', name: 'Part' }, { paper: 'A4', projection: 'first' });
  const views: Record<Id, View> = { top: { kind: 'base', from: 'top' } };
  bench.script.do('sheet.add', { id: 'd', record: { ...record, views, viewOrder: ['top'] } });
  return bench;
}
async function drawn(bench: Bench): Promise<ComposedSheet> {
  const sheet = await engine.sheet(bench.script.project, 'd');
  if (!sheet.ok) throw new Error(explain(sheet.issue));
  return sheet.value;
}
async function cutOpen(view: Extract<View, { kind: 'section' }>): Promise<ComposedSheet> {
  const bench = plate();
  bench.script.do('view.add', { sheet: 'd', id: 'cut', view });
  return drawn(bench);
}
const piecesOf = ({ picture }: ComposedSheet, line: string, view: string): Piece[] =>
  picture.strokes.filter((stroke) => stroke.line === line && stroke.view === view).flatMap(({ pieces }) => pieces);
/** Where upright lines of a view stand, mm of the thing from its left side. */
function uprights(sheet: ComposedSheet, view: string): number[] {
  const { factor, box } = sheet.views[view]!;
  const found = piecesOf(sheet, 'visible', view).flatMap(({ from, to }) =>
    Math.abs(from[0] - to[0]) < 1e-6 && Math.abs(from[1] - to[1]) > 1 ? [(from[0] - box.low[0]) / factor] : [],
  );
  return [...new Set(found.map((x) => Math.round(x * 1e3) / 1e3))].sort((a, b) => a - b);
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
});

test('of a long bar the middle is left out: the scale is larger, its length is told as it is, what is folded out stays in line', async () => {
  const bench = new Bench().block('b', 400, 12, 12);
  bench.sketch('h', circle(390, 6, 3), 'top').step('c', 'extrude', { sketch: 'h', distance: '12 mm', result: 'cut' });
  const record = usualSheet({ id: 'part', name: 'Part' }, { paper: 'A4', projection: 'first' });
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
  const bench = new Bench();
  bench.sketch('s', { ...rectangle(-10, -10, 20, 20), ...circle(0, 0, 3.4) });
  bench.step('e', 'extrude', { sketch: 's', distance: '12 mm' });
  bench.step('t', 'thread', { faces: [{ to: 'face', name: 'e/side/o' }], size: 'm8' });
  bench.script.do('section.add', {
    ...{ part: 'part', id: 'middle' },
    section: { name: 'middle', plane: { to: 'origin', name: 'front' }, offset: '0 mm', turned: false },
  });
  const record = usualSheet({ id: 'part', name: 'Part' }, { paper: 'A4', projection: 'first' });
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

describe('the whole', () => {
  const whole = (apart: number) => {
    const project = seedSieve();
    const record = usualWhole({ paper: 'A3', projection: 'first' });
    const corner = { kind: 'corner', apart, numbered: true } as const;
    const sheet = { ...record, views: { ...record.views, corner } };
    return { ...project, sheets: { w: sheet }, sheetOrder: ['w'] };
  };

  test('has its list of parts, its mass, and a number for each part that is seen', async () => {
    const project = whole(0.4);
    const sheet = await engine.sheet(project, 'w');
    if (!sheet.ok) throw new Error(explain(sheet.issue));
    const { picture, findings } = sheet.value;
    const placed = project.partOrder.filter((id) =>
      picture.letters.some(({ text }) => text === project.parts[id]!.name),
    );
    const numbers = picture.letters.filter(({ anchor, text }) => anchor === 'middle' && /^\d+$/.test(text));
    const unseen = findings.filter(({ issue }) => issue.code === 'sheet.unseen');
    expect(placed.length).toBe(project.partOrder.length);
    expect(numbers.length + unseen.length).toBe(placed.length);
    expect(unseen.length).toBeLessThan(4);
    expect(picture.letters.some(({ text }) => / g$/.test(text))).toBe(true);
  });

  test('taken apart it takes more room than put together', async () => {
    const width = async (apart: number) => {
      const sheet = await engine.sheet(whole(apart), 'w');
      if (!sheet.ok) throw new Error(explain(sheet.issue));
      const { box, factor } = sheet.value.views['corner']!;
      return (box.high[0] - box.low[0]) / factor;
    };
    expect(await width(0.8)).toBeGreaterThan(1.3 * (await width(0)));
  });

  /** Two blocks of 20 x 20 x 10, the second beside the first and turned a quarter, each with a section through its middle. */
  const blocks = () => {
    const script = new ProjectScript('Blocks');
    for (const [part, name] of [
      ['a', 'Lower'],
      ['b', 'Upper'],
    ] as const)
      script
        .do('part.add', { id: part, name })
        .do('step.add', {
          part,
          id: 's',
          step: { kind: 'sketch', name: 's', plane: 'top', entities: rectangle(0, 0, 20, 20), relations: {} },
        })
        .do('step.add', { part, id: 'e', step: { kind: 'extrude', name: 'e', sketch: 's', distance: '10 mm' } });
    const section = (part: Id, id: Id, name: string, plane: 'front' | 'right', offset: string) =>
      script.do('section.add', {
        part,
        id,
        section: { name, plane: { to: 'origin', name: plane }, offset, turned: false },
      });
    section('a', 'mid', 'Middle', 'front', '-8 mm');
    section('b', 'mid', 'Across', 'right', '5 mm');
    script.do('placement.add', { id: 'one', record: placementOf('One', { part: 'a' }, true) }).do('placement.add', {
      id: 'two',
      record: { ...placementOf('Two', { part: 'b' }), at: triple('50 mm', '0', '0'), turn: triple('0', '0', '90 deg') },
    });
    const views: Record<Id, View> = { cut: { kind: 'section', section: 'mid', at: 'one' } };
    const record = { ...usualWhole({ paper: 'A3', projection: 'first' }), views, viewOrder: ['cut'] };
    return script.do('sheet.add', { id: 'd', record });
  };
  const cutting = async (script: ProjectScript) => {
    const sheet = await engine.sheet(script.project, 'd');
    if (!sheet.ok) throw new Error(explain(sheet.issue));
    return sheet.value;
  };
  /** Rows of hatching times their distance: the area that is cut. */
  const cutArea = (sheet: ComposedSheet) => {
    const rows = piecesOf(sheet, 'hatch', 'cut');
    return (
      (rows.reduce((sum, { from, to }) => sum + Math.hypot(to[0] - from[0], to[1] - from[1]), 0) * 3) /
      sheet.views['cut']!.factor ** 2
    );
  };

  test('is cut open at a section of a part that is placed; what is not to be cut stays whole', async () => {
    const script = blocks();
    const both = await cutting(script);
    expect(cutArea(both) / 400).toBeCloseTo(1, 1);
    // seen from the front the turned one is from 30 to 50
    expect(uprights(both, 'cut')).toEqual([0, 20, 30, 50]);
    script.do('view.set', { sheet: 'd', view: 'cut', fields: { uncut: ['b'] } });
    const one = await cutting(script);
    expect(cutArea(one) / 200).toBeCloseTo(1, 1);
    expect(uprights(one, 'cut')).toEqual([0, 20, 30, 50]);
  });

  test('is cut where a turned part has its section', async () => {
    const script = blocks().do('view.add', {
      sheet: 'd',
      id: 'b',
      view: { kind: 'section', section: 'mid', at: 'two' },
    });
    const sheet = await cutting(script);
    // its right side looks back there: at 5 from its left, y = 5, both are cut
    expect(piecesOf(sheet, 'hatch', 'b').length).toBeGreaterThan(0);
    const { box, factor } = sheet.views['b']!;
    expect((box.high[0] - box.low[0]) / factor).toBeCloseTo(50, 6);
  });

  test('and its parts need a title block that says the scale and the projection, a part its material', async () => {
    const script = blocks().do('sheet.block', {
      block: {
        rows: [
          {
            high: 12,
            cells: [
              { field: 'title', share: 6 },
              { field: 'scale', share: 3 },
            ],
          },
        ],
      },
    });
    const record = usualSheet({ id: 'a', name: 'Lower' }, { paper: 'A4', projection: 'first' });
    script.do('sheet.add', { id: 'p', record });
    const unsaid = async (id: Id) => {
      const sheet = await engine.sheet(script.project, id);
      if (!sheet.ok) throw new Error(explain(sheet.issue));
      return sheet.value.findings.flatMap(({ issue: { code, facts } }) =>
        code === 'sheet.unsaid' ? [facts['field']] : [],
      );
    };
    expect(await unsaid('d')).toEqual(['projection']);
    expect(await unsaid('p')).toEqual(['projection', 'material']);
    script.do('sheet.block', { block: undefined });
    expect(await unsaid('p')).toEqual([]);
  });

  test('has numbers that are dragged: they stay where they are put, and what is written keeps off', async () => {
    const script = blocks().do('view.set', { sheet: 'd', view: 'cut', fields: { numbered: true } });
    const begun = await cutting(script);
    expect(Object.values(begun.signs).map(({ words }) => words)).toEqual(['number 1', 'number 2']);
    const { at, box } = begun.signs['number cut a']!;
    const put: [number, number] = [at[0] + 11, at[1] - 7];
    script.do('view.set', { sheet: 'd', view: 'cut', fields: { numbers: { a: put } } });
    const dragged = await cutting(script);
    const { factor } = dragged.views['cut']!;
    const moved = dragged.signs['number cut a']!;
    expect(moved.at.map((c, k) => c - put[k]!)).toEqual([expect.closeTo(0, 9), expect.closeTo(0, 9)]);
    expect(moved.box.low[0] - box.low[0]).toBeCloseTo(11 * factor, 6);
    expect(dragged.picture.letters.filter(({ mark }) => mark === 'number cut a').map(({ text }) => text)).toEqual([
      '1',
    ]);
    // where a size would stand it goes elsewhere
    const faces = dragged.handles.flatMap(({ reference, path }) =>
      path.length > 1 && Math.abs(path[0]![0] - path[1]![0]) < 1e-6 ? [{ reference, x: path[0]![0] }] : [],
    );
    faces.sort((a, b) => a.x - b.x);
    const ends = [faces[0]!.reference, faces.at(-1)!.reference];
    const [offer] = await engine.fittingMarks(script.project, 'd', 'cut', ends);
    script.do('mark.add', { sheet: 'd', id: 'm', mark: offer!.mark });
    const free = (await cutting(script)).marks['m']!;
    script.do('view.set', { sheet: 'd', view: 'cut', fields: { numbers: { b: [...free.at] } } });
    expect((await cutting(script)).marks['m']!.at).not.toEqual(free.at);
  });

  test('has sizes to repeats of what is placed', async () => {
    const script = blocks().do('view.add', { sheet: 'd', id: 'front', view: { kind: 'base', from: 'front' } });
    script.do('placement.set', {
      id: 'one',
      fields: { repeat: { layout: 'line', count: '2', by: triple('0', '0', '25 mm') } },
    });
    const level = (await cutting(script)).handles.filter(
      ({ view, path }) => view === 'front' && path.length > 1 && Math.abs(path[0]![1] - path[1]![1]) < 1e-6,
    );
    level.sort((a, b) => a.path[0]![1] - b.path[0]![1]);
    const ends = [level[0]!.reference, level.at(-1)!.reference];
    expect(ends[1]).toMatchObject({ to: 'other', at: 'one:2' });
    const offers = await engine.fittingMarks(script.project, 'd', 'front', ends);
    const offer = offers.find(({ words }) => words === '35')!;
    script.do('mark.add', { sheet: 'd', id: 'm', mark: offer.mark });
    expect((await cutting(script)).marks['m']!.words).toBe('35');
  });

  test('has sizes between parts that are placed: they follow where these stand, and say when they are lost or apart', async () => {
    const script = blocks().do('view.add', { sheet: 'd', id: 'front', view: { kind: 'base', from: 'front' } });
    const begun = await cutting(script);
    const paths = begun.handles.filter(({ view, path }) => view === 'front' && path.length > 1);
    const upright = paths.filter(({ path }) => Math.abs(path[0]![0] - path.at(-1)![0]) < 1e-6);
    upright.sort((a, b) => a.path[0]![0] - b.path[0]![0]);
    const [first, last] = [upright[0]!.reference, upright.at(-1)!.reference];
    expect([first, last]).toMatchObject([
      { to: 'other', at: 'one', on: { to: 'face' } },
      { to: 'other', at: 'two', on: { to: 'face' } },
    ]);
    // what lies behind is not picked: each outline is there once, corners at its ends
    expect(paths.every(({ reference }) => reference.to === 'other')).toBe(true);

    const offers = await engine.fittingMarks(script.project, 'd', 'front', [first, last]);
    expect(offers.map(({ words }) => words)).toContain('50');
    const { mark } = offers.find(({ words }) => words === '50')!;
    script.do('mark.add', { sheet: 'd', id: 'm', mark });
    expect((await cutting(script)).marks['m']).toMatchObject({ words: '50', amount: 50 });

    script.do('placement.set', { id: 'two', fields: { at: triple('62.5 mm', '0', '0') } });
    expect((await cutting(script)).marks['m']!.words).toBe('62.5');

    const codes = async () => (await cutting(script)).findings.map(({ issue }) => issue.code);
    expect(await codes()).not.toContain('mark.apart');
    script.do('view.set', { sheet: 'd', view: 'front', fields: { apart: 0.5 } });
    expect(await codes()).toContain('mark.apart');
    expect(await engine.fittingMarks(script.project, 'd', 'front', [first, last])).toEqual([]);
    script.do('view.set', { sheet: 'd', view: 'front', fields: { apart: undefined } });
    script.do('placement.remove', { ids: ['two'] });
    expect(await codes()).toContain('mark.gone');
  });

  test('that is cut at what is not placed any more is told so by the name of the view', async () => {
    const script = blocks().do('placement.remove', { ids: ['one'] });
    const sheet = await engine.sheet(script.project, 'd');
    expect(sheet.ok).toBe(false);
    if (!sheet.ok) expect(explain(sheet.issue)).toContain('is not there any more: take the view off');
    // with its section the view goes
    expect(blocks().do('section.remove', { part: 'a', section: 'mid' }).project.sheets!['d']!.viewOrder).toEqual([]);
    const named = placedSections(blocks().project).map(({ at, section }) =>
      sectionNamesFor(blocks().project, undefined)(section, at),
    );
    expect(named).toEqual(['Middle of One', 'Across of Two']);
  });
});
