import {
  explain,
  placedSections,
  sectionNamesFor,
  ProjectScript,
  seedSieve,
  defaultSheet,
  defaultAssemblySheet,
  type ComposedSheet,
  type Id,
  type Mark,
  type Vec2,
  type View,
} from '@helb/core';
import { placementOf, triple } from '@helb/core/assembly';
import { startKernelInNode } from '@helb/kernel/node';
import { Engine } from './engine.ts';
import { rectangle, piecesOf, uprights } from './test-fixture.ts';

let engine: Engine;
beforeAll(async () => {
  engine = new Engine(await startKernelInNode());
});

const whole = (apart: number) => {
  const project = seedSieve();
  const record = defaultAssemblySheet({ paper: 'A3', projection: 'first' });
  const corner = { kind: 'corner', apart, numbered: true } as const;
  const sheet = { ...record, views: { ...record.views, corner } };
  return { ...project, sheets: { w: sheet }, sheetOrder: ['w'] };
};

test('the whole has its list of parts, its mass, and a number for each part that is seen', async () => {
  const project = whole(0.4);
  const sheet = await engine.sheet(project, 'w');
  if (!sheet.ok) throw new Error(explain(sheet.issue));
  const { picture, findings } = sheet.value;
  const placed = project.partOrder.filter((id) => picture.letters.some(({ text }) => text === project.parts[id]!.name));
  const numbers = picture.letters.filter(({ anchor, text }) => anchor === 'middle' && /^\d+$/.test(text));
  const unseen = findings.filter(({ issue }) => issue.code === 'sheet.unseen');
  expect(placed.length).toBe(project.partOrder.length);
  expect(numbers.length + unseen.length).toBe(placed.length);
  expect(unseen.length).toBeLessThan(4);
  expect(picture.letters.some(({ text }) => / g$/.test(text))).toBe(true);
});

test('the whole taken apart takes more room than put together', async () => {
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
  const record = { ...defaultAssemblySheet({ paper: 'A3', projection: 'first' }), views, viewOrder: ['cut'] };
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

test('the whole is cut open at a section of a part that is placed; what is not to be cut stays whole', async () => {
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

test('the whole is cut where a turned part has its section', async () => {
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

test('the whole and its parts need a title block that says the scale and the projection, a part its material', async () => {
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
  const record = defaultSheet({ id: 'a', name: 'Lower' }, { paper: 'A4', projection: 'first' });
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

test('the whole has numbers that are dragged: they stay where they are put, and what is written keeps off', async () => {
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
  expect(dragged.picture.letters.filter(({ mark }) => mark === 'number cut a').map(({ text }) => text)).toEqual(['1']);
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

test('the whole has sizes to repeats of what is placed', async () => {
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

test('the whole has sizes between parts that are placed: they follow where these stand, and say when they are lost or apart', async () => {
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

test('the whole drawn apart has notes that go with their parts, and sizes of one part, but from a corner no sizes', async () => {
  const script = blocks().do('view.add', {
    sheet: 'd',
    id: 'front',
    view: { kind: 'base', from: 'front', apart: 0.5 },
  });
  script.do('view.add', { sheet: 'd', id: 'corner', view: { kind: 'corner', apart: 0.5 } });
  const side = (placement: Id, name: string) => ({
    placement,
    on: { to: 'face', name } as const,
    spot: 'middle' as const,
  });
  script.do('joint.add', {
    id: 'j',
    record: {
      ...{ name: 'Glued', kind: 'rigid', flip: false, offset: '0 mm', angle: '0 deg' },
      ...{ a: side('one', 'e/end'), b: side('two', 'e/start') },
    },
  });
  const begun = await cutting(script);
  const picked = (view: Id, at: string, to: string) =>
    begun.handles.filter((one) => {
      const { reference } = one;
      return one.view === view && reference.to === 'other' && reference.at === at && reference.on.to === to;
    });
  // the upper one is lifted off
  const heights = (at: string) => picked('front', at, 'face').flatMap(({ path }) => path.map(([, y]) => y));
  expect(Math.min(...heights('two'))).toBeGreaterThan(Math.max(...heights('one')) + 5);

  const edge = picked('corner', 'two', 'edge')[0]!;
  const note: Mark = { kind: 'note', view: 'corner', of: [edge.reference], text: 'Glued' };
  script.do('mark.add', { sheet: 'd', id: 'n', mark: note });
  const upright = picked('front', 'one', 'face').filter(({ path }) => path[0]![0] === path.at(-1)![0]);
  const [first, last] = [upright[0]!.reference, upright.at(-1)!.reference];
  const offers = await engine.fittingMarks(script.project, 'd', 'front', [first, last]);
  expect(offers[0]).toMatchObject({ words: '20', mark: { kind: 'distance' } });
  script.do('mark.add', { sheet: 'd', id: 'm', mark: offers[0]!.mark });
  const written = await cutting(script);
  expect(written.findings.map(({ issue }) => issue.code).filter((code) => code.startsWith('mark.'))).toEqual([]);
  expect(written.marks).toMatchObject({ m: { words: '20' }, n: { words: 'Glued' } });
  // the leader ends on the line that was picked
  const [a, b] = written.handles.find(
    ({ view, reference }) => view === 'corner' && JSON.stringify(reference) === JSON.stringify(edge.reference),
  )!.path as [Vec2, Vec2];
  const ends = written.picture.strokes
    .filter(({ mark }) => mark === 'n')
    .flatMap(({ pieces }) => pieces.flatMap(({ from, to }) => [from, to]));
  const isOn = ([x, y]: Vec2) =>
    Math.abs(Math.hypot(x - a[0], y - a[1]) + Math.hypot(x - b[0], y - b[1]) - Math.hypot(b[0] - a[0], b[1] - a[1])) <
    1e-6;
  expect(ends.some(isOn)).toBe(true);

  expect(await engine.fittingMarks(script.project, 'd', 'corner', [first, last])).toEqual([]);
  const corners = picked('corner', 'one', 'vertex').map(({ reference }) => reference);
  expect(await engine.fittingMarks(script.project, 'd', 'corner', corners.slice(0, 2))).toEqual([]);
  const slanted: Mark = { kind: 'distance', view: 'corner', of: corners.slice(0, 2), along: 'straight' };
  script.do('mark.set', { sheet: 'd', id: 'm', mark: slanted });
  expect((await cutting(script)).findings.map(({ issue }) => issue.code)).toContain('mark.slanted');
});

test('the whole of one part takes nothing from what its part is told by', async () => {
  const script = blocks().do('placement.remove', { ids: ['two'] });
  script.do('sheet.remove', { sheet: 'd' });
  const how = { paper: 'A3', projection: 'first' } as const;
  script.do('sheet.add', { id: 'd', record: defaultAssemblySheet(how) });
  script.do('sheet.add', { id: 'p', record: defaultSheet({ id: 'a', name: 'Lower' }, how) });
  const note: Mark = { kind: 'note', view: 'front', of: [], text: 'Glued' };
  script.do('mark.add', { sheet: 'd', id: 'n', mark: note });
  await cutting(script);
  const sheet = await engine.sheet(script.project, 'p');
  const missing = sheet.ok ? sheet.value.findings.filter(({ issue }) => issue.code === 'sheet.missing') : [];
  expect(missing).toHaveLength(3);
});

test('a view of the whole that is cut at what is not placed any more is told so by the name of the view', async () => {
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
