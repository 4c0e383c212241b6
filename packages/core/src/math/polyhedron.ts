import { inner, norm, subtract } from './orthonormal.ts';

/** Half a space: where the product with `along` is at least `least`. */
export interface HalfSpace {
  readonly along: Float64Array;
  readonly least: number;
}

interface NearestInPolyhedron {
  readonly at: Float64Array;
  /** By the half spaces: how hard each pushes; 0 where it does not. */
  readonly pushes: Float64Array;
}

/** Shares of what is asked that are rounding. */
const ROUNDING = 1e-12;
/** A direction whose part outside of the others is less than this share of it adds nothing. */
const DEPENDENT = 1e-9;

/**
 * The place of an intersection of half spaces that is nearest to another; undefined where it is empty. The dual active-set
 * method (Goldfarb, Idnani 1983) with the identity as its quadratic form: what is violated most comes in, what would have to
 * pull goes out.
 */
export function nearestInPolyhedron(
  from: Float64Array,
  halfSpaces: readonly HalfSpace[],
): NearestInPolyhedron | undefined {
  const at = Float64Array.from(from);
  const lengths = halfSpaces.map(({ along }) => norm(along));
  const active: number[] = [];
  const pushes = new Float64Array(halfSpaces.length);
  const slack = (k: number): number => inner(halfSpaces[k]!.along, at) - halfSpaces[k]!.least;
  for (let round = 0; round < 20 * (halfSpaces.length + 1); round++) {
    const worst = mostViolated(halfSpaces, lengths, slack, active);
    if (worst === undefined) return { at, pushes };
    const { along } = halfSpaces[worst]!;
    for (;;) {
      const { rest, shares } = outsideOf(
        along,
        active.map((k) => halfSpaces[k]!.along),
      );
      const free = inner(rest, along);
      const full = norm(rest) > DEPENDENT * lengths[worst]! ? -slack(worst) / free : Infinity;
      // the first whose push would become a pull
      let [partial, leaves] = [Infinity, -1];
      shares.forEach((share, n) => {
        if (share <= ROUNDING) return;
        const until = pushes[active[n]!]! / share;
        if (until < partial) [partial, leaves] = [until, n];
      });
      const step = Math.min(full, partial);
      if (step === Infinity) return undefined;
      if (full < Infinity) for (let k = 0; k < at.length; k++) at[k]! += step * rest[k]!;
      active.forEach((k, n) => (pushes[k]! -= step * shares[n]!));
      pushes[worst]! += step;
      if (full <= partial) {
        active.push(worst);
        break;
      }
      pushes[active[leaves]!] = 0;
      active.splice(leaves, 1);
    }
  }
  return undefined;
}

function mostViolated(
  halfSpaces: readonly HalfSpace[],
  lengths: readonly number[],
  slack: (k: number) => number,
  active: readonly number[],
): number | undefined {
  let [worst, by] = [-1, 0];
  halfSpaces.forEach(({ least }, k) => {
    if (active.includes(k)) return;
    const violated = -slack(k) - ROUNDING * (1 + Math.abs(least));
    const length = lengths[k]!;
    // nothing moves what has no direction: it can only be violated
    const share = length > 0 ? violated / length : violated > 0 ? Infinity : 0;
    if (share > by) [worst, by] = [k, share];
  });
  return worst < 0 ? undefined : worst;
}

/** The part of a vector outside of the span of others, and its shares of these: least squares by Gram-Schmidt, twice. */
function outsideOf(vector: Float64Array, others: readonly Float64Array[]) {
  const basis: { readonly unit: Float64Array; readonly in: Float64Array }[] = [];
  others.forEach((other, n) => {
    // each unit as a sum of the others
    const unit = Float64Array.from(other);
    const sum = new Float64Array(others.length);
    sum[n] = 1;
    for (let pass = 0; pass < 2; pass++)
      for (const before of basis) {
        const by = inner(before.unit, unit);
        subtract(unit, before.unit, by);
        subtract(sum, before.in, by);
      }
    const length = norm(unit);
    basis.push({ unit: unit.map((c) => c / length), in: sum.map((c) => c / length) });
  });
  const rest = Float64Array.from(vector);
  const shares = new Float64Array(others.length);
  for (let pass = 0; pass < 2; pass++)
    for (const before of basis) {
      const by = inner(before.unit, rest);
      subtract(rest, before.unit, by);
      subtract(shares, before.in, -by);
    }
  return { rest, shares };
}
