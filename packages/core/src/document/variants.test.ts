import { explain } from '../wording/index.ts';
import { rectangle } from '../samples/index.ts';
import {
  loadProject,
  outside,
  perform,
  placedExpressions,
  ProjectScript,
  variantNamed,
  variantOf,
  writeProject,
  type Action,
  type Project,
  type Value,
} from './index.ts';
import { valueScope } from '../expressions/index.ts';

const box = (): ProjectScript =>
  new ProjectScript('Box')
    .do('value.add', { id: 'v1', name: 'span', expression: '80 mm' })
    .do('value.add', { id: 'v2', name: 'wall', expression: 'span / 20' })
    .do('part.add', { id: 'p', name: 'Lid' })
    .do('step.add', {
      part: 'p',
      id: 's',
      step: { kind: 'sketch', name: 'Outline', plane: 'top', entities: rectangle(0, 0, 10, 10), relations: {} },
    })
    .do('step.add', { part: 'p', id: 'e', step: { kind: 'extrude', name: 'Plate', sketch: 's', distance: 'wall' } })
    .do('variant.add', { id: 'x', name: 'school' })
    .do('variant.set', { id: 'x', value: 'v1', expression: '120 mm' });

const scopeOf = ({ values, unit }: Project) => valueScope(Object.values(values), unit);
const amount = (project: Project, name: string) => {
  const result = scopeOf(project).lookup(name);
  return result.ok ? result.value.amount : explain(result.issue);
};
const refused = (project: Project, ...actions: Action[]) => {
  const done = perform(project, actions);
  return done.ok ? 'done' : explain(done.issue);
};

describe('variants', () => {
  test('a variant has other values, and what depends on them follows', () => {
    const { project } = box();
    expect([amount(project, 'span'), amount(project, 'wall')]).toEqual([80, 4]);
    const school = variantOf(project, 'x');
    expect([amount(school, 'span'), amount(school, 'wall')]).toEqual([120, 6]);
    expect(variantOf(project, undefined)).toBe(project);
    expect(variantOf(project, 'gone')).toBe(project);
    // the project itself is as it was
    expect(project.values['v1']!.expression).toBe('80 mm');
  });

  test('steps are left out of a variant; those that are gone count for nothing', () => {
    const script = box().do('variant.leave-out', { id: 'x', part: 'p', step: 'e', out: true });
    expect(variantOf(script.project, 'x').parts['p']!.steps['e']!.suppressed).toBe(true);
    expect(script.project.parts['p']!.steps['e']!.suppressed).toBeUndefined();
    const without = script.do('step.remove', { part: 'p', steps: ['e'] }).project;
    expect(Object.keys(variantOf(without, 'x').parts['p']!.steps)).toEqual(['s']);
    const again = box().do('variant.leave-out', { id: 'x', part: 'p', step: 'e', out: true });
    expect(again.do('variant.leave-out', { id: 'x', part: 'p', step: 'e', out: false }).project).toEqual(box().project);
  });

  test('a value renamed is renamed in all variants; removed it is removed there', () => {
    const script = box().do('variant.set', { id: 'x', value: 'v2', expression: 'span / 10' });
    const renamed = script.do('value.rename', { id: 'v1', name: 'width' }).project;
    expect(renamed.variants!['x']!.values['v2']).toBe('width / 10');
    const removed = box().do('value.set', { id: 'v2', expression: '4 mm' }).do('value.remove', { id: 'v1' }).project;
    expect(removed.variants!['x']!.values).toEqual({});
    // what a variant reads is in use
    const used = box()
      .do('value.set', { id: 'v2', expression: '4 mm' })
      .do('variant.set', { id: 'x', value: 'v2', expression: 'span / 10' });
    expect(refused(used.project, { command: 'value.remove', input: { id: 'v1' } })).toMatch(/used by wall · school/);
  });

  test('names are taken once, the project itself counts among them; what is unknown is told with what there is', () => {
    const { project } = box();
    expect(refused(project, { command: 'variant.add', input: { id: 'y', name: 'school' } })).toMatch(/already/);
    expect(refused(project, { command: 'variant.add', input: { id: 'y', name: 'as drawn' } })).toMatch(/already/);
    const named = box().do('variant.rename', { name: 'bench' }).project;
    // nor is a variant called as the project itself, or the other way round; its own name it may keep
    expect(refused(named, { command: 'variant.rename', input: { id: 'x', name: 'bench' } })).toMatch(/already/);
    expect(refused(named, { command: 'variant.rename', input: { name: 'school' } })).toMatch(/already/);
    expect(refused(named, { command: 'variant.rename', input: { id: 'x', name: 'school' } })).toBe('done');
    expect(variantNamed(named, 'bench')).toEqual({ ok: true, value: undefined });
    expect(variantNamed(named, 'school')).toEqual({ ok: true, value: 'x' });
    const unknown = variantNamed(named, 'table');
    expect(!unknown.ok && explain(unknown.issue)).toBe('There is no variant "table". There are: bench, school.');
  });

  test('a copy of a variant goes its own way; a file with variants is read again', () => {
    const script = box().do('variant.add', { id: 'y', name: 'table', like: 'x' });
    script.do('variant.set', { id: 'y', value: 'v1', expression: '100 mm' });
    expect(script.project.variants!['x']!.values['v1']).toBe('120 mm');
    const read = loadProject(JSON.parse(writeProject(script.project)));
    expect(read).toEqual({ ok: true, value: script.project });
    const { variantOrder: _, ...broken } = script.project;
    expect(loadProject(broken).ok).toBe(false);
  });
});

describe('what a value may come to', () => {
  const trouble = (expression: string, allowed: NonNullable<Value['allowed']>) => {
    const script = new ProjectScript('x')
      .do('value.add', { id: 'v0', name: 'sheet', expression: '5 mm' })
      .do('value.add', { id: 'v1', name: 'lip', expression })
      .do('value.allow', { id: 'v1', allowed });
    const issue = outside(script.project.values['v1']!, scopeOf(script.project));
    return issue ? explain(issue) : 'allowed';
  };

  test.each<[string, NonNullable<Value['allowed']>, string]>([
    ['3 mm', { least: '2 mm', most: 'sheet' }, 'allowed'],
    ['sheet', { least: '2 mm', most: 'sheet' }, 'allowed'],
    ['0.5 cm', { list: ['4 mm', '5 mm', '6 mm'] }, 'allowed'],
    ['sheet + 1 mm', { least: '2 mm', most: 'sheet' }, 'lip comes to 6 mm, and it may be from 2 mm to sheet.'],
    ['1 mm', { least: '2 mm' }, 'lip comes to 1 mm, and it may be at least 2 mm.'],
    ['7 mm', { list: ['4 mm', '5 mm'] }, 'lip comes to 7 mm, and it may be one of 4 mm, 5 mm.'],
    // a bare number is in the unit of the project; another dimension is told
    ['7 mm', { most: '5' }, 'lip comes to 7 mm, and it may be at most 5.'],
    ['7 mm', { most: '5 deg' }, 'angle'],
    ['7 mm', { most: 'plank' }, 'There is no value named "plank".'],
  ])('%s of %j: %s', (expression, allowed, words) => {
    expect(trouble(expression, allowed)).toContain(words);
  });

  test('its bounds are renamed with what they read', () => {
    const script = new ProjectScript('x')
      .do('value.add', { id: 'v0', name: 'sheet', expression: '5 mm' })
      .do('value.add', { id: 'v1', name: 'lip', expression: '3 mm' })
      .do('value.allow', { id: 'v1', allowed: { most: 'sheet' } })
      .do('value.rename', { id: 'v0', name: 'plate' });
    expect(script.project.values['v1']!.allowed).toEqual({ most: 'plate' });
  });
});

test('any expression is set where it stands, and only what is one', () => {
  const script = box();
  for (const { path, asks } of placedExpressions(script.project))
    script.do('expression.set', { path: [...path], expression: asks ? '7 mm' : '9 mm' });
  const texts = placedExpressions(script.project).map(({ text, asks }) => [text, asks ? '7 mm' : '9 mm']);
  expect(texts.length).toBeGreaterThan(3);
  for (const [is, set] of texts) expect(is).toBe(set);
  for (const path of [
    ['name', 'x'],
    ['parts', 'p', 'name'],
    ['parts', 'p', 'steps', 'e', 'sketch'],
    ['__proto__', 'x'],
  ])
    expect(refused(script.project, { command: 'expression.set', input: { path, expression: '1' } })).toMatch(
      /not there/,
    );
});
