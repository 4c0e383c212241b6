import fc from 'fast-check';
import { ANGLE, dimensionWords, findUnit, formatAmount, formatQuantity, LENGTH, MASS, NUMBER, UNITS } from './index.ts';

test.each([
  [12, LENGTH, 'mm', '12 mm'],
  [12.3456, LENGTH, 'mm', '12.346 mm'],
  [25.4, LENGTH, 'in', '1 in'],
  [3.175, LENGTH, 'in', '0.125 in'],
  [1500, LENGTH, 'm', '1.5 m'],
  [Math.PI / 6, ANGLE, 'mm', '30 deg'],
  [0.0884, MASS, 'mm', '88.4 g'],
  [7, NUMBER, 'mm', '7'],
  [-1e-9, LENGTH, 'mm', '0 mm'],
] as const)('%f is shown as people read it', (amount, dimension, unit, text) => {
  expect(formatQuantity({ amount, dimension }, unit)).toBe(text);
});

test('units are found by their symbols, exactly', () => {
  for (const unit of UNITS) expect(findUnit(unit.symbol)).toBe(unit);
  expect(findUnit('MM')).toBeUndefined();
});

test('dimensions have words, also the unusual ones', () => {
  expect(dimensionWords({ length: 2, angle: 0, mass: 0 })).toBe('an area');
  expect(dimensionWords({ length: -1, angle: 0, mass: 1 })).toBe('mm^-1 rad^0 kg^1');
});

test('a formatted amount reads back to itself within its digits (property)', () => {
  fc.assert(
    fc.property(fc.double({ min: -1e6, max: 1e6, noNaN: true }), (amount) => {
      expect(Math.abs(Number(formatAmount(amount)) - amount)).toBeLessThanOrEqual(0.00051);
      expect(formatAmount(amount)).not.toMatch(/\.0*$|^-0$/);
    }),
  );
});

test('zeros before the point are no decimals', () => {
  expect(formatAmount(170, 0)).toBe('170');
  expect(formatAmount(-0.2, 0)).toBe('0');
  expect(formatAmount(1200.5, 1)).toBe('1200.5');
});
