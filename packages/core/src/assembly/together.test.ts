import { coordinateKey } from '../naming/index.ts';
import {
  compose,
  transformPoint,
  translation,
  IDENTITY,
  rotation,
  transformDirection,
  inverse,
  type RigidTransform,
  type Vec3,
} from '../math/index.ts';
import {
  drive,
  emptyAssembly,
  Grab,
  isBranching,
  memberPose,
  triple,
  type Assembled,
  type Assembly,
  type Group,
  type Pose,
  type RelationRecord,
} from './index.ts';
import { assembled, joint, on, placed } from './test-fixture.ts';

// What a stranger does with parts that hang together: lets go, drives, repeats, changes a size.

const poseOf = (all: Assembled, id: string, pose: Pick<Pose, 'poses'> = all.rest): RigidTransform =>
  memberPose(
    all.members.find((member) => member.id === id)!,
    pose,
  );
const near = (place: Vec3, expected: Vec3, digits = 7) =>
  place.forEach((c, k) => expect(c).toBeCloseTo(expected[k]!, digits));
const same = (pose: RigidTransform, expected: RigidTransform, digits = 7) =>
  pose.forEach((row, r) => row.forEach((c, k) => expect(c).toBeCloseTo(expected[r]![k]!, digits)));
const turnDeg = (degrees: number): number => (degrees * Math.PI) / 180;

const origin = (name: string) => ({ to: 'origin', name }) as RelationRecord['a']['on'];
const relation = (
  kind: RelationRecord['kind'],
  [a, fa]: [string, string],
  [b, fb]: [string, string],
  more: Partial<RelationRecord> = {},
): RelationRecord => ({
  name: kind,
  kind,
  a: { placement: a, on: origin(fa) },
  b: { placement: b, on: origin(fb) },
  ...more,
});

describe('a group that moves inside', () => {
  /** Two fronts and a side: one front held by relations, drawn far from where they bring it; a hinge. */
  const box: Group = {
    name: 'Box',
    ...emptyAssembly(),
    placements: {
      side: placed(undefined, { held: true }),
      front: placed(triple('31', '-8', '4')),
      lid: placed(triple('-3', '50', '2'), { turn: triple('0', '0', '25 deg') }),
    },
    relations: {
      one: relation('coincident', ['side', 'top'], ['front', 'top'], { facing: 'along' }),
      two: relation('distance', ['side', 'right'], ['front', 'right'], { amount: '12 mm' }),
      three: relation('flush', ['side', 'front'], ['front', 'front'], { facing: 'along' }),
    },
    joints: { hinge: joint('revolute', on('side', 'at-20'), on('lid', 'at-0'), { rest: { turn: '15 deg' } }) },
  };
  const using = (held: boolean, more = {}) =>
    assembled(
      { placements: { g: placed(triple('100', '20', '0'), { of: { group: 'box', stiff: false }, held, ...more }) } },
      { box },
    );

  test('stands as the group stands, held or let go', () => {
    const inside = assembled(box);
    expect(inside.rest.fulfilled).toBe(true);
    near(transformPoint(poseOf(inside, 'front'), [0, 0, 0]), [12, 0, 0]);
    for (const held of [true, false]) {
      const all = using(held);
      expect(all.issues).toEqual(new Map());
      for (const id of ['side', 'front', 'lid'])
        same(poseOf(all, `g/${id}`), compose(poseOf(inside, id), translation([100, 20, 0])));
    }
  });

  test.each([
    ['in a row', { layout: 'line', count: '3', by: triple('0', '60', '0') }, translation([0, 60, 0])],
    [
      'round an axis',
      { layout: 'round', count: '4', over: '360 deg', about: { placement: 'axis', on: origin('z') } },
      rotation([0, 0, 0], [0, 0, 1], Math.PI / 2),
    ],
  ] as const)('its copies %s do what it does', (_, repeat, by) => {
    const all = assembled(
      {
        placements: {
          axis: placed(undefined, { held: true }),
          g: placed(triple('100', '20', '0'), {
            of: { group: 'box', stiff: false },
            held: true,
            repeat: repeat as never,
          }),
        },
      },
      { box },
    );
    const hinge = coordinateKey('g/hinge', 'turn');
    const { pose, arrived } = drive(all.mechanism, all.rest, new Map([[hinge, turnDeg(110)]]));
    expect(arrived).toBe(true);
    for (const at of [all.rest, pose])
      for (const id of ['side', 'front', 'lid'])
        same(poseOf(all, `g:2/${id}`, at), compose(poseOf(all, `g/${id}`, at), by));
    // the hinge of the copy stands still as well
    near(
      transformPoint(poseOf(all, 'g:2/lid', pose), [0, 0, 0]),
      transformPoint(poseOf(all, 'g:2/lid', all.rest), [0, 0, 0]),
    );
    // and a copy is the same when its group is let go and carried elsewhere
    const loose = using(false, { repeat: { layout: 'line', count: '2', by: triple('0', '60', '0') } });
    const carried = new Grab(loose.mechanism, { body: 0, at: [0, 0, 0] }).pull(loose.rest, [130, 7, 9]);
    const seen = (at: Pose) => compose(poseOf(loose, 'g:2/front', at), inverse(poseOf(loose, 'g/side', at)));
    same(seen(carried), seen(loose.rest), 6);
    near(transformPoint(poseOf(loose, 'g/side', carried), [0, 0, 0]), [130, 7, 9], 3);
  });
});

test('a part in a row that turns about its pin turns about its own in each place', () => {
  const all = assembled({
    placements: {
      bar: placed(undefined, { held: true }),
      arm: placed(triple('0', '0', '0'), {
        repeat: { layout: 'line', count: '3', by: triple('40 mm', '0 mm', '0 mm') },
      }),
    },
    joints: { pin: joint('revolute', on('bar', 'at-10'), on('arm', 'at-0')) },
  });
  const { pose } = drive(all.mechanism, all.rest, new Map([[coordinateKey('pin', 'turn'), turnDeg(90)]]));
  for (const k of [2, 3]) {
    near(transformPoint(poseOf(all, `arm:${k}`, pose), [0, 0, 0]), [10 + 40 * (k - 1), 0, 0]);
    near(transformPoint(poseOf(all, `arm:${k}`, pose), [30, 0, 0]), [10 + 40 * (k - 1), 30, 0]);
  }
});

test('what is fixed to a wheel goes round with it, and so do its copies', () => {
  const all = assembled({
    placements: {
      frame: placed(undefined, { held: true }),
      wheel: placed(),
      pin: placed(undefined, {
        repeat: { layout: 'round', count: '6', over: '360 deg', about: { placement: 'wheel', on: origin('z') } },
      }),
    },
    joints: {
      shaft: joint('revolute', on('frame', 'at-0'), on('wheel', 'at-0')),
      fixed: joint('rigid', on('wheel', 'at-30'), on('pin', 'at-0')),
    },
  });
  const { pose } = drive(all.mechanism, all.rest, new Map([[coordinateKey('shaft', 'turn'), turnDeg(25)]]));
  for (const k of [2, 3, 4, 5, 6]) {
    const angle = turnDeg(25 + 60 * (k - 1));
    near(transformPoint(poseOf(all, `pin:${k}`, pose), [0, 0, 0]), [30 * Math.cos(angle), 30 * Math.sin(angle), 0]);
  }
});

describe('limits hold however a joint is driven', () => {
  const sliderCrank = (more: Partial<Assembly['joints'][string]> = {}): Partial<Assembly> => ({
    placements: {
      frame: placed(undefined, { held: true }),
      crank: placed(),
      rod: placed(triple('20', '0', '0')),
      slider: placed(triple('100', '0', '0')),
    },
    joints: {
      shaft: joint('revolute', on('frame', 'at-0'), on('crank', 'at-0'), { rest: { turn: '30 deg' } }),
      pin: joint('revolute', on('crank', 'at-30'), on('rod', 'at-0')),
      gudgeon: joint('revolute', on('rod', 'at-80'), on('slider', 'at-0')),
      guide: joint('prismatic', on('frame', 'along-0'), on('slider', 'along-0'), more),
    },
  });
  const guide = coordinateKey('guide', 'slide');
  const shaft = coordinateKey('shaft', 'turn');

  test('by its own number, and by that of another joint', () => {
    const all = assembled(sliderCrank({ limits: { slide: { least: '70 mm', most: '108 mm' } } }));
    const own = drive(all.mechanism, all.rest, new Map([[guide, 50]]));
    expect(own).toMatchObject({ arrived: false, stops: [guide] });
    expect(own.pose.coordinates.get(guide)).toBeCloseTo(70, 7);
    const other = drive(all.mechanism, all.rest, new Map([[shaft, Math.PI]]));
    expect(other).toMatchObject({ arrived: false, stops: [guide], suspects: ['guide'] });
    expect(other.pose.coordinates.get(guide)).toBeCloseTo(70, 4);
    // 30 cos t + sqrt(80^2 - (30 sin t)^2) = 70
    const cosine = (70 ** 2 + 30 ** 2 - 80 ** 2) / (2 * 30 * 70);
    expect(other.pose.coordinates.get(shaft)).toBeCloseTo(Math.acos(cosine), 5);
    // from the limit it goes back
    expect(drive(all.mechanism, other.pose, new Map([[shaft, turnDeg(40)]])).arrived).toBe(true);
  });

  test('at rest it stands on its limit, and where that can not be this is told', () => {
    const free = sliderCrank({ limits: { slide: { most: '90 mm' } } });
    delete free.joints!['shaft']!.rest;
    const all = assembled(free);
    expect(all.issues).toEqual(new Map());
    expect(all.rest.coordinates.get(guide)).toBeCloseTo(90, 7);
    const forced = assembled(sliderCrank({ limits: { slide: { most: '60 mm' } } }));
    expect(forced.rest.fulfilled).toBe(true);
    expect([...forced.issues.values()].map(({ code }) => code)).toEqual(['joint.outside']);
  });

  test('an angle counts by whole turns within its limits', () => {
    const all = assembled({
      placements: {
        frame: placed(undefined, { held: true }),
        arm: placed(undefined, { turn: triple('0', '0', '-90 deg') }),
      },
      joints: {
        hinge: joint('revolute', on('frame', 'at-0'), on('arm', 'at-0'), {
          limits: { turn: { least: '200 deg', most: '300 deg' } },
        }),
      },
    });
    expect(all.issues).toEqual(new Map());
    expect(all.rest.coordinates.get(coordinateKey('hinge', 'turn'))).toBeCloseTo(turnDeg(270), 9);
    near(transformDirection(poseOf(all, 'arm'), [1, 0, 0]), [0, -1, 0]);
  });
});

test('a rest value that can not be had costs the others nothing', () => {
  const all = assembled({
    placements: {
      frame: placed(undefined, { held: true }),
      a: placed(),
      b: placed(),
    },
    joints: {
      left: joint('revolute', on('frame', 'at-0'), on('a', 'at-0'), { rest: { turn: '40 deg' } }),
      again: joint('rigid', on('frame', 'at-0'), on('a', 'at-0')),
      right: joint('revolute', on('frame', 'at-50'), on('b', 'at-0'), { rest: { turn: '25 deg' } }),
    },
  });
  expect([...all.issues.keys()]).toEqual(['left']);
  expect(all.rest.coordinates.get(coordinateKey('right', 'turn'))).toBeCloseTo(turnDeg(25), 9);
});

describe('relations move as little as they can', () => {
  const beside = (record: RelationRecord, turn = triple('0', '0', '0')) =>
    assembled({
      placements: { base: placed(undefined, { held: true }), part: placed(triple('37', '-12', '55'), { turn }) },
      relations: { r: record },
    });

  test('what is parallel is not tilted, what is round is not turned', () => {
    for (const kind of ['coincident', 'parallel'] as const) {
      const all = beside(relation(kind, ['base', 'x'], ['part', 'x']));
      same(poseOf(all, 'part').map((row) => [row[0], row[1], row[2], 0]) as unknown as RigidTransform, IDENTITY, 10);
    }
    near(
      transformPoint(poseOf(beside(relation('coincident', ['base', 'z'], ['part', 'z'])), 'part'), [0, 0, 0]),
      [0, 0, 55],
    );
    const seat = beside(relation('coincident', ['base', 'top'], ['part', 'origin']));
    same(poseOf(seat, 'part'), translation([37, -12, 0]), 8);
  });

  test('what is tilted turns only as far as it must', () => {
    const all = beside(relation('parallel', ['base', 'top'], ['part', 'top']), triple('20 deg', '0', '0'));
    // back by the 20 deg about x alone, where it stood
    same(poseOf(all, 'part'), translation([37, -12, 55]), 7);
  });
});

describe('flush and coincident', () => {
  const wheelOn = (kind: 'flush' | 'coincident', facing: 'against' | 'along' | undefined, turn: string) =>
    assembled({
      placements: {
        block: placed(undefined, { held: true }),
        wheel: placed(triple('11', '70', '40'), { turn: triple(turn, '0', '0') }),
      },
      relations: { r: relation(kind, ['block', 'top'], ['wheel', 'top'], facing ? { facing } : {}) },
    });

  test.each(['0 deg', '70 deg', '110 deg', '180 deg', '250 deg'])('look as they are told to, drawn at %s', (turn) => {
    for (const [facing, z] of [
      ['along', 1],
      ['against', -1],
    ] as const) {
      const all = wheelOn(facing === 'along' ? 'flush' : 'coincident', facing, turn);
      expect(all.rest.fulfilled).toBe(true);
      near(transformDirection(poseOf(all, 'wheel'), [0, 0, 1]), [0, 0, z]);
      expect(transformPoint(poseOf(all, 'wheel'), [0, 0, 0])[2]).toBeCloseTo(0, 7);
    }
  });

  test('several at once: the part lies the only way that fits', () => {
    const all = assembled({
      placements: {
        block: placed(undefined, { held: true }),
        // turned over, and about: both look wrong where it is drawn
        part: placed(triple('11', '70', '40'), { turn: triple('170 deg', '10 deg', '95 deg') }),
      },
      relations: {
        a: relation('flush', ['block', 'top'], ['part', 'top'], { facing: 'along' }),
        b: relation('flush', ['block', 'front'], ['part', 'front'], { facing: 'along' }),
        c: relation('flush', ['block', 'right'], ['part', 'right'], { facing: 'along' }),
      },
    });
    expect(all.rest.fulfilled).toBe(true);
    same(poseOf(all, 'part'), IDENTITY);
  });

  test('where a face can not look so that is told', () => {
    const all = assembled({
      placements: { block: placed(undefined, { held: true }), part: placed() },
      relations: {
        a: relation('flush', ['block', 'top'], ['part', 'top'], { facing: 'along' }),
        b: relation('coincident', ['block', 'top'], ['part', 'top'], { facing: 'against' }),
      },
    });
    expect([...all.conflict].sort()).toEqual(['a', 'b']);
  });

  test('what fights is left out where it is shown, the last that was told first', () => {
    const relations = {
      a: relation('flush', ['block', 'top'], ['part', 'top'], { facing: 'along' }),
      b: relation('flush', ['block', 'front'], ['part', 'front'], { facing: 'along' }),
      c: relation('flush', ['block', 'right'], ['part', 'right'], { facing: 'along' }),
    };
    const placements = { block: placed(undefined, { held: true }), part: placed(triple('11', '70', '40')) };
    const before = assembled({ placements, relations });
    const late = {
      ...relations,
      d: relation('coincident', ['block', 'top'], ['part', 'top'], { facing: 'against' }),
      e: relation('coincident', ['block', 'top'], ['part', 'front'], { facing: 'against' }),
    };
    const after = assembled({ placements, relations: late });
    expect(after.rest.fulfilled).toBe(false);
    expect(after.conflict.length).toBeGreaterThan(0);
    same(poseOf(after, 'part'), poseOf(before, 'part'));
  });
});

describe('poses in which ways part', () => {
  /** A parallelogram of bars, flat at rest. */
  const parallelogram = (turn: string): Partial<Assembly> => ({
    placements: {
      frame: placed(undefined, { held: true }),
      crank: placed(),
      coupler: placed(triple('30', '0', '0')),
      follower: placed(triple('80', '0', '0')),
    },
    joints: {
      shaft: joint('revolute', on('frame', 'at-0'), on('crank', 'at-0'), { rest: { turn } }),
      p: joint('revolute', on('crank', 'at-30'), on('coupler', 'at-0')),
      q: joint('revolute', on('coupler', 'at-80'), on('follower', 'at-30')),
      pivot: joint('revolute', on('frame', 'at-80'), on('follower', 'at-0')),
    },
  });
  const [shaft, pivot] = [coordinateKey('shaft', 'turn'), coordinateKey('pivot', 'turn')];

  test('the follower goes straight through them, round and round', () => {
    const all = assembled(parallelogram('70 deg'));
    const { pose, arrived } = drive(all.mechanism, all.rest, new Map([[shaft, turnDeg(70 + 720)]]));
    expect(arrived).toBe(true);
    expect(pose.coordinates.get(pivot)! - all.rest.coordinates.get(pivot)!).toBeCloseTo(turnDeg(720), 6);
    const back = drive(all.mechanism, pose, new Map([[shaft, turnDeg(70)]]));
    back.pose.poses.forEach((at, k) => same(at, all.rest.poses[k]!, 6));
  });

  test('they are told, and others are not', () => {
    const flat = assembled(parallelogram('0 deg'));
    expect(flat.freedoms.count).toBe(1);
    expect(flat.freedoms.parting.flat().sort()).toEqual(['p', 'pivot', 'q', 'shaft']);
    const open = assembled(parallelogram('70 deg'));
    expect(open.freedoms.parting).toEqual([]);
    const driven = drive(open.mechanism, open.rest, new Map([[shaft, Math.PI]]));
    expect(isBranching(open.mechanism, driven.pose, shaft)).toBe(true);
    const beside = drive(open.mechanism, open.rest, new Map([[shaft, 3]]));
    expect(isBranching(open.mechanism, beside.pose, shaft)).toBe(false);
  });
});
