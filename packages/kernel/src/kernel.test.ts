import {
  findRegions,
  filled,
  Geometry,
  ORIGIN_PLANES,
  curveWords,
  surfaceWords,
  writeStl,
  type BodyHandle,
  type Entity,
  type Result,
} from '@helb/core';
import { stlVolume } from '@helb/core/samples';
import type { OpenCascadeKernel } from './kernel.ts';
import { startKernelInNode } from './node.ts';

let kernel: OpenCascadeKernel;
beforeAll(async () => (kernel = await startKernelInNode()));
afterEach(() => expect(kernel.held).toBe(0));

type Drawn = Record<string, Entity>;
const box = (name: string, x: number, y: number, w: number, h: number): Drawn => {
  const places = [
    [x, y],
    [x + w, y],
    [x + w, y + h],
    [x, y + h],
  ] as const;
  return Object.fromEntries([
    ...places.map(([px, py], k) => [`${name}p${k}`, { kind: 'point', x: px, y: py }] as const),
    ...places.map((_, k) => [`${name}${k}`, { kind: 'line', a: `${name}p${k}`, b: `${name}p${(k + 1) % 4}` }] as const),
  ]);
};
const circle = (name: string, x: number, y: number, radius: number): Drawn => ({
  [`${name}m`]: { kind: 'point', x, y },
  [name]: { kind: 'circle', centre: `${name}m`, radius },
});

const value = <T>(result: Result<T>): T => {
  if (!result.ok) throw new Error(JSON.stringify(result.issue));
  return result.value;
};

const regions = (...drawn: Drawn[]) => findRegions(new Geometry(Object.assign({}, ...drawn)));
function extrude(step: string, drawn: Drawn[], from: number, to: number, plane: keyof typeof ORIGIN_PLANES = 'top') {
  const profile = { frame: ORIGIN_PLANES[plane], regions: filled(regions(...drawn)) };
  return value(kernel.extrude({ profile, from, to, step }));
}
const release = (...bodies: BodyHandle[]) => bodies.forEach((body) => kernel.release(body));

describe('extrude', () => {
  test.each([
    ['along its axis', 9, 4],
    ['across its axis', 4, 9],
  ])('an ellipse longer %s: pi a b h', (_, a, b) => {
    const drawn: Drawn = {
      m: { kind: 'point', x: 3, y: 2 },
      t: { kind: 'point', x: 3 + a * 0.6, y: 2 + a * 0.8 },
      e: { kind: 'ellipse', centre: 'm', tip: 't', minor: b },
    };
    const [body] = extrude('s1', [drawn], 0, 5) as [BodyHandle];
    expect(kernel.measure(body).volume_mm3).toBeCloseTo(Math.PI * 36 * 5, 8);
    expect(kernel.faceNames(body).toSorted()).toEqual(['s1/end', 's1/side/e', 's1/start']);
    release(body);
  });

  test('half an ellipse on a line, and a spline over a line: the area of the region; one smooth face over the spline', () => {
    const half: Drawn = {
      m: { kind: 'point', x: 0, y: 0 },
      a: { kind: 'point', x: 8, y: 0 },
      b: { kind: 'point', x: -8, y: 0 },
      e: { kind: 'ellipse-arc', centre: 'm', tip: 'a', a: 'a', b: 'b', minor: 3 },
      l: { kind: 'line', a: 'a', b: 'b' },
    };
    const [dome] = extrude('s1', [half], 0, 2) as [BodyHandle];
    expect(kernel.measure(dome).volume_mm3).toBeCloseTo((Math.PI * 24 * 2) / 2, 8);
    const wave: Drawn = {
      p: { kind: 'point', x: 0, y: 0 },
      q: { kind: 'point', x: 6, y: 7 },
      r: { kind: 'point', x: 15, y: 4 },
      s: { kind: 'point', x: 21, y: 0 },
      h: { kind: 'point', x: 0, y: 3 },
      i: { kind: 'point', x: 21, y: 2 },
      c: { kind: 'spline', points: ['p', 'q', 'r', 's'], start: 'h', end: 'i', knots: [0, 9, 18, 25] },
      l: { kind: 'line', a: 's', b: 'p' },
    };
    const { area } = filled(regions(wave))[0]!;
    const [wavy] = extrude('s2', [wave], 0, 2) as [BodyHandle];
    expect(kernel.measure(wavy).volume_mm3).toBeCloseTo(area * 2, 6);
    expect(kernel.faceNames(wavy).toSorted()).toEqual(['s2/end', 's2/side/c', 's2/side/l', 's2/start']);
    release(dome, wavy);
  });

  test('a plate with a hole: exact volume, area, centre, inertia and box; faces named by origin', () => {
    const [body] = extrude('s1', [box('a', 0, 0, 40, 20), circle('c', 10, 10, 4)], 0, 5) as [BodyHandle];
    const measures = kernel.measure(body);
    const hole = Math.PI * 16;
    expect(measures.volume_mm3).toBeCloseTo((800 - hole) * 5, 8);
    expect(measures.area_mm2).toBeCloseTo(2 * (800 - hole) + 5 * (120 + 8 * Math.PI), 8);
    expect(measures.centre_mm[0]).toBeCloseTo((800 * 20 - hole * 10) / (800 - hole), 8);
    expect(measures.box_mm.low.map((c) => Math.round(c * 1e6) / 1e6)).toEqual([0, 0, 0]);
    expect(measures.box_mm.high.map((c) => Math.round(c * 1e6) / 1e6)).toEqual([40, 20, 5]);
    expect([...kernel.faceNames(body)].sort()).toEqual([
      's1/end',
      's1/side/a0',
      's1/side/a1',
      's1/side/a2',
      's1/side/a3',
      's1/side/c',
      's1/start',
    ]);
    release(body);
  });

  test('inertia of a box about its centre is m (b^2 + c^2) / 12, products vanish', () => {
    const [body] = extrude('s', [box('a', 0, 0, 6, 4)], 0, 2) as [BodyHandle];
    const [xx, yy, zz, ...products] = kernel.measure(body).inertia_mm5;
    expect([xx, yy, zz]).toEqual(
      [(48 * (16 + 4)) / 12, (48 * (36 + 4)) / 12, (48 * (36 + 16)) / 12].map((i) => expect.closeTo(i, 8)),
    );
    products.forEach((product) => expect(product).toBeCloseTo(0, 8));
    release(body);
  });

  test.each([
    ['top', [0, 0, 1], [10, 5, 3]],
    ['front', [0, -3, 0], [10, 0, 5]],
    ['right', [1, 0, 0], [3, 10, 5]],
  ] as const)('on %s it grows towards the viewer', (plane, _, high) => {
    const [body] = extrude('s', [box('a', 0, 0, 10, 5)], 0, 3, plane) as [BodyHandle];
    const box_mm = kernel.measure(body).box_mm;
    expect(box_mm.high.map((c) => Math.round(c * 1e6) / 1e6)).toEqual(high);
    release(body);
  });

  test('areas that touch become one body, apart they are several', () => {
    const apart = extrude('s', [circle('a', 0, 0, 3), circle('b', 20, 0, 3)], -1, 1);
    expect(apart).toHaveLength(2);
    const all = regions(box('a', 0, 0, 10, 10), circle('c', 10, 5, 2)).regions;
    const joined = value(
      kernel.extrude({ profile: { frame: ORIGIN_PLANES.top, regions: all }, from: 0, to: 1, step: 's' }),
    );
    expect(joined).toHaveLength(1);
    expect(kernel.measure(joined[0]!).volume_mm3).toBeCloseTo(100 + (Math.PI * 4) / 2, 8);
    release(...apart, ...joined);
  });

  test('an arc drawn clockwise on the outline (a bite out of a side) has the right sign', () => {
    const bitten = regions(box('a', 0, 0, 10, 10), circle('c', 10, 5, 2)).regions.find((r) => r.key.includes('c-'))!;
    const [body] = value(
      kernel.extrude({ profile: { frame: ORIGIN_PLANES.top, regions: [bitten] }, from: 0, to: 1, step: 's' }),
    ) as [BodyHandle];
    expect(kernel.measure(body).volume_mm3).toBeCloseTo(100 - (Math.PI * 4) / 2, 8);
    release(body);
  });
});

describe('combine', () => {
  test('boss added and bored: exact volume; coplanar faces become one; names stay', () => {
    const plate = extrude('plate', [box('a', -20, -10, 40, 20)], 0, 5);
    const boss = extrude('boss', [circle('b', 0, 0, 8)], 0, 15);
    const added = value(kernel.combine('add', plate, boss));
    expect(added.touched).toBe(true);
    const bore = extrude('bore', [circle('c', 0, 0, 4)], 0, 15);
    const bored = value(kernel.combine('cut', added.bodies, bore));
    const [body] = bored.bodies as [BodyHandle];
    expect(kernel.measure(body).volume_mm3).toBeCloseTo(4000 + Math.PI * 64 * 10 - Math.PI * 16 * 15, 7);
    expect([...kernel.faceNames(body)].sort()).toEqual([
      'bore/side/c',
      'boss/end',
      'boss/side/b',
      'plate/end',
      'plate/side/a0',
      'plate/side/a1',
      'plate/side/a2',
      'plate/side/a3',
      'plate/start',
    ]);
    release(...plate, ...boss, ...added.bodies, ...bore, ...bored.bodies);
  });

  test('a cut through the middle gives two bodies; split faces are told apart by their neighbours, also after an edit', () => {
    const names = (x: number) => {
      const bar = extrude('bar', [box('a', 0, 0, 30, 10)], 0, 5);
      const slot = extrude('slot', [box('b', x, -1, 4, 12)], -1, 6);
      const { bodies } = value(kernel.combine('cut', bar, slot));
      const found = bodies.map((body) => [...kernel.faceNames(body)].sort().join(' '));
      release(...bar, ...slot, ...bodies);
      return found;
    };
    const [left, right] = names(10) as [string, string];
    expect(left).not.toBe(right);
    expect(left).toContain('bar/end@');
    // moved nearer to the other end, the same pieces have the same names
    expect(new Set(names(20))).toEqual(new Set([left, right]));
  });

  test('a cut beside the body touches nothing', () => {
    const bar = extrude('bar', [box('a', 0, 0, 30, 10)], 0, 5);
    const away = extrude('away', [box('b', 100, 0, 4, 4)], 0, 5);
    const { touched, bodies } = value(kernel.combine('cut', bar, away));
    expect(touched).toBe(false);
    release(...bar, ...away, ...bodies);
  });

  test('cutting everything away is a failure, the inputs stay', () => {
    const bar = extrude('bar', [box('a', 0, 0, 3, 1)], 0, 5);
    const all = extrude('all', [box('b', -1, -1, 9, 9)], -1, 9);
    const result = kernel.combine('cut', bar, all);
    expect(!result.ok && result.issue.code).toBe('kernel.empty');
    expect(kernel.measure(bar[0]!).volume_mm3).toBeCloseTo(15, 9);
    release(...bar, ...all);
  });

  test('hundreds of cuts leave the memory flat', () => {
    const bar = extrude('bar', [box('a', 0, 0, 30, 10)], 0, 5);
    const hole = extrude('hole', [circle('c', 15, 5, 2)], 0, 5);
    const once = () => release(...value(kernel.combine('cut', bar, hole)).bodies);
    for (let k = 0; k < 20; k++) once();
    const before = kernel.memory();
    for (let k = 0; k < 200; k++) once();
    expect(kernel.memory()).toBe(before);
    release(...bar, ...hole);
  });
});

describe('mesh and files', () => {
  test('the mesh encloses the exact volume within its deflection; ranges cover it, with names and words', () => {
    const [body] = extrude('s', [box('a', 0, 0, 40, 20), circle('c', 10, 10, 4)], 0, 5) as [BodyHandle];
    const mesh = kernel.mesh(body, { deflection: 0.01, angle: 0.1 });
    const exact = kernel.measure(body).volume_mm3;
    expect(Math.abs(stlVolume(writeStl([mesh], 's'))! - exact) / exact).toBeLessThan(1e-3);
    expect(mesh.faces.reduce((sum, range) => sum + range.count, 0)).toBe(mesh.triangles.length);
    expect(mesh.edges.reduce((sum, range) => sum + range.count, 0)).toBe(mesh.edgePoints.length / 3);
    const { faces, edges } = kernel.topology(body);
    expect(mesh.faces.map((range) => range.name).toSorted()).toEqual(faces.map((face) => face.name).toSorted());
    expect(mesh.edges.map((range) => range.name).toSorted()).toEqual(edges.map((edge) => edge.name).toSorted());
    expect(
      surfaceWords(
        faces.find((face) => face.name === 's/side/c')!,
        'mm',
      ),
    ).toBe('bore ⌀8 mm');
    expect(
      curveWords(
        edges.find((edge) => edge.name === 's/end | s/side/a0')!,
        'mm',
      ),
    ).toBe('straight 40 mm');
    expect(
      curveWords(
        edges.find((edge) => edge.name === 's/end | s/side/c')!,
        'mm',
      ),
    ).toBe('rim ⌀8 mm');
    release(body);
  });

  test('STEP carries the name, the colour and millimetres', () => {
    const [body] = extrude('s', [box('a', 0, 0, 40, 20)], 0, 5) as [BodyHandle];
    const text = new TextDecoder().decode(
      value(kernel.writeStep('Plate', [{ name: 'Lagerbock ä', colour: '#8FA6A1', body }])),
    );
    expect(text.startsWith('ISO-10303-21;')).toBe(true);
    expect(text).toContain('MANIFOLD_SOLID_BREP');
    expect(text).toContain('COLOUR_RGB');
    expect(text).toMatch(/SI_UNIT\(\.MILLI\.,\.METRE\.\)/);
    expect(text).toMatch(/PRODUCT\('Lagerbock/);
    release(body);
  });

  test('a released body is refused loudly', () => {
    const [body] = extrude('s', [box('a', 0, 0, 4, 2)], 0, 5) as [BodyHandle];
    release(body);
    expect(() => kernel.measure(body)).toThrow(/released/);
  });
});
