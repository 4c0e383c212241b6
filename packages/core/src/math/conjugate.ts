import { add2, dot2, length2, scale2, type Vec2 } from './vector.ts';

/** The half axes of the ellipse with these conjugate half diameters, the longer first (Rytz). */
export function principalAxes(u: Vec2, v: Vec2): readonly [Vec2, Vec2] {
  const t = Math.atan2(2 * dot2(u, v), dot2(u, u) - dot2(v, v)) / 2;
  const [c, s] = [Math.cos(t), Math.sin(t)];
  const p = add2(scale2(u, c), scale2(v, s));
  const q = add2(scale2(u, -s), scale2(v, c));
  return length2(p) >= length2(q) ? [p, q] : [q, p];
}
