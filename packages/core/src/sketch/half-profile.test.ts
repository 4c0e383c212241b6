import { rectangle } from '../samples/index.ts';
import { Geometry, halfAxis, likelyAxis, relationKind, type Entities, type SizedRelation } from './index.ts';

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

/** An outline right of the y axis, open along it: from the origin by the foot, a step and the top. */
const half = (): Geometry => {
  const places = { o: [0, 0], p: [14, 0], q: [14, 18], r: [17, 18], s: [17, 150], t: [0, 150] } as const;
  const names = Object.keys(places);
  const points = Object.entries(places).map(([id, [x, y]]) => [id, { kind: 'point', x, y }]);
  const lines = names.slice(1).map((id, k) => [`${names[k]!}${id}`, { kind: 'line', a: names[k], b: id }]);
  return new Geometry(Object.fromEntries([...points, ...lines]) as Entities);
};
const waysOf = (relation: SizedRelation, geometry: Geometry) =>
  relationKind(relation.kind).dimension!.ways!(relation, geometry).map(({ title }) => title);

test('half a profile is measured across the axis on which it ends: a point, a side along it, and both with the axis', () => {
  const geometry = half();
  expect(halfAxis(geometry)).toBe('y-axis');
  for (const picks of [['s'], ['s', 'y-axis'], ['rs', 'y-axis']]) {
    const size = relationKind('across').fit(picks, geometry) as SizedRelation;
    expect(relationKind('across').dimension!.measure(size, geometry)).toBeCloseTo(34, 12);
    expect(waysOf(size, geometry)).toEqual(['from the axis', 'across the axis']);
  }
  const side = relationKind('distance').fit(['rs'], geometry) as SizedRelation;
  expect(waysOf(side, geometry)).toEqual(['true length', 'level', 'upright', 'across the axis']);
  // what lies on the axis has no width, and what runs across it has none either
  expect(relationKind('across').fit(['o'], geometry)).toBeUndefined();
  expect(waysOf(relationKind('distance').fit(['st'], geometry) as SizedRelation, geometry)).not.toContain(
    'across the axis',
  );
});

test('what only helps to draw, or is shown for a moment, makes it no less half a profile', () => {
  const more = {
    ...line('helper', [-20, 5], [-3, 9], { construction: true }),
    ...line('mid', [0, -9], [0, 9], { construction: true }),
  };
  expect(halfAxis(new Geometry({ ...half().entities, ...more }))).toBe('y-axis');
  expect(halfAxis(new Geometry({ ...half().entities, ...line('other', [-20, 5], [-3, 9]) }))).toBeUndefined();
});

test('a line along the axis is no half of anything', () => {
  expect(halfAxis(new Geometry(line('l', [0, 30], [0, 48])))).toBeUndefined();
});

test('a closed outline beside an axis is measured from it, unless one asks', () => {
  const geometry = new Geometry(rectangle(0, 2, 7, 3));
  expect(halfAxis(geometry)).toBeUndefined();
  expect(relationKind('across').fit(['b', 'y-axis'], geometry)).toBeUndefined();
  const plain = relationKind('distance').fit(['b', 'y-axis'], geometry) as SizedRelation;
  expect(waysOf(plain, geometry)).toEqual(['from the axis', 'across the axis']);
});
