import fc from 'fast-check';
import { rectangle } from '../samples/index.ts';
import { explain, Geometry, wallsAlong, type Entities, type Region, type Wall } from '../index.ts';

/** 20 x 10; two of its sides are drawn clockwise. */
const square: Entities = {
  ...rectangle(0, 0, 20, 10),
  b: { kind: 'line', a: 'p2', b: 'p1' },
  d: { kind: 'line', a: 'p0', b: 'p3' },
};
const open: Entities = Object.fromEntries(Object.entries(square).filter(([id]) => id !== 'd'));
const hook: Entities = {
  p0: { kind: 'point', x: 0, y: 0 },
  p1: { kind: 'point', x: 30, y: 0 },
  m: { kind: 'point', x: 30, y: 8 },
  p2: { kind: 'point', x: 38, y: 8 },
  a: { kind: 'line', a: 'p0', b: 'p1' },
  k: { kind: 'arc', centre: 'm', a: 'p1', b: 'p2', radius: 8 },
};

const made = (entities: Entities, wall: Wall): Region[] => {
  const walls = wallsAlong(new Geometry(entities), wall);
  if (!walls.ok) throw new Error(explain(walls.issue));
  return walls.value;
};
const trouble = (entities: Entities, wall: Wall): string => {
  const walls = wallsAlong(new Geometry(entities), wall);
  return walls.ok ? 'it was made' : explain(walls.issue);
};
const sides = ({ outer, holes }: Region) =>
  [outer, ...holes]
    .flat()
    .map(({ entity }) => entity)
    .sort();

test('round a closed outline: inside, outside, or half and half; each side named after its line', () => {
  expect(made(square, { left: 2, right: 0 })[0]!.area).toBeCloseTo(200 - 16 * 6, 9);
  expect(made(square, { left: 0, right: 2 })[0]!.area).toBeCloseTo(24 * 14 - 200, 9);
  const [both] = made(square, { left: 1, right: 1 });
  expect(both!.area).toBeCloseTo(22 * 12 - 18 * 8, 9);
  expect(both!.holes).toHaveLength(1);
  expect(sides(both!)).toEqual(['a+', 'a-', 'b+', 'b-', 'c+', 'c-', 'd+', 'd-']);
});

test('along an open chain, with sharp corners and square ends', () => {
  // a, b and c, the outside going 1 further round both corners
  const [wall] = made(open, { left: 0, right: 1 });
  expect(wall!.holes).toEqual([]);
  expect(wall!.area).toBeCloseTo(21 + 10 + 21, 9);
  expect(sides(wall!)).toEqual(['a from', 'a+', 'a-', 'b+', 'b-', 'c to', 'c+', 'c-'].sort());
});

test('drawn in any order its sides are called the same and lie the same way', () => {
  const named = (entities: Entities) =>
    made(entities, { left: 0, right: 1 })[0]!
      .outer.map(({ entity, from, to }) => `${entity} ${from.join()} ${to.join()}`)
      .sort();
  expect(named(Object.fromEntries(Object.entries(open).reverse()))).toEqual(named(open));
});

test('along a line that goes on into an arc, exactly', () => {
  const [wall] = made(hook, { left: 1.5, right: 1.5 });
  expect(wall!.area).toBeCloseTo(3 * (30 + (8 * Math.PI) / 2), 9);
});

test('round a circle: a ring', () => {
  const ring: Entities = { m: { kind: 'point', x: 3, y: 4 }, o: { kind: 'circle', centre: 'm', radius: 5 } };
  const [wall] = made(ring, { left: 1, right: 2 });
  expect(wall!.area).toBeCloseTo(Math.PI * (49 - 16), 9);
});

test('the area is the thickness times the length, where the wall lies evenly about straight lines and smooth arcs', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 0.1, max: 3, noNaN: true }),
      fc.double({ min: 5, max: 60, noNaN: true }),
      (half, length) => {
        const entities: Entities = { ...hook, p0: { kind: 'point', x: 30 - length, y: 0 } };
        expect(made(entities, { left: half, right: half })[0]!.area).toBeCloseTo(2 * half * (length + 4 * Math.PI), 8);
      },
    ),
  );
});

test('what can not be walled is told', () => {
  expect(trouble({}, { left: 1, right: 0 })).toMatch(/no lines/);
  expect(trouble(hook, { left: 9, right: 0 })).toMatch(/thicker than an arc/);
  expect(trouble(square, { left: 6, right: 0 })).toMatch(/than a line is long/);
  const branched: Entities = { ...square, q: { kind: 'point', x: 30, y: 0 }, e: { kind: 'line', a: 'p1', b: 'q' } };
  expect(trouble(branched, { left: 1, right: 0 })).toMatch(/branch/);
  const round: Entities = {
    m: { kind: 'point', x: 0, y: 0 },
    t: { kind: 'point', x: 9, y: 0 },
    o: { kind: 'ellipse', centre: 'm', tip: 't', minor: 4 },
  };
  expect(trouble(round, { left: 1, right: 0 })).toMatch(/free curve or an ellipse/);
});
