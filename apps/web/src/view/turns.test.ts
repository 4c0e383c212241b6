import { facing, VIEWS, type Turn } from './turns.ts';

const turn = (name: keyof typeof VIEWS): Turn => VIEWS[name].map((angle) => (angle * Math.PI) / 180) as unknown as Turn;
const degrees = (seen: Turn) => seen.map((angle) => Math.round((angle * 180) / Math.PI));

test('after a sketch it is looked at as before, where that shows what was drawn', () => {
  expect(facing([0, 0, 1], turn('Corner'))).toEqual(turn('Corner'));
  expect(facing([0, -1, 0], turn('Corner'))).toEqual(turn('Corner'));
  expect(degrees(facing([0, -1, 0], [0.5, 1.2]))).toEqual(degrees([0.5, 1.2]));
});

test('seen square on, edge-on or from behind it is looked at from the corner on its own side', () => {
  expect(degrees(facing([0, 0, 1], turn('Top')))).toEqual([-35, 62]);
  expect(degrees(facing([0, 0, -1], turn('Corner')))).toEqual([-35, 118]);
  expect(degrees(facing([0, 1, 0], turn('Back')))).toEqual([145, 62]);
  expect(degrees(facing([1, 0, 0], turn('Corner')))).toEqual([55, 62]);
  expect(degrees(facing([1, 0, 0], turn('Front')))).toEqual([55, 62]);
});
