import { Geometry, type Entities } from '../../sketch/index.ts';
import { rectangle } from '../../samples/index.ts';
import { likelyAxis } from './axis.ts';

const line = (id: string, from: readonly [number, number], to: readonly [number, number], more = {}): Entities => ({
  [`${id}a`]: { kind: 'point', x: from[0], y: from[1] },
  [`${id}b`]: { kind: 'point', x: to[0], y: to[1] },
  [id]: { kind: 'line', a: `${id}a`, b: `${id}b`, ...more },
});
const axisOf = (...drawn: Entities[]) => likelyAxis(new Geometry(Object.assign({}, ...drawn) as Entities));

test('the only construction line, whatever else is drawn', () => {
  const mid = line('mid', [-4, 0], [-4, 9], { construction: true });
  expect(axisOf(rectangle(0, 0, 7, 3), mid)).toBe('mid');
});

test('the only line across something round', () => {
  expect(
    axisOf(
      { m: { kind: 'point', x: 0, y: 0 }, c: { kind: 'circle', centre: 'm', radius: 3 } },
      line('l', [-3, 0], [3, 0]),
    ),
  ).toBe('l');
});

test('the side on an axis of the sketch with all else beside it; nothing where two could be meant', () => {
  expect(axisOf(rectangle(0, 2, 7, 3))).toBe('d');
  expect(axisOf(rectangle(0, 0, 7, 3))).toBeUndefined();
  expect(axisOf(rectangle(1, 2, 7, 3))).toBeUndefined();
});

test('of an open outline the axis of the sketch on which it ends, not a side that lies on the other', () => {
  const half = {
    ...line('foot', [0, 0], [54, 0]),
    ...line('side', [54, 0], [54, 17]),
    ...line('top', [54, 17], [0, 17]),
  };
  // one outline: the ends are shared
  const joined = Object.fromEntries(
    Object.entries({
      ...half,
      side: { kind: 'line', a: 'footb', b: 'sideb' },
      top: { kind: 'line', a: 'sideb', b: 'topb' },
    }).filter(([id]) => id !== 'sidea' && id !== 'topa'),
  ) as Entities;
  expect(axisOf(joined)).toBe('y-axis');
});
