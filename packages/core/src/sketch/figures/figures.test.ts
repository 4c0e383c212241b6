import type { Vec2 } from '../../math/index.ts';
import {
  arcSlot,
  centredRectangle,
  centredSlot,
  FigureBuilder,
  filled,
  findRegions,
  polygon,
  polygonRound,
  rectangle,
  solveSketch,
  straightSlot,
  turnedRectangle,
} from '../index.ts';
import { sizes } from '../test-scene.ts';

const builder = () => {
  let ids = 0;
  return new FigureBuilder((prefix) => `${prefix}${++ids}`);
};
const put = (b: FigureBuilder, at: Vec2): [string, Vec2] => [b.place(at), at];

/** The figure by itself: its freedoms, its filled area, and how it is solved again when it was shaken. */
function measured(b: FigureBuilder) {
  const solution = solveSketch(b.entities, b.relations, sizes({}));
  const area = filled(findRegions(solution.geometry)).reduce((sum, region) => sum + region.area, 0);
  return { ...solution, area };
}

test.each<[string, number, number, (b: FigureBuilder) => void]>([
  ['a rectangle', 4, 600, (b) => rectangle(b, [0, 0], [30, 20])],
  ['a rectangle about a centre', 4, 2400, (b) => centredRectangle(b, b.place([0, 0]), [0, 0], [30, 20])],
  [
    'a turned rectangle',
    5,
    50,
    (b) => turnedRectangle(b, [b.place([0, 0]), b.place([8, 6]), b.place([5, 10]), b.place([-3, 4])]),
  ],
  [
    'a slot between two centres',
    5,
    20 * 10 + 25 * Math.PI,
    (b) => straightSlot(b, put(b, [0, 0]), put(b, [12, 16]), 5),
  ],
  ['a slot about its middle', 5, 40 * 10 + 25 * Math.PI, (b) => centredSlot(b, put(b, [0, 0]), put(b, [12, 16]), 5)],
  [
    'a slot along a quarter arc',
    6,
    (Math.PI * (25 ** 2 - 15 ** 2)) / 4 + 25 * Math.PI,
    (b) => arcSlot(b, put(b, [0, 0]), put(b, [20, 0]), put(b, [0, 20]), 5),
  ],
  ['a triangle', 4, (3 * Math.sqrt(3) * 100) / 4, (b) => polygon(b, put(b, [0, 0]), [10, 0], 3)],
  ['a heptagon', 4, (7 / 2) * 100 * Math.sin((2 * Math.PI) / 7), (b) => polygon(b, put(b, [0, 0]), [6, 8], 7)],
  ['a hexagon round a circle', 4, 2 * Math.sqrt(3) * 100, (b) => polygonRound(b, put(b, [0, 0]), [10, 0], 6)],
])('%s: as many freedoms as it should have, and the area of the textbook', (_, freedoms, area, make) => {
  const b = builder();
  make(b);
  const found = measured(b);
  expect(found.freedoms).toBe(freedoms);
  expect(found.area).toBeCloseTo(area, 6);
});

test.each([3, 5, 7, 12, 24])('a regular polygon of %i sides stays regular when a side is given', (count) => {
  const b = builder();
  const { side } = polygon(b, put(b, [0, 0]), [10, 0], count);
  const { a, b: end } = b.entities[side] as { a: string; b: string };
  const relations = {
    ...b.relations,
    d: { kind: 'distance', a, b: end, direction: 'aligned', sense: 1, value: '1' } as const,
  };
  const { state, geometry } = solveSketch(b.entities, relations, sizes({ d: 14 }));
  expect(state).toBe('loose');
  const [region] = filled(findRegions(geometry));
  expect(region!.area).toBeCloseTo((count * 14 ** 2) / (4 * Math.tan(Math.PI / count)), 5);
});
