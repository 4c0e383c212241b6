import { add2, cross2, distance2, dot2, length2, scale2, sub2, type Vec2 } from '../../math/index.ts';
import { sameCircle, type Arc } from './arc.ts';
import { sameEllipse } from './ellipse.ts';
import { boxesOverlap } from './form.ts';
import { along, boxOf, derivatives, nearestParameter, stretch, type Piece } from './piece.ts';
import type { Segment } from './segment.ts';

interface Intersection {
  readonly t: number;
  readonly u: number;
}

/** Parameters on both pieces where they meet, end points included, tangency as one meeting. */
export function intersections(a: Piece, b: Piece, tolerance: number): Intersection[] {
  const found = placesOf(a, b, tolerance).flatMap((place) => {
    const t = parameterAt(a, place, tolerance);
    const u = parameterAt(b, place, tolerance);
    return t === undefined || u === undefined ? [] : [{ t, u }];
  });
  // an end that two pieces share is found from both
  const once = found.filter((here, k) => found.findIndex((other) => other.t === here.t && other.u === here.u) === k);
  return withoutRepeats(a, b, once, tolerance);
}

/**
 * Meetings between which the curves do not part are one: where curves touch, the place of that is known far less exactly
 * than how near they come (its error goes with the root). An end that lies on the other curve tells it best.
 */
function withoutRepeats(a: Piece, b: Piece, found: readonly Intersection[], tolerance: number): Intersection[] {
  const ends = ({ t, u }: Intersection): number => [t, u].filter((at) => at === 0 || at === 1).length;
  const kept: Intersection[] = [];
  for (const here of found.toSorted((x, y) => ends(y) - ends(x)))
    if (!kept.some((other) => ends(here) < 1 && staysNear(a, b, here, other, tolerance))) kept.push(here);
  return kept;
}

/** Does the stretch of a curve between two meetings lie on the other one, and is it short against both? */
function staysNear(a: Piece, b: Piece, here: Intersection, other: Intersection, tolerance: number): boolean {
  if (Math.abs(here.t - other.t) > CLOSE || Math.abs(here.u - other.u) > CLOSE) return false;
  return [0.25, 0.5, 0.75].every((share) => onPiece(b, along(a, here.t + share * (other.t - here.t)), tolerance));
}
/** Only what lies near each other can be one touch. */
const CLOSE = 0.1;

/** The parameter of a place on the piece; ends within the tolerance snap to 0 and 1; undefined if it is off the piece. */
export function parameterAt(piece: Piece, place: Vec2, tolerance: number): number | undefined {
  if (distance2(place, piece.from) <= tolerance) return 0;
  if (distance2(place, piece.to) <= tolerance) return 1;
  const t = nearestParameter(piece, place);
  return t > 0 && t < 1 && distance2(along(piece, t), place) <= tolerance ? t : undefined;
}

/** Where the curves meet: in closed form for lines and circles, of which it takes the whole carriers. */
function placesOf(a: Piece, b: Piece, tolerance: number): Vec2[] {
  if (a.form === 'segment' && b.form === 'segment') return lineLine(a, b, tolerance);
  // an end on the other curve is a meeting whatever the equations of their carriers give
  const ends = [a.from, a.to, b.from, b.to];
  if (a.form === 'segment' && b.form === 'arc') return [...ends, ...lineCircle(a, b, tolerance)];
  if (a.form === 'arc' && b.form === 'segment') return [...ends, ...lineCircle(b, a, tolerance)];
  if (a.form === 'arc' && b.form === 'arc') return [...ends, ...circleCircle(a, b, tolerance)];
  return overlapping(a, b, tolerance) ? ends : [...ends, ...curveCurve(a, b, tolerance)];
}

function lineLine(a: Segment, b: Segment, tolerance: number): Vec2[] {
  const u = sub2(a.to, a.from);
  const v = sub2(b.to, b.from);
  const across = cross2(u, v);
  const lengths = length2(u) * length2(v);
  // parallel, or an end of one on the other within the tolerance: the ends decide
  const ends = [a.from, a.to, b.from, b.to].filter(
    (end) => parameterAt(a, end, tolerance) !== undefined && parameterAt(b, end, tolerance) !== undefined,
  );
  if (ends.length > 0 || Math.abs(across) <= 1e-12 * lengths) return ends;
  return [add2(a.from, scale2(u, cross2(sub2(b.from, a.from), v) / across))];
}

function lineCircle(line: Segment, arc: Arc, tolerance: number): Vec2[] {
  const u = sub2(line.to, line.from);
  const dir = scale2(u, 1 / length2(u));
  const foot = add2(line.from, scale2(dir, dot2(sub2(arc.centre, line.from), dir)));
  const off = distance2(foot, arc.centre);
  if (off > arc.radius + tolerance) return [];
  // within the tolerance of touching it is a touch: one meeting, not two next to each other
  const half = Math.sqrt(Math.max(0, arc.radius ** 2 - off ** 2));
  if (Math.abs(off - arc.radius) <= tolerance) return [foot];
  return [add2(foot, scale2(dir, half)), add2(foot, scale2(dir, -half))];
}

function circleCircle(a: Arc, b: Arc, tolerance: number): Vec2[] {
  if (sameCircle(a, b, tolerance)) return [a.from, a.to, b.from, b.to];
  const apart = distance2(a.centre, b.centre);
  if (apart <= tolerance) return [];
  const dir = scale2(sub2(b.centre, a.centre), 1 / apart);
  const touching =
    Math.abs(apart - a.radius - b.radius) <= tolerance || Math.abs(apart - Math.abs(a.radius - b.radius)) <= tolerance;
  const reach = (apart ** 2 + a.radius ** 2 - b.radius ** 2) / (2 * apart);
  const foot = add2(a.centre, scale2(dir, reach));
  if (touching) return [add2(a.centre, scale2(dir, Math.sign(reach) * a.radius))];
  const square = a.radius ** 2 - reach ** 2;
  if (square < 0) return [];
  const half = Math.sqrt(square);
  const across: Vec2 = [-dir[1], dir[0]];
  return [add2(foot, scale2(across, half)), add2(foot, scale2(across, -half))];
}

/** Do the pieces run on each other over some stretch? */
function overlapping(a: Piece, b: Piece, tolerance: number): boolean {
  if (a.form === 'ellipse' && b.form === 'ellipse') return sameEllipse(a, b, tolerance);
  if (a.form !== b.form) return false;
  const lies = (p: Piece, q: Piece) => [0, 0.2, 0.5, 0.8, 1].every((t) => onPiece(q, along(p, t), tolerance));
  return lies(a, b) || lies(b, a);
}

const onPiece = (piece: Piece, place: Vec2, tolerance: number): boolean =>
  distance2(along(piece, nearestParameter(piece, place)), place) <= tolerance;

const MOST_PAIRS = 4000;
const DEEPEST = 9;

/**
 * Meetings of any two curves: both are halved while their boxes overlap; what is left starts a Newton iteration on the
 * difference, or, where the curves touch, on their being parallel.
 */
function curveCurve(a: Piece, b: Piece, tolerance: number): Vec2[] {
  const found: { place: Vec2; touch: boolean }[] = [];
  const size = length2(sub2(boxOf(a).high, boxOf(a).low)) + length2(sub2(boxOf(b).high, boxOf(b).low));
  const queue: Span[] = [{ t0: 0, t1: 1, u0: 0, u1: 1, depth: 0 }];
  for (let at = 0; at < queue.length && at < MOST_PAIRS; at++) {
    const span = queue[at]!;
    const { t0, t1, u0, u1, depth } = span;
    if (!boxesOverlap(boxOf(part(a, t0, t1)), boxOf(part(b, u0, u1)), tolerance)) continue;
    if (depth < DEEPEST) {
      queue.push(...halves(span));
      continue;
    }
    const meeting = polished(a, b, (t0 + t1) / 2, (u0 + u1) / 2, tolerance);
    if (!meeting) continue;
    const near = meeting.touch ? 1e-3 * size : 2 * tolerance;
    if (!found.some(({ place, touch }) => distance2(place, meeting.place) <= (touch ? 1e-3 * size : near)))
      found.push(meeting);
  }
  return found.map(({ place }) => place);
}

interface Span {
  readonly t0: number;
  readonly t1: number;
  readonly u0: number;
  readonly u1: number;
  readonly depth: number;
}

function halves({ t0, t1, u0, u1, depth }: Span): Span[] {
  const [t, u] = [(t0 + t1) / 2, (u0 + u1) / 2];
  return [
    [t0, t],
    [t, t1],
  ].flatMap(([p, q]) =>
    [
      [u0, u],
      [u, u1],
    ].map(([v, w]) => ({ t0: p!, t1: q!, u0: v!, u1: w!, depth: depth + 1 })),
  );
}

const part = (piece: Piece, t0: number, t1: number): Piece =>
  stretch(piece, t0, t1, along(piece, t0), along(piece, t1));

/** Below this sine of the angle between them the curves may be touching. */
const TOUCH = 1e-2;

function polished(a: Piece, b: Piece, t0: number, u0: number, tolerance: number) {
  const crossing = newton(t0, u0, (t, u) => {
    const gap = sub2(along(b, u), along(a, t));
    const [p, q] = [derivatives(a, t)[0], derivatives(b, u)[0]];
    // A(t) + p dt = B(u) + q du
    return [gap, [p[0], -q[0], p[1], -q[1]]];
  });
  const touch = nearlyParallel(a, b, crossing) ? touching(a, b, crossing) : undefined;
  const [best, isTouch] = touch && gapAt(a, b, touch) <= tolerance ? [touch, true] : [crossing, false];
  return gapAt(a, b, best) <= tolerance ? { place: along(a, best[0]), touch: isTouch } : undefined;
}

type Pair = readonly [t: number, u: number];

const gapAt = (a: Piece, b: Piece, [t, u]: Pair): number => distance2(along(a, t), along(b, u));

function nearlyParallel(a: Piece, b: Piece, [t, u]: Pair): boolean {
  const [p, q] = [derivatives(a, t)[0], derivatives(b, u)[0]];
  return Math.abs(cross2(p, q)) <= TOUCH * length2(p) * length2(q);
}

/** Where the curves run parallel with the join square on them: at a touch that is well-conditioned, unlike the meeting. */
function touching(a: Piece, b: Piece, [t0, u0]: Pair): Pair {
  return newton(t0, u0, (t, u) => {
    const gap = sub2(along(b, u), along(a, t));
    const [p, bendP] = derivatives(a, t);
    const [q, bendQ] = derivatives(b, u);
    const here: Vec2 = [-cross2(p, q), -dot2(gap, p)];
    return [here, [cross2(bendP, q), cross2(p, bendQ), dot2(gap, bendP) - dot2(p, p), dot2(q, p)]];
  });
}

/** Newton on two equations in t and u, kept inside the pieces: `ask` gives the right-hand side and the matrix by rows. */
function newton(
  t: number,
  u: number,
  ask: (t: number, u: number) => readonly [Vec2, readonly [number, number, number, number]],
): Pair {
  const inside = (s: number) => Math.min(1, Math.max(0, s));
  for (let step = 0; step < 25; step++) {
    const [[x, y], [m00, m01, m10, m11]] = ask(t, u);
    const determinant = m00 * m11 - m01 * m10;
    if (determinant === 0 || (x === 0 && y === 0)) break;
    const next = [t + (x * m11 - m01 * y) / determinant, u + (m00 * y - m10 * x) / determinant].map(inside);
    const moved = Math.abs(next[0]! - t) + Math.abs(next[1]! - u);
    [t, u] = next as [number, number];
    if (moved < 1e-15) break;
  }
  return [t, u];
}
