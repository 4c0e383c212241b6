import { shapeOf } from './index.ts';
import { BOLTS } from './tables.ts';

const usual = {
  size: 'm5',
  diameter: 5,
  fit: 'medium',
  head: 'plain',
  wide: 10,
  sunk: 5,
  extent: 'through',
  depth: 10,
  tip: (118 * Math.PI) / 180,
} as const;

test.each(Object.values(BOLTS))('M$d: the drill leaves room for the thread, the head sits over the hole', (bolt) => {
  const { d, pitch, tapDrill, clearance, counterbore, countersink } = bolt;
  // drills come in tenths: within half a tenth of the nominal diameter less the pitch
  expect(Math.abs(tapDrill - (d - pitch))).toBeLessThanOrEqual(0.051);
  expect([d, clearance.fine, clearance.medium, clearance.coarse]).toEqual(
    [d, clearance.fine, clearance.medium, clearance.coarse].toSorted((a, b) => a - b),
  );
  expect(Math.min(counterbore, countersink)).toBeGreaterThan(clearance.coarse);
});

test.each([
  ['M5 clearance, medium', {}, 2.75],
  ['M12 tapped', { size: 'm12', fit: 'tapped' }, 5.1],
  ['M8 coarse', { size: 'm8', fit: 'coarse' }, 5],
  ['an own size', { size: 'own', diameter: 7.3 }, 3.65],
] as const)('%s', (_, changes, radius) => {
  expect(shapeOf({ ...usual, ...changes }).radius).toBeCloseTo(radius, 12);
});

test('a counterbore is as deep as the head is high; an own size says how deep', () => {
  expect(shapeOf({ ...usual, size: 'm6', head: 'counterbore' }).head).toEqual({ form: 'bore', radius: 5.5, depth: 6 });
  expect(shapeOf({ ...usual, size: 'own', head: 'counterbore' }).head).toEqual({ form: 'bore', radius: 5, depth: 5 });
  expect(shapeOf({ ...usual, head: 'countersink' }).head).toEqual({ form: 'sink', radius: 5.6 });
});
