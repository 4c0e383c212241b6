import fc from 'fast-check';
import { fillet, FigureBuilder, polygon, split, trim, type Entities, type Relations } from '../index.ts';
import { distance2, type Vec2 } from '../../math/index.ts';
import { line, level, point } from '../test-scene.ts';
import type { Result } from '../../result/index.ts';
import { chamfer, extend, type EditBuilder, type SketchEdit } from './index.ts';
import { newId, revised, solvedOf, type Drawn } from './test-edits.ts';

// Relations that speak of a curve between its ends speak of the whole of it after something was cut off.

/** How far points lie from where they were. */
function shifts(before: Drawn, after: Drawn): number[] {
  const [old, now] = [solvedOf(before).geometry, solvedOf(after)];
  expect(now.clash).toEqual([]);
  expect(now.redundant).toEqual([]);
  return Object.keys(before.entities)
    .filter((id) => before.entities[id]!.kind === 'point' && after.entities[id] !== undefined)
    .map((id) => distance2(old.point(id), now.geometry.point(id)));
}

const ngon = (count: number, radius: number) => {
  const b = new FigureBuilder(newId);
  const centre = b.place([3, -2]);
  b.relate({ kind: 'fixed', entity: centre, at: [3, -2] });
  const { circle } = polygon(b, [centre, [3, -2]], [3 + radius, -2], count);
  b.relate({ kind: 'diameter', circle, value: `${2 * radius}` });
  const corners = Object.keys(b.entities).filter((id) => b.entities[id]!.kind === 'point' && id !== centre);
  return { entities: b.entities, relations: b.relations, corners };
};

test('a corner of a polygon is rounded: its sides stay as long as they were, up to where they would meet', () => {
  const polygonOf = fc.record({ count: fc.integer({ min: 3, max: 8 }), cut: fc.subarray([0, 1, 2], { minLength: 1 }) });
  fc.assert(
    fc.property(polygonOf, fc.boolean(), ({ count, cut }, isRound) => {
      const before = ngon(count, 20);
      const size = { text: '1.5', size: 1.5 };
      const chosen = cut.map((k) => before.corners[k]!);
      const at = (b: EditBuilder) => (isRound ? fillet(b, chosen, size) : chamfer(b, chosen, size));
      const after = revised(before, at);
      expect(solvedOf(after).freedoms).toBe(solvedOf(before).freedoms);
      expect(Math.max(...shifts(before, after))).toBeLessThan(1e-7);
      // one corner after the other comes to the same
      const one = chosen.reduce<Drawn>(
        (drawn, corner) => revised(drawn, (b) => (isRound ? fillet(b, [corner], size) : chamfer(b, [corner], size))),
        before,
      );
      expect(solvedOf(one).freedoms).toBe(solvedOf(before).freedoms);
      expect(Math.max(...shifts(before, one))).toBeLessThan(1e-7);
    }),
    { numRuns: 20 },
  );
});

describe('of two lines that are equal one is cut', () => {
  const entities: Entities = {
    ...{ a: point(0, 0), b: point(30, 0), c: point(0, 10), d: point(30, 10), e: point(20, -5), f: point(20, 5) },
    ...{ ab: line('a', 'b'), cd: line('c', 'd'), ef: line('e', 'f') },
  };
  const relations: Relations = { q: { kind: 'equal', a: 'ab', b: 'cd' }, h: level('ab'), k: level('cd') };
  const before = { entities, relations };
  const other = (drawn: Drawn) => solvedOf(drawn).geometry.line('cd').b[0] - solvedOf(drawn).geometry.line('cd').a[0];

  test.each<[string, (b: EditBuilder) => Result<SketchEdit>]>([
    ['at an end', (b) => trim(b, 'ab', [25, 0])],
    ['at its beginning', (b) => trim(b, 'ab', [4, 0])],
    ['in two', (b) => split(b, 'ab', [12, 0])],
    ['longer', (b) => extend(b, 'ef', [20, 4])],
  ])('%s: the other stays as long, and follows the whole', (_, edit) => {
    const after = revised(before, edit);
    expect(other(after)).toBeCloseTo(30, 9);
    expect(Math.max(...shifts(before, after))).toBeLessThan(1e-9);
  });

  test('what is made longer is as long as before for what speaks of it', () => {
    const equal: Relations = { q: { kind: 'equal', a: 'ef', b: 'cd' } };
    const short = { entities: { ...entities, c: point(15, 10), d: point(25, 10) }, relations: equal };
    const after = revised(short, (b) => extend(b, 'ef', [20, 4]));
    expect(Math.max(...shifts(short, after))).toBeLessThan(1e-9);
    const { a, b } = solvedOf(after).geometry.line('ef');
    expect(distance2(a, b)).toBeCloseTo(15, 9);
  });

  test.each<[string, (b: EditBuilder) => Result<SketchEdit>]>([
    ['trimmed', (b) => trim(b, 'ab', [25, 0])],
    ['split', (b) => split(b, 'ab', [12, 0])],
  ])('a line that stays where it is and is %s does not move, and holds as before', (_, edit) => {
    const fixed: Drawn = {
      entities,
      relations: { f: { kind: 'fixed', entity: 'ab', at: [0, 0, 30, 0] }, u: { kind: 'vertical', a: 'ef' } },
    };
    const after = revised(fixed, edit);
    expect(Math.max(...shifts(fixed, after))).toBeLessThan(1e-9);
    const { geometry } = solvedOf(after);
    const ends = Object.keys(after.entities)
      .filter((id) => after.entities[id]!.kind === 'line' && id !== 'cd' && id !== 'ef')
      .flatMap((id) => [geometry.line(id).a, geometry.line(id).b]);
    for (const [, y] of ends) expect(y).toBeCloseTo(0, 9);
  });

  test('the middle of it is still the middle of the whole', () => {
    const middle = {
      entities: { ...entities, m: point(15, 0) },
      relations: { n: { kind: 'midpoint', point: 'm', line: 'ab' } } as Relations,
    };
    const after = revised(middle, (b) => trim(b, 'ab', [25, 0]));
    expect(Math.max(...shifts(middle, after))).toBeLessThan(1e-9);
    expect(solvedOf(after).freedoms).toBe(solvedOf(middle).freedoms);
  });
});

test('the length of an arc is told of the whole of it', () => {
  const at = (angle: number): Vec2 => [20 * Math.cos(angle), 20 * Math.sin(angle)];
  const arc = {
    entities: {
      ...{
        m: point(0, 0),
        a: point(20, 0),
        b: point(...at(1.5)),
        c: point(0, 0),
        d: point(...(at(0.9).map((x) => 2 * x) as [number, number])),
      },
      ...{ k: { kind: 'arc', centre: 'm', a: 'a', b: 'b', radius: 20 }, cd: line('c', 'd') },
    } as Entities,
    relations: { l: { kind: 'arc-length', arc: 'k', value: '30' } } as Relations,
  };
  const after = revised(arc, (b) => trim(b, 'k', at(1.2)));
  expect(Math.max(...shifts(arc, after))).toBeLessThan(1e-7);
  const [piece] = solvedOf(after).geometry.pieces('k');
  expect(piece).toMatchObject({ form: 'arc', sweep: expect.closeTo(0.9, 7) });
});
