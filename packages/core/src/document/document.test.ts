import fc from 'fast-check';
import { seedSieve } from '../demo/index.ts';
import { explain } from '../wording/index.ts';
import { valueScope } from '../expressions/index.ts';
import { solved, type SketchStep } from '../steps/index.ts';
import {
  standingOn,
  applyChange,
  deeperThan,
  emptyProject,
  loadProject,
  parseProject,
  perform,
  placedExpressions,
  ProjectScript,
  pushed,
  reversal,
  stacksOf,
  usersOf,
  writeProject,
  type Action,
  type LogEntry,
  type Project,
  type Stacks,
} from './index.ts';

const demo = seedSieve();
const [partId] = demo.partOrder as [string];
const part = demo.parts[partId]!;
const stepNamed = (name: string) => part.stepOrder.find((id) => part.steps[id]!.name === name)!;
const valueNamed = (project: Project, name: string) =>
  project.valueOrder.find((id) => project.values[id]!.name === name)!;

const did = (project: Project, ...actions: Action[]) => {
  const result = perform(project, actions);
  if (!result.ok) throw new Error(explain(result.issue));
  return result.value;
};
const refusal = (project: Project, ...actions: Action[]) => {
  const result = perform(project, actions);
  return result.ok ? 'done' : result.issue.code;
};

describe('the demo project', () => {
  test('passes its own schema and survives writing and reading', () => {
    expect(parseProject(writeProject(demo))).toEqual({ ok: true, value: demo });
  });

  test('has settled sketches only, with the plate as the values say', () => {
    const scope = valueScope(Object.values(demo.values), demo.unit);
    for (const step of Object.values(part.steps))
      if (step.kind === 'sketch') expect(solved(step, scope).solution).toMatchObject({ state: 'settled', freedoms: 0 });
    const plate = solved(part.steps[stepNamed('Foot outline')] as SketchStep, scope);
    const [outline] = plate.regions.regions.filter((region) => region.depth === 0);
    expect(outline!.area).toBeCloseTo(72 * 48 - 4 * Math.PI * 2.75 ** 2, 6);
  });
});

describe('commands', () => {
  test('a value is renamed everywhere', () => {
    const { project } = did(demo, {
      command: 'value.rename',
      input: { id: valueNamed(demo, 'shaft'), name: 'crank shaft' },
    });
    const texts = placedExpressions(project).map((place) => place.text);
    expect(texts).toContain('crank shaft + 2 * boss wall');
    expect(texts).not.toContain('shaft');
    expect(usersOf(project, 'crank shaft')).toHaveLength(9);
  });

  test('a used value or step is not removed; the refusal names the users', () => {
    const result = perform(demo, [{ command: 'value.remove', input: { id: valueNamed(demo, 'shaft') } }]);
    expect(!result.ok && explain(result.issue)).toMatch(/"shaft" is used by .*Boss/);
    expect(refusal(demo, { command: 'step.remove', input: { part: partId, steps: [stepNamed('Bore')] } })).toBe(
      'step.used',
    );
  });

  test('steps go together with those that need them; what only names their faces is told', () => {
    const part = demo.parts[partId]!;
    const [foot, plate, boss, body] = ['Foot outline', 'Foot plate', 'Boss', 'Boss body'].map(stepNamed);
    expect(standingOn(part, [foot!])).toEqual({ needing: [plate], naming: [boss] });
    expect(standingOn(part, [boss!])).toEqual({ needing: [body], naming: [] });
    const gone = perform(demo, [{ command: 'step.remove', input: { part: partId, steps: [foot!, plate!] } }]);
    expect(gone.ok && gone.value.project.parts[partId]!.stepOrder).toEqual(part.stepOrder.slice(2));
  });

  test('a step is duplicated right after itself', () => {
    const bore = stepNamed('Bore');
    const done = perform(demo, [
      { command: 'step.duplicate', input: { part: partId, step: bore, id: 'copy', name: 'Bore again' } },
    ]);
    if (!done.ok) throw new Error(done.issue.code);
    const { steps, stepOrder } = done.value.project.parts[partId]!;
    expect(stepOrder.indexOf('copy')).toBe(stepOrder.indexOf(bore) + 1);
    expect(steps['copy']).toEqual({ ...steps[bore], name: 'Bore again' });
  });

  test('a step does not move before what it needs', () => {
    const step = stepNamed('Shaft bore');
    expect(refusal(demo, { command: 'step.move', input: { part: partId, step, to: 0 } })).toBe('step.needs');
    expect(refusal(demo, { command: 'step.move', input: { part: partId, step, to: 5 } })).toBe('done');
  });

  test('erasing a point takes what stands on it, and lonely points with a line', () => {
    const step = stepNamed('Foot outline');
    const sketch = part.steps[step] as SketchStep;
    const line = Object.entries(sketch.entities).find(([, e]) => e.kind === 'line' && !e.construction)!;
    const { a } = line[1] as { a: string };
    const { project } = did(demo, { command: 'sketch.erase', input: { part: partId, step, ids: [a] } });
    const left = project.parts[partId]!.steps[step] as SketchStep;
    expect(left.entities[a]).toBeUndefined();
    expect(left.entities[line[0]]).toBeUndefined();
    expect(Object.values(left.relations).some((relation) => JSON.stringify(relation).includes(`"${a}"`))).toBe(false);
  });

  test('a gesture of several commands is all or nothing', () => {
    const add: Action = { command: 'value.add', input: { id: 'new', name: 'gap', expression: '1 mm' } };
    const bad: Action = { command: 'part.rename', input: { id: 'nobody', name: 'x' } };
    expect(refusal(demo, add, bad)).toBe('part.unknown');
    expect(refusal(demo, add)).toBe('done');
  });

  test.each<[string, Action, string]>([
    ['a name with a control character', { command: 'project.rename', input: { name: 'a\u0007b' } }, 'command.input'],
    ['an id that is no id', { command: 'part.add', input: { id: '__proto__', name: 'x' } }, 'command.input'],
    ['an id of the language', { command: 'part.add', input: { id: 'constructor', name: 'x' } }, 'command.input'],
    ['a taken id', { command: 'part.add', input: { id: partId, name: 'x' } }, 'id.taken'],
    ['a doubled name', { command: 'value.add', input: { id: 'n', name: ' shaft ', expression: '1' } }, 'value.taken'],
    ['a unit as a name', { command: 'value.add', input: { id: 'n', name: 'mm', expression: '1' } }, 'value.reserved'],
    [
      'a field that is not there',
      { command: 'step.set', input: { part: partId, step: stepNamed('Bore'), fields: { colour: 'red' } } },
      'command.input',
    ],
    [
      'the kind',
      { command: 'step.set', input: { part: partId, step: stepNamed('Bore'), fields: { kind: 'extrude' } } },
      'command.input',
    ],
    [
      'a line between points that are not there',
      {
        command: 'sketch.draw',
        input: {
          part: partId,
          step: stepNamed('Bore'),
          what: 'line',
          entities: { l: { kind: 'line', a: 'x', b: 'y' } },
          relations: {},
        },
      },
      'sketch.dangling',
    ],
    [
      'a relation between things that do not suit it',
      {
        command: 'sketch.draw',
        input: {
          part: partId,
          step: stepNamed('Foot outline'),
          what: 'relation',
          entities: {},
          relations: { r: { kind: 'parallel', a: 'origin', b: 'x-axis' } },
        },
      },
      'relation.kind',
    ],
    [
      'a coordinate that is not finite',
      { command: 'sketch.place', input: { part: partId, step: stepNamed('Bore'), places: { p: [NaN, 0] } } },
      'command.input',
    ],
  ])('refuses %s', (_, action, code) => expect(refusal(demo, action)).toBe(code));
});

/** Random gestures on the demo, most of them possible. */
const gesture: fc.Arbitrary<Action> = fc.oneof(
  fc
    .record({ id: fc.constantFrom('a1', 'a2', 'a3'), name: fc.constantFrom('u', 'v', 'w') })
    .map((input): Action => ({ command: 'value.add', input: { ...input, expression: '3 mm' } })),
  fc.constantFrom('a1', 'a2', ...demo.valueOrder).map((id): Action => ({ command: 'value.remove', input: { id } })),
  fc
    .record({ id: fc.constantFrom(...demo.valueOrder), to: fc.nat(9) })
    .map((input): Action => ({ command: 'value.move', input })),
  fc
    .record({ id: fc.constantFrom(...demo.valueOrder), name: fc.constantFrom('q', 'longer name', 'shaft') })
    .map((input): Action => ({ command: 'value.rename', input })),
  fc.constantFrom('b1', 'b2', partId).map((id): Action => ({ command: 'part.add', input: { id, name: id } })),
  fc.constantFrom('b1', 'b2', partId).map((id): Action => ({ command: 'part.remove', input: { id } })),
  fc
    .record({ step: fc.constantFrom(...part.stepOrder), to: fc.nat(6) })
    .map((input): Action => ({ command: 'step.move', input: { part: partId, ...input } })),
  fc
    .record({ step: fc.constantFrom(...part.stepOrder), on: fc.boolean() })
    .map((input): Action => ({ command: 'step.suppress', input: { part: partId, ...input } })),
  fc.nat(30).map((k): Action => {
    const step = stepNamed('Foot outline');
    const ids = Object.keys((part.steps[step] as SketchStep).entities);
    return { command: 'sketch.erase', input: { part: partId, step, ids: [ids[k % ids.length]!] } };
  }),
);

describe('laws', () => {
  test('forward leads there, backward leads back, exactly (property)', () => {
    fc.assert(
      fc.property(fc.array(gesture, { minLength: 1, maxLength: 4 }), (actions) => {
        const result = perform(demo, actions);
        if (!result.ok) return;
        const { project, change } = result.value;
        expect(applyChange(demo, change.forward)).toEqual({ ok: true, value: project });
        expect(applyChange(project, change.backward)).toEqual({ ok: true, value: demo });
        expect(applyChange(demo, JSON.parse(JSON.stringify(change.forward)))).toEqual({ ok: true, value: project });
      }),
      { numRuns: 200 },
    );
  });

  test('any walk of gestures, undone to the beginning and redone to the end, returns (property)', () => {
    fc.assert(
      fc.property(fc.array(gesture, { maxLength: 8 }), (actions) => {
        let project = demo;
        const log: LogEntry[] = [];
        actions.forEach((action, k) => {
          const result = perform(project, [action]);
          if (!result.ok) return;
          project = result.value.project;
          log.push({ id: `e${k}`, kind: 'do', ...result.value.change });
        });
        const end = project;
        const all = (kind: 'undo' | 'redo', expected: Project) => {
          let stacks: Stacks = stacksOf(log);
          for (let k = 0; stacks[kind].length > 0; k++) {
            const step = reversal(project, stacks, kind, `${kind}${k}`);
            if (!step.ok) throw new Error(explain(step.issue));
            project = step.value.project;
            log.push(step.value.entry);
            stacks = pushed(stacks, step.value.entry);
          }
          expect(project).toEqual(expected);
        };
        all('undo', demo);
        all('redo', end);
      }),
      { numRuns: 100 },
    );
  });

  test('changes of different records meet in either order (property)', () => {
    fc.assert(
      fc.property(gesture, gesture, (a, b) => {
        const [first, second] = [perform(demo, [a]), perform(demo, [b])];
        if (!first.ok || !second.ok) return;
        const paths = (list: readonly { path: readonly string[] }[]) => list.map(({ path }) => path.join('/'));
        const [p, q] = [paths(first.value.change.forward), paths(second.value.change.forward)];
        if (p.some((x) => q.some((y) => x.startsWith(y) || y.startsWith(x)))) return;
        const ab = applyChange(first.value.project, second.value.change.forward);
        const ba = applyChange(second.value.project, first.value.change.forward);
        if (ab.ok && ba.ok) expect(ab.value).toEqual(ba.value);
        else expect(ab.ok).toBe(ba.ok);
      }),
      { numRuns: 200 },
    );
  });

  test('a new change after undo empties redo', () => {
    const { change } = did(demo, { command: 'project.rename', input: { name: 'A' } });
    const entry = (id: string): LogEntry => ({ id, kind: 'do', ...change });
    const undone: LogEntry = { ...entry('u'), kind: 'undo', of: 'a' };
    expect(stacksOf([entry('a'), undone])).toMatchObject({ undo: [], redo: [{ id: 'a' }] });
    expect(stacksOf([entry('a'), undone, entry('b')])).toMatchObject({ undo: [{ id: 'b' }], redo: [] });
  });

  test('undo of a change whose record is gone meanwhile is refused, nothing is lost', () => {
    const script = new ProjectScript('x').do('part.add', { id: 'p', name: 'P' });
    const renamed = did(script.project, { command: 'part.rename', input: { id: 'p', name: 'Q' } });
    const removed = did(renamed.project, { command: 'part.remove', input: { id: 'p' } });
    const stacks = stacksOf([{ id: 'r', kind: 'do', ...renamed.change }]);
    const result = reversal(removed.project, stacks, 'undo', 'u');
    expect(!result.ok && result.issue.code).toBe('change.gone');
  });
});

describe('changes from outside', () => {
  test.each([
    [[{ op: 'set' as const, path: ['__proto__', 'polluted'], value: 1 }], 'change.path'],
    [[{ op: 'set' as const, path: ['parts', 'constructor', 'x'], value: 1 }], 'change.path'],
    [[{ op: 'set' as const, path: [], value: {} }], 'change.path'],
    [[{ op: 'set' as const, path: ['parts', 'nobody', 'name'], value: 'x' }], 'change.gone'],
    [[{ op: 'set' as const, path: ['unit'], value: 'parsec' }], 'change.invalid'],
    [[{ op: 'set' as const, path: ['name'], value: 12 }], 'change.invalid'],
    [[{ op: 'remove' as const, path: ['values'] }], 'change.invalid'],
    [[{ op: 'set' as const, path: ['valueOrder'], value: [] }], 'project.order'],
  ])('%j is refused', (changes, code) => {
    const result = applyChange(demo, changes);
    expect(!result.ok && result.issue.code).toBe(code);
  });
});

describe('reading files', () => {
  const edited = (edit: (raw: Record<string, unknown>) => void) => {
    const raw = JSON.parse(writeProject(demo)) as Record<string, unknown>;
    edit(raw);
    return loadProject(raw);
  };
  test.each<[string, () => ReturnType<typeof loadProject>, string]>([
    ['no JSON', () => parseProject('{"format":'), 'file.json'],
    ['another kind of file', () => parseProject('[1, 2]'), 'file.kind'],
    ['a newer version', () => edited((raw) => Object.assign(raw, { schema: 99 })), 'file.newer'],
    ['a field too many', () => edited((raw) => Object.assign(raw, { extra: 1 })), 'file.invalid'],
    ['an order with a hole', () => edited((raw) => Object.assign(raw, { partOrder: [] })), 'project.order'],
    ['too large a text', () => parseProject('x'.repeat(9 * 1024 * 1024)), 'file.large'],
  ])('%s', (_, load, code) => {
    const result = load();
    expect(!result.ok && result.issue.code).toBe(code);
    expect(!result.ok && explain(result.issue)).not.toMatch(/Something is wrong/);
  });

  test('what is wrong is told with its path', () => {
    const result = edited((raw) => Object.assign((raw['parts'] as Record<string, object>)[partId]!, { colour: 77 }));
    expect(!result.ok && explain(result.issue)).toContain(`parts.${partId}.colour`);
  });

  test('depth is measured without recursion', () => {
    let deep: unknown = 1;
    for (let k = 0; k < 100000; k++) deep = { deep };
    expect(deeperThan(deep, 32)).toBe(true);
    expect(deeperThan(emptyProject('x'), 32)).toBe(false);
  });
});
