import fc from 'fast-check';
import { placementOf, restPose, restPoses, triple, type JointRecord, type Surroundings } from '../assembly/index.ts';
import { valueScope } from '../expressions/index.ts';
import type { RigidTransform } from '../math/index.ts';
import { ORIGIN_DATUMS } from '../references/index.ts';
import { fail, ok } from '../result/index.ts';
import { explain } from '../wording/index.ts';
import { loadProject, perform, ProjectScript, type Action, type Project } from './index.ts';

/** Parts have no bodies here: only what every part has can be joined. */
const around = ({ values, unit, groups = {} }: Project): Surroundings => ({
  scope: valueScope(Object.values(values), unit),
  groups,
  find: (_, on) => (on.to === 'origin' ? ok({ to: 'datum', datum: ORIGIN_DATUMS[on.name] }) : fail('reference.alone')),
  sizeOf: () => 40,
  restPose,
});
const poses = (project: Project) => restPoses(project.assembly!, around(project));
const near = (is: RigidTransform | undefined, was: RigidTransform | undefined) => {
  expect(is).toBeDefined();
  is!.forEach((row, r) => row.forEach((c, k) => expect(c).toBeCloseTo(was![r]![k]!, 6)));
};
const did = (project: Project, ...actions: Action[]): Project => {
  const done = perform(project, actions);
  if (!done.ok) throw new Error(explain(done.issue));
  expect(loadProject(JSON.parse(JSON.stringify(done.value.project)))).toMatchObject({ ok: true });
  return done.value.project;
};
const gather: Action = { command: 'group.gather', input: { id: 'g', name: 'Pair', placement: 'pg', of: ['b', 'c'] } };
const dissolve = (placement: string): Action => ({ command: 'group.dissolve', input: { placement } });

const turning = (a: string, b: string, x: string): JointRecord => ({
  ...{ name: `${a} on ${b}`, kind: 'revolute', flip: false, offset: x, angle: '0 deg' },
  a: { placement: a, on: { to: 'origin', name: 'z' }, spot: 'middle' },
  b: { placement: b, on: { to: 'origin', name: 'z' }, spot: 'middle' },
});

/** Four of a part: the first held, joined in a chain, the last in a row of three. */
function four(at = triple('gap * 2', '5 mm', '0 mm'), turn = triple('0 deg', '0 deg', '0 deg')) {
  const script = new ProjectScript('Four')
    .do('value.add', { id: 'v', name: 'gap', expression: '12 mm' })
    .do('part.add', { id: 'x', name: 'X' });
  for (const id of ['a', 'b', 'c', 'd'])
    script.do('placement.add', { id, record: { ...placementOf(id, { part: 'x' }, id === 'a'), at, turn } });
  return script
    .do('joint.add', { id: 'ab', record: turning('a', 'b', '4 mm') })
    .do('joint.add', { id: 'bc', record: turning('b', 'c', 'gap') })
    .do('joint.add', { id: 'cd', record: turning('c', 'd', '-3 mm') })
    .do('ratio.add', {
      id: 'r',
      record: {
        ...{ name: 'Geared', factor: '-2' },
        ...{ first: { joint: 'bc', coordinate: 'turn' }, second: { joint: 'cd', coordinate: 'turn' } },
      },
    })
    .do('trace.add', { id: 't', record: { name: 'T', placement: 'c', on: { to: 'origin', name: 'z' } } })
    .do('pair.press', { id: 'q', pair: { a: 'b', b: 'c' } });
}

test('gathered and taken apart again, all is as it was but for the ties of inside and outside', () => {
  const before = four().project;
  const after = did(did(before, gather), dissolve('pg'));
  expect(after.groups).toEqual({});
  const { ratios, ...same } = before.assembly!;
  expect(Object.keys(ratios)).toEqual(['r']);
  expect(after.assembly).toEqual({ ...same, ratios: {} });
});

test('what stands in a group that is turned and shifted stays where it is', () => {
  const angle = fc.integer({ min: -170, max: 170 });
  const shift = fc.integer({ min: -50, max: 50 });
  fc.assert(
    fc.property(fc.tuple(angle, angle, angle), fc.tuple(shift, shift, shift), (turns, shifts) => {
      const [at, turn] = [shifts.map((n) => `${n} mm`), turns.map((n) => `${n} deg`)];
      const [x, y] = [triple(...(at as [string, string, string])), triple(...(turn as [string, string, string]))];
      const grouped = did(four(x, y).project, gather, {
        command: 'placement.set',
        input: { id: 'pg', fields: { at: x, turn: y } },
      });
      // where the group itself stands nothing tells but its own numbers: the joints to the outside are taken away
      const loose = did(grouped, { command: 'joint.remove', input: { ids: ['ab', 'cd'] } });
      const [was, is] = [poses(loose), poses(did(loose, dissolve('pg')))];
      near(is.get('b'), was.get('pg/b'));
      near(is.get('c'), was.get('pg/c'));
      near(is.get('d'), was.get('d'));
    }),
    { numRuns: 30 },
  );
});

test('expressions stay as they are typed where the group is not turned', () => {
  const set: Action = {
    command: 'placement.set',
    input: { id: 'pg', fields: { at: triple('gap', '0 mm', '-gap / 2') } },
  };
  const { placements } = did(did(four().project, gather), set, dissolve('pg')).assembly!;
  expect(placements['b']!.at).toEqual(triple('gap + gap * 2', '5 mm', '-gap / 2'));
});

test('a group that is placed twice is taken apart in one place: it goes on in the other, ids are free ones', () => {
  const again: Action = {
    command: 'placement.add',
    input: {
      id: 'p2',
      record: { ...placementOf('Again', { group: 'g', stiff: false }), at: triple('0 mm', '9 mm', '0 mm') },
    },
  };
  const twice = did(four().project, gather, again);
  const was = poses(twice);
  const once = did(twice, dissolve('pg'));
  expect(Object.keys(once.groups!)).toEqual(['g']);
  const none = did(once, dissolve('p2'));
  expect(none.groups).toEqual({});
  const { placements, joints } = none.assembly!;
  expect(Object.keys(placements).sort()).toEqual(['a', 'b', 'b-2', 'c', 'c-2', 'd']);
  expect(joints['bc-2']).toMatchObject({ a: { placement: 'b-2' }, b: { placement: 'c-2' } });
  const is = poses(none);
  near(is.get('b'), was.get('pg/b'));
  near(is.get('b-2'), was.get('p2/b'));
  near(is.get('c-2'), was.get('p2/c'));
});

test('in a turned group what stands in a row goes on the way that the group looks', () => {
  const row = { layout: 'line', count: '3', by: triple('gap', '0 mm', '0 mm') } as const;
  const quarter = triple('0 deg', '0 deg', '90 deg');
  const project = did(
    four().project,
    gather,
    { command: 'joint.remove', input: { ids: ['ab', 'cd'] } },
    { command: 'joint.remove', input: { group: 'g', ids: ['bc'] } },
    { command: 'placement.set', input: { id: 'pg', fields: { turn: quarter } } },
    { command: 'placement.set', input: { group: 'g', id: 'c', fields: { repeat: row } } },
  );
  const [was, is] = [poses(project), poses(did(project, dissolve('pg')))];
  expect(was.get('pg/c:3')![1][3] - was.get('pg/c')![1][3]).toBeCloseTo(24, 6);
  for (const copy of ['c', 'c:2', 'c:3']) near(is.get(copy), was.get(`pg/${copy}`));
});

test('free ids are free of each other too', () => {
  const named: Action = {
    command: 'placement.add',
    input: { group: 'g', id: 'b-2', record: placementOf('X', { part: 'x' }) },
  };
  const other: Action = { command: 'placement.add', input: { id: 'b', record: placementOf('Y', { part: 'x' }) } };
  const { placements } = did(four().project, gather, named, other, dissolve('pg')).assembly!;
  expect(Object.entries(placements).map(([id, { name }]) => `${id} ${name}`)).toEqual(
    expect.arrayContaining(['b Y', 'b-2 b', 'b-2-2 X']),
  );
});

test('groups in groups: the inner one stays, and what reaches into it follows', () => {
  const outer: Action = { command: 'group.gather', input: { id: 'h', name: 'All', placement: 'ph', of: ['pg', 'd'] } };
  const nested = did(four().project, gather, outer);
  expect(nested.assembly!.joints['ab']!.b.placement).toBe('ph/pg/b');
  const was = poses(nested);
  const after = did(nested, dissolve('ph'));
  expect(Object.keys(after.groups!)).toEqual(['g']);
  expect(after.assembly!.joints['ab']!.b.placement).toBe('pg/b');
  near(poses(after).get('pg/c'), was.get('ph/pg/c'));
});

test('held stays what is held in a group that is held', () => {
  const held = did(four().project, {
    command: 'group.gather',
    input: { id: 'g', name: 'G', placement: 'pg', of: ['a', 'b'] },
  });
  expect(did(held, dissolve('pg')).assembly!.placements['a']!.held).toBe(true);
  const free: Action = { command: 'placement.set', input: { id: 'pg', fields: { held: false } } };
  expect(did(held, free, dissolve('pg')).assembly!.placements['a']!.held).toBe(false);
});

test('a part, a group that stands several times, and what is nowhere are refused in words', () => {
  const row = { layout: 'line', count: '2', by: triple('9 mm', '0 mm', '0 mm') } as const;
  const repeated = did(four().project, gather, {
    command: 'placement.set',
    input: { id: 'pg', fields: { repeat: row } },
  });
  const refused = (project: Project, id: string) => {
    const done = perform(project, [dissolve(id)]);
    return done.ok ? 'done' : explain(done.issue);
  };
  expect(refused(repeated, 'pg')).toBe('"Pair" stands several times: let it stand once first.');
  expect(refused(repeated, 'a')).toBe('"a" is a part, not a group: there is nothing to take apart.');
  expect(refused(repeated, 'z')).toBe('This placement is not there any more.');
});

test('studies go with what they drive and show, into groups and out of them, and lose only what is gone: that is told', () => {
  const end = (joint: string) => ({ joint, coordinate: 'turn' as const });
  const before = four().do('study.add', {
    id: 'st',
    study: {
      name: 'Round',
      drives: [
        { ...end('bc'), from: '0 deg', to: 'gap * 10 deg / 1 mm' },
        { ...end('ab'), from: '0 deg', to: '90 deg' },
      ],
      ...{ law: 'even', seconds: '2', steps: '10', touching: false },
      charts: {
        one: { of: 'ratio', first: end('ab'), second: end('bc') },
        two: { of: 'distance', a: 'b', b: 'd' },
        three: { of: 'point', trace: 't', shown: 'speed' },
      },
    },
  }).project;
  const gathered = did(before, gather);
  const { drives, charts } = gathered.studies!['st']!;
  expect(drives.map(({ joint }) => joint)).toEqual(['pg/bc', 'ab']);
  expect(charts).toMatchObject({ one: { first: end('ab'), second: end('pg/bc') }, two: { a: 'pg/b', b: 'd' } });
  const apart = did(gathered, dissolve('pg'));
  expect(apart.studies).toEqual(before.studies);

  const words = (project: Project, action: Action): string => {
    const done = perform(project, [action]);
    return done.ok ? done.value.change.label : explain(done.issue);
  };
  const without: Action = { command: 'joint.remove', input: { ids: ['bc'] } };
  expect(words(before, without)).toBe('Remove b on c with Geared, what Round drives there, what Round shows of it');
  const less = did(before, without).studies!['st']!;
  expect(less.drives.map(({ joint }) => joint)).toEqual(['ab']);
  expect(Object.keys(less.charts)).toEqual(['two', 'three']);
  // a joint that does not move any more is not driven
  const rigid: Action = { command: 'joint.set', input: { id: 'ab', fields: { kind: 'rigid' } } };
  expect(words(did(before, without), rigid)).toBe('Change a on b and remove Round');
  expect(did(before, without, rigid).studies).toEqual({});
  const named: Action = { command: 'value.rename', input: { id: 'v', name: 'way' } };
  expect(did(before, named).studies!['st']!.drives[0]!.to).toBe('way * 10 deg / 1 mm');
});
