import fc from 'fast-check';
import { distance2, type Vec2 } from '../math/index.ts';
import { circle, rectangle } from '../samples/index.ts';
import { findRegions, Geometry, type Entities } from '../sketch/index.ts';
import { along, areaShare, fullEllipse, lengthOf, nearestOn, type Piece } from '../sketch/pieces/index.ts';
import { asArcs } from './arcs.ts';
import { cutOut } from './index.ts';

/** A plate of 60 x 40 mm with a hole of 10 mm. */
const plate: Entities = { ...rectangle(0, 0, 60, 40), ...circle(20, 20, 5) };
const outermost = (entities: Entities) =>
  findRegions(new Geometry(entities)).regions.filter(({ depth }) => depth === 0);
const cut = (entities: Entities, width: number, arcs?: number): Piece[] => {
  const done = cutOut(outermost(entities), { width, ...(arcs === undefined ? {} : { arcs }) });
  if (!done.ok) throw new Error(done.issue.code);
  return done.value;
};
const area = (pieces: readonly Piece[]) => pieces.reduce((sum, piece) => sum + areaShare(piece), 0);
const length = (pieces: readonly Piece[]) => pieces.reduce((sum, piece) => sum + lengthOf(piece), 0);

test('openings first, clockwise; then the outside, counter-clockwise', () => {
  const [hole, ...rim] = cut(plate, 0);
  expect(hole).toMatchObject({ form: 'arc', radius: 5 });
  expect(area([hole!])).toBeCloseTo(-25 * Math.PI, 9);
  expect(area(rim)).toBeCloseTo(2400, 9);
});

test('with the width of the cut the hole is cut smaller, the outside larger, with arcs round its corners', () => {
  const [hole, ...rim] = cut(plate, 0.4);
  expect(hole).toMatchObject({ form: 'arc', radius: 4.8 });
  expect(rim.filter(({ form }) => form === 'arc')).toHaveLength(4);
  // a rectangle grown by r (Steiner): A + r P + pi r^2
  expect(area(rim)).toBeCloseTo(2400 + 0.2 * 200 + Math.PI * 0.04, 9);
});

test('inner corners are cut off where the ways cross', () => {
  const corner: Entities = {
    a: { kind: 'point', x: 0, y: 0 },
    b: { kind: 'point', x: 20, y: 0 },
    c: { kind: 'point', x: 20, y: 10 },
    d: { kind: 'point', x: 10, y: 10 },
    e: { kind: 'point', x: 10, y: 20 },
    f: { kind: 'point', x: 0, y: 20 },
    ...Object.fromEntries(
      ['ab', 'bc', 'cd', 'de', 'ef', 'fa'].map((ends) => [`l${ends}`, { kind: 'line', a: ends[0]!, b: ends[1]! }]),
    ),
  };
  const way = cut(corner, 2);
  // five outer corners in arcs of a quarter, one inner that loses two squares of 1 mm
  expect(area(way)).toBeCloseTo(300 + 80 + (5 * Math.PI) / 4 - 1, 9);
});

test('a cut that does not fit in is refused', () => {
  expect(cutOut(outermost(plate), { width: 12 })).toMatchObject({ ok: false, issue: { code: 'cut.narrow' } });
  const slit: Entities = { ...rectangle(0, 0, 60, 40), ...renamed(rectangle(10, 10, 30, 1)) };
  expect(cutOut(outermost(slit), { width: 1.5 })).toMatchObject({ ok: false, issue: { code: 'cut.narrow' } });
  expect(cutOut(outermost(slit), { width: 0.5 }).ok).toBe(true);
});
const renamed = (entities: Entities): Entities =>
  Object.fromEntries(
    Object.entries(entities).map(([id, entity]) => [
      `x${id}`,
      entity.kind === 'line' ? { ...entity, a: `x${entity.a}`, b: `x${entity.b}` } : entity,
    ]),
  );

test('curves as arcs: as close as asked, smooth, end to end', () => {
  const coordinate = fc.double({ min: -20, max: 20, noNaN: true });
  const place = fc.tuple(coordinate, coordinate);
  fc.assert(
    fc.property(place, place, place, place, (from, b, c, to) => {
      fc.pre(distance2(from, to) > 2 && distance2(from, b) > 1 && distance2(c, to) > 1);
      const curve: Piece = { form: 'bezier', entity: '', from, inner: [b, c], to };
      const arcs = asArcs(curve, 0.05);
      expect(arcs[0]!.from).toEqual(from);
      expect(distance2(arcs.at(-1)!.to, to)).toBeLessThan(1e-9);
      arcs.slice(1).forEach((arc, k) => expect(distance2(arc.from, arcs[k]!.to)).toBeLessThan(1e-6));
      for (let k = 0; k <= 40; k++) {
        const on: Vec2 = along(curve, k / 40);
        expect(Math.min(...arcs.map((arc) => distance2(nearestOn(arc, on), on)))).toBeLessThan(0.1);
      }
    }),
    { numRuns: 60 },
  );
  const ellipse = fullEllipse('', [0, 0], [10, 0], 6);
  const arcs = asArcs(ellipse, 0.001);
  expect(arcs.every(({ form }) => form === 'arc')).toBe(true);
  expect(length(arcs) / lengthOf(ellipse)).toBeCloseTo(1, 4);
  expect(area(arcs) / (60 * Math.PI)).toBeCloseTo(1, 4);
});
