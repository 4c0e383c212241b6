// Quadrature on [-1, 1].

interface QuadratureRule {
  readonly nodes: readonly number[];
  readonly weights: readonly number[];
}

const rules = new Map<number, QuadratureRule>();

/**
 * Gauss-Legendre with n nodes: exact for polynomials of degree 2n - 1. Nodes by Newton's method on the Legendre polynomial
 * (Press et al., Numerical Recipes, 4.6).
 */
export function gaussLegendre(n: number): QuadratureRule {
  const known = rules.get(n);
  if (known) return known;
  const nodes = new Array<number>(n);
  const weights = new Array<number>(n);
  for (let k = 0; k < n; k++) {
    let x = Math.cos((Math.PI * (k + 0.75)) / (n + 0.5));
    let slope = 0;
    for (let round = 0; round < 100; round++) {
      let [before, value] = [0, 1];
      for (let degree = 1; degree <= n; degree++)
        [before, value] = [value, ((2 * degree - 1) * x * value - (degree - 1) * before) / degree];
      slope = (n * (x * value - before)) / (x * x - 1);
      const step = value / slope;
      x -= step;
      if (Math.abs(step) < 1e-16) break;
    }
    nodes[n - 1 - k] = x;
    weights[n - 1 - k] = 2 / ((1 - x * x) * slope * slope);
  }
  const rule = { nodes, weights };
  rules.set(n, rule);
  return rule;
}

/**
 * Gauss-Kronrod with 15 nodes, in the order of the nodes, and the weights of the Gauss rule with 7 that shares every second
 * of them: their difference tells how good it is (Piessens et al., QUADPACK, 1983).
 */
export const KRONROD_15: QuadratureRule & { readonly gauss: readonly number[] } = mirrored(
  [
    [0.9914553711208126, 0.022935322010529224, 0],
    [0.9491079123427585, 0.06309209262997856, 0.1294849661688697],
    [0.8648644233597691, 0.10479001032225019, 0],
    [0.7415311855993945, 0.14065325971552592, 0.27970539148927664],
    [0.5860872354676911, 0.1690047266392679, 0],
    [0.4058451513773972, 0.19035057806478542, 0.3818300505051189],
    [0.20778495500789848, 0.20443294007529889, 0],
  ],
  [0.20948214108472782, 0.4179591836734694],
);

function mirrored(half: readonly (readonly [number, number, number])[], [middle, gauss]: readonly [number, number]) {
  const all = [
    ...half.map(([x, weight, other]) => [-x, weight, other] as const),
    [0, middle, gauss] as const,
    ...half.toReversed(),
  ];
  return { nodes: all.map(([x]) => x), weights: all.map(([, w]) => w), gauss: all.map(([, , g]) => g) };
}
