import { SPACE, restOf, type Mechanism } from '../assembly/index.ts';
import { bars, CRANK, sliderCrank } from '../assembly/test-bars.ts';
import { valueScope } from '../expressions/index.ts';
import { naturalSpline } from '../math/index.ts';
import {
  chartTitle,
  LAWS,
  planOf,
  stopWords,
  studyCsv,
  StudyOutcome,
  tableFrom,
  unitOf,
  type Chart,
  type Study,
  type StudyInput,
} from './index.ts';
import { lawOf } from './laws.ts';

const DEGREE = Math.PI / 180;
const scope = valueScope([{ name: 'once round', expression: '360 deg' }], 'mm');
const end = (joint: string, coordinate: 'turn' | 'slide' = 'turn') => ({ joint, coordinate });
const study = (more: Partial<Study> = {}): Study => ({
  name: 'Once round',
  drives: [{ ...end('crank'), from: '0 deg', to: 'once round' }],
  law: 'even',
  seconds: '4',
  steps: '24',
  touching: false,
  charts: {},
  ...more,
});

function ran(mechanism: Mechanism, of: Study, more: Partial<StudyInput> = {}): StudyOutcome {
  const plan = planOf(of, mechanism, scope);
  if (!plan.ok) throw new Error(plan.issue.code);
  const members = mechanism.bodies.map(({ id }, body) => ({
    id,
    name: id,
    part: id,
    body,
    local: mechanism.bodies[body]!.pose,
    again: [],
  }));
  const outcome = new StudyOutcome({
    plan: plan.value,
    assembly: { pressed: {} },
    assembled: {
      mechanism,
      members,
      rest: restOf(mechanism),
      traces: new Map([['t', { body: 1, at: [70, 5, 0] as const }]]),
    },
    bodies: [],
    masses: undefined,
    ...more,
  });
  for (const frame of outcome.run()) void frame;
  return outcome;
}

/** Where the slider is for an angle of the crank, and its derivatives by that. */
function slider(a: number) {
  const { r, l } = CRANK;
  const [s, c] = [Math.sin(a), Math.cos(a)];
  const root = Math.sqrt(l * l - r * r * s * s);
  return {
    value: r * c + root - (r + l),
    first: -r * s - (r * r * s * c) / root,
    second: -r * c - (r * r * (c * c - s * s)) / root - (r ** 4 * s * s * c * c) / root ** 3,
  };
}

test.each(['even', 'harmonic', 'cycloidal', 'polynomial'] as const)(
  'a slider-crank driven %s: where it is, its speed and its acceleration',
  (law) => {
    const outcome = ran(sliderCrank(), study({ law }));
    expect(outcome.frames).toHaveLength(25);
    expect(outcome.stop).toBeUndefined();
    const shown = (what: 'value' | 'speed' | 'acceleration') =>
      outcome.series({ of: 'coordinate', end: end('rail', 'slide'), shown: what })[0]!;
    const [value, speed, acceleration] = [shown('value'), shown('speed'), shown('acceleration')];
    expect([value.unit.by, speed.unit.by, acceleration.unit.by]).toEqual([0, 1, 2]);
    outcome.frames.forEach(({ time }, k) => {
      const share = lawOf(law).share!(time / 4);
      const turn = 2 * Math.PI;
      const { value: at, first, second } = slider(turn * share.value);
      const [w, alpha] = [(turn * share.slope) / 4, (turn * share.curvature) / 16];
      expect(value.values[k]).toBeCloseTo(at, 7);
      expect(speed.values[k]).toBeCloseTo(first * w, 6);
      expect(acceleration.values[k]).toBeCloseTo(second * w * w + first * alpha, 5);
    });
  },
);

test('smooth laws begin and end at rest, and their derivatives are those of what they tell', () => {
  for (const { share } of Object.values(LAWS).map((one) => one as { share?: ReturnType<typeof lawOf>['share'] })) {
    if (!share) continue;
    expect([share(0).value, share(1).value]).toEqual([0, expect.closeTo(1, 12)]);
    for (const u of [0.1, 0.37, 0.8]) {
      const h = 1e-4;
      const [p, m, q] = [share(u - h), share(u), share(u + h)];
      expect(m.slope).toBeCloseTo((q.value - p.value) / (2 * h), 6);
      expect(m.curvature).toBeCloseTo((q.slope - p.slope) / (2 * h), 6);
    }
  }
  for (const name of ['harmonic', 'cycloidal', 'polynomial'] as const)
    for (const u of [0, 1]) expect(lawOf(name).share!(u).slope).toBeCloseTo(0, 12);
  for (const name of ['cycloidal', 'polynomial'] as const)
    for (const u of [0, 1]) expect(lawOf(name).share!(u).curvature).toBeCloseTo(0, 12);
});

test('a point, a ratio and what holds a weight follow from the same motion', () => {
  const crank = bars([{ at: [0, 0], of: ['', 'arm'] }], ['arm']);
  // turned so that it goes up and down: about x
  const frame = { origin: [0, 0, 0], x: [0, 1, 0], y: [0, 0, 1], z: [1, 0, 0] } as const;
  const upright: Mechanism = {
    ...crank,
    joints: [{ id: 'arm', kind: 'revolute', a: { body: SPACE, frame }, b: { body: 0, frame } }],
  };
  const of = study({ drives: [{ ...end('arm'), from: '-90 deg', to: '200 deg' }], steps: '29' });
  const outcome = ran(upright, of, { masses: [{ member: 'arm', mass_g: 250, centre_mm: [0, 80, 0] }] });
  const [held] = outcome.series({ of: 'holding' });
  expect(held!.unit.of).toBe('torque');
  // m g r cos a, N mm
  held!.values.forEach((torque, k) => {
    expect(torque).toBeCloseTo(0.25 * 9.80665 * 80 * Math.cos((-90 + 10 * k) * DEGREE), 8);
  });
  expect(ran(upright, of).series({ of: 'holding' })[0]!.values).toEqual(outcome.frames.map(() => null));

  const mechanism = sliderCrank();
  const other = ran(mechanism, study());
  const [ratio] = other.series({ of: 'ratio', first: end('crank'), second: end('rail', 'slide') });
  const speeds = other.series({ of: 'point', trace: 't', shown: 'speed' });
  const accelerations = other.series({ of: 'point', trace: 't', shown: 'acceleration' });
  expect(speeds.map(({ name }) => name)).toEqual(['x', 'y', 'z', 'all']);
  const places = other.series({ of: 'point', trace: 't', shown: 'value' });
  other.frames.forEach(({ time }, k) => {
    const a = (Math.PI / 2) * time;
    expect(ratio!.values[k]).toBeCloseTo(slider(a).first, 7);
    // a point of the rod, by the angles of crank and rod
    const { r, l } = CRANK;
    const rod = (at: number) => -Math.asin((r / l) * Math.sin(at));
    const point = (t: number): [number, number] => {
      const [turned, swung] = [(Math.PI / 2) * t, rod((Math.PI / 2) * t)];
      const [x, y] = [70 - r, 5];
      return [
        r * Math.cos(turned) + x * Math.cos(swung) - y * Math.sin(swung),
        r * Math.sin(turned) + x * Math.sin(swung) + y * Math.cos(swung),
      ];
    };
    const h = 1e-3;
    const [p, m, q] = [point(time - h), point(time), point(time + h)];
    for (const n of [0, 1] as const) {
      expect(places[n]!.values[k]).toBeCloseTo(m[n], 7);
      expect(speeds[n]!.values[k]).toBeCloseTo((q[n] - p[n]) / (2 * h), 3);
      expect(accelerations[n]!.values[k]).toBeCloseTo((q[n] - 2 * m[n] + p[n]) / (h * h), 3);
    }
  });
});

test('a study driven by a table follows a smooth curve through it, back too', () => {
  const table: [number, number][] = [
    [1, 0],
    [2, 40],
    [3, 90],
    [4, 60],
    [6, 0],
  ];
  const of = study({ law: 'table', table, steps: '10' });
  const outcome = ran(sliderCrank(), of);
  const turns = outcome.series({ of: 'coordinate', end: end('crank'), shown: 'value' })[0]!;
  const speeds = outcome.series({ of: 'coordinate', end: end('rail', 'slide'), shown: 'speed' })[0]!;
  expect(outcome.frames.at(-1)!.time).toBe(5);
  for (const [time, degrees] of table) expect(turns.values[(time - 1) * 2]).toBeCloseTo(degrees * DEGREE, 9);
  const curve = naturalSpline(table.map(([time, degrees]) => [time - 1, degrees * DEGREE]));
  outcome.frames.forEach(({ time }, k) => {
    const { value, slope } = curve(time);
    expect(speeds.values[k]).toBeCloseTo(slider(value).first * slope, 5);
  });
});

test('tables are read from text, with or without a heading, and refused in words', () => {
  const table = [
    [0, 1],
    [2, 3.5],
  ];
  for (const text of ['t,deg\n0,1\n\n2,3.5\n', '0;1\r\n2;3.5', 't;deg\n0;1\n\n2;3.5\n', '0\t1\n2\t3.5'])
    expect(tableFrom(text)).toEqual({ ok: true, value: table });
  const refused = (text: string) => tableFrom(text) as { issue: { code: string; facts: object } };
  expect(refused('0,1\n2,x').issue).toMatchObject({ code: 'study.row', facts: { row: 2 } });
  expect(refused('t;deg\n0;1\n2;3,5\n').issue).toMatchObject({ code: 'study.row', facts: { row: 3 } });
  expect(refused('t,deg\n0,1\n2,x').issue).toMatchObject({ code: 'study.row', facts: { row: 3 } });
  expect(refused('0,1\n0,2').issue).toMatchObject({ code: 'study.table', facts: { row: 2 } });
  expect(refused('0,1').issue).toMatchObject({ code: 'study.table' });
  expect(refused('').issue).toMatchObject({ code: 'study.table' });
  expect(refused('0,1\n\n2,x').issue).toMatchObject({ code: 'study.row', facts: { row: 3 } });
  expect(refused('0,1\n'.repeat(60_000)).issue).toMatchObject({ code: 'study.long' });
  // lengths are told in the unit of the project
  expect(tableFrom('0,0\n1,2.5', 25.4)).toEqual({
    ok: true,
    value: [
      [0, 0],
      [1, 63.5],
    ],
  });
});

test('what can not be run is refused in words', () => {
  const mechanism = sliderCrank();
  const code = (more: Partial<Study>) =>
    (planOf(study(more), mechanism, scope) as { issue: { code: string } }).issue.code;
  const drive = { ...end('crank'), from: '0 deg', to: '90 deg' };
  expect(code({ drives: [{ ...drive, joint: 'nobody' }] })).toBe('study.joint');
  expect(code({ drives: [{ ...drive, coordinate: 'slide' }] })).toBe('study.joint');
  expect(code({ drives: [drive, drive] })).toBe('study.twice');
  expect(code({ drives: [{ ...drive, to: '0' }] })).toBe('study.still');
  expect(code({ steps: '2.5' })).toBe('study.steps');
  expect(code({ seconds: '0' })).toBe('study.seconds');
  expect(code({ law: 'table' })).toBe('study.table');
  expect(code({ law: 'table', drives: [drive, { ...end('rail', 'slide'), from: '0 mm', to: '1 mm' }] })).toBe(
    'study.table-one',
  );
});

test('a study ends where a limit stops it, at that time, and is the same back', () => {
  const key = 'rail slide' as const;
  const mechanism: Mechanism = { ...sliderCrank(), limits: new Map([[key, [-20, 50]]]) };
  const outcome = ran(
    mechanism,
    study({ law: 'harmonic', drives: [{ ...end('crank'), from: '0 deg', to: '170 deg' }] }),
  );
  expect(outcome.stop).toMatchObject({ stops: [key], against: [] });
  const last = outcome.frames.at(-1)!;
  expect(last.pose.coordinates.get(key)).toBeCloseTo(-20, 7);
  const angle = last.pose.coordinates.get('crank turn')!;
  expect(slider(angle).value).toBeCloseTo(-20, 7);
  expect(170 * DEGREE * lawOf('harmonic').share!(outcome.stop!.time! / 4).value).toBeCloseTo(angle, 7);

  const there = ran(sliderCrank(), study({ drives: [{ ...end('crank'), from: '10 deg', to: '100 deg' }], steps: '9' }));
  const back = ran(sliderCrank(), study({ drives: [{ ...end('crank'), from: '100 deg', to: '10 deg' }], steps: '9' }));
  there.frames.forEach(({ pose }, k) =>
    expect(pose.coordinates.get(key)).toBeCloseTo(back.frames[9 - k]!.pose.coordinates.get(key)!, 8),
  );
});

test('what is driven stops at its own limit, at the time it comes there, with all that goes with it', () => {
  const key = 'one turn' as const;
  const wheels: Mechanism = {
    ...bars(
      [
        { at: [0, 0], of: ['', 'one'] },
        { at: [40, 0], of: ['', 'two'] },
      ],
      ['one', 'two'],
    ),
    limits: new Map([[key, [-0.2, 1]]]),
  };
  const of = study({
    drives: [
      { ...end('one'), from: '0 deg', to: '120 deg' },
      { ...end('two'), from: '0 deg', to: '-60 deg' },
    ],
    ...{ law: 'cycloidal', steps: '7' },
  });
  const outcome = ran(wheels, of);
  const last = outcome.frames.at(-1)!;
  expect(outcome.stop).toMatchObject({ stops: [key], time: last.time });
  expect(last.pose.coordinates.get(key)).toBeCloseTo(1, 9);
  expect(last.pose.coordinates.get('two turn')).toBeCloseTo(-0.5, 9);
  expect(120 * DEGREE * lawOf('cycloidal').share!(last.time / 4).value).toBeCloseTo(1, 9);
  expect(stopWords(outcome.stop!, (path) => path)).toMatch(/^It stops at .* s: one is at its limit\.$/);
  // where it can't even begin that is told
  const beyond = ran(wheels, study({ drives: [{ ...end('one'), from: '100 deg', to: '0 deg' }] }));
  expect(beyond.frames).toEqual([]);
  expect(stopWords(beyond.stop!, (path) => path)).toBe('It does not get to its beginning: one is at its limit.');
});

test('figures are written as numbers, also below 0, and what can not be told is left empty', () => {
  const outcome = ran(sliderCrank(), study({ steps: '4' }));
  const chart: Chart = { of: 'coordinate', end: end('rail', 'slide'), shown: 'value' };
  const shown = [{ title: 'rail slide', series: outcome.series(chart) }];
  const empty = [
    { title: 'none', series: [{ name: '', unit: shown[0]!.series[0]!.unit, values: [null, null, null, null, null] }] },
  ];
  const drives = [{ key: 'crank turn' as const, from: 0, to: 1 }];
  const rows = studyCsv([...shown, ...empty], outcome.frames, { drives }, (path) => path, 'mm')
    .trim()
    .split('\r\n');
  expect(rows[0]).toBe('time (s),crank turn (deg),rail slide (mm),none (mm)');
  const [time, degrees, slide, none] = rows[3]!.split(',');
  expect([Number(time), Number(degrees)]).toEqual([2, expect.closeTo(180, 7)]);
  expect(Number(slide)).toBeCloseTo(-2 * CRANK.r, 6);
  expect(none).toBe('');
});

test('at a dead point speeds are left out, and units are told as written', () => {
  const stretched = ran(
    sliderCrank(),
    study({ drives: [{ ...end('rail', 'slide'), from: '0 mm', to: '-40 mm' }], steps: '4' }),
  );
  const speeds = stretched.series({ of: 'coordinate', end: end('crank'), shown: 'speed' })[0]!.values;
  expect(speeds[0]).toBeNull();
  expect(speeds[2]).not.toBeNull();
  expect(unitOf({ of: 'length', by: 1 }, 'in')).toEqual({ symbol: 'in/s', scale: 1 / 25.4 });
  expect(unitOf({ of: 'angle', by: 2 }, 'mm').symbol).toBe('deg/s²');
  expect(unitOf({ of: 'length by angle', by: 0 }, 'mm').scale).toBeCloseTo(DEGREE, 15);
  const title = (chart: Chart) => chartTitle(chart, (path) => `<${path}>`);
  expect(title({ of: 'coordinate', end: end('rail', 'slide'), shown: 'speed' })).toBe('speed of <rail> slide');
  expect(title({ of: 'ratio', first: end('crank'), second: end('rail', 'slide') })).toBe(
    '<rail> slide by <crank> turn',
  );
});
