import fc from 'fast-check';
import type { Vec2 } from '../../math/index.ts';
import type { SketchStep } from '../../steps/index.ts';
import {
  chainFrom,
  fillet,
  findRegions,
  grownOffset,
  growingOffset,
  offsetOf,
  type Entities,
  type Relation,
  type Relations,
} from '../index.ts';
import { areaShare, type Piece } from '../pieces/index.ts';
import { circle, level, line, point, upright } from '../test-scene.ts';
import { areaOf, box, revised, solvedOf, type Drawn } from './test-edits.ts';

describe('offset', () => {
  const side = (sketch: Drawn, start: string, towards: Vec2, size: number) =>
    revised(sketch, (b) => offsetOf(b, chainFrom(b.geometry, start), towards, { text: `${size}`, size }));

  test.each<[string, Vec2, number]>([
    ['inwards', [20, 10], (40 - 6) * (20 - 6)],
    ['outwards', [20, -10], (40 + 6) * (20 + 6)],
  ])('a rectangle %s: one dimension, no new freedom', (_, towards, expected) => {
    const plate = box(40, 20);
    const after = side(plate, plate.sides[0]!, towards, 3);
    const solution = solvedOf(after);
    expect(solution.freedoms).toBe(4);
    expect(solution.redundant).toEqual([]);
    const areas = findRegions(solution.geometry).regions.map((region) => region.area + holes(region.holes));
    const sorted = areas.toSorted((a, b) => a - b);
    expect(Math.abs(sorted[towards[1] > 0 ? 0 : 1]! - expected)).toBeLessThan(1e-6);
  });

  test('a rounded loop inside: the arcs lose as much radius; it follows the dimension', () => {
    const plate = box(40, 20);
    const rounded = revised(plate, (b) => fillet(b, plate.corners, { text: '5', size: 5 }));
    const after = side(rounded, plate.sides[0]!, [20, 10], 2);
    const { geometry, freedoms, redundant } = solvedOf(after);
    expect(freedoms).toBe(4);
    expect(redundant).toEqual([]);
    const radii = Object.values(geometry.entities).flatMap((entity) => ('radius' in entity ? [entity.radius] : []));
    expect(radii.toSorted((a, b) => a - b).map((r) => Math.round(r * 1e6) / 1e6)).toEqual([3, 3, 3, 3, 5, 5, 5, 5]);
    const [id] = Object.keys(after.relations).filter((key) => after.relations[key]!.kind === 'offset');
    const more = {
      ...after,
      relations: { ...after.relations, [id!]: { ...after.relations[id!]!, value: '3' } as Relation },
    };
    const inner = Object.values(solvedOf(more).geometry.entities).flatMap((e) => ('radius' in e ? [e.radius] : []));
    expect(Math.min(...inner)).toBeCloseTo(2, 8);
  });

  test('a rounded loop inside keeps its shape while the plate grows and shrinks by much more than its radii', () => {
    const plate = box(60, 40);
    const [p, q] = plate.corners;
    const wide = (value: string): Relation => ({
      kind: 'distance',
      a: p,
      b: q,
      direction: 'horizontal',
      sense: 1,
      value,
    });
    const sized = { ...plate, relations: { ...plate.relations, w: wide('60') } };
    const rounded = revised(sized, (b) => fillet(b, plate.corners, { text: '5', size: 5 }));
    const ringed = side(rounded, plate.sides[0]!, [30, 20], 4);
    const lost = (r: number) => (4 - Math.PI) * r * r;
    for (const width of [90, 30, 200, 60]) {
      const { geometry } = solvedOf({ ...ringed, relations: { ...ringed.relations, w: wide(`${width}`) } });
      const areas = findRegions(geometry)
        .regions.map((region) => region.area)
        .sort((a, b) => a - b);
      const inner = (width - 8) * 32 - lost(1);
      expect(areas).toEqual(
        [inner, width * 40 - lost(5) - inner].sort((a, b) => a - b).map((value) => expect.closeTo(value, 6)),
      );
    }
  });

  describe('on both sides of centre lines', () => {
    /** Turning by these angles, deg; each piece as long as told. */
    const centreLines = (turns: readonly number[], lengths: readonly number[]) => {
      let [at, heading] = [[0, 0] as Vec2, 0];
      const places = [at];
      turns.forEach((turn, k) => {
        heading += (turn * Math.PI) / 180;
        at = [at[0] + lengths[k]! * Math.cos(heading), at[1] + lengths[k]! * Math.sin(heading)];
        places.push(at);
      });
      return {
        entities: Object.fromEntries([
          ...places.map(([x, y], k) => [`p${k}`, point(x, y)]),
          ...turns.map((_, k) => [`l${k}`, { ...line(`p${k}`, `p${k + 1}`), construction: true }]),
        ]) as Entities,
        relations: {} as Relations,
      };
    };
    const runs = fc.array(
      fc.record({
        turn: fc.integer({ min: -80, max: 80 }).filter((turn) => Math.abs(turn) > 2),
        length: fc.integer({ min: 60, max: 120 }),
      }),
      { minLength: 2, maxLength: 4 },
    );

    test('an outline with square ends and one number, that goes on where they do', () => {
      fc.assert(
        fc.property(runs, fc.boolean(), (pieces, isBegunAtItsEnd) => {
          // less than half round in all: it never meets itself
          fc.pre(Math.abs(pieces.reduce((sum, { turn }) => sum + turn, 0)) < 150);
          const [turns, lengths] = [pieces.map(({ turn }) => turn), pieces.map(({ length }) => length)];
          const whole = centreLines(turns, lengths);
          const lines = turns.map((_, k) => `l${k}`);
          const towards: Vec2 = [Math.cos(turns[0]! / 57.3 + 1.5), Math.sin(turns[0]! / 57.3 + 1.5)];
          const both = (sketch: typeof whole, ids: string[]) =>
            revised(sketch, (b) => offsetOf(b, ids, towards, { text: '7', size: 7 }, true));
          const atOnce = both(whole, lines);
          const length = lengths.reduce((sum, one) => sum + one, 0);
          expect(areaOf(atOnce)).toBeCloseTo(14 * length, 6);
          // its first pieces, or its last, then the others
          const begun = isBegunAtItsEnd ? lines.slice(-1) : lines.slice(0, 1);
          const first = both(whole, begun);
          const grown = revised(first, (b) => {
            const chain = chainFrom(b.geometry, lines[1]!);
            const growing = growingOffset(b.drawing.relations, b.geometry, chain, towards)!;
            return grownOffset(b, growing, chain);
          });
          expect(Object.values(grown.relations).filter(({ kind }) => kind === 'offset')).toHaveLength(1);
          expect(areaOf(grown)).toBeCloseTo(14 * length, 6);
          const [now, then] = [solvedOf(grown), solvedOf(atOnce)];
          expect([now.freedoms, now.redundant]).toEqual([then.freedoms, []]);
          // nothing but the centre lines was drawn twice, and the line across the end is the same one
          expect(Object.keys(grown.entities)).toHaveLength(Object.keys(atOnce.entities).length);
          const across = (sketch: SketchStep) =>
            Object.keys(sketch.entities).filter((id) => {
              const one = sketch.entities[id]!;
              const besides = Object.values(sketch.relations).flatMap((r) => (r.kind === 'offset' ? r.pairs : []));
              return one.kind === 'line' && !one.construction && !besides.some(({ to }) => to === id);
            });
          expect(across(grown).toSorted()).toEqual(across(first).toSorted());
        }),
        { numRuns: 25 },
      );
    });

    test('where they close, so does it: a frame without ends; what does not hang together is drawn anew', () => {
      const open = centreLines([0, 90, 90], [60, 40, 60]);
      const strip = revised(open, (b) => offsetOf(b, ['l0', 'l1', 'l2'], [30, 9], { text: '7', size: 7 }, true));
      expect(areaOf(strip)).toBeCloseTo(14 * 160, 6);
      const more = { ...line('p3', 'p0'), construction: true };
      const entities = { ...strip.entities, l3: more, apart: { ...line('p1', 'p3'), construction: true } };
      const growing = (chosen: string[]) =>
        growingOffset(strip.relations, solvedOf({ ...strip, entities }).geometry, chosen, [30, 9]);
      const closed = revised({ ...strip, entities }, (b) => grownOffset(b, growing(['l3'])!, ['l3']));
      // a frame with mitred corners is as large as its middle line is long
      expect(areaOf(closed)).toBeCloseTo(14 * 200, 6);
      const lone = { ...entities, q: point(100, 0), r: point(120, 0), qr: line('q', 'r') };
      expect(
        growingOffset(strip.relations, solvedOf({ ...strip, entities: lone }).geometry, ['l3', 'qr'], [30, 9]),
      ).toBeUndefined();
    });

    test('an offset goes on only on the side where it is', () => {
      const chain = centreLines([10, 20], [80, 60]);
      const strip = revised(chain, (b) => offsetOf(b, ['l0'], [30, 30], { text: '7', size: 7 }));
      const growing = (towards: Vec2) =>
        growingOffset(strip.relations, solvedOf(strip).geometry, ['l0', 'l1'], towards);
      expect(growing([30, 30])).toBeDefined();
      expect(growing([90, 60])).toBeDefined();
      expect(growing([30, -30])).toBeUndefined();
      expect(growing([120, 10])).toBeUndefined();
    });

    test('what runs beside is outline, and is offset again as such', () => {
      const strip = revised(centreLines([10, -30], [80, 60]), (b) =>
        offsetOf(b, chainFrom(b.geometry, 'l0'), [0, 9], { text: '7', size: 7 }, true),
      );
      const [offset] = Object.values(strip.relations).filter((one) => one.kind === 'offset');
      expect(offset!.pairs.map(({ to }) => strip.entities[to]!)).not.toContainEqual(
        expect.objectContaining({ construction: true }),
      );
      // the rim of it, four sides and the two ends
      expect(chainFrom(solvedOf(strip).geometry, offset!.pairs[0]!.to)).toHaveLength(6);
    });
  });

  test('an open chain, and a circle; an arc without room is refused', () => {
    const chain = {
      entities: {
        a: point(0, 0),
        b: point(20, 0),
        c: point(20, 15),
        ab: line('a', 'b'),
        bc: line('b', 'c'),
      } as Entities,
      relations: { h: level('ab'), v: upright('bc') },
    };
    const before = solvedOf(chain).freedoms;
    expect(solvedOf(side(chain, 'ab', [10, 5], 2)).freedoms).toBe(before);
    const round = { entities: { m: point(0, 0), k: circle('m', 6) }, relations: {} };
    expect(areaOf(side(round, 'k', [9, 0], 2))).toBeCloseTo(Math.PI * (64 - 36), 8);
    expect(() => side(round, 'k', [1, 0], 7)).toThrow('lose its radius');
  });
});

const holes = (loops: readonly (readonly Piece[])[]) =>
  -loops.reduce((sum, loop) => sum + loop.reduce((s, piece) => s + areaShare(piece), 0), 0);
