import { add2, cross2, distance2, dot2, scale2, sub2, type Vec2 } from '../math/index.ts';
import type { Id } from '../records/index.ts';

/** A directed stretch of a drawn curve. Angles in rad; `sweep` is positive when it runs counter-clockwise. */
export type Piece =
  | { readonly form: 'segment'; readonly entity: Id; readonly from: Vec2; readonly to: Vec2 }
  | {
      readonly form: 'arc';
      readonly entity: Id;
      readonly from: Vec2;
      readonly to: Vec2;
      readonly centre: Vec2;
      readonly radius: number;
      readonly start: number;
      readonly sweep: number;
    };

export type Segment = Extract<Piece, { form: 'segment' }>;
export type Arc = Extract<Piece, { form: 'arc' }>;

const TURN = 2 * Math.PI;

export const onCircle = (centre: Vec2, radius: number, angle: number): Vec2 => [
  centre[0] + radius * Math.cos(angle),
  centre[1] + radius * Math.sin(angle),
];

export function fullCircle(entity: Id, centre: Vec2, radius: number): Arc {
  const at = onCircle(centre, radius, 0);
  return { form: 'arc', entity, from: at, to: at, centre, radius, start: 0, sweep: TURN };
}

/** The arc that runs counter-clockwise from one place to another. */
export function arcBetween(entity: Id, centre: Vec2, radius: number, from: Vec2, to: Vec2): Arc {
  const [start, end] = [from, to].map((place) => Math.atan2(place[1] - centre[1], place[0] - centre[0])) as [
    number,
    number,
  ];
  const sweep = (((end - start) % TURN) + TURN) % TURN || TURN;
  return { form: 'arc', entity, from, to, centre, radius, start, sweep };
}

export const reversed = (piece: Piece): Piece =>
  piece.form === 'segment'
    ? { ...piece, from: piece.to, to: piece.from }
    : { ...piece, from: piece.to, to: piece.from, start: piece.start + piece.sweep, sweep: -piece.sweep };

/** The place at parameter t in 0..1. */
export const along = (piece: Piece, t: number): Vec2 =>
  piece.form === 'segment'
    ? add2(piece.from, scale2(sub2(piece.to, piece.from), t))
    : onCircle(piece.centre, piece.radius, piece.start + t * piece.sweep);

export const lengthOf = (piece: Piece): number =>
  piece.form === 'segment' ? distance2(piece.from, piece.to) : piece.radius * Math.abs(piece.sweep);

/** Angle of the direction in which the piece leaves its start. */
export const leaving = (piece: Piece): number =>
  piece.form === 'segment'
    ? Math.atan2(piece.to[1] - piece.from[1], piece.to[0] - piece.from[0])
    : piece.start + (Math.sign(piece.sweep) * Math.PI) / 2;

/** Signed curvature (1/mm), positive where it bends left: breaks ties between pieces that leave in one direction. */
export const curvature = (piece: Piece): number =>
  piece.form === 'segment' ? 0 : Math.sign(piece.sweep) / piece.radius;

/** The place on the piece nearest to another. */
export function nearestOn(piece: Piece, place: Vec2): Vec2 {
  if (piece.form === 'segment') {
    const u = sub2(piece.to, piece.from);
    const t = dot2(sub2(place, piece.from), u) / Math.max(dot2(u, u), 1e-18);
    return along(piece, Math.min(1, Math.max(0, t)));
  }
  const { centre, radius, start, sweep } = piece;
  const angle = Math.atan2(place[1] - centre[1], place[0] - centre[0]);
  const turned = ((((angle - start) * Math.sign(sweep)) % TURN) + TURN) % TURN;
  if (turned <= Math.abs(sweep)) return onCircle(centre, radius, angle);
  return distance2(place, piece.from) < distance2(place, piece.to) ? piece.from : piece.to;
}

/** Places along the piece, both ends among them; arcs in steps of 5 degrees or less. */
export function polyline(piece: Piece): Vec2[] {
  if (piece.form === 'segment') return [piece.from, piece.to];
  const steps = Math.max(2, Math.ceil(Math.abs(piece.sweep) / (Math.PI / 36)));
  return Array.from({ length: steps + 1 }, (_, k) => along(piece, k / steps));
}

/** Its share of the area to the left of a loop (Green): half the integral of x dy - y dx, mm^2. */
export function areaShare(piece: Piece): number {
  const chord = cross2(piece.from, piece.to) / 2;
  if (piece.form === 'segment') return chord;
  const { radius, sweep } = piece;
  return chord + (radius * radius * (sweep - Math.sin(sweep))) / 2;
}

/** The stretch between two parameters; `from` and `to` are given, so that neighbours meet exactly. */
export const stretch = (piece: Piece, t0: number, t1: number, from: Vec2, to: Vec2): Piece =>
  piece.form === 'segment'
    ? { ...piece, from, to }
    : { ...piece, from, to, start: piece.start + t0 * piece.sweep, sweep: (t1 - t0) * piece.sweep };

/** Parameters on both pieces where they meet, end points included, tangency as one meeting. */
export function meetings(a: Piece, b: Piece, tolerance: number): { readonly t: number; readonly u: number }[] {
  const found = pointsOf(a, b, tolerance).flatMap((place) => {
    const t = parameterAt(a, place, tolerance);
    const u = parameterAt(b, place, tolerance);
    return t === undefined || u === undefined ? [] : [{ t, u }];
  });
  // an end that two pieces share is found from both
  return found.filter((here, k) => found.findIndex((other) => other.t === here.t && other.u === here.u) === k);
}

/** Where the carriers (whole lines, whole circles) meet; for overlapping pieces the ends of the overlap. */
function pointsOf(a: Piece, b: Piece, tolerance: number): Vec2[] {
  if (a.form === 'segment') return b.form === 'segment' ? lineLine(a, b, tolerance) : lineCircle(a, b, tolerance);
  return b.form === 'segment' ? lineCircle(b, a, tolerance) : circleCircle(a, b, tolerance);
}

function lineLine(a: Segment, b: Segment, tolerance: number): Vec2[] {
  const u = sub2(a.to, a.from);
  const v = sub2(b.to, b.from);
  const across = cross2(u, v);
  const lengths = Math.hypot(...u) * Math.hypot(...v);
  // parallel, or an end of one on the other within the tolerance: the ends decide
  const ends = [a.from, a.to, b.from, b.to].filter(
    (end) => parameterAt(a, end, tolerance) !== undefined && parameterAt(b, end, tolerance) !== undefined,
  );
  if (ends.length > 0 || Math.abs(across) <= 1e-12 * lengths) return ends;
  return [add2(a.from, scale2(u, cross2(sub2(b.from, a.from), v) / across))];
}

function lineCircle(line: Segment, arc: Arc, tolerance: number): Vec2[] {
  const u = sub2(line.to, line.from);
  const length = Math.hypot(...u);
  const dir = scale2(u, 1 / length);
  const foot = add2(line.from, scale2(dir, dot2(sub2(arc.centre, line.from), dir)));
  const off = distance2(foot, arc.centre);
  if (off > arc.radius + tolerance) return [];
  // within the tolerance of touching it is a touch: one meeting, not two next to each other
  const half = Math.sqrt(Math.max(0, arc.radius ** 2 - off ** 2));
  if (Math.abs(off - arc.radius) <= tolerance) return [foot];
  return [add2(foot, scale2(dir, half)), add2(foot, scale2(dir, -half))];
}

function circleCircle(a: Arc, b: Arc, tolerance: number): Vec2[] {
  const apart = distance2(a.centre, b.centre);
  const doubled = apart <= tolerance && Math.abs(a.radius - b.radius) <= tolerance;
  if (doubled) return [a.from, a.to, b.from, b.to];
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

/** The parameter of a place on the piece; ends within the tolerance snap to 0 and 1; undefined if it is beyond them. */
function parameterAt(piece: Piece, place: Vec2, tolerance: number): number | undefined {
  if (distance2(place, piece.from) <= tolerance) return 0;
  if (distance2(place, piece.to) <= tolerance) return 1;
  let t: number;
  if (piece.form === 'segment') {
    const u = sub2(piece.to, piece.from);
    const square = dot2(u, u);
    if (Math.abs(cross2(u, sub2(place, piece.from))) > tolerance * Math.sqrt(square)) return undefined;
    t = dot2(sub2(place, piece.from), u) / square;
  } else {
    if (Math.abs(distance2(place, piece.centre) - piece.radius) > tolerance) return undefined;
    const angle = Math.atan2(place[1] - piece.centre[1], place[0] - piece.centre[0]);
    const turned = (angle - piece.start) * Math.sign(piece.sweep);
    t = (((turned % TURN) + TURN) % TURN) / Math.abs(piece.sweep);
  }
  return t > 0 && t < 1 ? t : undefined;
}

/** How often the ray from `place` towards +x crosses the piece, counted with sign (up 1, down -1). */
export function crossings(piece: Piece, [x, y]: Vec2): number {
  const rising = (y0: number, y1: number): number => (y0 <= y && y1 > y ? 1 : y1 <= y && y0 > y ? -1 : 0);
  if (piece.form === 'segment') {
    const [[x0, y0], [x1, y1]] = [piece.from, piece.to];
    const way = rising(y0, y1);
    return way !== 0 && x0 + ((y - y0) / (y1 - y0)) * (x1 - x0) > x ? way : 0;
  }
  let sum = 0;
  for (const [from, to] of quarters(piece)) {
    const way = rising(onCircle(piece.centre, piece.radius, from)[1], onCircle(piece.centre, piece.radius, to)[1]);
    if (way === 0) continue;
    const half = Math.sqrt(Math.max(0, piece.radius ** 2 - (y - piece.centre[1]) ** 2));
    const right = Math.cos((from + to) / 2) > 0;
    if (piece.centre[0] + (right ? half : -half) > x) sum += way;
  }
  return sum;
}

/** The arc cut at its highest and lowest places: each stretch only rises or only falls. */
function quarters({ start, sweep }: Arc): [number, number][] {
  const [low, high] = [Math.min(start, start + sweep), Math.max(start, start + sweep)];
  const cuts = [low];
  for (let k = Math.ceil((low - Math.PI / 2) / Math.PI); Math.PI / 2 + k * Math.PI < high; k++) {
    const cut = Math.PI / 2 + k * Math.PI;
    if (cut > low) cuts.push(cut);
  }
  cuts.push(high);
  const pairs = cuts.slice(1).map((to, k): [number, number] => [cuts[k]!, to]);
  return sweep > 0 ? pairs : pairs.map(([from, to]): [number, number] => [to, from]).reverse();
}
