import fc from 'fast-check';
import {
  compose,
  transformPoint,
  transformFrame,
  translation,
  rotation,
  inverse,
  type Frame,
  type RigidTransform,
} from '../math/index.ts';
import { type SpaceCurve, helixAt } from '../geometry/index.ts';
import type { EdgeFacts, FaceFacts, Topology } from '../kernel-port/index.ts';
import { fail, ok } from '../result/index.ts';
import type { Entities, Entity } from '../sketch/index.ts';
import { candidates, locate, suits, type World } from './locate.ts';
import { fingerprintOfFace } from './fingerprints.ts';
import { projected } from './projection.ts';
import type { OtherReference } from './reference.ts';
import { axisOf, isOwn, ORIGIN_PLANES, planeOf, pointOf, transformThing, type Thing } from './things/index.ts';
import { referenceWords } from './words.ts';

const far = fc.double({ min: -200, max: 200, noNaN: true });
const angle = fc.double({ min: -3, max: 3, noNaN: true });
/** Turned about two axes and shifted. */
const motion: fc.Arbitrary<RigidTransform> = fc
  .tuple(angle, angle, fc.tuple(far, far, far))
  .map(([a, b, by]) =>
    [rotation([0, 0, 0], [0, 0, 1], a), rotation([3, 1, 4], [0.6, 0.8, 0], b), translation(by)].reduce(compose),
  );

const CURVES: readonly SpaceCurve[] = [
  { form: 'line', from: [1, 2, 3], to: [5, -2, 8] },
  { form: 'circle', centre: [4, 0, 2], axis: [0, 0.6, 0.8], radius: 7 },
  { form: 'circle', centre: [0, 0, 0], axis: [0, 0, 1], radius: 5, from: [5, 0, 0], to: [0, 5, 0] },
  { form: 'ellipse', centre: [1, 1, 1], major: [6, 0, 0], minor: [0, 0, 2] },
  {
    form: 'free',
    spans: [
      [
        [0, 0, 0],
        [1, 2, 0],
        [3, 2, 1],
        [4, 0, 2],
      ],
    ],
  },
  {
    form: 'helix',
    origin: [1, 0, 0],
    axis: [0, 0, 1],
    x: [1, 0, 0],
    radius: 6,
    pitch: 3,
    turns: 1.5,
    left: true,
    taper: 0.1,
  },
];
const edge = (curve: SpaceCurve, name = 'a | b'): EdgeFacts => ({
  name,
  faces: ['a', 'b'],
  curve,
  length: 9,
  middle: [1, 2, 3],
});
const flat: FaceFacts = {
  name: 'a',
  surface: { form: 'plane', origin: [0, 0, 4], normal: [0, 0, 1] },
  area: 50,
  centre: [2, 3, 4],
};
const bore: FaceFacts = {
  name: 'b',
  surface: { form: 'cylinder', origin: [1, 0, 0], axis: [0, 0, 1], radius: 3, hollow: true },
  area: 40,
  centre: [1, 0, 2],
};
const body: Topology = {
  name: 'a',
  faces: [flat, bore],
  edges: [
    edge({ form: 'circle', centre: [1, 0, 4], axis: [0, 0, 1], radius: 3 }),
    edge({ form: 'circle', centre: [1, 0, 0], axis: [0, 0, 1], radius: 3 }, 'b | c'),
  ],
  vertices: [{ name: 'corner a | b', at: [1, 2, 3] }],
};
const face = (which: FaceFacts): Thing => ({ to: 'face', face: which, body: 0, topology: body });

/** All numbers within, in their order. */
const numbers = (value: unknown): number[] =>
  typeof value === 'number' ? [value] : value && typeof value === 'object' ? Object.values(value).flatMap(numbers) : [];
function near(value: unknown, expected: unknown): void {
  const [is, should] = [numbers(value), numbers(expected)];
  expect(is).toHaveLength(should.length);
  is.forEach((c, k) => expect(Math.abs(c - should[k]!)).toBeLessThan(1e-9 * Math.max(1, Math.abs(should[k]!)) * 1e3));
}

const THINGS: readonly Thing[] = [
  ...CURVES.map((curve): Thing => ({ to: 'edge', edge: edge(curve), body: 0 })),
  face(flat),
  face(bore),
  { to: 'vertex', vertex: body.vertices[0]!, body: 0 },
  { to: 'datum', datum: { form: 'plane', frame: ORIGIN_PLANES.right } },
  { to: 'datum', datum: { form: 'axis', origin: [1, 1, 0], direction: [0, 1, 0] } },
  { to: 'datum', datum: { form: 'point', at: [3, 2, 1] } },
  { to: 'datum', datum: { form: 'curve', edge: edge(CURVES[5]!) } },
  { to: 'drawn', curves: [edge(CURVES[0]!)] },
  { to: 'drawn', curves: [], at: [7, 8, 9] },
];
/** An ellipse is the same by either tip of its long axis. */
function rightTips(seen: Entities): Entities {
  const at = (id: string) => seen[id] as Extract<Entity, { kind: 'point' }>;
  return Object.fromEntries(
    Object.entries(seen).map(([id, entity]) => {
      if (entity.kind !== 'point' || !id.endsWith(' tip')) return [id, entity];
      const { x, y } = at(id.replace(/ tip$/, ' centre'));
      return [id, entity.x < x ? { ...entity, x: 2 * x - entity.x, y: 2 * y - entity.y } : entity];
    }),
  );
}
/** Not along any of the axes of what is looked at. */
const ASLANT: Frame = transformFrame(ORIGIN_PLANES.top, rotation([0, 0, 0], [0.6, 0, 0.8], 0.7));

test('what is moved with the plane on which it is seen looks the same on it', () => {
  fc.assert(
    fc.property(fc.constantFrom(...THINGS), motion, (thing, by) => {
      const [before, after] = [
        projected(thing, 'shape', ASLANT, () => []),
        projected(transformThing(thing, by), 'shape', transformFrame(ASLANT, by), () => []),
      ];
      if (!before.ok || !after.ok) throw new Error('not seen');
      expect(Object.keys(after.value)).toEqual(Object.keys(before.value));
      near(rightTips(after.value), rightTips(before.value));
    }),
  );
});

test('there and back again all is where it was; planes, axes and places go along', () => {
  fc.assert(
    fc.property(fc.constantFrom(...THINGS), motion, (thing, by) => {
      const moved = transformThing(thing, by);
      const back = transformThing(moved, inverse(by));
      if (thing.to !== 'face') near({ ...back, body: 0 }, { ...thing, body: 0 });
      const place = pointOf(thing);
      if (place) near(pointOf(moved), transformPoint(by, place));
      const axis = axisOf(thing);
      if (axis?.stretch)
        near(
          axisOf(moved)!.stretch,
          axis.stretch.map((end) => transformPoint(by, end)),
        );
      const plane = planeOf(thing);
      if (plane) near(planeOf(moved)!.z, transformFrame(plane, by).z);
    }),
  );
});

test('a helix is moved place by place', () => {
  const helix = CURVES[5] as Extract<SpaceCurve, { form: 'helix' }>;
  const by = compose(rotation([0, 0, 0], [0, 1, 0], 1), translation([4, 5, 6]));
  const moved = transformThing({ to: 'edge', edge: edge(helix), body: 0 }, by) as Extract<Thing, { to: 'edge' }>;
  for (const t of [0, 0.4, 1])
    near(helixAt(moved.edge.curve as typeof helix, t), transformPoint(by, helixAt(helix, t)));
});

test('it is of no body: it can be built on, and not be changed', () => {
  const moved = transformThing(face(flat), translation([0, 0, 1]));
  expect(isOwn(face(flat))).toBe(true);
  expect(isOwn(moved)).toBe(false);
  for (const accepts of ['plane', 'sheet', 'place', 'shape'] as const) expect(suits(moved, accepts)).toBe(true);
  for (const accepts of ['face', 'edges', 'body', 'round'] as const) expect(suits(moved, accepts)).toBe(false);
  expect(suits(transformThing(face(bore), translation([0, 0, 1])), 'round')).toBe(false);
  expect(suits(transformThing(face(bore), translation([0, 0, 1])), 'sheet')).toBe(false);
});

describe('a reference to a thing of another part', () => {
  const there: World = { bodies: [body], datum: () => undefined, drawn: () => undefined };
  const pose = translation([10, 0, 0]);
  const here: World = {
    bodies: [],
    datum: () => undefined,
    drawn: () => undefined,
    elsewhere: (at) => (at === 'p' ? ok({ world: there, pose }) : fail('reference.unplaced')),
  };
  const to = (name: string, more: Partial<OtherReference> = {}): OtherReference => ({
    to: 'other',
    at: 'p',
    on: { to: 'face', name },
    ...more,
  });

  test('is found where that stands', () => {
    const match = locate(to('a'), 'plane', here);
    // its face there, its plane with the origin that planes have here
    expect(match).toMatchObject({ ok: true, value: { thing: { face: { centre: [12, 3, 4] } } } });
    near(match.ok && planeOf(match.value.thing)?.origin, [0, 0, 4]);
  });

  test('is recovered by its looks in its own part, and tells how it looks from here', () => {
    const print = fingerprintOfFace(flat);
    const match = locate(to('gone', { on: { to: 'face', name: 'gone', print } }), 'plane', here);
    expect(match).toMatchObject({
      ok: true,
      value: { fate: 'recovered', now: { to: 'other', at: 'p', on: { name: 'a', print }, print: { at: [12, 3, 4] } } },
    });
    expect(candidates(to('gone', { on: { to: 'face', name: 'gone', print } }), 'plane', here)).toMatchObject([
      { to: 'other', on: { name: 'a' } },
    ]);
  });

  test('fails in words where there is no such part, placement or thing, or nothing else at all', () => {
    const code = (reference: OtherReference, world = here) => {
      const match = locate(reference, 'plane', world);
      return match.ok ? '' : match.issue.code;
    };
    expect(code(to('a', { at: 'q' }))).toBe('reference.unplaced');
    expect(code(to('z'))).toBe('reference.gone');
    expect(code(to('b'))).toBe('reference.kind');
    expect(code(to('a'), there)).toBe('reference.alone');
  });

  test('is called by its part', () => {
    const nameOf = (step: string, at?: string) => (at === undefined ? `own ${step}` : step === '' ? 'Lid' : 'Plate');
    expect(referenceWords(to('s/end'), nameOf)).toBe('the end of Plate in Lid');
    expect(referenceWords(to('s/end', { on: { to: 'origin', name: 'x' } }), nameOf)).toBe('the x axis of Lid');
  });
});
