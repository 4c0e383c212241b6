import { profile, circle, rectangle } from '../../samples/index.ts';
import { lengthOf } from '../../sketch/index.ts';
import { ORIGIN_PLANES } from '../../references/index.ts';
import { frameOn, type Frame } from '../../math/index.ts';
import { matched } from './matching.ts';

const high: Frame = { ...ORIGIN_PLANES.top, origin: [0, 0, 30] };
const square = profile(rectangle(-10, -10, 20, 20));
const outer = (section: typeof square) => section.regions[0]!.outer;

test('a square and a circle get as many pieces, begun at the start, with the same shares of the way round', () => {
  const [low, up] = matched([square, profile(circle(0, 0, 8), high)], [[-10, -10, 0]]) as [
    typeof square,
    typeof square,
  ];
  expect(outer(low).map(({ entity }) => entity)).toEqual(['a', 'b', 'c', 'd']);
  expect(outer(up)).toHaveLength(4);
  const diagonal = 8 / Math.SQRT2;
  expect(outer(up)[0]!.from[0]).toBeCloseTo(-diagonal, 9);
  expect(outer(up)[0]!.from[1]).toBeCloseTo(-diagonal, 9);
  for (const piece of outer(up)) expect(lengthOf(piece)).toBeCloseTo(4 * Math.PI, 9);
});

test('pieces are joined end to end and keep their length', () => {
  const long = profile(rectangle(0, 0, 30, 10), high);
  const sections = matched([square, long], [[0, -10, 0]]);
  const [low, up] = sections.map(outer);
  expect(low!.length).toBe(up!.length);
  for (const pieces of [low!, up!])
    pieces.forEach((piece, k) => expect(pieces[(k + 1) % pieces.length]!.from).toEqual(piece.to));
  expect(low!.reduce((sum, piece) => sum + lengthOf(piece), 0)).toBeCloseTo(80, 9);
  expect(low![0]!.from).toEqual([0, -10]);
});

test('a section drawn from behind is gone round the same way', () => {
  const behind: Frame = frameOn([0, 0, 30], [0, 0, -1], [1, 0, 0]);
  const [, up] = matched([square, profile(rectangle(-10, -10, 20, 20), behind)], [[-10, -10, 0]]);
  // its y points the other way: from the corner below left in space
  expect(outer(up!)[0]!.from).toEqual([-10, 10]);
  expect(outer(up!)[0]!.to).toEqual([10, 10]);
});

test('each start counts for the outline that it lies on', () => {
  const [low, up] = matched(
    [square, profile(rectangle(-10, -10, 20, 20), high)],
    [
      [10, 10, 30],
      [10, -10, 0],
    ],
  );
  expect(outer(low!)[0]!.from).toEqual([10, -10]);
  expect(outer(up!)[0]!.from).toEqual([10, 10]);
});
