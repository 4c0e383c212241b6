import { crossD, subD, unitD, variables, type Dual, type DualVec, type Vec2 } from '../math/index.ts';
import type { Block } from '../solver/index.ts';

/** Lengths below this have no direction; residuals and derivatives stay finite. */
const SHORT = 1e-12;

/** Distance between two points less `target` (mm): |q - p| - d. Unknowns: p, q, then the radii with their factors. */
export function pointDistance(
  owner: string,
  p: readonly number[],
  q: readonly number[],
  target: number,
  radii: readonly { readonly at: number; readonly factor: number }[] = [],
): Block {
  return {
    owner,
    unknowns: [...p, ...q, ...radii.map((radius) => radius.at)],
    residuals: 1,
    evaluate(v, r, j) {
      const dx = v[2]! - v[0]!;
      const dy = v[3]! - v[1]!;
      const length = Math.hypot(dx, dy);
      const ux = length > SHORT ? dx / length : 1;
      const uy = length > SHORT ? dy / length : 0;
      r[0] = length - target;
      j.set([-ux, -uy, ux, uy]);
      radii.forEach(({ factor }, k) => {
        r[0]! -= factor * v[4 + k]!;
        j[4 + k] = -factor;
      });
    },
  };
}

/**
 * Signed distance of point p from the line a-b, times `side`, less `target` and less `factor` radii if one is given (mm).
 * With n the left normal and t the place of p along a-b: ds/dp = n, ds/da = -(1 - t) n, ds/db = -t n.
 */
export function lineDistance(
  owner: string,
  line: readonly number[],
  p: readonly number[],
  side: number,
  target: number,
  radius?: number,
  factor = 1,
): Block {
  return {
    owner,
    unknowns: [...line, ...p, ...(radius === undefined ? [] : [radius])],
    residuals: 1,
    evaluate(v, r, j) {
      const ux = v[2]! - v[0]!;
      const uy = v[3]! - v[1]!;
      const length = Math.max(Math.hypot(ux, uy), SHORT);
      const nx = (-uy / length) * side;
      const ny = (ux / length) * side;
      const px = v[4]! - v[0]!;
      const py = v[5]! - v[1]!;
      const t = (ux * px + uy * py) / length ** 2;
      r[0] = nx * px + ny * py - target;
      j.set([-(1 - t) * nx, -(1 - t) * ny, -t * nx, -t * ny, nx, ny]);
      if (radius !== undefined) {
        r[0] -= factor * v[6]!;
        j[6] = -factor;
      }
    },
  };
}

/** sense (q - p) in one coordinate, less `target` and the radii with their factors (mm): linear. */
export function spanDistance(
  owner: string,
  p: number,
  q: number,
  sense: number,
  target: number,
  radii: readonly { readonly at: number; readonly factor: number }[],
): Block {
  return {
    owner,
    unknowns: [p, q, ...radii.map(({ at }) => at)],
    residuals: 1,
    evaluate(v, r, j) {
      r[0] = sense * (v[1]! - v[0]!) - target;
      j.set([-sense, sense]);
      radii.forEach(({ factor }, k) => {
        r[0]! -= factor * v[2 + k]!;
        j[2 + k] = -factor;
      });
    },
  };
}

/** A function of the angle between two lines, with its derivative. */
export type AngleLaw = (theta: number) => readonly [value: number, derivative: number];

/**
 * `scale` (mm) x law(theta), theta being the angle from the first line's direction to the second's, in (-pi, pi].
 * The direction of a line turns by left(u)/|u|^2 as its end moves.
 */
export function lineAngle(
  owner: string,
  first: readonly number[],
  second: readonly number[],
  scale: number,
  law: AngleLaw,
): Block {
  return {
    owner,
    unknowns: [...first, ...second],
    residuals: 1,
    evaluate(v, r, j) {
      const ux = v[2]! - v[0]!;
      const uy = v[3]! - v[1]!;
      const wx = v[6]! - v[4]!;
      const wy = v[7]! - v[5]!;
      const [value, derivative] = law(Math.atan2(ux * wy - uy * wx, ux * wx + uy * wy));
      r[0] = scale * value;
      const d = scale * derivative;
      const uu = Math.max(ux * ux + uy * uy, SHORT ** 2);
      const ww = Math.max(wx * wx + wy * wy, SHORT ** 2);
      // theta = angle(w) - angle(u)
      j.set([(-uy / uu) * d, (ux / uu) * d, (uy / uu) * d, (-ux / uu) * d]);
      j.set([(wy / ww) * d, (-wx / ww) * d, (-wy / ww) * d, (wx / ww) * d], 4);
    },
  };
}

/** Length of the first line less that of the second (mm). */
export function lengthDifference(owner: string, first: readonly number[], second: readonly number[]): Block {
  return {
    owner,
    unknowns: [...first, ...second],
    residuals: 1,
    evaluate(v, r, j) {
      r[0] = 0;
      for (const [at, sign] of [
        [0, 1],
        [4, -1],
      ] as const) {
        const dx = v[at + 2]! - v[at]!;
        const dy = v[at + 3]! - v[at + 1]!;
        const length = Math.hypot(dx, dy);
        const ux = (sign * dx) / Math.max(length, SHORT);
        const uy = (sign * dy) / Math.max(length, SHORT);
        r[0] += sign * length;
        j.set([-ux, -uy, ux, uy], at);
      }
    },
  };
}

/** The smaller of the angles that differ from `angle` by whole turns: in (-pi, pi]. */
export function wrapped(angle: number): number {
  const turn = 2 * Math.PI;
  const rest = (((angle + Math.PI) % turn) + turn) % turn;
  return rest - Math.PI;
}

/**
 * Points p and q mirror each other in the line a-b (mm): their middle lies on it, and their join has no share along it.
 * With u the unit direction, n its left normal and L the length: a turn of the line by d moves u by n d and n by -u d.
 */
export function mirroredPoints(
  owner: string,
  p: readonly number[],
  q: readonly number[],
  line: readonly number[],
): Block {
  return {
    owner,
    unknowns: [...p, ...q, ...line],
    residuals: 2,
    evaluate(v, r, j) {
      const dx = v[6]! - v[4]!;
      const dy = v[7]! - v[5]!;
      const length = Math.max(Math.hypot(dx, dy), SHORT);
      const [ux, uy] = [dx / length, dy / length];
      const [mx, my] = [(v[0]! + v[2]!) / 2 - v[4]!, (v[1]! + v[3]!) / 2 - v[5]!];
      const [jx, jy] = [v[2]! - v[0]!, v[3]! - v[1]!];
      r[0] = -uy * mx + ux * my;
      r[1] = ux * jx + uy * jy;
      const t = (ux * mx + uy * my) / length;
      j.set([-uy / 2, ux / 2, -uy / 2, ux / 2, (1 - t) * uy, -(1 - t) * ux, t * uy, -t * ux]);
      // how the join's share along the line changes as the line turns
      const s = (-uy * jx + ux * jy) / length;
      j.set([-ux, -uy, ux, uy, s * uy, -s * ux, -s * uy, s * ux], 8);
    },
  };
}

/** The share of p - q along the line a-b (mm): zero where the join stands square on it. */
export function alongLine(owner: string, line: readonly number[], p: readonly number[], q: readonly number[]): Block {
  return {
    owner,
    unknowns: [...line, ...p, ...q],
    residuals: 1,
    evaluate(v, r, j) {
      const dx = v[2]! - v[0]!;
      const dy = v[3]! - v[1]!;
      const length = Math.max(Math.hypot(dx, dy), SHORT);
      const [ux, uy] = [dx / length, dy / length];
      const [jx, jy] = [v[4]! - v[6]!, v[5]! - v[7]!];
      r[0] = ux * jx + uy * jy;
      const s = (-uy * jx + ux * jy) / length;
      j.set([s * uy, -s * ux, -s * uy, s * ux, ux, uy, -ux, -uy]);
    },
  };
}

/** A block from a formula in dual numbers: for the rare kinds, whose Jacobians are long to write. */
export function formulaBlock(
  owner: string,
  unknowns: readonly number[],
  formula: (v: readonly Dual[]) => readonly Dual[],
  residuals = 1,
): Block {
  return {
    owner,
    unknowns,
    residuals,
    evaluate(v, r, j) {
      formula(variables(v)).forEach(({ value, d }, k) => {
        r[k] = value;
        const row = k * unknowns.length;
        d.at.forEach((unknown, i) => (j[row + unknown] = d.by[i]!));
      });
    },
  };
}

/** A curve whose places depend on some unknowns: what is needed to measure how far a point is off it. */
export interface FreeCurve {
  readonly unknowns: readonly number[];
  /** The parameter of the place nearest to p. */
  foot(v: Float64Array, p: Vec2): number;
  /** The place with this parameter and the direction there, as formulas; left of it counts as positive (outside). */
  at(v: readonly Dual[], parameter: number): { readonly place: DualVec; readonly along: DualVec };
}

/**
 * Signed distance of p from a curve, less `side` times the radius if one is given (mm): how far p lies left of the
 * tangent in the foot of the perpendicular. To first order it does not change as the foot runs along the curve (envelope
 * theorem), so that the parameter counts as a constant. Beyond an end it is measured from the tangent in that end.
 */
export function curveDistance(
  owner: string,
  curve: FreeCurve,
  p: readonly number[],
  side: number,
  radius?: number,
): Block {
  const n = curve.unknowns.length;
  const unknowns = [...curve.unknowns, ...p, ...(radius === undefined ? [] : [radius])];
  return formulaBlock(owner, unknowns, (v) => {
    const own = v.slice(0, n);
    const parameter = curve.foot(
      Float64Array.from(own, ({ value }) => value),
      [v[n]!.value, v[n + 1]!.value],
    );
    const { place, along } = curve.at(own, parameter);
    const off = crossD(unitD(along), subD([v[n]!, v[n + 1]!], place));
    return [radius === undefined ? off : off.sub(v[n + 2]!.scaled(side))];
  });
}
