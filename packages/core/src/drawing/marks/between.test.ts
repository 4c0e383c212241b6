import fc from 'fast-check';
import { variables, type Vec2 } from '../../math/index.ts';
import type { Spot } from '../witness/index.ts';
import { between, cornerOf } from './between.ts';

/** A place that moves by its two coordinates. */
const at = (place: Vec2): Spot => {
  const [x, y] = variables(place);
  return { point: [x!, y!], places: [place] };
};
/** A line through a place, by its angle; a stretch of 10 mm from there. */
const line = ([x, y]: Vec2, degrees: number): Spot => {
  const [c, s] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];
  const [nx, ny, h] = variables([-s, c, -s * x + c * y]);
  return { line: { normal: [nx!, ny!], height: h! }, places: [[x, y] as const, [x + 10 * c, y + 10 * s] as const] };
};
const amount = (...args: Parameters<typeof between>) => {
  const found = between(...args);
  return found.ok ? found.value.amount.value : found.issue.code;
};

test('between places as is asked, between lines square to them', () => {
  const [p, q] = [at([1, 2]), at([4, 6])];
  expect(amount(p, q, 'straight')).toBeCloseTo(5, 12);
  expect(amount(p, q, 'level')).toBe(3);
  expect(amount(p, q, 'upright')).toBe(4);
  expect(amount(line([0, 0], 0), line([3, 7], 180), 'straight')).toBeCloseTo(7, 12);
  // which comes first does not matter
  expect(amount(q, line([0, 0], 0), 'straight')).toBeCloseTo(6, 12);
  expect(amount(line([0, 0], 0), q, 'level')).toBeCloseTo(6, 12);
});

test('what can not be told is refused by name', () => {
  expect(amount(line([0, 0], 0), line([0, 0], 30), 'straight')).toBe('mark.slant');
  expect(amount(at([1, 1]), at([1, 1]), 'straight')).toBe('mark.same');
  expect(amount({ places: [] }, at([1, 1]), 'straight')).toBe('mark.leans');
  const corner = (a: Spot, b: Spot) => {
    const found = cornerOf(a, b);
    return found.ok ? found.value : found.issue.code;
  };
  expect(corner(line([0, 0], 0), line([0, 5], 180))).toBe('mark.parallel');
  expect(corner(line([0, 0], 0), at([1, 1]))).toBe('mark.lines');
});

test('the angle is the one in which the things lie, wherever their lines run', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 0, max: 359 }),
      fc.integer({ min: 5, max: 175 }),
      fc.boolean(),
      (turn, open, swap) => {
        const sides = [line([2, 3], turn), line([2, 3], turn + open)] as const;
        const found = swap ? cornerOf(sides[1], sides[0]) : cornerOf(sides[0], sides[1]);
        if (!found.ok) throw new Error(found.issue.code);
        expect((found.value.amount.value * 180) / Math.PI).toBeCloseTo(open, 6);
        expect(Math.sign(found.value.sweep)).toBe(swap ? -1 : 1);
        expect(found.value.at[0]).toBeCloseTo(2, 6);
        expect(found.value.at[1]).toBeCloseTo(3, 6);
      },
    ),
  );
});
