import {
  IDENTITY,
  inverse,
  MovedTree,
  nearestOfTrees,
  randomFrom,
  rotation,
  translation,
  compose,
  transformPoint,
  distance3,
  type RigidTransform,
  type Vec3,
} from '../math/index.ts';
import { block, disc, prism } from './test-fixture.ts';
import { gapsOf, nearFeatures, type ShapeGap } from './near.ts';
import { ShapePair, type BoxedShape, type ContactShape } from './index.ts';

const Z: Vec3 = [0, 0, 1];
const turned = (angle: number, about: Vec3 = [0, 0, 0]) => rotation(about, Z, angle);

/** The least gap between two shapes, and what has it. */
function least(a: ContactShape, b: ContactShape, across: RigidTransform, within = 3) {
  const query = { across, back: inverse(across), deepest: -5, widest: within };
  const gaps = gapsOf(a, b, query, nearFeatures(a, b, across, within));
  const found = gaps.reduce((best, gap) => (gap.gap < best.gap ? gap : best), gaps[0]!);
  return (
    found && { ...found, of: [a.features[found.i]!, b.features[found.j]!].map(({ kind, name }) => `${kind} ${name}`) }
  );
}

test.each([0.5, 0, -0.2])('a disc over the side of a block: %d mm apart', (apart) => {
  const found = least(block(0, 0, 40, 20), disc(0, 0, 6, -3, 5), translation([46 + apart, 11, 0]));
  expect(found.gap).toBeCloseTo(apart, 12);
  expect(found.normal).toEqual([1, 0, 0].map((c) => expect.closeTo(c, 12)));
  expect(found.a[0]).toBeCloseTo(40, 12);
  expect(found.a[1]).toBeCloseTo(11, 12);
});

test.each([0.5, 1e-9, -0.2])(
  'a disc over the corner of a block, seen along an axis that leans: %d mm apart',
  (apart) => {
    const way = (6 + apart) * Math.SQRT1_2;
    const lean = rotation([0, 0, 5], [Math.SQRT1_2, Math.SQRT1_2, 0], 0);
    const across = compose(lean, translation([40 + way, 20 + way, 0]));
    const found = least(block(0, 0, 40, 20), disc(0, 0, 6), across);
    expect(found.gap).toBeCloseTo(apart, 12);
    expect(distance3(found.normal, [Math.SQRT1_2, Math.SQRT1_2, 0])).toBeLessThan(1e-9);
  },
);

test('a pin in a round hollow touches where it is nearest to the wall', () => {
  const hollow = prism(
    [-20, -20],
    [
      { to: [20, -20] },
      { to: [20, 20] },
      { to: [10, 20] },
      { to: [-10, 20], about: [0, 20], hollow: true },
      { to: [-20, 20] },
      { to: [-20, -20] },
    ],
    0,
    10,
  );
  // 1.2 from the middle, towards 250 deg: 10 - 8.5 - 1.2
  const at = (250 * Math.PI) / 180;
  const across = translation([1.2 * Math.cos(at), 20 + 1.2 * Math.sin(at), 0]);
  const found = least(hollow, disc(0, 0, 8.5, -2, 12), across);
  expect(found.gap).toBeCloseTo(0.3, 12);
  expect(found.of).toEqual(
    ['face side 3', 'face side 0'].map((name, k) => (k === 1 ? expect.stringContaining('face side') : name)),
  );
  expect(found.normal[0]).toBeCloseTo(-Math.cos(at), 12);
});

test('a turned block meets the side of another with its edge, as deep as the formula says', () => {
  const angle = 0.3;
  // the lower right corner of a block 10 x 4, turned about its own origin
  const across = compose(turned(angle), translation([45, 10, 0]));
  const corner = transformPoint(across, [0, 4, 0]);
  const found = least(block(0, 0, 40, 30), block(0, 0, 10, 4, 2, 6), across, 8);
  expect(found.gap).toBeCloseTo(corner[0] - 40, 12);
});

test.each([0.4, -0.1])('edges that cross: %d mm apart', (apart) => {
  // a bar on its edge, across the upper edge of another bar on its edge
  const half = Math.PI / 4;
  const one = compose(rotation([0, 0, 0], [1, 0, 0], half), IDENTITY);
  const low = block(-30, 0, 60, 10);
  const top = 10 * Math.SQRT2;
  // standing on an edge along y
  const other = compose(rotation([0, 0, 0], [0, 1, 0], -half), translation([0, 0, top + apart]));
  const upper = block(0, -30, 10, 60);
  const across = compose(other, compose(IDENTITY, inverse(one)));
  const found = least(low, upper, across);
  expect(found.gap).toBeCloseTo(apart, 10);
  expect(found.of.map((name) => name.split(' ')[0])).toEqual(['edge', 'edge']);
});

test('faces that slide on each other are no overlap, and nothing is found past the end of a face', () => {
  const low = block(0, 0, 40, 20);
  const on = least(low, block(0, 0, 10, 10), translation([5, 20, 0]));
  expect(on.gap).toBeCloseTo(0, 12);
  const beside = least(low, block(0, 0, 10, 10), translation([41, 15, 0]), 0.9);
  expect(beside).toBeUndefined();
});

test('what is remembered of a pair tells the same as a pair that is looked at for the first time', () => {
  const random = randomFrom(11);
  const shapes = [
    block(0, -4, 80, 8),
    prism(
      [1.5, 0],
      [
        { to: [-1.5, 0], about: [0, 0] },
        { to: [1.5, 0], about: [0, 0] },
      ],
      2,
      6,
    ),
  ];
  const [arm, pin] = shapes.map((shape) => ({ shape, box: shape.tree.box(0) })) as [BoxedShape, BoxedShape];
  const words = (gaps: readonly ShapeGap[]) => gaps.map(({ i, j, gap }) => `${i} ${j} ${gap.toFixed(7)}`).sort();
  const looked = (across: RigidTransform) => {
    const query = { across, back: inverse(across), deepest: -0.6, widest: 0.1 };
    return words(gapsOf(arm.shape, pin.shape, query, nearFeatures(arm.shape, pin.shape, across, 3)));
  };
  let met = 0;
  for (let run = 0; run < 12; run++) {
    const pair = new ShapePair(arm, pin, 1);
    const at: Vec3 = [70 * random(), 16 * random() - 8, 0];
    let angle = 2 * random();
    for (let step = 0; step < 40; step++) {
      // swings to and fro, by little and by much
      angle += (random() - 0.5) * (random() < 0.2 ? 1.5 : 0.06);
      const across = compose(translation(at), turned(angle));
      const gaps = looked(across);
      pair.prepare(across, 2);
      met += gaps.length;
      expect(words(pair.gaps(across, -0.6, 0.1))).toEqual(gaps);
      for (const by of [0.5, 3, 20]) {
        const isApart = nearestOfTrees(arm.shape.tree, new MovedTree(pin.shape.tree, across), by) === undefined;
        if (pair.isClear(across, by)) expect(isApart).toBe(true);
        if (pair.clearance(across, by) >= by) expect(isApart).toBe(true);
      }
    }
  }
  expect(met).toBeGreaterThan(10);
});

test('what is in something is seen further in it, also where that was looked at before', () => {
  const [arm, inner] = [block(0, -4, 80, 8), block(0, -4, 4, 4, 2, 6)].map((shape) => ({
    shape,
    box: shape.tree.box(0),
  }));
  const pair = new ShapePair(arm!, inner!, 0.3);
  // its upper side is 0.19 above the lower side of the arm, and then 0.24
  pair.prepare(translation([60, -4 + 0.19, 0]), 0.6);
  const gaps = pair.gaps(translation([60, -4 + 0.24, 0]), -0.6, 0.03);
  expect(gaps.length).toBeGreaterThan(0);
  for (const { gap } of gaps) expect(gap).toBeCloseTo(-0.24, 9);
});
