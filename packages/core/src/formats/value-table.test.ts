import { perform, ProjectScript, type Project } from '../document/index.ts';
import { explain } from '../wording/index.ts';
import { readValueTable, writeValueTable, type TableChange } from './value-table.ts';

const sheet = (): ProjectScript =>
  new ProjectScript('Box')
    .do('value.add', { id: 'v1', name: 'span', expression: '80 mm', note: 'outside, of "oak"' })
    .do('value.add', { id: 'v2', name: 'wall', expression: 'span / 20' })
    .do('value.add', { id: 'v3', name: 'drop', expression: '-5 mm' })
    .do('value.group', { id: 'v2', group: 'Frame' })
    .do('variant.add', { id: 'x', name: 'school' })
    .do('variant.set', { id: 'x', value: 'v1', expression: '120 mm' });

let id = 0;
const read = (text: string, project: Project) => {
  const result = readValueTable(text, project, () => `n${++id}`);
  if (!result.ok) throw new Error(explain(result.issue));
  return result.value;
};
const told = ({ value, of, kind, here, there }: TableChange) => `${kind} ${value} ${of}: ${here} → ${there}`;
const taken = (project: Project, changes: readonly TableChange[]): Project => {
  const done = perform(
    project,
    changes.flatMap(({ actions }) => actions),
  );
  if (!done.ok) throw new Error(explain(done.issue));
  return done.value.project;
};

test('written and read again nothing is different; formulas of spreadsheets are held off', () => {
  const { project } = sheet();
  const text = writeValueTable(project);
  expect(text.split('\r\n')[0]).toBe('name,expression,comes to,note,group,as school,was expression,was as school');
  expect(text).toContain(`'-5 mm`);
  expect(read(text, project)).toEqual({ changes: [], absent: [], ignored: [] });
});

test('a round trip through a spreadsheet: changed, new, of a variant; taken over in one gesture', () => {
  const { project } = sheet();
  const rows = [
    'name;expression;note;group;as school;colour',
    'span;90 mm;outside;Frame;;red',
    'wall;span / 20;;Frame;7 mm;',
    'lid height;span / 4;new;;;',
  ];
  const { changes, absent, ignored } = read(`\uFEFF${rows.join('\n')}`, project);
  expect(changes.map(told)).toEqual([
    'changed span expression: 80 mm → 90 mm',
    'changed span note: outside, of "oak" → outside',
    'changed span group:  → Frame',
    'changed span as school: 120 mm → ',
    'changed wall as school:  → 7 mm',
    'new lid height expression:  → span / 4',
    'changed lid height note:  → new',
  ]);
  expect(absent).toEqual(['drop']);
  expect(ignored).toEqual(['colour']);
  const after = taken(project, changes);
  expect(after.values['v1']).toMatchObject({ expression: '90 mm', note: 'outside', group: 'Frame' });
  expect(after.variants!['x']!.values).toEqual({ v2: '7 mm' });
  expect(Object.values(after.values).map(({ name }) => name)).toContain('lid height');
  expect(read(writeValueTable(after), after).changes).toEqual([]);
});

test('what was changed on both sides is told as such; what only the project changed is left alone', () => {
  const before = sheet().project;
  const file = writeValueTable(before).replace('span,80 mm', 'span,90 mm');
  const here = sheet()
    .do('value.set', { id: 'v1', expression: '85 mm' })
    .do('value.set', { id: 'v2', expression: '4 mm' });
  expect(read(file, here.project).changes.map(told)).toEqual(['both span expression: 85 mm → 90 mm']);
});

test('of a variant too: changed there, changed on both sides; whatever it is called', () => {
  const script = sheet().do('variant.rename', { id: 'x', name: 'note' });
  const file = writeValueTable(script.project)
    .replace('Frame,,', 'Frame,7 mm,')
    .replace(',120 mm,80 mm', ',130 mm,80 mm');
  const here = script.do('variant.set', { id: 'x', value: 'v1', expression: '125 mm' }).project;
  expect(read(file, here).changes.map(told)).toEqual([
    'both span as note: 125 mm → 130 mm',
    'changed wall as note:  → 7 mm',
  ]);
});

test('what can not be read is told line by line and takes nothing else with it', () => {
  const { project } = sheet();
  const { changes } = read('name,expression\nspan,80 +\nmm,3\nwall,2 mm\nwall,3 mm\nnew,\n', project);
  expect(changes.map(({ kind, value }) => `${kind} ${value}`)).toEqual([
    'wrong span',
    'wrong mm',
    'changed wall',
    'wrong wall',
    'wrong new',
  ]);
  for (const { kind, issue, actions } of changes)
    if (kind === 'wrong') expect([actions, explain(issue!)]).toEqual([[], expect.any(String)]);
  expect(taken(project, changes).values['v2']!.expression).toBe('2 mm');
});

test.each([
  ['', /first line/],
  ['a,b\n1,2', /first line/],
  [`name,expression\n${'x,1\n'.repeat(1001)}`, /more than 1000 lines/],
])('no table of values: %#', (text, words) => {
  const result = readValueTable(text, sheet().project, () => 'n');
  expect(!result.ok && explain(result.issue)).toMatch(words);
});
