/** @jest-environment jsdom */
import { nextTick } from 'vue';
import { ProjectScript, type Id, type RigidTransform, coordinateKey } from '@helb/core';
import { drive, triple, type JointRecord } from '@helb/core/assembly';
import { useHandle } from './handle.ts';

import type { MemberPick } from '../view/placed-picks.ts';
import { face, pick, rim, testBench as bench } from './test-bench.ts';

test('it asks for one thing after the other, and is shown before it is kept', () => {
  const { joining, store, acted, project } = bench();
  joining.begin('joint', 'revolute');
  expect(joining.asked).toBe(0);
  joining.answer(pick('f', 'z'));
  expect(joining.asked).toBe(1);
  // nothing more of the same placement
  expect(joining.accepts(pick('f', 'x'))).toBe(false);
  joining.answer(pick('a', 'z'));
  expect(joining.asked).toBeUndefined();
  expect(Object.values(store.project!.assembly!.joints)).toHaveLength(1);
  expect(project().assembly!.joints).toEqual({});
  joining.accept();
  expect(joining.draft).toBeUndefined();
  expect(acted.map(({ command }) => command)).toEqual(['joint.add']);
  expect(Object.values(project().assembly!.joints)[0]).toMatchObject({
    name: 'Revolute 1',
    kind: 'revolute',
    a: { placement: 'f', on: { to: 'origin', name: 'z' }, spot: 'middle' },
    b: { placement: 'a', on: { to: 'origin', name: 'z' }, spot: 'middle' },
    flip: false,
  });
});

test('begun with what is picked it takes one thing of each of two placements', () => {
  const { joining, assemblyStore } = bench();
  assemblyStore.picked = [pick('a', 'x'), pick('a', 'y'), pick('l', 'x')];
  joining.begin('joint', 'prismatic');
  expect(joining.draft!.sides.map((side) => side?.placement)).toEqual(['a', 'l']);
  expect(assemblyStore.picked).toEqual([]);
});

test('what is picked once both are chosen takes them and begins another; what does not hold is told first', () => {
  const { joining, project, show } = bench();
  const kept = () => Object.values(project().assembly!.relations).map(({ kind }) => kind);
  joining.begin('relation', 'coincident');
  joining.answer(pick('f', 'z'));
  joining.answer(pick('a', 'z'));
  // of any placement, also of those two
  expect(joining.accepts(pick('f', 'z'))).toBe(true);
  joining.change({ kind: 'parallel' });
  joining.answer(pick('f', 'z'));
  expect(kept()).toEqual(['parallel']);
  expect([joining.asked, joining.draft!.kind]).toEqual([1, 'coincident']);
  expect(joining.draft!.sides[0]).toMatchObject({ placement: 'f' });
  joining.answer(pick('a', 'z'));
  joining.change({ kind: 'perpendicular' });
  show();
  expect(joining.wrong).toMatch(/fights with/);
  joining.answer(pick('l', 'x'));
  expect(kept()).toEqual(['parallel']);
  expect(joining.draft).toMatchObject({ kind: 'perpendicular', sides: [{ placement: 'f' }, { placement: 'a' }] });
});

test('flat faces that look the same way are taken to end flush, those that look at each other to meet; a key turns that', () => {
  const { joining } = bench();
  const related = (normal: readonly [number, number, number]) => {
    joining.begin('relation', 'coincident');
    joining.answer(face('f', [0, 0, 1]));
    expect(joining.turned).toBeUndefined();
    joining.answer(face('a', normal));
    return joining.draft!.kind;
  };
  expect(related([0, 0, -1])).toBe('coincident');
  expect(related([0, 0, 1])).toBe('flush');
  expect(joining.turned).toEqual({ kind: 'coincident' });
  joining.change(joining.turned!);
  expect([joining.draft!.kind, joining.turned]).toEqual(['coincident', { kind: 'flush' }]);
  // what was asked for by its name stays that
  joining.begin('relation', 'parallel');
  joining.answer(face('f', [0, 0, 1]));
  joining.answer(face('a', [0, 0, 1]));
  expect([joining.draft!.kind, joining.turned]).toEqual(['parallel', undefined]);
  joining.begin('joint', 'revolute');
  joining.answer(pick('f', 'z'));
  joining.answer(pick('a', 'z'));
  expect(joining.turned).toEqual({ flip: true });
});

test('one key goes through all the ways in which a joint may stand, where it holds how it is turned', () => {
  const { joining } = bench();
  const ways = (kind: 'rigid' | 'revolute', angle = '0 deg') => {
    joining.begin('joint', kind);
    joining.answer(face('f', [0, 0, 1]));
    joining.answer(face('a', [0, 0, -1]));
    joining.change({ angle });
    return Array.from({ length: 8 }, () => {
      joining.change(joining.turned!);
      return `${joining.draft!.flip ? 'against' : 'along'} ${joining.draft!.angle}`;
    });
  };
  expect(new Set(ways('rigid')).size).toBe(8);
  expect(ways('rigid').at(-1)).toBe('against 0 deg');
  expect(new Set(ways('revolute'))).toEqual(new Set(['along 0 deg', 'against 0 deg']));
  // what was typed stays
  expect(new Set(ways('rigid', 'lean'))).toEqual(new Set(['along lean', 'against lean']));
});

test('what is typed aside goes into the joint', () => {
  const { joining, project } = bench();
  joining.begin('joint', 'rigid');
  joining.answer(pick('f', 'z'));
  joining.answer(pick('a', 'z'));
  joining.change({ aside: ['4 mm', '0 mm'] });
  joining.accept();
  expect(Object.values(project().assembly!.joints).at(-1)).toMatchObject({ aside: ['4 mm', '0 mm'] });
  joining.begin('joint', 'rigid');
  joining.answer(pick('f', 'z'));
  joining.answer(pick('a', 'z'));
  expect(joining.frames).toHaveLength(2);
  joining.accept();
  expect(Object.values(project().assembly!.joints).at(-1)).not.toHaveProperty('aside');
});

test('a number over two faces keeps them so far apart, on the side where they are; a key puts them on the other', () => {
  const { joining } = bench();
  joining.begin('relation', 'coincident');
  joining.answer(face('f', [0, 0, 1], 10));
  expect(joining.beginNumber()).toBe(false);
  // the second lies behind the first: it is measured from there, so that the number counts forwards
  joining.answer(face('a', [0, 0, 1], 4));
  expect(joining.beginNumber()).toBe(true);
  const forwards = { kind: 'distance', sides: [{ placement: 'a' }, { placement: 'f' }] };
  expect(joining.draft).toMatchObject(forwards);
  // by its name it is the same, and however often it is changed
  joining.change({ kind: 'flush' });
  joining.change({ kind: 'distance' });
  expect(joining.draft).toMatchObject(forwards);
  joining.change({ amount: '14' });
  expect(joining.turned).toEqual({ amount: '-14' });
  joining.change(joining.turned!);
  expect(joining.turned).toEqual({ amount: '14' });
  for (const [before, after] of [
    ['a + 3', '-(a + 3)'],
    ['-(a + 3)', 'a + 3'],
    ['108 + 3', '-(108 + 3)'],
    ['-(a) + (b)', '-(-(a) + (b))'],
  ] as const) {
    joining.change({ amount: before });
    expect(joining.turned).toEqual({ amount: after });
  }
  joining.begin('joint', 'revolute');
  joining.answer(pick('f', 'z'));
  joining.answer(pick('a', 'z'));
  expect([joining.beginNumber(), joining.draft!.kind]).toEqual([true, 'revolute']);
});

test('an axis that stands square on a face is to do so; one that lies along it is to lie in it', () => {
  const { joining } = bench();
  const related = (axis: 'x' | 'z') => {
    joining.begin('relation', 'coincident');
    joining.answer(pick('f', axis));
    joining.answer(pick('a', 'top'));
    return joining.draft!.kind;
  };
  expect(related('z')).toBe('perpendicular');
  expect(related('x')).toBe('coincident');
});

test('two rims come to lie on each other, a rim and a bare axis only in line', () => {
  const { joining } = bench();
  const related = (one: MemberPick, other: MemberPick) => {
    joining.begin('relation', 'coincident');
    joining.answer(one);
    joining.answer(other);
    return joining.draft!.kind;
  };
  expect(related(rim('f'), rim('a'))).toBe('seated');
  expect(related(rim('f'), pick('a', 'z'))).toBe('coincident');
});

test('of two that stand still the one that was placed later goes to the other, and says so', () => {
  const { joining, store, acted } = bench();
  const hold = (id: Id) => store.act([{ command: 'placement.set', input: { id, fields: { held: true } } }]);
  hold('f');
  hold('a');
  acted.length = 0;
  joining.begin('relation', 'parallel');
  joining.answer(pick('a', 'z'));
  expect(joining.loosened).toBeUndefined();
  joining.answer(pick('f', 'z'));
  expect(joining.loosened).toBe('a');
  joining.accept();
  expect(acted.map(({ command }) => command)).toEqual(['placement.set', 'assembly-relation.add']);
  expect(acted[0]!.input).toEqual({ id: 'a', fields: { held: false } });
  // one that is free already goes by itself
  joining.begin('relation', 'parallel');
  joining.answer(pick('a', 'x'));
  joining.answer(pick('f', 'x'));
  expect(joining.loosened).toBeUndefined();
});

test('what stands still goes to what is held by others, if it came later; the first one stays', () => {
  const loosenedWith = (more: Parameters<typeof bench>[0], one: Id, other: Id) => {
    const { joining, store } = bench(more);
    for (const id of ['f', 'l']) store.act([{ command: 'placement.set', input: { id, fields: { held: true } } }]);
    joining.begin('relation', 'parallel');
    joining.answer(pick(one, 'z'));
    joining.answer(pick(other, 'z'));
    return joining.loosened;
  };
  expect(loosenedWith(undefined, 'l', 'a')).toBeUndefined();
  const fast = (script: ProjectScript) =>
    script.do('joint.add', { id: 'j', record: { ...hinge('f', 'a'), kind: 'rigid' } });
  expect(loosenedWith(fast, 'l', 'a')).toBe('l');
  expect(loosenedWith(fast, 'a', 'l')).toBe('l');
  expect(loosenedWith(fast, 'f', 'a')).toBeUndefined();
  // led by others it moves still: what is joined to it moves with it
  const led = (script: ProjectScript) => script.do('joint.add', { id: 'j', record: hinge('f', 'a') });
  expect(loosenedWith(led, 'l', 'a')).toBe('l');
});

test('of two that stand still and are joined where they are the later one is let go too: else nothing would move', () => {
  const { joining, store, acted } = bench();
  for (const id of ['f', 'a']) store.act([{ command: 'placement.set', input: { id, fields: { held: true } } }]);
  acted.length = 0;
  joining.begin('joint', 'revolute');
  joining.change({ keep: true });
  joining.answer(pick('f', 'top'));
  joining.answer(pick('a', 'origin', 'body'));
  expect(joining.loosened).toBe('a');
  joining.accept();
  expect(acted.map(({ command }) => command)).toEqual(['placement.set', 'joint.add']);
});

test('kept where it is the second needs nothing of its own', () => {
  const { joining, project } = bench();
  joining.begin('joint', 'rigid');
  joining.answer(pick('f', 'top'));
  const whole = pick('a', 'origin', 'body');
  expect(joining.accepts(whole)).toBe(false);
  joining.change({ keep: true });
  expect(joining.accepts(whole)).toBe(true);
  joining.answer(whole);
  joining.accept();
  expect(Object.values(project().assembly!.joints)[0]!.b).toEqual({ placement: 'a' });
});

test('another that is begun with the next pick keeps things where they are too', () => {
  const { joining, project } = bench();
  joining.begin('joint', 'revolute');
  joining.change({ keep: true });
  joining.answer(pick('f', 'z'));
  joining.answer(pick('a', 'origin', 'body'));
  joining.answer(pick('f', 'x'));
  expect(Object.keys(project().assembly!.joints)).toHaveLength(1);
  expect(joining.draft).toMatchObject({ kind: 'revolute', keep: true });
  expect(joining.accepts(pick('l', 'origin', 'body'))).toBe(true);
});

test('what is missing is asked for in words, and nothing is kept', () => {
  const { joining, store, acted } = bench();
  joining.begin('relation', 'parallel');
  joining.accept();
  expect(store.message).toMatch(/Choose the first/);
  joining.answer(pick('f', 'top'));
  joining.accept();
  expect(store.message).toMatch(/Choose the second/);
  expect(acted).toEqual([]);
  joining.drop(0);
  expect(joining.asked).toBe(0);
  joining.leave();
  expect(store.project).toBe(store.kept);
});

test('repeats are not joined: the first of them is', () => {
  const { joining } = bench();
  joining.begin('joint', 'rigid');
  expect(joining.accepts(pick('a:2', 'top'))).toBe(false);
  expect(joining.accepts(pick('a', 'top'))).toBe(true);
});

describe('put here for good', () => {
  const hinge: JointRecord = {
    name: 'Hinge',
    kind: 'revolute',
    a: { placement: 'f', on: { to: 'origin', name: 'z' }, spot: 'middle' },
    b: { placement: 'a' },
    flip: false,
    offset: '0 mm',
    angle: '0 deg',
    rest: { turn: '0 deg' },
  };

  test.each([
    ['what is held as drawn counts from where it is drawn now', hinge, '0 deg'],
    ['what was brought together counts from its frames', { ...hinge, b: { ...hinge.a, placement: 'a' } }, '90 deg'],
  ])('numbers that have not changed stay as typed; %s', (_, record, rest) => {
    const { assemblyStore, placements, project } = bench((script) => script.do('joint.add', { id: 'j', record }));
    const before = assemblyStore.assembled!;
    const [from] = [before.rest.poses[1]!];
    assemblyStore.moved = drive(
      before.mechanism,
      before.rest,
      new Map([[coordinateKey('j', 'turn'), Math.PI / 2]]),
    ).pose;
    const moved = assemblyStore.moved.poses[1]!;
    expect(moved).not.toEqual(from);
    placements.putHere(['a']);
    expect(assemblyStore.moved).toBeUndefined();
    const { at, turn } = project().assembly!.placements['a']!;
    expect(at.z).toBe('0');
    expect([turn.x, turn.y, turn.z]).toEqual(['0 deg', '0 deg', '90 deg']);
    expect(project().assembly!.joints['j']!.rest).toEqual({ turn: rest });
    assemblyStore.pose!.poses[1]!.forEach((row, r) => row.forEach((c, k) => expect(c).toBeCloseTo(moved[r]![k]!, 6)));
  });

  test('not offered for groups, whose place is told by numbers alone', () => {
    const { placements } = bench((script) =>
      script.do('group.gather', { id: 'g', name: 'Pair', placement: 'p', of: ['a', 'l'] }),
    );
    expect(placements.canPut(['f'])).toBe(true);
    expect(placements.canPut(['f', 'p'])).toBe(false);
  });
});

test('a placement is named so that no two are called the same; the first of a project stands still', async () => {
  const { placements, project } = bench();
  await placements.place({ part: 'lid' }, 'Lid');
  const added = Object.values(project().assembly!.placements).at(-1)!;
  expect(added).toMatchObject({ name: 'Lid 2', held: false });
});

describe('the handle', () => {
  const shift = (x: number): RigidTransform => [
    [1, 0, 0, x],
    [0, 1, 0, 0],
    [0, 0, 1, 0],
  ];
  const held = async (member: Id, more?: Parameters<typeof bench>[0]) => {
    const all = bench(more);
    const handle = useHandle();
    all.assemblyStore.picked = [pick(member, 'z')];
    await nextTick();
    handle.toggle(member);
    return { ...all, handle };
  };

  test('what it is drawn to is shown, and becomes the numbers of the placement; others stay as they are typed', async () => {
    const { handle, assemblyStore, acted } = await held('a');
    handle.follow(shift(3));
    handle.follow(shift(5));
    expect(assemblyStore.memberPoses.get('a')![0][3]).toBeCloseTo(45, 9);
    expect(acted).toEqual([]);
    handle.letGo(shift(5));
    const fields = { at: triple('45 mm', '0', '0'), turn: triple('0 deg', '0 deg', '0 deg') };
    expect(acted).toEqual([{ command: 'placement.set', input: { id: 'a', fields } }]);
    expect(assemblyStore.moved).toBeUndefined();
  });

  test('something else chosen on the way leaves all as it was', async () => {
    const { handle, assemblyStore, acted } = await held('a');
    handle.follow(shift(5));
    assemblyStore.picked = [];
    await nextTick();
    expect([handle.on, assemblyStore.moved]).toEqual([undefined, undefined]);
    handle.letGo(shift(5));
    expect(acted).toEqual([]);
  });

  test('what is joined to others can not have it', async () => {
    const { handle } = await held('a', (script) => script.do('joint.add', { id: 'j', record: hinge('f', 'a') }));
    expect([handle.canHave('a'), handle.canHave('l')]).toEqual([false, true]);
  });
});

const hinge = (a: Id, b: Id): JointRecord => ({
  ...{ name: 'Hinge', kind: 'revolute', flip: false, offset: '0 mm', angle: '0 deg' },
  a: { placement: a, on: { to: 'origin', name: 'z' }, spot: 'middle' },
  b: { placement: b, on: { to: 'origin', name: 'z' }, spot: 'middle' },
});
