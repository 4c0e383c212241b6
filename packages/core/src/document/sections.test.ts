import {
  explain,
  perform,
  placedExpressions,
  ProjectScript,
  applyChange,
  usersOf,
  type Action,
  type Project,
} from '../index.ts';

const section = {
  name: 'Through the bore',
  plane: { to: 'origin', name: 'right' },
  offset: 'wall / 2',
  turned: false,
} as const;
const script = new ProjectScript('Sections')
  .do('value.add', { id: 'v1', name: 'wall', expression: '6 mm' })
  .do('part.add', { id: 'part', name: 'Part' })
  .do('section.add', { part: 'part', id: 'c1', section });
const { project } = script;

const did = (on: Project, ...actions: Action[]) => {
  const done = perform(on, actions);
  if (!done.ok) throw new Error(explain(done.issue));
  return done.value;
};
const refusal = (...actions: Action[]) => {
  const done = perform(project, actions);
  return done.ok ? 'done' : explain(done.issue);
};

test('a section is kept by name, changed field by field, removed, and each of that undone', () => {
  const changes: Action[] = [
    { command: 'section.set', input: { part: 'part', section: 'c1', fields: { turned: true, name: 'Other side' } } },
    { command: 'section.remove', input: { part: 'part', section: 'c1' } },
  ];
  for (const action of changes) {
    const { project: after, change } = did(project, action);
    expect(after).not.toEqual(project);
    expect(applyChange(after, change.backward)).toMatchObject({ ok: true, value: project });
  }
  const { project: turned } = did(project, changes[0]!);
  expect(turned.parts['part']!.sections!['c1']).toEqual({ ...section, turned: true, name: 'Other side' });
  const { project: without } = did(project, changes[1]!);
  expect(without.parts['part']!.sections).toEqual({});
});

test('its offset is an expression like any other: found, renamed with its value, which can not be removed under it', () => {
  expect(placedExpressions(project).map(({ label }) => label)).toContain('Part · Through the bore · offset');
  expect(usersOf(project, 'wall').map(({ path }) => path.join('.'))).toEqual(['parts.part.sections.c1.offset']);
  const { project: renamed } = did(project, { command: 'value.rename', input: { id: 'v1', name: 'sheet' } });
  expect(renamed.parts['part']!.sections!['c1']!.offset).toBe('sheet / 2');
  expect(refusal({ command: 'value.remove', input: { id: 'v1' } })).toMatch(/Through the bore/);
});

test('what is not there, or too much, is told', () => {
  expect(refusal({ command: 'section.remove', input: { part: 'part', section: 'c9' } })).toMatch(/no section c9/);
  const many = Array.from({ length: 20 }, (_, k): Action => ({
    command: 'section.add',
    input: { part: 'part', id: `d${k}`, section },
  }));
  expect(refusal(...many)).toMatch(/at most 20 sections/);
  expect(refusal({ command: 'section.add', input: { part: 'part', id: 'c1', section } })).not.toBe('done');
});
