import fc from 'fast-check';
import { freedoms, GROUND, minimalConflict, solve, type Block, type Problem, type Substitution } from './index.ts';

const problem = (initial: number[], blocks: Block[], substitutions: Substitution[] = []): Problem => ({
  initial: Float64Array.from(initial),
  blocks,
  substitutions,
});

/** a x = b as a block. */
const linear = (owner: string, terms: [number, number][], right: number): Block => ({
  owner,
  unknowns: terms.map(([at]) => at),
  residuals: 1,
  evaluate(p, r, j) {
    r[0] = -right;
    terms.forEach(([, factor], k) => {
      r[0]! += factor * p[k]!;
      j[k] = factor;
    });
  },
});

const square = (owner: string, at: number, of: number): Block => ({
  owner,
  unknowns: [at],
  residuals: 1,
  evaluate(p, r, j) {
    r[0] = p[0]! ** 2 - of;
    j[0] = 2 * p[0]!;
  },
});

const same = (owner: string, a: number, b: number, offset = 0): Substitution => ({ owner, a, b, offset });

describe('substitutions', () => {
  test('a chain of offsets to ground fixes all, without any block', () => {
    const solution = solve(problem([9, 9, 9], [], [same('p', 0, 1, 2), same('q', 1, 2, 3), same('r', 2, GROUND, 4)]));
    expect([...solution.x]).toEqual([9, 7, 4]);
    expect(solution.fulfilled).toBe(true);
    expect(freedoms(solution)).toMatchObject({ count: 0, redundant: [] });
  });

  test('a closing loop is redundant, an open one clashes and names its relations', () => {
    const chain = [same('p', 0, 1, 2), same('q', 1, 2, 3)];
    const closing = solve(problem([0, 0, 0], [], [...chain, same('r', 0, 2, 5)]));
    expect(closing).toMatchObject({ fulfilled: true, loops: [{ gap: 0, owners: ['p', 'q', 'r'] }] });
    const open = solve(problem([0, 0, 0], [], [...chain, same('r', 0, 2, 6)]));
    expect(open).toMatchObject({ fulfilled: false, residual: 1, suspects: ['p', 'q', 'r'] });
  });

  test('what is left free starts at the mean of its members', () => {
    expect([...solve(problem([0, 10], [], [same('p', 1, 0, 4)])).x]).toEqual([3, 7]);
  });
});

describe('decomposition and iteration', () => {
  test('blocks are solved in the order of their needs: x0^2 = 4, then x1 = 3 x0, then x2 = x0 + x1', () => {
    const blocks = [
      linear(
        'last',
        [
          [2, 1],
          [0, -1],
          [1, -1],
        ],
        0,
      ),
      linear(
        'middle',
        [
          [1, 1],
          [0, -3],
        ],
        0,
      ),
      square('first', 0, 4),
    ];
    const solution = solve(problem([1, 1, 1], blocks));
    expect([...solution.x].map((x) => Math.round(x * 1e9) / 1e9)).toEqual([2, 6, 8]);
    expect(solution.components[0]!.blocks.map((subproblem) => subproblem.columns)).toEqual([[0], [1], [2]]);
  });

  test('the branch nearest to the start is taken', () => {
    expect(solve(problem([-1], [square('s', 0, 9)])).x[0]).toBeCloseTo(-3, 12);
  });

  test('an under-determined problem moves as little as possible', () => {
    const solution = solve(
      problem(
        [0, 0],
        [
          linear(
            'sum',
            [
              [0, 1],
              [1, 1],
            ],
            2,
          ),
        ],
      ),
    );
    expect([...solution.x].map((x) => x.toFixed(9))).toEqual(['1.000000000', '1.000000000']);
  });

  test('an impossible one is not fulfilled and names the suspects', () => {
    const solution = solve(
      problem([0, 0], [linear('a', [[0, 1]], 1), linear('b', [[0, 1]], 2), linear('c', [[1, 1]], 3)]),
    );
    expect(solution.fulfilled).toBe(false);
    expect([...solution.suspects].sort()).toEqual(['a', 'b']);
  });

  test('over-determined but consistent is fulfilled, and told to be redundant', () => {
    const solution = solve(problem([0], [linear('a', [[0, 1]], 1), linear('b', [[0, 2]], 2)]));
    expect(solution.fulfilled).toBe(true);
    expect(freedoms(solution)).toMatchObject({ count: 0, redundant: [expect.any(Array)] });
  });
});

describe('freedoms', () => {
  test('unknowns less rank; unknowns that stand still are told apart', () => {
    const left = freedoms(
      solve(
        problem(
          [0, 0, 0],
          [
            linear('a', [[0, 1]], 5),
            linear(
              'b',
              [
                [1, 1],
                [2, 1],
              ],
              1,
            ),
          ],
        ),
      ),
    );
    expect(left.count).toBe(1);
    expect([...left.loose]).toEqual([0, 1, 1]);
  });

  test('equations that look independent by structure but are not: the rank is taken from numbers', () => {
    const twice = [
      linear(
        'a',
        [
          [0, 1],
          [1, 1],
        ],
        2,
      ),
      linear(
        'b',
        [
          [0, 2],
          [1, 2],
        ],
        4,
      ),
    ];
    const left = freedoms(solve(problem([0.3, 0.9], twice)));
    expect(left).toMatchObject({ count: 1, redundant: [expect.any(Array)] });
  });

  test('a rank that is low only at a special place is taken at a witness near by', () => {
    // x0 x1 = 0 at (0, 0) has a zero row, but generically it holds one freedom
    const cross: Block = {
      owner: 'cross',
      unknowns: [0, 1],
      residuals: 1,
      evaluate(p, r, j) {
        r[0] = p[0]! * p[1]!;
        j[0] = p[1]!;
        j[1] = p[0]!;
      },
    };
    expect(freedoms(solve(problem([0, 0], [cross]))).count).toBe(1);
  });
});

describe('options and summary', () => {
  test('a solution tells why it ended, how many steps it took, and what it cost', () => {
    const { summary, residual } = solve(problem([1], [square('s', 0, 9)]));
    expect(summary).toMatchObject({ termination: 'fulfilled', subproblems: 1, fallbacks: 0, initialCost: 32 });
    expect(summary.finalCost).toBeCloseTo(residual ** 2 / 2, 30);
    expect(summary.iterations).toBeGreaterThan(3);
  });

  test('a clash stalls, too few steps are a limit, and what gives no number is told', () => {
    const clash = problem([0], [linear('a', [[0, 1]], 1), linear('b', [[0, 1]], 2)]);
    // together in vain too: x = 1.5 leaves half a millimetre each
    expect(solve(clash)).toMatchObject({ fulfilled: false, summary: { termination: 'stalled', fallbacks: 1 } });
    expect(solve(clash).summary.finalCost).toBeCloseTo(0.25, 12);
    const far = solve(problem([1e6], [square('s', 0, 9)]), { maxIterations: 3 });
    expect(far).toMatchObject({ fulfilled: false, summary: { termination: 'limit' } });
    expect(far.x[0]).toBeLessThan(1e6);
    const lost = solve(problem([NaN], [square('s', 0, 9)]));
    expect(lost).toMatchObject({ fulfilled: false, summary: { termination: 'not-finite', iterations: 0 } });
  });

  test('an open loop of substitutions is no solution, whatever the blocks say', () => {
    const open = solve(problem([0, 0], [], [same('p', 0, 1, 2), same('q', 0, 1, 3)]));
    expect(open.summary.termination).toBe('stalled');
  });

  test('a coarser tolerance is met with fewer steps; sparse and dense factors come to the same', () => {
    const blocks = Array.from({ length: 6 }, (_, k) => square(`s${k}`, k, k + 2));
    const chain = linear(
      'sum',
      Array.from({ length: 7 }, (_, k) => [k, 1] as [number, number]),
      20,
    );
    const one = problem(Array<number>(7).fill(1), [...blocks, chain]);
    const [fine, coarse] = [solve(one), solve(one, { accuracy: 1e-4, margin: 1 })];
    expect(coarse.fulfilled && coarse.residual > 1e-9).toBe(true);
    expect(coarse.summary.iterations).toBeLessThan(fine.summary.iterations);
    const sparse = solve(one, { sparseFrom: 1, strategy: 'together' });
    const dense = solve(one, { strategy: 'together' });
    expect([sparse.summary.subproblems, sparse.summary.termination]).toEqual([1, 'fulfilled']);
    sparse.x.forEach((x, k) => expect(x).toBeCloseTo(dense.x[k]!, 9));
  });

  test('an option that makes no sense is told with its value', () => {
    expect(() => solve(problem([0], []), { accuracy: 0 })).toThrow('accuracy is 0');
    expect(() => solve(problem([0], []), { maxIterations: 0.5 })).toThrow('maxIterations is 0.5');
    const damping = { initial: 1, min: 2, max: 3, factor: 10 };
    expect(() => solve(problem([0], []), { damping })).toThrow('damping must have');
  });
});

describe('tolerances go with the size of the model', () => {
  /** Two bars from fixed ends meet, and a third place lies on the way: lengths alone, so that all scales with them. */
  const linkage = (k: number): Problem => {
    const apart = (owner: string, from: readonly [number, number], at: number, length: number): Block => ({
      owner,
      unknowns: [at, at + 1],
      residuals: 1,
      evaluate(p, r, j) {
        const [u, v] = [p[0]! - from[0], p[1]! - from[1]];
        const is = Math.hypot(u, v);
        r[0] = is - length;
        [j[0], j[1]] = [u / is, v / is];
      },
    });
    return problem([30 * k, 50 * k], [apart('a', [0, 0], 0, 65 * k), apart('b', [70 * k, 0], 0, 75 * k)]);
  };

  test.each([1, 37, 1e3, 1e5, 1e8])('%d times as large: as many steps, the same place', (k) => {
    const [one, large] = [solve(linkage(1)), solve(linkage(k))];
    expect(large.fulfilled).toBe(true);
    expect(large.summary).toMatchObject({ iterations: one.summary.iterations, size_mm: 50 * k });
    expect(large.summary.tolerance_mm).toBeCloseTo(5e-10 * k, 15);
    // by hand: x = (65^2 - 75^2 + 70^2) / 140 = 25, y = 60
    expect(large.x[0]! / k).toBeCloseTo(25, 9);
    expect(large.x[1]! / k).toBeCloseTo(60, 9);
  });

  test('as it says of itself, else as far as it reaches, at least 10 mm', () => {
    const sizeOf = (initial: number[], size_mm?: number) =>
      solve({ ...problem(initial, []), ...(size_mm ? { size_mm } : {}) }).summary.size_mm;
    expect([sizeOf([0, -3]), sizeOf([0, -30]), sizeOf([0, -30], 200)]).toEqual([10, 30, 200]);
  });
});

describe('minimal conflicts', () => {
  const members = fc.uniqueArray(fc.integer({ min: 0, max: 11 }), { minLength: 1, maxLength: 4 });

  test('what is found clashes, and nothing of it can be left out', () => {
    fc.assert(
      fc.property(fc.array(members, { minLength: 1, maxLength: 5 }), members, (conflicts, suspects) => {
        const clashes = (subset: readonly number[]) =>
          conflicts.some((set) => set.every((one) => subset.includes(one)));
        const all = Array.from({ length: 12 }, (_, k) => k);
        const found = minimalConflict(all, suspects, clashes);
        expect(clashes(found)).toBe(true);
        for (const one of found) expect(clashes(found.filter((other) => other !== one))).toBe(false);
        if (clashes(suspects)) expect(suspects).toEqual(expect.arrayContaining(found));
      }),
    );
  });

  test('it asks seldom where few of many fight, and comes to an end where it may not ask any more', () => {
    const many = Array.from({ length: 1000 }, (_, k) => k);
    let asked = 0;
    const two = (subset: readonly number[]) => (asked++, subset.includes(17) && subset.includes(801));
    expect(minimalConflict(many, [], two)).toEqual([17, 801]);
    expect(asked).toBeLessThan(50);
    asked = 0;
    const half = (subset: readonly number[]) => (asked++, many.every((k) => k % 2 === 1 || subset.includes(k)));
    const found = minimalConflict(many, [], half);
    expect(asked).toBeLessThanOrEqual(201);
    expect(found).toEqual(expect.arrayContaining(many.filter((k) => k % 2 === 0)));
  });
});
