import fc from 'fast-check';
import { ANGLE, LENGTH, NUMBER, type Dimension } from '../units/index.ts';
import { evaluate, nameIssue, namesUsed, negated, renameIn, valueScope, withUnit, withUnitOf } from './index.ts';

const scope = (values: Record<string, string> = {}, unit: 'mm' | 'in' = 'mm') =>
  valueScope(
    Object.entries(values).map(([name, expression]) => ({ name, expression })),
    unit,
  );

const length = (text: string, values: Record<string, string> = {}, unit: 'mm' | 'in' = 'mm') =>
  evaluate(text, LENGTH, scope(values, unit));

const code = (text: string, dimension: Dimension, values: Record<string, string> = {}) => {
  const result = evaluate(text, dimension, scope(values));
  return result.ok ? `ok ${result.value}` : result.issue.code;
};

describe('lengths as people type them', () => {
  test.each([
    ['12', 12],
    ['12 mm', 12],
    ['1.5cm', 15],
    ['1 m', 1000],
    ['2 in', 50.8],
    ['7/8 in', 22.225],
    ['1 3/16 in', 30.1625],
    ['1 1/2"', 38.1],
    ['2 ft', 609.6],
    ['-3', -3],
    ['2 + 3 * 4', 14],
    ['(2 + 3) * 4 mm', 20],
    ['2 ^ 3 ^ 2', 512],
    ['-2 ^ 2', -4],
    ['10 mm - 2 mm - 3 mm', 5],
    ['sqrt(9 mm * 4 mm)', 6],
    ['min(3 cm, 25)', 25],
    ['10 * sin(30)', 5],
    ['10 mm * cos(60 deg)', 5],
    ['1e1 mm', 10],
    ['1e3', 1000],
    ['2-1/8"', 53.975],
    ['2-1/8 in', 53.975],
    ['2 1/8"', 53.975],
    ['(2 + 1/8) in', 53.975],
    ['(2 + 1/8)"', 53.975],
    [`1'-3 1/2"`, 304.8 + 88.9],
    [`1' 3 1/2"`, 304.8 + 88.9],
    [`1'-3-1/2"`, 304.8 + 88.9],
    [`6'`, 6 * 304.8],
    [`6' - 3"`, 6 * 304.8 - 3 * 25.4],
    ['1 ft 6 in', 18 * 25.4],
    ['10 - 1/8 in', 10 * 1 - 25.4 / 8],
    ['2″ \u2212 1″', 25.4],
    ['3 \u00d7 4 mm', 12],
  ])('%s is %f mm', (text, mm) => {
    const result = length(text);
    expect(result.ok && result.value).toBeCloseTo(mm, 10);
  });

  test('what can be read in two ways is asked about, with both', () => {
    expect(code('2-1/8', LENGTH)).toBe('expression.dash');
    expect(code('2-1/8 mm', LENGTH)).toBe('expression.dash');
    expect(code('12,5', LENGTH)).toBe('expression.comma');
    expect(code('12,5 mm', LENGTH)).toBe('expression.comma');
    expect(code('max(12,5)', LENGTH)).toBe('ok 12');
    expect(code('9-8/2', LENGTH)).toBe('ok 5');
    expect(code('30°', ANGLE)).toBe(`ok ${Math.PI / 6}`);
    expect(code('(2 mm + 1 mm) in', LENGTH)).toBe('unit.asked');
  });

  test('a bare number takes the unit of the project, a unit overrides it', () => {
    expect(length('7/8', {}, 'in')).toEqual({ ok: true, value: expect.closeTo(22.225, 10) });
    expect(length('12 mm', {}, 'in')).toEqual({ ok: true, value: 12 });
    expect(length('span / 2 - 1', { span: '100 mm' }, 'in')).toEqual({ ok: true, value: 50 - 25.4 });
  });

  test('names may hold spaces', () => {
    expect(length('floor(span / mesh pitch) * 1 mm - 2', { span: '88 mm', 'mesh pitch': '4 mm' })).toEqual({
      ok: true,
      value: 20,
    });
  });
});

describe('dimension checks', () => {
  test.each([
    ['3 mm + 20 deg', LENGTH, 'unit.mismatch'],
    ['20 deg', LENGTH, 'unit.asked'],
    ['3 mm * 2 mm', LENGTH, 'unit.asked'],
    ['n', LENGTH, 'unit.asked'],
    ['floor(3 mm)', NUMBER, 'expression.argument'],
    ['1 / 0', NUMBER, 'expression.zero'],
    ['sqrt(-1)', NUMBER, 'expression.finite'],
    ['2 ^ (1 mm)', NUMBER, 'expression.power'],
    ['sin(2 mm)', NUMBER, 'expression.argument'],
    ['frob(2)', NUMBER, 'expression.function'],
    ['sin()', NUMBER, 'expression.count'],
    ['3 furlong', LENGTH, 'expression.unit'],
    ['', LENGTH, 'expression.empty'],
    ['3 +', LENGTH, 'expression.unexpected'],
    ['3 4', LENGTH, 'expression.unexpected'],
    ['3 & 4', LENGTH, 'expression.character'],
    ['constructor', LENGTH, 'value.unknown'],
    ['constructor(1)', LENGTH, 'expression.function'],
    ['45 deg', ANGLE, `ok ${Math.PI / 4}`],
    ['90', ANGLE, `ok ${Math.PI / 2}`],
    ['n * 2', NUMBER, 'ok 6'],
  ])('%s', (text, dimension, expected) => expect(code(text, dimension, { n: '3' })).toBe(expected));

  test('long and deep input is refused quickly', () => {
    expect(code('1+'.repeat(200), NUMBER)).toBe('expression.long');
    expect(code('('.repeat(90) + '1' + ')'.repeat(90), NUMBER)).toBe('expression.deep');
  });

  test('an unknown name offers the near one', () => {
    const result = length('spam', { span: '3 mm' });
    expect(!result.ok && result.issue.facts['near']).toBe('span');
  });
});

describe('values that need each other', () => {
  test('a loop is reported as the names on it, in order, from each place that meets it', () => {
    const values = { a: 'b + 1 mm', b: 'c * 2', c: 'a', d: 'a + 1 mm' };
    const loop = (name: string) => {
      const result = length(name, values);
      return !result.ok && result.issue.facts['loop'];
    };
    expect(loop('a')).toEqual(['a', 'b', 'c', 'a']);
    expect(loop('b')).toEqual(['b', 'c', 'a', 'b']);
    expect(loop('d')).toEqual(['a', 'b', 'c', 'a']);
  });

  test('order in the list does not matter', () => {
    expect(length('c', { c: 'b * 2', b: 'a + 1 mm', a: '2 mm' })).toEqual({ ok: true, value: 6 });
  });
});

test('what is typed over a length or an angle keeps its unit, and takes another where it has one', () => {
  const scope = valueScope([{ name: 'wall', expression: '3 mm' }], 'mm');
  expect(withUnit('24', LENGTH, scope)).toBe('24 mm');
  expect(withUnit('1/8 + 2', LENGTH, { ...scope, unit: 'in' })).toBe('(1/8 + 2) in');
  expect(withUnit('30', ANGLE, scope)).toBe('30 deg');
  expect(withUnit('30', NUMBER, scope)).toBe('30');
  expect(withUnit('wall', LENGTH, scope)).toBe('wall');
  expect(withUnitOf('44', '40 mm', scope)).toBe('44 mm');
  expect(withUnitOf('2 * 22', '40 mm', scope)).toBe('(2 * 22) mm');
  expect(withUnitOf('2-1/8"', '40 mm', scope)).toBe('2-1/8"');
  expect(withUnitOf('wall + 2', '40 mm', scope)).toBe('wall + 2');
  expect(withUnitOf('30', '15 deg', scope)).toBe('30 deg');
  expect(withUnitOf('7', '6', scope)).toBe('7');
  expect(withUnitOf('7', 'nothing known', scope)).toBe('7');
  expect(withUnitOf('', '40 mm', scope)).toBe('');
  expect(withUnitOf('44', '4 cm', valueScope([], 'cm'))).toBe('44 cm');
});

describe('names', () => {
  test.each([
    ['mm', 'value.reserved'],
    ['sqrt', 'value.reserved'],
    ['pi', 'value.reserved'],
    ['2nd', 'value.name'],
    ['a+b', 'value.name'],
    ['span', 'value.taken'],
    ['axis height', undefined],
    ['Höhe', undefined],
  ])('%s', (name, expected) => expect(nameIssue(name, ['span'])?.code).toBe(expected));

  test('renaming touches whole names only', () => {
    expect(renameIn('axis height - height*2', 'height', 'rise')).toBe('axis height - rise*2');
    expect(renameIn('axis  height/2', 'axis height', 'lift')).toBe('lift/2');
    expect(renameIn('2 * span', 'pan', 'x')).toBe('2 * span');
    expect(namesUsed('floor(span / mesh pitch) + pi')).toEqual(['span', 'mesh pitch']);
  });
});

test('sums and products agree with arithmetic (property)', () => {
  const amount = fc.integer({ min: -1000, max: 1000 });
  fc.assert(
    fc.property(amount, amount, amount, (a, b, c) => {
      const result = evaluate('x + y * 3 - z / 4', LENGTH, scope({ x: `${a} mm`, y: `${b} mm`, z: `${c} mm` }));
      expect(result.ok && result.value).toBeCloseTo(a + b * 3 - c / 4, 9);
    }),
  );
});

test('any text gives a result or an issue, never a fault (property)', () => {
  fc.assert(fc.property(fc.string({ unit: 'grapheme', maxLength: 30 }), (text) => void length(text)));
  const piece = fc.constantFrom('1', ' ', '+', '-', '/', '(', ')', 'mm', 'a', '^', ',', 'sin', '.5', '"');
  fc.assert(fc.property(fc.array(piece, { maxLength: 25 }), (pieces) => void length(pieces.join(''))));
});

test('the opposite of an expression, and that of this (property)', () => {
  expect(['10 mm', '-10 mm', 'a', '-(a + b)', 'a - b', '2-1/8"', '-a + b'].map(negated)).toEqual([
    ...['-10 mm', '10 mm', '-a', '(a + b)', '-(a - b)', '-(2-1/8")', '-(-a + b)'],
  ]);
  const piece = fc.constantFrom('1', '3 mm', ' + ', ' - ', ' * ', '/', '(', ')', '-', 'a');
  const named = scope({ a: '7 mm' });
  fc.assert(
    fc.property(fc.array(piece, { maxLength: 9 }), (pieces) => {
      const text = pieces.join('');
      const before = evaluate(text, LENGTH, named);
      if (!before.ok) return;
      const [once, twice] = [negated(text), negated(negated(text))].map((one) => evaluate(one, LENGTH, named));
      expect([once, twice]).toMatchObject([
        { ok: true, value: expect.closeTo(-before.value, 9) },
        { ok: true, value: expect.closeTo(before.value, 9) },
      ]);
    }),
  );
});
