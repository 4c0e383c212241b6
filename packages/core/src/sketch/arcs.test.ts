import fc from 'fast-check';
import { cross2, distance2, dot2, sub2, type Vec2 } from '../math/index.ts';
import { along, arcBetween, arcLeaving, arcThrough, directionAtEnd, nearestOn, type DrawnArc } from './index.ts';

const place = fc.tuple(fc.integer({ min: -50, max: 50 }), fc.integer({ min: -50, max: 50 })) as fc.Arbitrary<Vec2>;
const pieceOf = ({ centre, a, b }: DrawnArc) => arcBetween('k', centre, distance2(centre, a), a, b);

test('the arc through three places holds all three, and runs past the third (property)', () => {
  fc.assert(
    fc.property(place, place, place, (start, end, through) => {
      const arc = arcThrough(start, end, through);
      if (Math.abs(cross2(sub2(end, start), sub2(through, start))) < 1) return;
      for (const at of [start, end, through])
        expect(distance2(arc!.centre, at)).toBeCloseTo(distance2(arc!.centre, arc!.a), 6);
      expect(distance2(nearestOn(pieceOf(arc!), through), through)).toBeLessThan(1e-6);
    }),
  );
  expect(arcThrough([0, 0], [2, 0], [1, 0])).toBeUndefined();
});

test('the arc that leaves in a direction is tangent to it at its start and ends where it should (property)', () => {
  fc.assert(
    fc.property(place, place, fc.double({ min: 0, max: 6.28, noNaN: true }), (start, end, turn) => {
      const heading: Vec2 = [Math.cos(turn), Math.sin(turn)];
      if (distance2(start, end) < 1 || Math.abs(cross2(heading, sub2(end, start))) < 0.5) return;
      const arc = arcLeaving(start, heading, end)!;
      expect(dot2(heading, sub2(arc.centre, start))).toBeCloseTo(0, 6);
      expect(distance2(arc.centre, start)).toBeCloseTo(distance2(arc.centre, end), 6);
      // a little along the arc from its start lies ahead, not behind
      const piece = pieceOf(arc);
      const ahead = along(piece, arc.turned ? 1 - 1e-4 : 1e-4);
      expect(dot2(heading, sub2(ahead, start))).toBeGreaterThan(0);
      // and the direction at the end is square on the radius there
      expect(dot2(directionAtEnd(arc), sub2(end, arc.centre))).toBeCloseTo(0, 5);
    }),
  );
  expect(arcLeaving([0, 0], [1, 0], [5, 0])).toBeUndefined();
});

test('the direction at the end of a quarter turn left is up, of a quarter turn right down', () => {
  expect(directionAtEnd(arcLeaving([0, 0], [1, 0], [5, 5])!).map((c) => Math.round(c * 1e9) / 1e9 + 0)).toEqual([0, 1]);
  expect(directionAtEnd(arcLeaving([0, 0], [1, 0], [5, -5])!).map((c) => Math.round(c * 1e9) / 1e9 + 0)).toEqual([
    0, -1,
  ]);
});
