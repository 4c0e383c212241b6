import { typedDensity, typedNumber } from './typed-amount.ts';

test.each([
  ['7.2', 7200],
  ['7,2', 7200],
  [' 0.68 ', 680],
  ['7.85 g/cm3', 7850],
  ['7.85 g/cm³', 7850],
  ['1.2 kg/l', 1200],
  ['2.7 t/m^3', 2700],
  ['7200', 7200],
  ['24 kg/m³', 24],
  ['25', 25],
])('a density of %s', (text, density) => expect(typedDensity(text)).toBeCloseTo(density, 9));

test.each(['', 'heavy', '7.2 lb', '1.2.3', 'kg/m³'])('no density: %p', (text) => expect(typedDensity(text)).toBeNaN());

test('numbers with a comma, and with the minus sign of a sheet', () => {
  expect(typedNumber('−1,5')).toBe(-1.5);
});
