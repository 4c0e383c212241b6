import { armsOf } from '../geometry/index.ts';
import fc from 'fast-check';
import { isCalled } from '../naming/index.ts';
import {
  explain,
  printWords,
  frameOn,
  heightOver,
  ORIGIN_PLANES,
  type EdgeFacts,
  type FaceFacts,
  type Topology,
  type Vec3,
} from '../index.ts';
import { candidates, locate, type World } from './locate.ts';
import { fingerprintOfEdge, fingerprintOfFace } from './fingerprints.ts';
import { projected } from './projection.ts';
import { madeBy, needs, sameReference, type Reference } from './reference.ts';
import { axisOf, planeOf, pointOf, tangentNear } from './things/index.ts';
import { referenceWords } from './words.ts';

const flat = (name: string, at: Vec3, area: number, normal: Vec3 = [0, 0, 1]): FaceFacts => ({
  name,
  surface: { form: 'plane', origin: at, normal },
  area,
  centre: at,
});
const straight = (name: string, from: Vec3, to: Vec3): EdgeFacts => ({
  name,
  faces: name.replace(/ ~\d+$/, '').split(' | '),
  curve: { form: 'line', from, to },
  length: Math.hypot(to[0] - from[0], to[1] - from[1], to[2] - from[2]),
  middle: [(from[0] + to[0]) / 2, (from[1] + to[1]) / 2, (from[2] + to[2]) / 2],
});
const world = (faces: FaceFacts[], edges: EdgeFacts[] = []): World => ({
  bodies: [{ name: 's1', faces, edges, vertices: [] } satisfies Topology],
  datum: () => undefined,
  drawn: () => undefined,
});
const toFace = (face: FaceFacts): Reference => ({ to: 'face', name: face.name, print: fingerprintOfFace(face) });
const toEdge = (edge: EdgeFacts): Reference => ({ to: 'edge', name: edge.name, print: fingerprintOfEdge(edge) });

describe('locating', () => {
  const top = flat('s1/end', [0, 0, 5], 100);

  test('a name that is there is exact, wherever the face has gone', () => {
    const moved = flat('s1/end', [90, 0, 70], 3);
    const match = locate(toFace(top), 'plane', world([moved, flat('s1/start', [0, 0, 5], 100)]));
    expect(match).toMatchObject({ ok: true, value: { fate: 'exact', thing: { face: moved } } });
  });

  test('a face that was split is recovered as the piece that lies where it was, and offered under its new name', () => {
    const pieces = [flat('s1/end@s2/side/a', [1, 0, 5], 60), flat('s1/end@s2/side/b', [40, 0, 5], 40)];
    const match = locate(toFace(top), 'plane', world([flat('s1/start', [0, 0, 0], 100), ...pieces]));
    expect(match).toMatchObject({
      ok: true,
      value: { fate: 'recovered', now: { name: 's1/end@s2/side/a' } },
    });
  });

  test('the end of an area is recovered when the sketch gets another area beside it', () => {
    const ends = [flat('s1/end/a+ b+ c+', [0, 0, 5], 100), flat('s1/end/d+', [70, 0, 5], 20)];
    const match = locate(toFace(top), 'plane', world(ends));
    expect(match).toMatchObject({ ok: true, value: { fate: 'recovered', now: { name: 's1/end/a+ b+ c+' } } });
  });

  test('of two pieces that are equally far none is guessed: it is gone, with both offered', () => {
    const pieces = [flat('s1/end@s2/side/a', [-20, 0, 5], 50), flat('s1/end@s2/side/b', [20, 0, 5], 50)];
    const there = world(pieces);
    const match = locate(toFace(top), 'plane', there);
    expect(match).toMatchObject({ ok: false, issue: { code: 'reference.gone' } });
    expect(!match.ok && explain(match.issue)).toBe('The face that this builds on is gone: choose again.');
    expect(candidates(toFace(top), 'plane', there)).toMatchObject(pieces.map(({ name }) => ({ name })));
  });

  test('an edge whose faces were named anew is recovered where it lies just as it did; elsewhere it is gone', () => {
    const edge = straight('s1/end | s1/side/l4', [0, 0, 5], [40, 0, 5]);
    const same = straight('s1/end | s1/side/l9', [0, 0, 5], [40, 0, 5]);
    const other = straight('s1/end | s1/side/l7', [0, 9, 5], [40, 9, 5]);
    expect(locate(toEdge(edge), 'edge', world([], [other, same]))).toMatchObject({
      ok: true,
      value: { fate: 'recovered', now: { name: same.name } },
    });
    expect(locate(toEdge(edge), 'edge', world([], [other])).ok).toBe(false);
  });

  test('what is there but of another kind is told', () => {
    const round: FaceFacts = {
      ...top,
      surface: { form: 'cylinder', origin: [0, 0, 0], axis: [0, 0, 1], radius: 3, hollow: false },
    };
    const match = locate(toFace(top), 'plane', world([round]));
    expect(!match.ok && explain(match.issue)).toMatch(/another kind now; this needs a flat face/);
    expect(candidates(toFace(top), 'plane', world([round]))).toEqual([]);
  });

  test('without a fingerprint only the name counts, or the only one of its family', () => {
    const bare: Reference = { to: 'face', name: 's1/end' };
    expect(locate(bare, 'face', world([flat('s2/end', [0, 0, 5], 100)])).ok).toBe(false);
    expect(locate(bare, 'face', world([flat('s1/end@s2/x', [7, 0, 5], 1)]))).toMatchObject({
      ok: true,
      value: { fate: 'recovered' },
    });
  });

  test('what every part has is always there', () => {
    const found = locate({ to: 'origin', name: 'right' }, 'plane', world([]));
    expect(found.ok && planeOf(found.value.thing)).toEqual(ORIGIN_PLANES.right);
    expect(locate({ to: 'origin', name: 'right' }, 'axis', world([])).ok).toBe(false);
  });
});

test('offers of one name are told apart by what they look like', () => {
  const at: [number, number, number] = [0, 0, 0];
  expect(printWords({ form: 'line', size: 36.64, at })).toBe('straight 36.6');
  expect(printWords({ form: 'plane', size: 120, at })).toBe('flat 120 mm²');
  expect(printWords({ form: 'point', size: 0, at })).toBe('');
});

describe('names of sides of several lines', () => {
  test.each<[string, string, boolean]>([
    ['s1/side/a', 's1/side/a', true],
    ['s1/side/a', 's1/side/a,b', true],
    ['s1/side/b@s2/end', 's1/side/a,b@s2/end', true],
    ['s1/side/c', 's1/side/a,b', false],
    ['s1/side/a', 's2/side/a,b', false],
    ['s1/end | s1/side/b ~2', 's1/end | s1/side/a,b ~2', true],
    ['s1/end | s1/side/b ~1', 's1/end | s1/side/a,b ~2', false],
    ['s1/side/b | s1/side/c', 's1/side/a,b | s1/side/c', true],
    ['corner s1/end | s1/side/b | s1/side/c', 'corner s1/end | s1/side/a,b | s1/side/c', true],
    ['s1/side/a,b', 's1/side/a', false],
  ])('%s means %s: %s', (wanted, now, means) => expect(isCalled(wanted, now)).toBe(means));
});

describe('references', () => {
  const edge: Reference = { to: 'edge', name: 's1/end | s3/side/l4 ~2' };
  test('know the steps that made what they name, and need only datums and sketches', () => {
    expect(madeBy(edge)).toEqual(['s1', 's3']);
    expect(needs(edge)).toEqual([]);
    expect(madeBy({ to: 'vertex', name: 'corner s1/end | s1/side/a | s2/side/b' })).toEqual(['s1', 's2']);
    expect(needs({ to: 'drawn', step: 's4', entity: 'l1' })).toEqual(['s4']);
    expect(sameReference(edge, { ...edge, print: { form: 'line', size: 2, at: [0, 0, 0] } })).toBe(true);
  });

  test('are called after their steps', () => {
    const nameOf = (id: string) => ({ s1: 'Foot', s3: 'Boss' })[id] ?? '?';
    expect(referenceWords(edge, nameOf)).toBe('an edge of Foot and Boss');
    expect(referenceWords({ to: 'face', name: 's3/end@s1/side/l2' }, nameOf)).toBe('the end of Boss');
    expect(referenceWords({ to: 'origin', name: 'top' }, nameOf)).toBe('Top');
  });
});

describe('what a plane sees', () => {
  const between = (min: number, max: number) => fc.double({ min, max, noNaN: true });
  const unit = fc
    .tuple(fc.double({ min: -1, max: 1, noNaN: true }), fc.double({ min: 0, max: 2 * Math.PI, noNaN: true }))
    .map(([z, t]): Vec3 => [Math.sqrt(1 - z * z) * Math.cos(t), Math.sqrt(1 - z * z) * Math.sin(t), z]);

  test('a frame on any plane is right-handed and lies in it; Front, Top and Right come out as they are', () => {
    const close = (v: Vec3) => v.map((c) => expect.closeTo(c, 12));
    for (const { x, y, z } of Object.values(ORIGIN_PLANES))
      expect(frameOn([0, 0, 0], z)).toMatchObject({ x: close(x), y: close(y) });
    fc.assert(
      fc.property(unit, (normal) => {
        const { x, y, z } = frameOn([1, 2, 3], normal);
        expect(Math.hypot(x[0] - (y[1] * z[2] - y[2] * z[1]), x[1] - (y[2] * z[0] - y[0] * z[2]))).toBeLessThan(1e-9);
        expect(Math.hypot(...x)).toBeCloseTo(1, 12);
      }),
    );
  });

  test('a circle from anywhere is an ellipse: the longer half axis is the radius, the shorter its share by the slope', () => {
    fc.assert(
      fc.property(between(0.01, 0.99), between(0, 6), between(0.5, 50), (slope, turn, radius) => {
        const flat = Math.sqrt(1 - slope * slope);
        const axis: Vec3 = [flat * Math.cos(turn), flat * Math.sin(turn), slope];
        const rim: EdgeFacts = {
          name: 'rim',
          faces: [],
          curve: { form: 'circle', centre: [3, 4, 5], axis, radius },
          length: 1,
          middle: [0, 0, 0],
        };
        const seen = projected({ to: 'edge', edge: rim, body: 0 }, 'shape', ORIGIN_PLANES.top, () => []);
        if (!seen.ok) throw new Error(seen.issue.code);
        const { curve, 'curve centre': centre, 'curve tip': tip } = seen.value;
        if (curve?.kind !== 'ellipse' || centre?.kind !== 'point' || tip?.kind !== 'point')
          throw new Error('no ellipse');
        expect(Math.hypot(tip.x - centre.x, tip.y - centre.y)).toBeCloseTo(radius, 8);
        expect(curve.minor).toBeCloseTo(radius * slope, 8);
      }),
    );
  });

  test.each([
    // a quarter seen edge-on along x, from its middle height up to its top, and one that passes over the top
    [0, Math.PI / 2, 0, 1],
    [Math.PI / 4, (3 * Math.PI) / 4, Math.SQRT1_2, 1],
    [Math.PI / 4, (7 * Math.PI) / 4, -1, 1],
    [-Math.PI / 4, Math.PI / 4, -Math.SQRT1_2, Math.SQRT1_2],
  ])('an arc from %d to %d seen edge-on reaches from %d to %d', (a, b, low, high) => {
    const at = (t: number): Vec3 => [0, Math.cos(t), Math.sin(t)];
    const arc: EdgeFacts = {
      name: 'arc',
      faces: [],
      curve: { form: 'circle', centre: [0, 0, 0], axis: [1, 0, 0], radius: 1, from: at(a), to: at(b) },
      length: 1,
      middle: [0, 0, 0],
    };
    const front = projected({ to: 'edge', edge: arc, body: 0 }, 'shape', ORIGIN_PLANES.front, () => []);
    if (!front.ok) throw new Error(front.issue.code);
    const heights = Object.values(front.value).flatMap((entity) => (entity.kind === 'point' ? [entity.y] : []));
    expect(heights.toSorted((p, q) => p - q)).toEqual([expect.closeTo(low, 12), expect.closeTo(high, 12)]);
  });

  test('a datum plane that crosses is a line on its trace, an axis along the view a point', () => {
    const plane = frameOn([0, 0, 7], [0, -Math.SQRT1_2, Math.SQRT1_2]);
    const trace = projected(
      { to: 'datum', datum: { form: 'plane', frame: plane } },
      'shape',
      ORIGIN_PLANES.top,
      () => [],
    );
    if (!trace.ok) throw new Error(trace.issue.code);
    for (const entity of Object.values(trace.value))
      if (entity.kind === 'point') expect(heightOver(plane, [entity.x, entity.y, 0])).toBeCloseTo(0, 12);
    const axis = { form: 'axis', origin: [2, 3, 9], direction: [0, 0, 1] } as const;
    const point = projected({ to: 'datum', datum: axis }, 'shape', ORIGIN_PLANES.top, () => []);
    expect(point.ok && Object.values(point.value)).toEqual([{ kind: 'point', x: 2, y: 3 }]);
  });

  test('nothing seen is told', () => {
    const vertex = { to: 'vertex', vertex: { name: 'v', at: [0, 0, 0] }, body: 0 } as const;
    const none = projected(vertex, 'axis', ORIGIN_PLANES.top, () => []);
    expect(!none.ok && explain(none.issue)).toMatch(/has no axis to borrow/);
  });
});

describe('things', () => {
  const rim = { form: 'circle', centre: [1, 2, 3], axis: [0, 0, 1], radius: 4 } as const;
  const edge = (curve: EdgeFacts['curve']): EdgeFacts => ({
    name: 'e',
    faces: [],
    curve,
    length: 1,
    middle: [0, 0, 0],
  });

  test('a rim stands for its centre and its axis; a straight edge for its line', () => {
    const thing = { to: 'edge', edge: edge(rim), body: 0 } as const;
    expect(pointOf(thing)).toEqual([1, 2, 3]);
    expect(axisOf(thing)).toMatchObject({ origin: [1, 2, 3], direction: [0, 0, 1] });
    expect(planeOf(thing)).toBeUndefined();
  });

  test('the nearest place of a curve and its direction there', () => {
    const near = tangentNear([edge(rim)], [11, 2, 3])!;
    expect(near.at).toEqual([expect.closeTo(5, 6), expect.closeTo(2, 6), expect.closeTo(3, 6)]);
    expect(Math.abs(near.along[1])).toBeCloseTo(1, 6);
    const [u, v] = armsOf(rim);
    expect([Math.hypot(...u), Math.hypot(...v)]).toEqual([4, 4]);
    const wave = edge({
      form: 'free',
      spans: [
        [
          [0, 0, 0],
          [1, 0, 0],
          [2, 0, 0],
          [3, 0, 0],
        ],
      ],
    });
    expect(tangentNear([wave], [1.5, 4, 0])!.at).toEqual([expect.closeTo(1.5, 6), 0, 0]);
  });
});
