import {
  explain,
  frameOn,
  locate,
  ok,
  ORIGIN_PLANES,
  stepKind,
  valueScope,
  type Datum,
  type Reference,
  type ResolveContext,
  type Step,
  type Vec3,
  type World,
} from '../index.ts';

/** Datums to build on, by step. */
const DATUMS: Record<string, Datum> = {
  high: { form: 'plane', frame: { ...ORIGIN_PLANES.top, origin: [0, 0, 20] } },
  steep: { form: 'plane', frame: frameOn([5, 0, 0], [1, 0, 0]) },
  edge: { form: 'axis', origin: [0, 10, 0], direction: [1, 0, 0] },
  p: { form: 'point', at: [1, 2, 3] },
  q: { form: 'point', at: [4, 2, 3] },
  r: { form: 'point', at: [1, 7, 3] },
  s: { form: 'point', at: [7, 2, 3] },
};
const world: World = { bodies: [], datum: (step) => DATUMS[step], drawn: () => undefined };
const context = {
  step: 'd',
  scope: valueScope([], 'mm'),
  find: (reference: Reference, accepts: Parameters<typeof locate>[1]) => {
    const match = locate(reference, accepts, world);
    return match.ok ? ok(match.value.thing) : match;
  },
} as unknown as ResolveContext;

const on = (...names: string[]): Reference[] =>
  names.map((name) => (name in DATUMS ? { to: 'datum', step: name } : { to: 'origin', name: name as 'top' }));
function make(
  kind: 'datum-plane' | 'datum-axis' | 'datum-point' | 'datum-frame',
  how: string,
  names: string[],
  by?: string,
) {
  const step = { kind, name: 'D', how, on: on(...names), ...(by ? { by } : {}) } as Step;
  expect(stepKind(kind).schema.safeParse(step).success).toBe(true);
  return stepKind(kind).datum!(step, context);
}
const close = (place: Vec3) => place.map((c) => expect.closeTo(c, 9));

describe('datum planes', () => {
  const H = Math.SQRT1_2;
  test.each<[string, string[], string | undefined, Vec3, Vec3]>([
    ['offset', ['top'], '12 mm', [0, 0, 12], [0, 0, 1]],
    ['offset', ['top'], '-3 mm', [0, 0, -3], [0, 0, 1]],
    ['offset', ['front'], '1 in', [0, -25.4, 0], [0, -1, 0]],
    ['halfway', ['top', 'high'], undefined, [0, 0, 10], [0, 0, 1]],
    ['halfway', ['top', 'right'], undefined, [0, 0, 0], [H, 0, H]],
    ['angle', ['top', 'x'], '90 deg', [0, 0, 0], [0, -1, 0]],
    ['angle', ['top', 'edge'], '45 deg', [0, 10, 0], [0, -H, H]],
    ['parallel', ['top', 'p'], undefined, [0, 0, 3], [0, 0, 1]],
    ['points', ['p', 'q', 'r'], undefined, [1, 2, 3], [0, 0, 1]],
  ])('%s %j by %s', (how, names, by, at, normal) => {
    const made = make('datum-plane', how, names, by);
    if (!made.ok || made.value.form !== 'plane') throw new Error('no plane');
    expect(made.value.frame.origin).toEqual(close(at));
    expect(made.value.frame.z).toEqual(close(normal));
  });

  test('between planes that meet it goes through the line where they meet', () => {
    const made = make('datum-plane', 'halfway', ['high', 'steep']);
    if (!made.ok || made.value.form !== 'plane') throw new Error('no plane');
    const { origin, z } = made.value.frame;
    // (5, y, 20) lies on both
    const height = (place: Vec3) => [0, 1, 2].reduce((sum, k) => sum + (place[k]! - origin[k]!) * z[k]!, 0);
    expect(height([5, 0, 20])).toBeCloseTo(0, 12);
    expect(height([5, 31, 20])).toBeCloseTo(0, 12);
    expect(z).toEqual(close([H, 0, H]));
  });

  test.each([
    ['angle', ['top', 'z'], /does not lie along the plane/],
    ['points', ['p', 'q', 's'], /lie on one line/],
    ['points', ['p', 'q'], /Choose a corner/],
    ['angle', ['top', 'p'], /another kind now; this needs a straight edge/],
  ] as const)('%s %j is refused in words', (how, names, words) => {
    const made = make('datum-plane', how, [...names]);
    expect(!made.ok && explain(made.issue)).toMatch(words);
  });

  test('the sentence names what it builds on, and asks for what is missing', () => {
    const kind = stepKind('datum-plane');
    const step = { kind: 'datum-plane', name: 'Middle', how: 'halfway', on: on('top') } as Step;
    const text = kind.sentence(step, () => '?').map((phrase) => ('text' in phrase ? phrase.text : phrase.value));
    expect(text.join('')).toBe('Datum plane Middle halfway Top and choose');
    expect(kind.picks!(step).map(({ picked }) => picked.length)).toEqual([1, 0]);
    expect(kind.uses({ ...step, on: on('high') } as Step)).toEqual(['high']);
  });
});

describe('datum axes, points and frames', () => {
  test.each<[string, string[], Vec3, Vec3]>([
    ['along', ['edge'], [0, 10, 0], [1, 0, 0]],
    ['points', ['p', 'r'], [1, 2, 3], [0, 1, 0]],
    ['planes', ['high', 'steep'], [5, 0, 20], [0, 1, 0]],
    ['square', ['front', 'p'], [1, 2, 3], [0, -1, 0]],
  ])('axis %s %j', (how, names, at, along) => {
    const made = make('datum-axis', how, names);
    if (!made.ok || made.value.form !== 'axis') throw new Error('no axis');
    expect(made.value.origin).toEqual(close(at));
    expect(made.value.direction).toEqual(close(along));
  });

  test.each<[string, string[], Vec3]>([
    ['at', ['q'], [4, 2, 3]],
    ['halfway', ['p', 'q'], [2.5, 2, 3]],
    ['crossing', ['edge', 'steep'], [5, 10, 0]],
  ])('point %s %j', (how, names, at) => {
    const made = make('datum-point', how, names);
    if (!made.ok || made.value.form !== 'point') throw new Error('no point');
    expect(made.value.at).toEqual(close(at));
  });

  test('a frame at a point, level or along an axis', () => {
    expect(make('datum-frame', 'point', ['p', 'top'])).toEqual(
      ok({ form: 'frame', frame: { ...ORIGIN_PLANES.top, origin: [1, 2, 3] } }),
    );
    const turned = make('datum-frame', 'axis', ['p', 'top', 'y']);
    if (!turned.ok || turned.value.form !== 'frame') throw new Error('no frame');
    expect(turned.value.frame).toMatchObject({ origin: [1, 2, 3], x: close([0, 1, 0]), y: close([-1, 0, 0]) });
  });

  test.each([
    ['datum-axis', 'points', ['p', 'p'], /same place/],
    ['datum-axis', 'planes', ['top', 'high'], /parallel/],
    ['datum-point', 'crossing', ['edge', 'top'], /parallel/],
  ] as const)('%s %s %j is refused in words', (kind, how, names, words) => {
    const made = make(kind, how, [...names]);
    expect(!made.ok && explain(made.issue)).toMatch(words);
  });
});
