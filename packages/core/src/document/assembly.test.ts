import { emptyAssembly, placementOf, type JointRecord } from '../assembly/index.ts';
import { explain } from '../wording/index.ts';
import { loadProject, perform, placedExpressions, ProjectScript, type Action } from './index.ts';

const joint = (a: string, b: string): JointRecord => ({
  name: 'Hinge',
  kind: 'revolute',
  a: { placement: a, on: { to: 'origin', name: 'z' }, spot: 'middle' },
  b: { placement: b, on: { to: 'origin', name: 'z' }, spot: 'middle' },
  flip: false,
  offset: 'gap',
  angle: '0 deg',
});
const ratio = (first: string, second: string) => ({
  name: 'Gears',
  first: { joint: first, coordinate: 'turn' as const },
  second: { joint: second, coordinate: 'turn' as const },
  factor: '-2',
});

/** Three placements of a part in a row, a hinge between neighbours, the hinges tied to each other. */
function chain(): ProjectScript {
  const script = new ProjectScript('Chain')
    .do('value.add', { id: 'v1', name: 'gap', expression: '2 mm' })
    .do('part.add', { id: 'bar', name: 'Bar' });
  for (const id of ['p1', 'p2', 'p3'])
    script.do('placement.add', { id, record: placementOf(id, { part: 'bar' }, id === 'p1') });
  return script
    .do('joint.add', { id: 'j1', record: joint('p1', 'p2') })
    .do('joint.add', { id: 'j2', record: joint('p2', 'p3') })
    .do('ratio.add', { id: 'r1', record: ratio('j1', 'j2') })
    .do('trace.add', { id: 't1', record: { name: 'End', placement: 'p3', on: { to: 'origin', name: 'origin' } } })
    .do('pair.press', { id: 'x1', pair: { a: 'p1', b: 'p2' } });
}
const refused = (script: ProjectScript, action: Action): string => {
  const done = perform(script.project, [action]);
  return done.ok ? 'done' : explain(done.issue);
};

test('with a placement go the joints, ties, traces and pairs that stand on it; undone they are back', () => {
  const { project } = chain();
  const done = perform(project, [{ command: 'placement.remove', input: { ids: ['p2'] } }]);
  if (!done.ok) throw new Error(explain(done.issue));
  expect(done.value.project.assembly).toEqual({
    ...emptyAssembly(),
    placements: { p1: project.assembly!.placements['p1'], p3: project.assembly!.placements['p3'] },
    traces: project.assembly!.traces,
  });
  expect(done.value.change.label).toBe('Remove p2 with Hinge, Hinge, a pair that presses, Gears');
  expect(loadProject(structuredClone(project)).ok).toBe(true);
});

test('with a part go its placements everywhere', () => {
  const script = chain().do('group.gather', { id: 'g1', name: 'Pair', placement: 'pg', of: ['p2', 'p3'] });
  const { project } = script.do('part.remove', { id: 'bar' });
  expect(project.assembly).toEqual({ ...emptyAssembly(), placements: { pg: expect.anything() as unknown } });
  expect(project.groups!['g1']!.placements).toEqual({});
  expect(project.groups!['g1']!.joints).toEqual({});
});

test('gathered placements take along what is between them; joints from outside reach into the group', () => {
  const { project } = chain().do('group.gather', { id: 'g1', name: 'Pair', placement: 'pg', of: ['p2', 'p3'] });
  const group = project.groups!['g1']!;
  expect(Object.keys(group.placements)).toEqual(['p2', 'p3']);
  expect(Object.keys(group.joints)).toEqual(['j2']);
  expect(Object.keys(project.assembly!.placements)).toEqual(['p1', 'pg']);
  expect(project.assembly!.joints['j1']!.b.placement).toBe('pg/p2');
  expect(project.assembly!.traces['t1']!.placement).toBe('pg/p3');
  expect(project.assembly!.ratios).toEqual({});
  expect(loadProject(structuredClone(project)).ok).toBe(true);
});

test('a part taken out of a group takes the joints from outside with it', () => {
  const { project } = chain()
    .do('group.gather', { id: 'g1', name: 'Pair', placement: 'pg', of: ['p2', 'p3'] })
    .do('placement.remove', { group: 'g1', ids: ['p2'] });
  expect(project.assembly!.joints).toEqual({});
  expect(loadProject(structuredClone(project)).ok).toBe(true);
});

test('what can not be is refused in a sentence', () => {
  const script = chain();
  expect(refused(script, { command: 'joint.add', input: { id: 'j3', record: joint('p1', 'p1') } })).toMatch(
    /two placements that can move/,
  );
  expect(refused(script, { command: 'joint.add', input: { id: 'j3', record: joint('p1', 'gone') } })).toMatch(
    /placement that is not there/,
  );
  // a word of the language is no placement
  expect(refused(script, { command: 'joint.add', input: { id: 'j3', record: joint('p1', 'constructor') } })).toMatch(
    /placement that is not there/,
  );
  expect(
    refused(script, { command: 'joint.set', input: { id: 'j1', fields: { limits: { slide: { least: '1 mm' } } } } }),
  ).toMatch(/revolute: it has no slide/);
  expect(
    refused(script, {
      command: 'ratio.set',
      input: { id: 'r1', fields: { second: { joint: 'j1', coordinate: 'turn' } } },
    }),
  ).toMatch(/ties a joint to itself/);
  expect(
    refused(script, { command: 'placement.add', input: { id: 'p9', record: placementOf('X', { part: 'none' }) } }),
  ).toMatch(/places is not there/);
});

test('groups that hold themselves are refused with the names of the loop', () => {
  const script = chain()
    .do('group.add', { id: 'g1', name: 'Inner' })
    .do('group.add', { id: 'g2', name: 'Outer' })
    .do('placement.add', { group: 'g2', id: 'p1', record: placementOf('In', { group: 'g1', stiff: true }) });
  const back: Action = {
    command: 'placement.add',
    input: { group: 'g1', id: 'p1', record: placementOf('Out', { group: 'g2', stiff: true }) },
  };
  expect(refused(script, back)).toMatch(/Inner holds Outer holds Inner|Outer holds Inner holds Outer/);
});

test('numbers of placements and joints are found, renamed and set like all others', () => {
  const { project } = chain().do('value.rename', { id: 'v1', name: 'clearance' });
  expect(project.assembly!.joints['j1']!.offset).toBe('clearance');
  const places = placedExpressions(project).filter(({ path }) => path[0] === 'assembly');
  // 3 placements with six numbers each, 2 joints with two, a ratio
  expect(places).toHaveLength(23);
  expect(places.find(({ path }) => path.join('/') === 'assembly/joints/j1/offset')?.label).toBe('Hinge · offset');
  const set = chain().do('expression.set', {
    path: ['assembly', 'placements', 'p2', 'at', 'y'],
    expression: 'gap * 4',
  });
  expect(set.project.assembly!.placements['p2']!.at).toEqual({ x: '0 mm', y: 'gap * 4', z: '0 mm' });
});

test('fields are set and taken away', () => {
  const script = chain().do('joint.set', { id: 'j1', fields: { rest: { turn: '30 deg' }, flip: true } });
  expect(script.project.assembly!.joints['j1']).toMatchObject({ rest: { turn: '30 deg' }, flip: true });
  script.do('joint.set', { id: 'j1', fields: {}, without: ['rest', 'name'] });
  expect(script.project.assembly!.joints['j1']).not.toHaveProperty('rest');
  // what it can not be without stays
  expect(script.project.assembly!.joints['j1']!.name).toBe('Hinge');
});

test('an id is used once in an assembly: findings are told by it', () => {
  expect(refused(chain(), { command: 'joint.add', input: { id: 'p3', record: joint('p1', 'p3') } })).toMatch(
    /id p3 is used already/,
  );
});

test('what a group can not take along is said', () => {
  const done = perform(chain().project, [
    { command: 'group.gather', input: { id: 'g1', name: 'Pair', placement: 'pg', of: ['p2', 'p3'] } },
  ]);
  expect(done.ok && done.value.change.label).toBe('Make the group Pair, without Gears');
});

test('placements that are called as their part follow its name, counted or not; others and taken names stay', () => {
  const script = new ProjectScript('Names')
    .do('part.add', { id: 'bar', name: 'Bar' })
    .do('part.add', { id: 'pin', name: 'Pin' });
  for (const [id, name, part] of [
    ['p1', 'Bar', 'bar'],
    ['p2', 'Bar 2', 'bar'],
    ['p3', 'Barrier', 'bar'],
    ['p4', 'Bar 4', 'pin'],
    ['p5', 'Rail 2', 'pin'],
  ] as const)
    script.do('placement.add', { id, record: placementOf(name, { part }, false) });
  script.do('part.rename', { id: 'bar', name: 'Rail' });
  const { placements } = script.project.assembly!;
  expect(Object.values(placements).map(({ name }) => name)).toEqual(['Rail', 'Bar 2', 'Barrier', 'Bar 4', 'Rail 2']);
});

test('a gesture is called by what it is for, not by what it names for that', () => {
  const project = new ProjectScript('Names').do('part.add', { id: 'bar', name: 'Bar' }).project;
  const value: Action = { command: 'value.add', input: { id: 'v', name: 'wide', expression: '4 mm' } };
  const labelOf = (...actions: Action[]) => {
    const done = perform(project, actions);
    return done.ok && done.value.change.label;
  };
  expect(labelOf(value, { command: 'part.rename', input: { id: 'bar', name: 'Rail' } })).toBe('Rename part to Rail');
  expect(labelOf(value)).toContain('wide');
});
