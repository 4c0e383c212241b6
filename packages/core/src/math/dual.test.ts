import fc from 'fast-check';
import {
  alongD3,
  constant3,
  crossD3,
  dotD3,
  Dual,
  lengthD3,
  subD3,
  timesD3,
  variables,
  type DualVec3,
} from './index.ts';

const partial = ({ d }: Dual, k: number): number => d.by[d.at.indexOf(k)] ?? 0;
const number = fc.double({ min: 0.5, max: 3, noNaN: true });

/** Formulas of a few of six variables. */
const FORMULAS: readonly ((v: readonly Dual[]) => Dual)[] = [
  (v) => v[4]!.times(v[1]!).sub(v[2]!.over(v[1]!)).plus(3),
  (v) => v[0]!.atan2(v[5]!).add(v[3]!.cos().times(v[5]!.sin())),
  (v) => v[5]!.scaled(-2).abs().sqrt().add(v[0]!).sub(v[5]!),
  (v) => {
    const [a, b]: DualVec3[] = [
      [v[0]!, v[1]!, v[2]!],
      [v[3]!, v[4]!, v[5]!],
    ];
    return lengthD3(crossD3(a!, b!)).add(dotD3(subD3(a!, constant3([1, 2, 3])), timesD3(b!, v[0]!)));
  },
  (v) => alongD3([v[2]!, v[2]!, v[3]!], [1, -1, 2]).times(new Dual(7)),
];

test('formulas give their derivatives: by all that they hang on, rising, and by nothing else', () => {
  fc.assert(
    fc.property(
      fc.array(number, { minLength: 6, maxLength: 6 }),
      fc.integer({ min: 0, max: FORMULAS.length - 1 }),
      (values, which) => {
        const formula = FORMULAS[which]!;
        const { d } = formula(variables(values));
        expect([...d.at]).toEqual([...new Set(d.at)].sort((a, b) => a - b));
        expect(d.by).toHaveLength(d.at.length);
        const h = 1e-6;
        for (let k = 0; k < 6; k++) {
          const at = (by: number) => formula(variables(values.map((value, i) => (i === k ? value + by : value)))).value;
          expect(partial(formula(variables(values)), k)).toBeCloseTo((at(h) - at(-h)) / (2 * h), 4);
        }
      },
    ),
  );
});

test('what hangs on nothing has no derivatives, nor has what is done with it alone', () => {
  const still = new Dual(3).times(new Dual(4)).plus(1);
  expect(still).toMatchObject({ value: 13, d: { at: [], by: [] } });
  const [x] = variables([2]);
  expect(x!.add(still).d).toEqual({ at: [0], by: [1] });
  expect(still.sub(x!).d).toEqual({ at: [0], by: [-1] });
});
