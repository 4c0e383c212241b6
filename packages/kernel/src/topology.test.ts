import {
  bezierAt,
  cross3,
  distance3,
  dot3,
  filled,
  findRegions,
  frameOn,
  Geometry,
  ORIGIN_PLANES,
  projected,
  sub3,
  type BodyHandle,
  type Entities,
  type Frame,
  type Thing,
  type Topology,
  type Vec3,
} from '@helb/core';
import type { OpenCascadeKernel } from './kernel.ts';
import { startKernelInNode } from './node.ts';

let kernel: OpenCascadeKernel;
beforeAll(async () => (kernel = await startKernelInNode()));
afterEach(() => expect(kernel.held).toBe(0));

/** Extrudes what is drawn, forwards by a height. */
function extruded(entities: Entities, height: number, frame: Frame = ORIGIN_PLANES.top, step = 's'): BodyHandle {
  const regions = filled(findRegions(new Geometry(entities)));
  const made = kernel.extrude({ profile: { frame, regions }, from: 0, to: height, step });
  if (!made.ok) throw new Error(made.issue.code);
  return made.value[0]!;
}

/** A plate 40 x 20 with a bore of 8 at (10, 10). */
const PLATE: Entities = {
  p0: { kind: 'point', x: 0, y: 0 },
  p1: { kind: 'point', x: 40, y: 0 },
  p2: { kind: 'point', x: 40, y: 20 },
  p3: { kind: 'point', x: 0, y: 20 },
  a: { kind: 'line', a: 'p0', b: 'p1' },
  b: { kind: 'line', a: 'p1', b: 'p2' },
  c: { kind: 'line', a: 'p2', b: 'p3' },
  d: { kind: 'line', a: 'p3', b: 'p0' },
  m: { kind: 'point', x: 10, y: 10 },
  bore: { kind: 'circle', centre: 'm', radius: 4 },
};

const faceOf = (topology: Topology, name: string): Thing => {
  const face = topology.faces.find((other) => other.name === name)!;
  return { to: 'face', face, body: 0, topology };
};

describe('topology', () => {
  test('edges turn out or in, or go on: a block with a boss, a bore and a round', () => {
    const block = extruded(PLATE, 5);
    const ring: Entities = { m: { kind: 'point', x: 28, y: 10 }, o: { kind: 'circle', centre: 'm', radius: 5 } };
    const boss = extruded(ring, 12, ORIGIN_PLANES.top, 't');
    const whole = kernel.combine('add', [block], [boss]);
    if (!whole.ok) throw new Error(whole.issue.code);
    const [body] = whole.value.bodies as [BodyHandle];
    const turn = (of: BodyHandle, ...parts: string[]) =>
      kernel.topology(of).edges.find(({ name }) => parts.every((part) => name.split(' | ').includes(part)))!.turn;
    expect(turn(body, 's/end', 's/side/a')).toBe('outer');
    expect(turn(body, 's/end', 's/side/bore')).toBe('outer');
    expect(
      kernel
        .topology(body)
        .edges.filter((edge) => edge.turn === 'inner')
        .map(({ curve }) => curve),
    ).toEqual([expect.objectContaining({ form: 'circle', radius: 5, centre: [28, 10, 5] })]);
    const round = kernel.fillet({
      body,
      step: 'r',
      edges: [
        { name: kernel.topology(body).edges.find(({ name }) => name === 's/side/a | s/side/b')!.name, radius: 2 },
      ],
    });
    if (!round.ok) throw new Error(round.issue.code);
    const smooth = kernel.topology(round.value).edges.filter((edge) => edge.turn === 'smooth');
    expect(smooth.map(({ faces }) => faces.find((face) => face.startsWith('s/'))).sort()).toEqual([
      's/side/a',
      's/side/b',
    ]);
    [block, boss, body, round.value].forEach((held) => kernel.release(held));
  });

  test('a plate with a bore: seven faces, fourteen edges, eight corners, each by name, with exact geometry', () => {
    const plate = extruded(PLATE, 5);
    const { faces, edges, vertices } = kernel.topology(plate);
    expect([faces.length, edges.length, vertices.length]).toEqual([7, 14, 8]);
    const top = faces.find(({ name }) => name === 's/end')!;
    expect(top.area).toBeCloseTo(800 - Math.PI * 16, 9);
    expect(top.surface).toMatchObject({ form: 'plane', normal: [0, 0, 1] });
    expect(faces.find(({ name }) => name === 's/start')!.surface).toMatchObject({ normal: [-0, -0, -1] });
    expect(faces.find(({ name }) => name === 's/side/bore')!.surface).toMatchObject({
      form: 'cylinder',
      radius: 4,
      hollow: true,
    });
    const rim = edges.find(({ name }) => name === 's/end | s/side/bore')!;
    expect(rim.curve).toMatchObject({ form: 'circle', centre: [10, 10, 5], radius: 4 });
    expect(rim.ends).toBeUndefined();
    const corner = vertices.find(({ name }) => name === 'corner s/end | s/side/a | s/side/b')!;
    expect(corner.at).toEqual([40, 0, 5]);
    const along = edges.find(({ name }) => name === 's/end | s/side/a')!;
    expect(new Set(along.ends)).toEqual(new Set([corner.name, 'corner s/end | s/side/a | s/side/d']));
    kernel.release(plate);
  });

  test('a shaft is no bore; its normal points outwards', () => {
    const shaft = extruded({ m: PLATE['m']!, bore: PLATE['bore']! }, 5);
    const side = kernel.topology(shaft).faces.find(({ name }) => name === 's/side/bore')!;
    expect(side.surface).toMatchObject({ form: 'cylinder', hollow: false });
    kernel.release(shaft);
  });

  test('a free curve is told by Bezier spans that lie on the drawn spline', () => {
    const wave: Entities = {
      p: { kind: 'point', x: 0, y: 0 },
      q: { kind: 'point', x: 8, y: 7 },
      r: { kind: 'point', x: 20, y: 0 },
      h: { kind: 'point', x: 2, y: 5 },
      e: { kind: 'point', x: 18, y: 6 },
      s: { kind: 'spline', points: ['p', 'q', 'r'], start: 'h', end: 'e', knots: [0, 10, 24] },
      l: { kind: 'line', a: 'p', b: 'r' },
    };
    const body = extruded(wave, 3);
    const edge = kernel.topology(body).edges.find(({ name }) => name === 's/end | s/side/s')!;
    if (edge.curve.form !== 'free') throw new Error(edge.curve.form);
    expect(edge.curve.spans).toHaveLength(2);
    const drawn = new Geometry(wave).pieces('s');
    const ends = drawn.flatMap(({ from, to }) => [from, to]);
    for (const span of edge.curve.spans)
      for (const end of [bezierAt(span, 0), bezierAt(span, 1)])
        expect(Math.min(...ends.map(([x, y]) => distance3([x, y, 3], end)))).toBeLessThan(1e-9);
    kernel.release(body);
  });
});

describe('what is seen on a plane', () => {
  const seen = (thing: Thing, frame: Frame, how: 'shape' | 'axis' = 'shape') => {
    const result = projected(thing, how, frame, () => []);
    if (!result.ok) throw new Error(result.issue.code);
    return result.value;
  };

  test('the top of the plate on Top: its four sides and the bore, corners shared', () => {
    const plate = extruded(PLATE, 5);
    const shadow = seen(faceOf(kernel.topology(plate), 's/end'), ORIGIN_PLANES.top);
    const kinds = Object.values(shadow).map(({ kind }) => kind);
    expect(kinds.filter((kind) => kind === 'line')).toHaveLength(4);
    expect(kinds.filter((kind) => kind === 'circle')).toHaveLength(1);
    // four corners and the centre
    expect(kinds.filter((kind) => kind === 'point')).toHaveLength(5);
    expect(shadow['s/end | s/side/bore']).toMatchObject({ kind: 'circle', radius: 4 });
    kernel.release(plate);
  });

  test('the rim on Front is a line as long as the bore is wide; an upright edge is a point; the axis of the bore a line', () => {
    const plate = extruded(PLATE, 5);
    const topology = kernel.topology(plate);
    const edge = (name: string): Thing => ({ to: 'edge', body: 0, edge: topology.edges.find((e) => e.name === name)! });
    const line = seen(edge('s/end | s/side/bore'), ORIGIN_PLANES.front);
    const { a, b } = new Geometry(line).line('curve');
    expect([a[0], b[0]].toSorted((p, q) => p - q)).toEqual([6, 14]);
    expect([a[1], b[1]]).toEqual([5, 5]);
    const [point, ...others] = Object.values(seen(edge('s/side/a | s/side/b'), ORIGIN_PLANES.top));
    expect(others).toEqual([]);
    expect(point).toEqual({ kind: 'point', x: 40, y: 0 });
    const axis = new Geometry(seen(faceOf(topology, 's/side/bore'), ORIGIN_PLANES.front, 'axis')).line('axis');
    expect([axis.a, axis.b].toSorted((p, q) => p[1] - q[1])).toEqual([
      [10, 0],
      [10, 5],
    ]);
    expect(Object.values(seen(faceOf(topology, 's/side/bore'), ORIGIN_PLANES.top, 'axis'))).toEqual([
      { kind: 'point', x: 10, y: 10 },
    ]);
    kernel.release(plate);
  });

  test('a rim on a plane tilted by 60 degrees is an ellipse half as high as wide', () => {
    const plate = extruded(PLATE, 5);
    const rim = kernel.topology(plate).edges.find(({ name }) => name === 's/end | s/side/bore')!;
    const tilted = frameOn([0, 0, 0], [0, -Math.sin(Math.PI / 3), 0.5], [1, 0, 0]);
    const shadow = seen({ to: 'edge', edge: rim, body: 0 }, tilted);
    const { centre, tip, minor } = new Geometry(shadow).ellipse('curve');
    expect(distance3([...centre, 0] as unknown as Vec3, [...tip, 0] as unknown as Vec3)).toBeCloseTo(4, 12);
    expect(minor).toBeCloseTo(2, 12);
    kernel.release(plate);
  });
});

describe('crossings', () => {
  test('a slanted plane crosses a shaft in an ellipse, and its flat end in a line, each by the name of its face', () => {
    const shaft = extruded({ m: { kind: 'point', x: 0, y: 0 }, c: { kind: 'circle', centre: 'm', radius: 5 } }, 30);
    const s = Math.SQRT1_2;
    const across = kernel.crossing(shaft, frameOn([0, 0, 15], [0, -s, s]));
    expect(across).toHaveLength(1);
    expect(across[0]).toMatchObject({ faces: ['s/side/c'] });
    const { curve } = across[0]!;
    if (curve.form !== 'ellipse') throw new Error(curve.form);
    expect([Math.hypot(...curve.major), Math.hypot(...curve.minor)]).toEqual([
      expect.closeTo(5 * Math.SQRT2, 9),
      expect.closeTo(5, 9),
    ]);
    const upright = kernel.crossing(shaft, ORIGIN_PLANES.front);
    expect(upright.map(({ faces: [face] }) => face).toSorted()).toEqual(['s/end', 's/side/c', 's/side/c', 's/start']);
    expect(new Set(upright.map(({ name }) => name)).size).toBe(4);
    kernel.release(shaft);
  });

  test('normals of all faces of a plate point away from its middle', () => {
    const plate = extruded({ ...PLATE, bore: { kind: 'point', x: 1, y: 1 } }, 5);
    const middle: Vec3 = [20, 10, 2.5];
    for (const { surface, centre } of kernel.topology(plate).faces) {
      if (surface.form !== 'plane') throw new Error(surface.form);
      expect(dot3(surface.normal, sub3(centre, middle))).toBeGreaterThan(1);
      expect(Math.hypot(...cross3(surface.normal, sub3(centre, middle)))).toBeLessThan(1e-9);
    }
    kernel.release(plate);
  });
});
