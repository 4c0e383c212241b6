import type { Vec3 } from './vector.ts';

/** How something changes with each of many variables: those that it hangs on, by number and rising, all others 0. */
export interface Gradient {
  readonly at: readonly number[];
  readonly by: readonly number[];
}

const STEADY: Gradient = { at: [], by: [] };

/** a times one gradient and b times another. */
function combined(a: number, own: Gradient, b: number, other: Gradient): Gradient {
  if (other.at.length === 0) return { at: own.at, by: own.by.map((d) => a * d) };
  if (own.at.length === 0) return { at: other.at, by: other.by.map((d) => b * d) };
  if (own.at === other.at) return { at: own.at, by: own.by.map((d, k) => a * d + b * other.by[k]!) };
  const at: number[] = [];
  const by: number[] = [];
  for (let i = 0, k = 0; i < own.at.length || k < other.at.length;) {
    const [p, q] = [own.at[i] ?? Infinity, other.at[k] ?? Infinity];
    at.push(Math.min(p, q));
    by.push((p <= q ? a * own.by[i++]! : 0) + (q <= p ? b * other.by[k++]! : 0));
  }
  return { at, by };
}

/**
 * A number with its derivatives by variables (forward-mode automatic differentiation, Wengert 1964; sparse, as each number
 * hangs on few of them): a formula written once gives its exact Jacobian too. For rare residuals; the frequent ones are
 * differentiated by hand.
 */
export class Dual {
  constructor(
    readonly value: number,
    readonly d: Gradient = STEADY,
  ) {}

  private chained(value: number, own: number, other?: Dual, its = 0): Dual {
    return new Dual(value, combined(own, this.d, its, other?.d ?? STEADY));
  }

  add(other: Dual): Dual {
    return this.chained(this.value + other.value, 1, other, 1);
  }

  sub(other: Dual): Dual {
    return this.chained(this.value - other.value, 1, other, -1);
  }

  times(other: Dual): Dual {
    return this.chained(this.value * other.value, other.value, other, this.value);
  }

  plus(constant: number): Dual {
    return this.chained(this.value + constant, 1);
  }

  scaled(factor: number): Dual {
    return this.chained(this.value * factor, factor);
  }

  /** Division; a divisor of 0 is taken as a tiny one, so that residuals stay finite. */
  over(other: Dual): Dual {
    const divisor = Math.abs(other.value) > 1e-12 ? other.value : 1e-12;
    return this.chained(this.value / divisor, 1 / divisor, other, -this.value / divisor ** 2);
  }

  /** The angle of the place (x, this) from the x axis, in (-pi, pi]. */
  atan2(x: Dual): Dual {
    const square = Math.max(this.value ** 2 + x.value ** 2, 1e-24);
    return this.chained(Math.atan2(this.value, x.value), x.value / square, x, -this.value / square);
  }

  cos(): Dual {
    return this.chained(Math.cos(this.value), -Math.sin(this.value));
  }

  sin(): Dual {
    return this.chained(Math.sin(this.value), Math.cos(this.value));
  }

  /** The same size without its sign. */
  abs(): Dual {
    return this.value < 0 ? this.scaled(-1) : this;
  }

  sqrt(): Dual {
    const root = Math.sqrt(Math.max(this.value, 0));
    return this.chained(root, 1 / (2 * Math.max(root, 1e-12)));
  }
}

export type DualVec = readonly [Dual, Dual];

/** The variables themselves: the k-th has derivative 1 by itself. */
export const variables = (values: ArrayLike<number>): Dual[] =>
  Array.from(values, (value, k) => new Dual(value, { at: [k], by: [1] }));

/** a - b. */
export const subD = (a: DualVec, b: DualVec): DualVec => [a[0].sub(b[0]), a[1].sub(b[1])];
/** a + b. */
export const addD = (a: DualVec, b: DualVec): DualVec => [a[0].add(b[0]), a[1].add(b[1])];
/** a times a number with derivatives. */
export const timesD = (a: DualVec, s: Dual): DualVec => [a[0].times(s), a[1].times(s)];
/** a times a plain number. */
export const scaleD = (a: DualVec, s: number): DualVec => [a[0].scaled(s), a[1].scaled(s)];
/** The scalar product. */
export const dotD = (a: DualVec, b: DualVec): Dual => a[0].times(b[0]).add(a[1].times(b[1]));
/** z component of a x b. */
export const crossD = (a: DualVec, b: DualVec): Dual => a[0].times(b[1]).sub(a[1].times(b[0]));
const lengthD = (a: DualVec): Dual => dotD(a, a).sqrt();
/** a turned left by 90 degrees. */
export const leftD = (a: DualVec): DualVec => [a[1].scaled(-1), a[0]];
/** The unit vector. */
export const unitD = (a: DualVec): DualVec => {
  const length = lengthD(a);
  return [a[0].over(length), a[1].over(length)];
};

export type DualVec3 = readonly [Dual, Dual, Dual];

/** A place or direction that no variable moves. */
export const constant3 = ([x, y, z]: Vec3): DualVec3 => [new Dual(x), new Dual(y), new Dual(z)];
/** The value alone. */
export const valueOf3 = (a: DualVec3): Vec3 => [a[0].value, a[1].value, a[2].value];
const each3 = (a: DualVec3, b: DualVec3, of: (p: Dual, q: Dual) => Dual): DualVec3 => [
  of(a[0], b[0]),
  of(a[1], b[1]),
  of(a[2], b[2]),
];
/** a + b. */
export const addD3 = (a: DualVec3, b: DualVec3): DualVec3 => each3(a, b, (p, q) => p.add(q));
/** a - b. */
export const subD3 = (a: DualVec3, b: DualVec3): DualVec3 => each3(a, b, (p, q) => p.sub(q));
/** a times a number with derivatives. */
export const timesD3 = (a: DualVec3, s: Dual): DualVec3 => each3(a, a, (p) => p.times(s));
/** The scalar product. */
export const dotD3 = (a: DualVec3, b: DualVec3): Dual => a[0].times(b[0]).add(a[1].times(b[1])).add(a[2].times(b[2]));
/** The length; at 0 its derivatives are not finite. */
export const lengthD3 = (a: DualVec3): Dual => dotD3(a, a).sqrt();
/** The vector product a x b. */
export const crossD3 = (a: DualVec3, b: DualVec3): DualVec3 => [
  a[1].times(b[2]).sub(a[2].times(b[1])),
  a[2].times(b[0]).sub(a[0].times(b[2])),
  a[0].times(b[1]).sub(a[1].times(b[0])),
];
/** A vector that moves, seen along one that does not. */
export const alongD3 = (a: DualVec3, [x, y, z]: Vec3): Dual => a[0].scaled(x).add(a[1].scaled(y)).add(a[2].scaled(z));
