import { add3, choleskyInPlace, choleskySolve, cross3, distance3, dot3, scale3, sub3, type Vec3 } from '@helb/core';

// Where the inside of walls lies behind a ring of bent sides, found place by place: as deep as the wall is thick behind its
// side, on a row of planes from one end of the hollow to the other, and behind both sides where two of them meet.

/** A place of a side, how the side runs there by its two parameters, and its normal out of the body. */
interface SheetPlace {
  readonly at: Vec3;
  readonly across: Vec3;
  readonly along: Vec3;
  readonly normal: Vec3;
}

/** A side: from 0 to 1 across it, from one neighbour to the next, and from 0 to 1 along it; a little beyond as well. */
export type Sheet = (across: number, along: number) => SheetPlace;

/** The places of which a unit vector comes to so much. */
export interface Plane {
  readonly normal: Vec3;
  readonly height: number;
}

/** A place behind a side, with the parameters of the place of the side before it. */
interface GridPlace {
  readonly at: Vec3;
  readonly across: number;
  readonly along: number;
}

/** By rows, one on each plane, from one neighbour to the next. */
export type InsetGrid = readonly (readonly GridPlace[])[];

/** What lies behind a ring of sides. */
interface Inset {
  /** One for each side. */
  readonly grids: readonly InsetGrid[];
  /** By how much, mm, the wall is thicker than told where an edge goes inwards: there a round would keep it. */
  readonly thicker: number;
}

/**
 * The grids of places behind the sides of a ring, each side beside the next; undefined where none are found, as where two
 * sides meet in an edge that goes far inwards, or come too near each other.
 * @param wall how deep, mm @param planes at least two @param columns how many steps across each side
 */
export function insetGrids(
  ring: readonly Sheet[],
  wall: number,
  planes: readonly Plane[],
  columns: number,
): Inset | undefined {
  const behind = ring.map((sheet): Behind => (across, along) => {
    const { at, normal } = sheet(across, along);
    return sub3(at, scale3(normal, wall));
  });
  const corners = ring.map((_, k) => cornersAlong(behind[k]!, behind[(k + 1) % ring.length]!, planes));
  const grids: InsetGrid[] = [];
  for (const [k, sheet] of behind.entries()) {
    const [first, last] = [corners.at(k - 1), corners[k]];
    if (!first || !last) return undefined;
    const rows = planes.map((plane, row) => rowBetween(sheet, first[row]!.right, last[row]!.left, plane, columns));
    if (rows.includes(undefined)) return undefined;
    grids.push(rows as InsetGrid);
  }
  const around = (row: number) => grids.flatMap((grid) => grid[row]!.slice(1));
  if (!planes.every((plane, row) => isSimple(plane, around(row)))) return undefined;
  const beyond = corners.flatMap((ofEdge, k) =>
    ofEdge!.map((corner) => beyondEdge(corner, ring[k]!, ring[(k + 1) % ring.length]!)),
  );
  const furthest = Math.max(0, ...beyond);
  return furthest < INWARDS * wall ? { grids, thicker: Math.hypot(wall, furthest) - wall } : undefined;
}

type Behind = (across: number, along: number) => Vec3;

/** Where two sides meet: the same place by both. */
interface Corner {
  readonly left: GridPlace;
  readonly right: GridPlace;
}

/** How far beyond their edge, mm, two sides meet: where it goes inwards. Beyond an opening nothing is behind them. */
function beyondEdge({ left, right }: Corner, leftSheet: Sheet, rightSheet: Sheet): number {
  if (!isWithin(left.along) || !isWithin(right.along)) return 0;
  const long = (sheet: Sheet, edge: number, { along }: GridPlace) => Math.hypot(...sheet(edge, along).across);
  return Math.max((left.across - 1) * long(leftSheet, 1, left), -right.across * long(rightSheet, 0, right));
}
const isWithin = (along: number): boolean => along >= 0 && along <= 1;
/** As a share of the wall: further beyond an edge no side is carried on. */
const INWARDS = 0.5;

/** The corner behind two sides on each plane, one from the other; undefined where one is not found. */
function cornersAlong(left: Behind, right: Behind, planes: readonly Plane[]): Corner[] | undefined {
  const corners: Corner[] = [];
  let guess: Guess = [1, nearestAlong(left, 1, planes[0]!), 0, nearestAlong(right, 0, planes[0]!)];
  for (const plane of planes) {
    const found = smoothCorner(left, right, plane, guess) ?? sharpCorner(left, right, plane, guess);
    if (!found) return undefined;
    guess = found;
    const [a, b, c, d] = found;
    const at = onto(plane, scale3(add3(left(a, b), right(c, d)), 0.5));
    corners.push({ left: { at, across: a, along: b }, right: { at, across: c, along: d } });
  }
  return corners;
}

/** Across and along the left side, and across and along the right one. */
type Guess = readonly [number, number, number, number];

/** On the edge of both, where they go on into each other smoothly: there any place nearby is behind both, nearly. */
function smoothCorner(left: Behind, right: Behind, plane: Plane, guess: Guess): Guess | undefined {
  const b = solved([guess[1]], ([along]) => [over(plane, left(1, along!))]);
  const d = solved([guess[3]], ([along]) => [over(plane, right(0, along!))]);
  if (!b || !d || distance3(left(1, b[0]!), right(0, d[0]!)) > SMOOTH) return undefined;
  return [1, b[0]!, 0, d[0]!];
}
/** So near, mm, places behind two sides are the same. */
const SMOOTH = 1e-7;

const sharpCorner = (left: Behind, right: Behind, plane: Plane, guess: Guess): Guess | undefined =>
  solved(guess, ([a, b, c, d]) => {
    const [p, q] = [left(a!, b!), right(c!, d!)];
    return [...sub3(p, q), over(plane, p)];
  }) as Guess | undefined;

/** Places at equal steps across a side, on a plane. */
function rowBetween(
  sheet: Behind,
  first: GridPlace,
  last: GridPlace,
  plane: Plane,
  columns: number,
): GridPlace[] | undefined {
  if (first.across >= last.across) return undefined;
  const row = [first];
  for (let k = 1; k < columns; k++) {
    const share = k / columns;
    const across = first.across + share * (last.across - first.across);
    const guess = [first.along + share * (last.along - first.along)];
    const found = solved(guess, ([along]) => [over(plane, sheet(across, along!))]);
    if (!found) return undefined;
    row.push({ at: onto(plane, sheet(across, found[0]!)), across, along: found[0]! });
  }
  return [...row, last];
}

const over = ({ normal, height }: Plane, at: Vec3): number => dot3(normal, at) - height;
const onto = (plane: Plane, at: Vec3): Vec3 => sub3(at, scale3(plane.normal, over(plane, at)));

/** Where along a side it comes nearest to a plane, roughly. */
function nearestAlong(sheet: Behind, across: number, plane: Plane): number {
  const places = Array.from({ length: SAMPLES + 1 }, (_, k) => k / SAMPLES);
  const off = (along: number) => Math.abs(over(plane, sheet(across, along)));
  return places.reduce((best, along) => (off(along) < off(best) ? along : best));
}
const SAMPLES = 32;

/**
 * Numbers for which all residuals vanish, by damped least squares (Levenberg, Marquardt) from a guess nearby; it comes to
 * where they vanish too where they do so in more than one way, as of sides that touch.
 */
function solved(guess: readonly number[], residuals: (of: readonly number[]) => number[]): number[] | undefined {
  let [now, off] = [[...guess], residuals(guess)];
  let damping = 1e-6;
  for (let k = 0; k < MOST_STEPS; k++) {
    if (Math.hypot(...off) < NEAR) return now;
    const columns = now.map((_, c) => {
      const moved = (by: number) => residuals(now.map((one, other) => (other === c ? one + by : one)));
      const [before, after] = [moved(-DELTA), moved(DELTA)];
      return after.map((value, r) => (value - before[r]!) / (2 * DELTA));
    });
    const normal = columns.flatMap((a) => columns.map((b) => sum(a, b)));
    const n = now.length;
    for (let c = 0; c < n; c++) normal[c * n + c]! += damping * (normal[c * n + c]! + 1e-9);
    const matrix = Float64Array.from(normal);
    const step = Float64Array.from(columns, (column) => -sum(column, off));
    if (!choleskyInPlace(matrix, n)) return undefined;
    choleskySolve(matrix, n, step);
    const next = now.map((one, c) => one + step[c]!);
    const nextOff = residuals(next);
    const isBetter = Math.hypot(...nextOff) < Math.hypot(...off);
    if (isBetter) [now, off] = [next, nextOff];
    damping = isBetter ? Math.max(damping / 10, 1e-12) : damping * 10;
    if (damping > 1e6) return undefined;
  }
  return undefined;
}
const MOST_STEPS = 60;
/** So near, mm, is there. */
const NEAR = 1e-8;
/** As a share of a side. */
const DELTA = 1e-5;
const sum = (a: readonly number[], b: readonly number[]): number => a.reduce((total, one, k) => total + one * b[k]!, 0);

/** Does a closed polygon on a plane go round once, without meeting itself? */
function isSimple({ normal }: Plane, places: readonly GridPlace[]): boolean {
  const count = places.length;
  const corner = (k: number) => places[k % count]!.at;
  const side = (a: Vec3, b: Vec3, c: Vec3) => Math.sign(dot3(normal, cross3(sub3(b, a), sub3(c, a))));
  for (let i = 0; i < count; i++)
    for (let k = i + 2; k < count; k++) {
      if (i === 0 && k === count - 1) continue;
      const [a, b, c, d] = [corner(i), corner(i + 1), corner(k), corner(k + 1)];
      if (side(a, b, c) !== side(a, b, d) && side(c, d, a) !== side(c, d, b)) return false;
    }
  return true;
}

/** How far a place is from a side as thick as a wall, mm: found from a place before it. */
export function offFrom(sheet: Sheet, wall: number, at: Vec3, near: { across: number; along: number }): number {
  let { across, along } = near;
  for (let k = 0; k < 8; k++) {
    const place = sheet(across, along);
    const way = sub3(at, place.at);
    const [aa, ab, bb] = [
      dot3(place.across, place.across),
      dot3(place.across, place.along),
      dot3(place.along, place.along),
    ];
    const [p, q] = [dot3(place.across, way), dot3(place.along, way)];
    const determinant = aa * bb - ab * ab;
    const [da, db] = [(p * bb - q * ab) / determinant, (q * aa - p * ab) / determinant];
    [across, along] = [across + da, along + db];
    if (Math.abs(da) + Math.abs(db) < 1e-12) break;
  }
  return Math.abs(distance3(sheet(across, along).at, at) - wall);
}

/** The least distance of places from a ring of sides, mm: from some places of these, so that it is never told too small. */
export function nearestOf(ring: readonly Sheet[], places: readonly Vec3[]): number {
  const shares = Array.from({ length: SKIN_SAMPLES + 1 }, (_, k) => k / SKIN_SAMPLES);
  const skin = ring.flatMap((sheet) => shares.flatMap((across) => shares.map((along) => sheet(across, along).at)));
  let least = Infinity;
  for (const place of places) for (const at of skin) least = Math.min(least, distance3(place, at));
  return least;
}
const SKIN_SAMPLES = 32;
