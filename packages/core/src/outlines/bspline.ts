import { add2, scale2, type Vec2 } from '../math/index.ts';
import { LIMITS, type OutlineCurve } from './outline.ts';

/**
 * The Bezier spans of a B-spline of degree 1 to 3, by inserting every inner knot until it is as often there as the degree
 * (Boehm 1980); lower degrees are raised. Undefined for other degrees and broken knot vectors.
 */
export function bezierSpans(
  degree: number,
  points: readonly Vec2[],
  knots: readonly number[],
): OutlineCurve[] | undefined {
  if (degree < 1 || degree > 3 || points.length <= degree || knots.length !== points.length + degree + 1)
    return undefined;
  if (knots.length > MOST_KNOTS) return undefined;
  if (knots.some((knot, k) => k > 0 && knot < knots[k - 1]!)) return undefined;
  let [control, own] = [[...points], [...knots]];
  const inner = [...new Set(own.slice(degree, own.length - degree))];
  for (const knot of inner)
    while (own.filter((k) => k === knot).length < degree) [control, own] = inserted(degree, control, own, knot);
  // clamp ends that are not
  const first = own.lastIndexOf(inner[0]!) - degree;
  const spans: OutlineCurve[] = [];
  for (let k = 0; k + 1 < inner.length; k++) {
    const at = first + k * degree;
    const span = control.slice(at, at + degree + 1);
    if (span.length <= degree) return undefined;
    spans.push(cubic(span));
  }
  return spans;
}

/** More than the curves that are drawn of a file can have. */
const MOST_KNOTS = 3 * LIMITS.curves + 8;

/** One knot more: de Boor's points between the old ones. */
function inserted(
  degree: number,
  control: readonly Vec2[],
  knots: readonly number[],
  knot: number,
): [Vec2[], number[]] {
  const at = Math.min(
    knots.findLastIndex((k) => k <= knot),
    control.length - 1,
  );
  const next = Array.from({ length: control.length + 1 }, (_, i): Vec2 => {
    if (i <= at - degree) return control[i]!;
    if (i > at) return control[i - 1]!;
    const width = knots[i + degree]! - knots[i]!;
    const share = width > 0 ? (knot - knots[i]!) / width : 0;
    return add2(scale2(control[i - 1]!, 1 - share), scale2(control[i]!, share));
  });
  return [next, [...knots.slice(0, at + 1), knot, ...knots.slice(at + 1)]];
}

function cubic(span: readonly Vec2[]): OutlineCurve {
  const [a, b, c, d] = span as [Vec2, Vec2, Vec2, Vec2];
  const mixed = (p: Vec2, q: Vec2, t: number): Vec2 => add2(scale2(p, 1 - t), scale2(q, t));
  if (span.length === 2) return { form: 'line', from: a, to: b };
  if (span.length === 3) return { form: 'bezier', from: a, inner: [mixed(a, b, 2 / 3), mixed(c, b, 2 / 3)], to: c };
  return { form: 'bezier', from: a, inner: [b, c], to: d };
}
