import { direction2, dot2, dotD, Dual, left2, scale2, subD, type DualVec, type Vec2 } from '../../math/index.ts';
import { fail, ok, type Result } from '../../result/index.ts';
import type { Spot } from '../witness/index.ts';

/** In which direction of a view a distance between places is measured. */
export const ALONG = { straight: 'straight', level: 'level', upright: 'upright' } as const;
type Along = keyof typeof ALONG;

/** A distance in a view, mm of the thing. */
export interface Between {
  readonly amount: Dual;
  /** The way in which it is measured, and the places on both things that it can begin at. */
  readonly way: Vec2;
  readonly from: readonly Vec2[];
  readonly to: readonly Vec2[];
}

const WAYS = { level: [1, 0], upright: [0, 1] } as const;
const valueOf = ([x, y]: DualVec): Vec2 => [x.value, y.value];

/** How far two things are apart in a view: square to what is a line, between places as is asked. */
export function between(a: Spot, b: Spot, along: Along): Result<Between> {
  if (!isPlaced(a) || !isPlaced(b)) return fail('mark.leans');
  if (!a.line && !b.line) return betweenPoints(a, b, along);
  const [line, other] = a.line ? [a, b] : [b, a];
  const { normal, height } = line.line!;
  const way = valueOf(normal);
  if (other.line && Math.abs(Math.abs(dot2(way, valueOf(other.line.normal))) - 1) > 1e-9) return fail('mark.slant');
  const place = other.line ? scaledBy(other.line.normal, other.line.height) : other.point!;
  const amount = dotD(normal, place).sub(height).abs();
  return ok({ amount, way, from: anchors(a), to: anchors(b) });
}

const isPlaced = ({ point, line }: Spot): boolean => point !== undefined || line !== undefined;

function betweenPoints(a: Spot, b: Spot, along: Along): Result<Between> {
  const apart = subD(b.point!, a.point!);
  const ends = { from: anchors(a), to: anchors(b) };
  if (along === 'straight') {
    const way = direction2(valueOf(apart));
    return way ? ok({ amount: dotD(apart, apart).sqrt(), way, ...ends }) : fail('mark.same');
  }
  return ok({ amount: apart[along === 'level' ? 0 : 1].abs(), way: WAYS[along], ...ends });
}

const scaledBy = ([x, y]: DualVec, s: Dual): DualVec => [x.times(s), y.times(s)];

/** The places of a thing at which dimension lines can begin: of what is round those on its axis. */
export function anchors({ point, line, places }: Spot): Vec2[] {
  if (point) return [valueOf(point)];
  const { normal, height } = line!;
  const [n, h] = [valueOf(normal), height.value];
  return places.map((place) => {
    const off = dot2(n, place) - h;
    return [place[0] - off * n[0], place[1] - off * n[1]];
  });
}

/** Two lines as they run away from where they meet. */
export interface Corner {
  readonly at: Vec2;
  /** From the first to the second, rad, positive counter-clockwise. */
  readonly from: number;
  readonly sweep: number;
  readonly amount: Dual;
}

/** The angle between two lines of a view, on the side on which the things lie. */
export function cornerOf(a: Spot, b: Spot): Result<Corner> {
  if (!a.line || !b.line) return fail('mark.lines');
  const [n, m] = [valueOf(a.line.normal), valueOf(b.line.normal)];
  const across = n[0] * m[1] - n[1] * m[0];
  if (Math.abs(across) < 1e-9) return fail('mark.parallel');
  const [h, g] = [a.line.height.value, b.line.height.value];
  const at: Vec2 = [(h * m[1] - g * n[1]) / across, (n[0] * g - m[0] * h) / across];
  const [u, v] = [away(a, n, at), away(b, m, at)];
  const [c, s] = [dotD(a.line.normal, b.line.normal), crossOf(a.line.normal, b.line.normal)];
  // the lines are turned from their normals by a quarter, both alike
  const sign = Math.sign(dot2(left2(n), u)) * Math.sign(dot2(left2(m), v));
  const turn = s.scaled(sign).atan2(c.scaled(sign));
  return ok({ at, from: Math.atan2(u[1], u[0]), sweep: turn.value, amount: turn.abs() });
}

const crossOf = (a: DualVec, b: DualVec): Dual => a[0].times(b[1]).sub(a[1].times(b[0]));

/** The direction in which most of a thing lies, seen from a place on its line. */
function away(spot: Spot, normal: Vec2, at: Vec2): Vec2 {
  const way = left2(normal);
  const sum = anchors(spot).reduce((total, place) => total + dot2([place[0] - at[0], place[1] - at[1]], way), 0);
  return sum < 0 ? scale2(way, -1) : way;
}
