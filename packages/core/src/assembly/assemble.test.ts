import { coordinateKey } from '../naming/index.ts';
import { transformPoint, transformDirection, type Vec3 } from '../math/index.ts';
import {
  drive,
  emptyAssembly,
  memberPose,
  MechanismEquations,
  triple,
  turnsOf,
  poseBy,
  freedomWords,
  type Assembled,
  type Assembly,
  type Group,
  type JointRecord,
  type Placement,
  type Pose,
} from './index.ts';
import { MergedEquations } from './merged.ts';
import { assembled, joint, on, placed } from './test-fixture.ts';

const where = (all: Assembled, id: string, local: Vec3 = [0, 0, 0]): Vec3 =>
  transformPoint(
    memberPose(
      all.members.find((member) => member.id === id)!,
      all.rest,
    ),
    local,
  );
const near = (place: Vec3, expected: Vec3) => place.forEach((c, k) => expect(c).toBeCloseTo(expected[k]!, 7));

const sliderCrank = (): Partial<Assembly> => ({
  placements: {
    frame: placed(undefined, { held: true }),
    // scattered, and turned: the joints bring them together
    crank: placed(triple('300', '-20', '55'), { turn: triple('10 deg', '0', '30 deg') }),
    rod: placed(triple('-90', '400', '0')),
    slider: placed(triple('120', '9', '8')),
  },
  joints: {
    shaft: joint('revolute', on('frame', 'at-0'), on('crank', 'at-0'), { rest: { turn: '60 deg' } }),
    pin: joint('revolute', on('crank', 'at-30'), on('rod', 'at-0')),
    gudgeon: joint('revolute', on('rod', 'at-80'), on('slider', 'at-0')),
    guide: joint('prismatic', on('frame', 'along-0'), on('slider', 'along-0'), {
      limits: { slide: { least: '20', most: '200' } },
    }),
  },
});

test('scattered parts are brought into the rest pose of the design, and move from there', () => {
  const all = assembled(sliderCrank());
  expect(all.issues).toEqual(new Map());
  expect(all.rest.fulfilled).toBe(true);
  const [c, s] = [Math.cos(Math.PI / 3), Math.sin(Math.PI / 3)];
  near(where(all, 'crank', [30, 0, 0]), [30 * c, 30 * s, 0]);
  near(where(all, 'slider'), [30 * c + Math.sqrt(80 ** 2 - (30 * s) ** 2), 0, 0]);
  expect(all.rest.coordinates.get(coordinateKey('shaft', 'turn'))).toBeCloseTo(Math.PI / 3, 9);
  expect(all.mechanism.limits.get(coordinateKey('guide', 'slide'))).toEqual([20, 200]);
  expect(all.freedoms.count).toBe(1);
  expect(all.freedoms.bodies.map((ways) => freedomWords(ways))).toEqual([
    'stands still',
    'turns about z',
    'turns about z',
    'slides along x',
  ]);
  const driven = drive(all.mechanism, all.rest, new Map([[coordinateKey('shaft', 'turn'), Math.PI]]));
  expect(driven.arrived).toBe(true);
});

test('what is held as drawn stays where it was drawn and turns about the frame of the other', () => {
  const all = assembled({
    placements: { frame: placed(undefined, { held: true }), arm: placed(triple('5', '6', '7')) },
    joints: { hinge: joint('revolute', on('frame', 'at-12'), { placement: 'arm' }) },
  });
  near(where(all, 'arm'), [5, 6, 7]);
  const { pose } = drive(all.mechanism, all.rest, new Map([[coordinateKey('hinge', 'turn'), Math.PI]]));
  // half a turn about the axis through (12, 0)
  near(transformPoint(pose.poses[1]!, [0, 0, 0]), [19, -6, 7]);
});

test('offset, angle and flip of a joint', () => {
  const one = (more: Partial<JointRecord>) =>
    assembled({
      placements: { frame: placed(undefined, { held: true }), arm: placed() },
      joints: { seat: joint('rigid', on('frame', 'at-10'), on('arm', 'at-0'), { offset: 'crank', ...more }) },
    });
  const plain = one({ angle: '90 deg' });
  near(where(plain, 'arm'), [10, 0, 30]);
  near(transformDirection(memberPose(plain.members[1]!, plain.rest), [1, 0, 0]), [0, 1, 0]);
  // aside along x and y of the first, which no angle turns; then forwards
  for (const angle of ['0 deg', '90 deg'])
    near(where(one({ angle, aside: ['crank / 10', '-4 mm'] }), 'arm'), [10 + 3, -4, 30]);
  const turned = one({ flip: true });
  near(where(turned, 'arm'), [10, 0, 30]);
  near(transformDirection(memberPose(turned.members[1]!, turned.rest), [0, 0, 1]), [0, 0, -1]);
  near(transformDirection(memberPose(turned.members[1]!, turned.rest), [1, 0, 0]), [1, 0, 0]);
});

test('a rest value that can not be had is told, and the rest holds without it', () => {
  const assembly = sliderCrank();
  assembly.joints!['guide']!.rest = { slide: '150 mm' };
  const all = assembled(assembly);
  expect(all.rest.fulfilled).toBe(true);
  expect([...all.issues.values()].map(({ code }) => code)).toContain('joint.rest');
});

test('of joints that can not all hold the smallest set that fights is told', () => {
  const all = assembled({
    placements: { frame: placed(undefined, { held: true }), a: placed(), b: placed() },
    joints: {
      left: joint('rigid', on('frame', 'at-0'), on('a', 'at-0')),
      right: joint('rigid', on('frame', 'at-50'), on('a', 'at-40')),
      other: joint('revolute', on('frame', 'at-70'), on('b', 'at-0')),
    },
  });
  expect(all.rest.fulfilled).toBe(false);
  expect([...all.conflict].sort()).toEqual(['left', 'right']);
});

test('twice told is no clash', () => {
  const all = assembled({
    placements: { frame: placed(undefined, { held: true }), a: placed() },
    joints: {
      left: joint('revolute', on('frame', 'at-0'), on('a', 'at-0')),
      right: joint('revolute', on('frame', 'at-40'), on('a', 'at-40')),
    },
  });
  expect(all.rest.fulfilled).toBe(true);
  expect(all.freedoms.count).toBe(0);
  expect(all.freedoms.redundant.flat()).toEqual(expect.arrayContaining(['left', 'right']));
});

test('relations bring parts together as joints do', () => {
  const all = assembled({
    placements: { frame: placed(undefined, { held: true }), a: placed(triple('3', '4', '9')) },
    relations: {
      seat: {
        name: 'Seat',
        kind: 'distance',
        a: { placement: 'frame', on: { to: 'origin', name: 'top' } },
        b: { placement: 'a', on: { to: 'origin', name: 'top' } },
        amount: '12 mm',
      },
    },
  });
  near(where(all, 'a'), [3, 4, 12]);
  expect(all.freedoms.count).toBe(3);
  expect(freedomWords(all.freedoms.bodies[1]!)).toBe('3 freedoms: turns in 1 way, slides in 2 ways');
});

describe('groups', () => {
  const arms: Group = {
    name: 'Arms',
    ...emptyAssembly(),
    placements: { base: placed(undefined, { held: true }), arm: placed(triple('7', '7', '7')) },
    joints: { hinge: joint('revolute', on('base', 'at-20'), on('arm', 'at-0'), { rest: { turn: '0 deg' } }) },
  };
  const using = (stiff: boolean, held = true) =>
    assembled(
      {
        placements: {
          one: placed(triple('100', '0', '0'), { of: { group: 'arms', stiff }, held }),
          two: placed(triple('200', '0', '0'), { of: { group: 'arms', stiff }, held }),
        },
      },
      { arms },
    );

  test('a stiff one is one body, a flexible one moves inside', () => {
    const stiff = using(true);
    expect(stiff.mechanism.bodies).toHaveLength(2);
    near(where(stiff, 'two/arm'), [220, 0, 0]);
    expect(stiff.freedoms.count).toBe(0);
    const flexible = using(false);
    expect(flexible.mechanism.bodies).toHaveLength(4);
    near(where(flexible, 'one/arm'), [120, 0, 0]);
    expect(flexible.freedoms.count).toBe(2);
    // a flexible group that nothing holds goes anywhere, with its arm
    expect(using(false, false).freedoms.count).toBe(14);
    expect(using(true, false).freedoms.count).toBe(12);
  });

  test('a point of a group is traced where it comes along, flexible or stiff', () => {
    const traced: Group = {
      ...arms,
      traces: { t: { name: 'T', placement: 'arm', on: { to: 'datum', step: 'at-30' } } },
    };
    for (const stiff of [true, false]) {
      const { traces, rest } = assembled(
        { placements: { one: placed(triple('100', '0', '0'), { of: { group: 'arms', stiff }, held: true }) } },
        { arms: traced },
      );
      const { body, at } = traces.get('one/t')!;
      near(transformPoint(rest.poses[body]!, at), [150, 0, 0]);
    }
  });

  test('a joint reaches into a group, flexible or stiff', () => {
    for (const stiff of [true, false]) {
      const all = assembled(
        {
          placements: {
            one: placed(triple('100', '0', '0'), { of: { group: 'arms', stiff }, held: true }),
            end: placed(),
          },
          joints: { tip: joint('rigid', on('one/arm', 'at-30'), on('end', 'at-0')) },
        },
        { arms },
      );
      near(where(all, 'end'), [150, 0, 0]);
    }
  });
});

describe('repeats', () => {
  test('in a row and round an axis, riding on the first', () => {
    const all = assembled({
      placements: {
        frame: placed(undefined, { held: true }),
        bolt: placed(triple('40', '0', '0'), {
          repeat: {
            layout: 'round',
            count: '4',
            over: '360 deg',
            about: { placement: 'frame', on: { to: 'origin', name: 'z' } },
          },
        }),
        foot: placed(triple('0', '0', '0'), { repeat: { layout: 'line', count: '3', by: triple('crank', '0', '0') } }),
      },
      joints: {
        a: joint('rigid', on('frame', 'at-50'), on('bolt', 'at-0')),
      },
    });
    expect(all.members.map(({ id }) => id)).toEqual([
      'frame',
      'bolt',
      'foot',
      'bolt:2',
      'bolt:3',
      'bolt:4',
      'foot:2',
      'foot:3',
    ]);
    near(where(all, 'bolt:2'), [0, 50, 0]);
    near(where(all, 'bolt:3', [1, 0, 0]), [-51, 0, 0]);
    near(where(all, 'foot:3'), [60, 0, 0]);
  });

  test('a count that is none is told', () => {
    const all = assembled({
      placements: { foot: placed(undefined, { repeat: { layout: 'line', count: '2.5', by: triple('1', '0', '0') } }) },
    });
    expect(all.issues.get('foot')?.code).toBe('placement.count');
  });
});

test('what can not be read or found is told of its owner, and the rest stands', () => {
  const assembly = sliderCrank();
  assembly.joints!['guide']!.a.on = { to: 'face', name: 's9/end' };
  assembly.joints!['pin']!.offset = 'no such value';
  const all = assembled(assembly);
  expect([...all.issues].map(([owner, { code }]) => `${owner} ${code}`).sort()).toEqual([
    'guide reference.gone',
    'pin value.unknown',
  ]);
  expect(all.mechanism.joints.map(({ id }) => id)).toEqual(['shaft', 'gudgeon']);
  expect(all.rest.fulfilled).toBe(true);
});

test('a ratio of a turn and a way is told for each whole turn', () => {
  const all = assembled({
    placements: { frame: placed(undefined, { held: true }), nut: placed(), screw: placed() },
    joints: {
      thread: joint('revolute', on('frame', 'at-0'), on('screw', 'at-0')),
      way: joint('prismatic', on('frame', 'at-40'), on('nut', 'at-0')),
    },
    ratios: {
      lead: {
        name: 'Lead',
        first: { joint: 'thread', coordinate: 'turn' },
        second: { joint: 'way', coordinate: 'slide' },
        factor: '4 mm',
      },
    },
  });
  expect(all.freedoms.count).toBe(1);
  const { pose } = drive(all.mechanism, all.rest, new Map([[coordinateKey('thread', 'turn'), 3 * Math.PI]]));
  expect(transformPoint(pose.poses[1]!, [0, 0, 0])[2]).toBeCloseTo(6, 9);
});

test('the turns of a pose give the pose again', () => {
  for (const turn of [
    [0.3, -0.7, 2.5],
    [-3, 1.2, -0.1],
    [0.4, Math.PI / 2, 1.1],
    [1, -Math.PI / 2, 0.2],
  ] as const) {
    const pose = poseBy([1, 2, 3], turn);
    poseBy([1, 2, 3], turnsOf(pose)).forEach((row, r) => row.forEach((c, k) => expect(c).toBeCloseTo(pose[r]![k]!, 7)));
  }
});

test('traced points are found where they are on their parts', () => {
  const all = assembled({
    ...sliderCrank(),
    traces: {
      t: { name: 'T', placement: 'rod', on: { to: 'datum', step: 'at-40' } },
      lost: { name: 'L', placement: 'rod', on: { to: 'face', name: 'x/y' } },
    },
  });
  expect([...all.traces]).toEqual([['t', { body: 2, at: [40, 0, 0] }]]);
  expect(all.issues.get('lost')?.code).toBe('reference.gone');
});

test('what is rigid moves as one body, to where it would be by its joints alone', () => {
  const base = sliderCrank();
  // things ride on the crank, on the slider and on the frame; one ring of rigid joints, and two held bodies joined
  const all = assembled({
    placements: {
      ...base.placements,
      a: placed(triple('7', '8', '9')),
      b: placed(triple('1', '2', '3')),
      c: placed(triple('60', '0', '4')),
      post: placed(undefined, { held: true }),
    },
    joints: {
      ...base.joints,
      'on-crank': joint('rigid', on('a', 'at-5'), on('crank', 'along-10')),
      'on-it': joint('rigid', on('a', 'at-20'), on('b', 'at-0')),
      ring: joint('rigid', on('b', 'at-3'), on('a', 'at-23')),
      'on-slider': joint('rigid', on('slider', 'at-0'), { placement: 'c' }),
      posts: joint('rigid', on('frame', 'at-0'), on('post', 'at-0')),
    },
  });
  expect(all.rest.fulfilled).toBe(true);
  const keys = [coordinateKey('shaft', 'turn')];
  const values = new Map([[keys[0]!, 1.2]]);
  const [plain, together] = [new MechanismEquations(all.mechanism, keys), new MergedEquations(all.mechanism, keys)].map(
    (motion) => motion.solve(all.rest, values),
  ) as [Pose, Pose];
  expect(together.fulfilled).toBe(true);
  together.poses.forEach((pose, k) =>
    pose.forEach((row, r) => row.forEach((c, n) => expect(c).toBeCloseTo(plain.poses[k]![r]![n]!, 7))),
  );
  expect([...together.coordinates.keys()]).toEqual([...plain.coordinates.keys()]);
});

test('groups within groups that come to more than there is room for are told, soon', () => {
  const many = (of: Placement['of']): Group => ({
    name: 'Many',
    ...emptyAssembly(),
    placements: Object.fromEntries(Array.from({ length: 400 }, (_, k) => [`p${k}`, placed(undefined, { of })])),
  });
  const groups = {
    a: many({ group: 'b', stiff: true }),
    b: many({ group: 'c', stiff: true }),
    c: many({ group: 'd', stiff: true }),
    d: { name: 'Empty', ...emptyAssembly() },
  };
  const all = assembled({ placements: { top: placed(undefined, { of: { group: 'a', stiff: true } }) } }, groups);
  expect([...all.issues.values()].map(({ code }) => code)).toContain('assembly.many');
  expect(all.members).toEqual([]);
});

test('a rest value beyond its limits is told, and nothing of the joint counts', () => {
  const assembly = sliderCrank();
  assembly.joints!['shaft']!.limits = { turn: { most: '45 deg' } };
  const all = assembled(assembly);
  expect([...all.issues].map(([owner, { code }]) => `${owner} ${code}`)).toEqual(['shaft joint.beyond']);
  expect([...all.mechanism.limits.keys()]).toEqual([coordinateKey('guide', 'slide')]);
  expect(all.rest.coordinates.has(coordinateKey('shaft', 'turn'))).toBe(false);
});
