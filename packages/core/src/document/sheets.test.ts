import type { Id } from '../records/index.ts';
import { emptyAssembly, placementOf, type Placement } from '../assembly/index.ts';
import {
  USUAL_BLOCK,
  defaultSheet,
  defaultAssemblySheet,
  viewWords,
  withField,
  type Mark,
  type View,
} from '../drawing/index.ts';
import { loadProject, writeProject, parseProject } from './load.ts';
import { perform, type Action } from './perform.ts';
import { placedSections, sectionNamesFor } from './placed.ts';
import { ProjectScript } from './script.ts';

const begun = () => {
  const script = new ProjectScript('Plates').do('part.add', { id: 'p', name: 'Plate' });
  script.do('section.add', {
    part: 'p',
    id: 'cut',
    section: { name: 'Middle', plane: { to: 'origin', name: 'front' }, offset: '0 mm', turned: false },
  });
  const record = defaultSheet({ id: 'p', name: 'Plate' }, { paper: 'A4', projection: 'first' });
  return script.do('sheet.add', { id: 's', record });
};
const refusal = (script: ProjectScript, action: Action) => {
  const done = perform(script.project, [action]);
  return done.ok ? undefined : done.issue.code;
};

test('a sheet is set up, its views added and set, and it is kept in the file', () => {
  const script = begun()
    .do('view.add', { sheet: 's', id: 'a', view: { kind: 'section', section: 'cut' } })
    .do('view.set', { sheet: 's', view: 'a', fields: { hidden: true, shift: [3, 4] } })
    .do('sheet.set', { sheet: 's', fields: { paper: 'A3', scale: '1:5' } })
    .do('sheet.title', { sheet: 's', fields: { drawn: 'me' } });
  const { sheets } = script.project;
  expect(sheets!['s']).toMatchObject({ paper: 'A3', scale: '1:5', title: { drawn: 'me' } });
  expect(sheets!['s']!.views['a']).toEqual({ kind: 'section', section: 'cut', hidden: true, shift: [3, 4] });
  const read = parseProject(writeProject(script.project));
  expect(read).toEqual({ ok: true, value: script.project });
  // as usual again
  script
    .do('sheet.set', { sheet: 's', fields: { scale: undefined } })
    .do('view.set', { sheet: 's', view: 'a', fields: { shift: undefined } });
  expect(script.project.sheets!['s']).not.toHaveProperty('scale');
  expect(script.project.sheets!['s']!.views['a']).not.toHaveProperty('shift');
});

test('with a view go those that are folded out of it; with a section its views; with a part its sheets', () => {
  const script = begun().do('view.add', { sheet: 's', id: 'a', view: { kind: 'section', section: 'cut' } });
  script.do('view.remove', { sheet: 's', view: 'front' });
  expect(script.project.sheets!['s']!.viewOrder).toEqual(['corner', 'a']);
  script.do('section.remove', { part: 'p', section: 'cut' });
  expect(script.project.sheets!['s']!.viewOrder).toEqual(['corner']);
  script.do('part.remove', { id: 'p' });
  expect(script.project.sheets).toEqual({});
  expect(script.project.sheetOrder).toEqual([]);
});

test('what is not there can not be drawn', () => {
  const script = begun();
  const record = script.project.sheets!['s']!;
  expect(refusal(script, { command: 'sheet.add', input: { id: 't', record: { ...record, part: 'q' } } })).toBe(
    'sheet.part',
  );
  const add = (view: object) => ({ command: 'view.add', input: { sheet: 's', id: 'a', view } }) as Action;
  expect(refusal(script, add({ kind: 'section', section: 'other' }))).toBe('sheet.section');
  expect(refusal(script, add({ kind: 'projected', of: 'nothing', beside: 'right' }))).toBe('sheet.view');
  expect(refusal(script, add({ kind: 'projected', of: 'a', beside: 'right' }))).toBe('sheet.view');
  expect(refusal(script, { command: 'view.remove', input: { sheet: 's', view: 'x' } })).toBe('view.unknown');
  expect(refusal(script, { command: 'sheet.remove', input: { sheet: 'x' } })).toBe('sheet.unknown');
  const lost = structuredClone(script.project);
  lost.sheetOrder = [];
  expect(loadProject(lost)).toMatchObject({ ok: false, issue: { code: 'project.order' } });
});

test('views are called by where they are seen from', () => {
  const { sheets, parts } = begun().project;
  const sheet = sheets!['s']!;
  const words = (view: Parameters<typeof viewWords>[0]) =>
    viewWords(view, sheet, (id) => parts['p']!.sections![id]!.name);
  expect(words(sheet.views['front']!)).toBe('from the front');
  expect(words(sheet.views['top']!)).toBe('from the front, from above it');
  expect(words({ kind: 'section', section: 'cut' })).toBe('cut: Middle');
});

describe('title blocks', () => {
  const owner = { own: 'owner', label: 'Owner', words: 'the village', share: 4 };
  const { block } = withField(USUAL_BLOCK, 0, owner)!;
  const laidOut = () => begun().do('sheet.block', { block });

  test('are laid out for all sheets, and as usual again', () => {
    const script = laidOut();
    expect(script.project.titleBlock).toEqual(block);
    expect(parseProject(writeProject(script.project))).toEqual({ ok: true, value: script.project });
    expect(script.do('sheet.block', {}).project).not.toHaveProperty('titleBlock');
  });

  test('have fields of their own, into which each sheet writes; what is empty says what stands there always', () => {
    const script = laidOut().do('sheet.title', { sheet: 's', fields: { own: { owner: 'the mill' }, drawn: 'me' } });
    expect(script.project.sheets!['s']!.title).toEqual({ own: { owner: 'the mill' }, drawn: 'me' });
    script.do('sheet.title', { sheet: 's', fields: { own: { owner: '' } } });
    expect(script.project.sheets!['s']!.title).toEqual({ own: {}, drawn: 'me' });
  });

  test('that lose a field lose what was written there; nothing is written where there is none', () => {
    const written = { own: { owner: 'the mill' } };
    const script = laidOut().do('sheet.title', { sheet: 's', fields: written });
    script.do('sheet.block', { block: USUAL_BLOCK });
    expect(script.project.sheets!['s']!.title).toEqual({ own: {} });
    expect(refusal(script, { command: 'sheet.title', input: { sheet: 's', fields: written } })).toBe('sheet.own');
    const twice = { rows: [...USUAL_BLOCK.rows, ...USUAL_BLOCK.rows] };
    expect(refusal(script, { command: 'sheet.block', input: { block: twice } })).toBe('command.input');
  });
});

describe('sections that go on at other planes', () => {
  const section = (id: string, plane: 'front' | 'right') => ({
    ...{ part: 'p', id },
    section: { name: id, plane: { to: 'origin', name: plane } as const, offset: '0 mm', turned: false },
  });
  const steps = [{ at: 'half', section: 'other' }];
  const stepped = () =>
    begun()
      .do('section.add', section('half', 'right'))
      .do('section.add', section('other', 'front'))
      .do('view.add', { sheet: 's', id: 'a', view: { kind: 'section', section: 'cut', steps } });
  const stepsOf = ({ project }: ProjectScript) => (project.sheets!['s']!.views['a'] as { steps?: unknown }).steps;

  test('are set, kept in the file, and straight again', () => {
    const script = stepped();
    expect(parseProject(writeProject(script.project))).toEqual({ ok: true, value: script.project });
    script.do('view.set', { sheet: 's', view: 'a', fields: { steps: [{ at: 'half' }] } });
    expect(stepsOf(script)).toEqual([{ at: 'half' }]);
    script.do('view.set', { sheet: 's', view: 'a', fields: { steps: undefined } });
    expect(stepsOf(script)).toBeUndefined();
  });

  test('lose what hangs on a section that goes, not the view', () => {
    expect(stepsOf(stepped().do('section.remove', { part: 'p', section: 'other' }))).toEqual([{ at: 'half' }]);
    expect(stepsOf(stepped().do('section.remove', { part: 'p', section: 'half' }))).toEqual([]);
    const gone = stepped().do('section.remove', { part: 'p', section: 'cut' });
    expect(gone.project.sheets!['s']!.views).not.toHaveProperty('a');
  });

  test('are of sections that are there, and of views that are cut open', () => {
    const set = (view: string, fields: object) =>
      refusal(stepped(), { command: 'view.set', input: { sheet: 's', view, fields } });
    expect(set('a', { steps: [{ at: 'nowhere' }] })).toBe('sheet.section');
    expect(set('front', { steps: [{ at: 'half' }] })).toBe('view.fields');
    expect(set('a', { radius: 3 })).toBe('view.fields');
    expect(set('a', { steps: Array.from({ length: 9 }, () => ({ at: 'half' })) })).toBe('command.input');
  });
});

test('a detail is of a view that is there, changes its size, and goes with its view', () => {
  const detail = { kind: 'detail', of: 'front', at: [1, 2], radius: 5, times: 2 } as const;
  const add = (view: object) => ({ command: 'view.add', input: { sheet: 's', id: 'z', view } }) as Action;
  expect(refusal(begun(), add({ ...detail, of: 'nothing' }))).toBe('sheet.view');
  expect(refusal(begun(), add({ ...detail, of: 'z' }))).toBe('sheet.view');
  expect(refusal(begun(), add({ ...detail, times: 3 }))).toBe('command.input');
  expect(refusal(begun(), add({ ...detail, radius: 0 }))).toBe('command.input');
  const script = begun().do('view.add', { sheet: 's', id: 'z', view: { ...detail, at: [1, 2] } });
  script.do('view.set', { sheet: 's', view: 'z', fields: { radius: 7, times: 10 } });
  expect(script.project.sheets!['s']!.views['z']).toMatchObject({ of: 'front', radius: 7, times: 10 });
  expect(parseProject(writeProject(script.project))).toEqual({ ok: true, value: script.project });
  script.do('view.remove', { sheet: 's', view: 'front' });
  expect(script.project.sheets!['s']!.views).not.toHaveProperty('z');
});

describe('a sheet of the whole', () => {
  const whole = defaultAssemblySheet({ paper: 'A3', projection: 'first' });
  const added = () => begun().do('sheet.add', { id: 'w', record: whole });

  test('is kept in the file, and stays when a part goes', () => {
    const script = added().do('view.set', { sheet: 'w', view: 'corner', fields: { apart: 0.7, numbered: undefined } });
    expect(script.project.sheets!['w']!.views['corner']).toEqual({ kind: 'corner', apart: 0.7 });
    expect(parseProject(writeProject(script.project))).toEqual({ ok: true, value: script.project });
    const cut: View = { kind: 'section', section: 'cut', at: 'x', uncut: ['p', 'q'] };
    script.do('view.add', { sheet: 'w', id: 'a', view: cut });
    script.do('view.set', { sheet: 'w', view: 'corner', fields: { numbers: { p: [3, 4], q: [5, 6] } } });
    script.do('part.remove', { id: 'p' });
    expect(script.project.sheets!['w']!.views['corner']!.numbers).toEqual({ q: [5, 6] });
    expect(script.project.sheetOrder).toEqual(['w']);
    expect(script.project.sheets!['w']!.views['a']).toEqual({ ...cut, uncut: ['q'] });
  });

  test('has no sections of its own; a part is neither drawn apart nor numbered', () => {
    const cut = { kind: 'section', section: 'cut' };
    expect(refusal(added(), { command: 'view.add', input: { sheet: 'w', id: 'a', view: cut } } as Action)).toBe(
      'sheet.section',
    );
    const detail: View = { kind: 'detail', of: 'front', at: [0, 0], radius: 5, times: 2, apart: 0.5 };
    expect(refusal(added(), { command: 'view.add', input: { sheet: 'w', id: 'a', view: detail } })).toBe(
      'sheet.detail',
    );
    const noteOn = (sheet: Id, reference: object) => {
      const mark = { kind: 'note', view: 'front', of: [reference], text: 'Note' };
      return { command: 'mark.add', input: { sheet, id: 'm', mark } } as Action;
    };
    const face = { to: 'face', name: 'x/side/o' };
    expect(refusal(added(), noteOn('w', face))).toBe('sheet.whole');
    expect(refusal(added(), noteOn('w', { to: 'other', at: 'x', from: 'y', on: face }))).toBe('sheet.whole');
    expect(refusal(added(), noteOn('s', { to: 'other', at: 'x', on: face }))).toBe('sheet.own-part');
    const placed = { ...cut, at: 'x' };
    for (const view of [placed, { ...cut, uncut: ['p'] }])
      expect(refusal(begun(), { command: 'view.add', input: { sheet: 's', id: 'a', view } } as Action)).toBe(
        'sheet.apart',
      );
    for (const fields of [{ apart: 0.5 }, { numbered: true }, { numbers: { p: [1, 2] as [number, number] } }])
      expect(refusal(added(), { command: 'view.set', input: { sheet: 's', view: 'corner', fields } })).toBe(
        'sheet.apart',
      );
  });

  test('keeps its sections and what is written when placements are gathered in a group, and when that is dissolved', () => {
    const on = (at: string) => ({ to: 'other', at, on: { to: 'face', name: 'x/side/o' } }) as const;
    const script = added()
      .do('placement.add', { id: 'x', record: placementOf('X', { part: 'p' }, true) })
      .do('view.add', { sheet: 'w', id: 'a', view: { kind: 'section', section: 'cut', at: 'x' } })
      .do('mark.add', {
        sheet: 'w',
        id: 'm',
        mark: { kind: 'angle', view: 'front', of: [on('x'), on('x:2')] },
      })
      .do('group.gather', { id: 'g', name: 'G', placement: 'group', of: ['x'] });
    const { views, marks } = script.project.sheets!['w']!;
    expect(views['a']).toMatchObject({ at: 'group/x' });
    // a repeat of it as well
    expect(marks!['m']!.of).toEqual([on('group/x'), on('group/x:2')]);
    const { views: after, marks: kept } = script.do('group.dissolve', { placement: 'group' }).project.sheets!['w']!;
    expect(after['a']).toMatchObject({ at: 'x' });
    expect(kept!['m']!.of).toEqual([on('x'), on('x:2')]);
  });
});

describe('what is written into views', () => {
  const face = (name: string) => ({ to: 'face', name }) as const;
  const mark: Mark = { kind: 'diameter', view: 'side', of: [face('x/side/o')] };
  const written = () => begun().do('mark.add', { sheet: 's', id: 'm', mark });

  test('is added, changed, kept in the file and taken off', () => {
    const script = written().do('mark.set', { sheet: 's', id: 'm', mark: { ...mark, at: [1, 2], extra: true } });
    expect(script.project.sheets!['s']!.marks).toEqual({ m: { ...mark, at: [1, 2], extra: true } });
    expect(parseProject(writeProject(script.project))).toEqual({ ok: true, value: script.project });
    script.do('mark.remove', { sheet: 's', id: 'm' });
    expect(script.project.sheets!['s']).toMatchObject({ marks: {}, markOrder: [] });
  });

  test('goes with its view, and with that which it is folded out of', () => {
    expect(written().do('view.remove', { sheet: 's', view: 'side' }).project.sheets!['s']!.marks).toEqual({});
    expect(written().do('view.remove', { sheet: 's', view: 'front' }).project.sheets!['s']!.marks).toEqual({});
  });

  test('stands in a view that is there, and is what its kind may be', () => {
    const add = (record: object): Action =>
      ({ command: 'mark.add', input: { sheet: 's', id: 'n', mark: record } }) as Action;
    expect(refusal(begun(), add({ ...mark, view: 'gone' }))).toBe('view.unknown');
    expect(refusal(begun(), { command: 'mark.remove', input: { sheet: 's', id: 'gone' } })).toBe('mark.unknown');
    expect(refusal(begun(), add({ ...mark, of: [] }))).toBe('command.input');
    expect(refusal(begun(), add({ ...mark, tolerance: { kind: 'fit', class: 'Q7' } }))).toBe('command.input');
    expect(refusal(begun(), add({ ...mark, tolerance: { kind: 'limits', upper: 0, lower: 0.1 } }))).toBe(
      'command.input',
    );
    const kept = written().project;
    const lost = { ...kept, sheets: { s: { ...kept.sheets!['s']!, markOrder: [] } } };
    expect(loadProject(lost)).toMatchObject({ ok: false, issue: { code: 'project.order' } });
  });
});

test('sections of what is placed are found in groups too, each called by the way to its part', () => {
  const { project } = begun();
  const placed = (of: Placement['of'], name: string): Placement => ({ ...placementOf(name, { part: 'p' }), of });
  const inner = { ...emptyAssembly(), placements: { x: placed({ part: 'p' }, 'Inner') } };
  const whole = {
    ...project,
    groups: { g: { name: 'Pair', ...inner } },
    assembly: {
      ...emptyAssembly(),
      placements: { a: placed({ part: 'p' }, 'One'), b: placed({ group: 'g', stiff: true }, 'Two') },
    },
  };
  const found = placedSections(whole);
  expect(found).toEqual([
    { at: 'a', section: 'cut' },
    { at: 'b/x', section: 'cut' },
  ]);
  const nameOf = sectionNamesFor(whole, 'a');
  expect(found.map(({ at, section }) => nameOf(section, at))).toEqual(['Middle of One', 'Middle of Two · Inner']);
  expect(nameOf('gone', 'a')).toBe('? of One');
  expect(nameOf('cut', 'nowhere')).toBe('? of ?');
  expect(placedSections(project)).toEqual([]);
});
