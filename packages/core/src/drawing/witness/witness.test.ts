import fc from 'fast-check';
import type { EdgeFacts, FaceFacts, Topology } from '../../kernel-port/index.ts';
import { toPlane, type RigidTransform, type Vec3 } from '../../math/index.ts';
import { transformTopology } from '../../references/index.ts';
import { blockTopology } from '../../samples/index.ts';
import { SIDE_EYES } from '../eyes.ts';
import { between } from '../marks/between.ts';
import { MovingFaces, spotOf, Witness, type Spot } from './index.ts';

/** A block with bores down through it, each at a place with a radius. */
function bored(size: Vec3, ...bores: readonly (readonly [x: number, y: number, radius: number])[]): Topology {
  const { faces, edges, ...rest } = blockTopology(size);
  const [, , height] = size;
  const walls = bores.map(([x, y, radius], k): FaceFacts => ({
    name: `bore ${k}`,
    surface: { form: 'cylinder', origin: [x, y, 0], axis: [0, 0, 1], radius, hollow: true },
    area: 2 * Math.PI * radius * height,
    centre: [x, y, height / 2],
  }));
  const rims = bores.flatMap(([x, y, radius], k) =>
    [0, height].map((z, end): EdgeFacts => ({
      name: `bore ${k} | ${end}`,
      faces: [`bore ${k}`, `${end}`],
      curve: { form: 'circle', centre: [x, y, z], axis: [0, 0, 1], radius },
      length: 2 * Math.PI * radius,
      middle: [x - radius, y, z],
      turn: 'outer',
    })),
  );
  return { ...rest, faces: [...faces, ...walls], edges: [...edges, ...rims] };
}

/** How many sizes a part has that do not show by themselves. */
const sizesOf = (topology: Topology): number => {
  const { count, implied } = new Witness([topology]);
  return count - implied.rank;
};
const mm = fc.integer({ min: 40, max: 90 });

test('a block has three sizes, whatever they are and wherever it stands', () => {
  fc.assert(
    fc.property(mm, mm, mm, mm, (w, d, h, away) => {
      const block = blockTopology([w, d, h]);
      expect(sizesOf(block)).toBe(3);
      const moved: RigidTransform = [
        [0, -1, 0, away],
        [1, 0, 0, -3],
        [0, 0, 1, 7.25],
      ];
      expect(sizesOf(transformTopology(block, moved))).toBe(3);
    }),
    { numRuns: 25 },
  );
});

test('a bore has three more: its diameter and where it is; in the middle that shows', () => {
  expect(sizesOf(bored([60, 40, 10], [13, 9, 3]))).toBe(6);
  // on the one middle line, on both
  expect(sizesOf(bored([60, 40, 10], [13, 20, 3]))).toBe(5);
  expect(sizesOf(bored([60, 40, 10], [30, 20, 3]))).toBe(4);
  // two alike, mirrored: two diameters of which one follows, and how far they are apart
  expect(sizesOf(bored([60, 40, 10], [20, 20, 3], [40, 20, 3]))).toBe(5);
  // another one in line with the first shares one of its coordinates
  expect(sizesOf(bored([60, 40, 10], [13, 9, 3], [27, 9, 2]))).toBe(8);
});

/** What a face or an edge is, seen from a side. */
function spot(topology: Topology, witness: MovingFaces, name: string, from: keyof typeof SIDE_EYES): Spot {
  const face = topology.faces.find((one) => one.name === name);
  const edge = topology.edges.find((one) => one.name === name);
  const thing = face
    ? ({ to: 'face', face, body: 0, topology } as const)
    : ({ to: 'edge', edge: edge!, body: 0 } as const);
  return spotOf(thing, witness, SIDE_EYES[from])!;
}

test('sizes that are told close it, and what is told once more says nothing', () => {
  const part = bored([60, 40, 10], [13, 9, 3]);
  const witness = new Witness([part]);
  const span = witness.implied.copy();
  const told = (a: string, b: string, from: keyof typeof SIDE_EYES) => {
    const found = between(spot(part, witness, a, from), spot(part, witness, b, from), 'straight');
    if (!found.ok) throw new Error(found.issue.code);
    return found.value.amount;
  };
  // 4 and 5 are its left and its right side, 2 and 3 its front and its back, 0 and 1 under and above
  const sizes = [
    told('4', '5', 'top'),
    told('2', '3', 'top'),
    told('0', '1', 'front'),
    told('4', 'bore 0', 'top'),
    told('2', 'bore 0', 'top'),
    spot(part, witness, 'bore 0', 'top').radius!.scaled(2),
  ];
  expect(sizes.map(({ value }) => value)).toEqual([60, 40, 10, 13, 9, 6]);
  for (const { d } of sizes) expect(span.add(d)).toBe(true);
  expect(span.rank).toBe(witness.count);
  // from the other side it follows
  const other = told('5', 'bore 0', 'top');
  expect(other.value).toBeCloseTo(47, 9);
  const without = witness.implied.copy();
  for (const { d } of sizes.slice(0, 4)) without.add(d);
  expect(without.says(other.d)).toBe(true);
  expect(without.says(told('3', 'bore 0', 'top').d)).toBe(false);
});

test('a bore is a place from its end, a line from the side, and nothing slantwise', () => {
  const part = bored([60, 40, 10], [13, 9, 3]);
  const faces = new MovingFaces([part]);
  const seen = spot(part, faces, 'bore 0', 'top');
  expect(seen.endOn).toBe(true);
  expect(seen.point!.map(({ value }) => value)).toEqual([...toPlane(SIDE_EYES.top, [13, 9, 0])]);
  const side = spot(part, faces, 'bore 0', 'front');
  expect(side.endOn).toBe(false);
  expect(side.line!.normal.map(({ value }) => Math.abs(value))).toEqual([1, 0]);
  const rim = spot(part, faces, 'bore 0 | 1', 'front');
  expect(rim).toMatchObject({ rim: true, endOn: false });
  const turn = Math.PI / 6;
  const tilted: RigidTransform = [
    [1, 0, 0, 0],
    [0, Math.cos(turn), -Math.sin(turn), 0],
    [0, Math.sin(turn), Math.cos(turn), 0],
  ];
  const leaning = transformTopology(part, tilted);
  expect(spot(leaning, new MovingFaces([leaning]), 'bore 0', 'top')).toBeUndefined();
});

test('every face goes through the places on its rim, and comes out there as it grows', () => {
  const { faces } = new MovingFaces([bored([60, 40, 10], [13, 9, 3])]);
  for (const { surface, places } of faces) {
    expect(places.length).toBeGreaterThan(2);
    for (const place of places) {
      const off = surface.off(place);
      expect(off.value).toBeCloseTo(0, 9);
      expect(off.d.by.some((by) => Math.abs(by) > 0.5)).toBe(true);
    }
  }
});
