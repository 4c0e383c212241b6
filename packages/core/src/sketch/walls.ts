import { add2, cross2, direction2, distance2, dot2, left2, length2, scale2, sub2, type Vec2 } from '../math/index.ts';
import type { Id } from '../records/index.ts';
import { fail, ok, type Result, type Words } from '../result/index.ts';
import type { Geometry } from './geometry.ts';
import { areaShare, derivatives, reversed, type Arc, type Piece, type Segment } from './pieces/index.ts';
import type { Region } from './regions/index.ts';

/** Lines and arcs: what lies beside them at a distance is of the same kind. */
type Straightforward = Segment | Arc;

/** How far walls go to the left and to the right of the lines, mm; left of a closed outline is inside. */
export interface Wall {
  readonly left: number;
  readonly right: number;
}

/** Ends nearer than this are one, mm. */
const SAME = 1e-6;

/**
 * The walls along the lines of a sketch, open or closed, as areas: what lies between the lines moved to the left and to
 * the right, with sharp corners. Their sides are named after the lines and the side of them, `l+` left and `l-` right of
 * the line's own direction, the ends of open walls after the ends of the outermost lines: whatever their order.
 * Fails on free curves and ellipses, on lines that branch, and where a wall is thicker than an arc is round.
 */
export function wallsAlong(geometry: Geometry, wall: Wall): Result<Region[]> {
  const pieces = Object.entries(geometry.entities).flatMap(([id, entity]) =>
    'construction' in entity && entity.construction ? [] : geometry.pieces(id),
  );
  if (pieces.length === 0) return fail('walls.none');
  if (!pieces.every((piece): piece is Straightforward => piece.form === 'segment' || piece.form === 'arc'))
    return fail('walls.curve');
  const chains = chained(pieces);
  if (!chains) return fail('walls.branch');
  const regions: Region[] = [];
  for (const chain of chains) {
    const region = walled(chain, wall);
    if (!region.ok) return region;
    regions.push(region.value);
  }
  return ok(regions);
}

interface Chain {
  /** Each goes on where the one before has ended. */
  readonly pieces: readonly Straightforward[];
  readonly closed: boolean;
}

/**
 * Pieces put end to end. Closed chains run counter-clockwise, open ones the way of the line whose name comes first.
 * Undefined where more than two meet.
 */
function chained(pieces: readonly Straightforward[]): Chain[] | undefined {
  const meets = (a: Vec2, b: Vec2) => distance2(a, b) < SAME;
  const at = (place: Vec2) => pieces.filter(({ from, to }) => meets(from, place) || meets(to, place));
  if (pieces.some(({ from, to }) => [from, to].some((place) => !meets(from, to) && at(place).length > 2)))
    return undefined;
  const left = new Set(pieces);
  const grown = (first: Straightforward): Straightforward[] => {
    const chain = [first];
    for (;;) {
      const end = chain.at(-1)!.to;
      const next = [...left].find(({ from, to }) => meets(from, end) || meets(to, end));
      if (!next) return chain;
      left.delete(next);
      chain.push(meets(next.from, end) ? next : (reversed(next) as Straightforward));
    }
  };
  const chains: Chain[] = [];
  while (left.size > 0) {
    // an open chain begins at one of its ends
    const first = [...left].find(({ from, to }) => at(from).length === 1 || at(to).length === 1) ?? [...left][0]!;
    left.delete(first);
    const turned = at(first.from).length > 1 && at(first.to).length === 1;
    const run = grown(turned ? (reversed(first) as Straightforward) : first);
    const closed = meets(run[0]!.from, run.at(-1)!.to);
    const least = run.reduce((a, b) => (b.entity < a.entity ? b : a));
    const against = closed ? run.reduce((sum, piece) => sum + areaShare(piece), 0) < 0 : least.turned;
    chains.push({ pieces: against ? (run.toReversed().map(reversed) as Straightforward[]) : run, closed });
  }
  return chains;
}

function walled({ pieces, closed }: Chain, { left, right }: Wall): Result<Region> {
  const inner = beside(pieces, closed, left, 'left');
  const outer = beside(pieces, closed, -right, 'right');
  if (!inner.ok) return inner;
  if (!outer.ok) return outer;
  const back = inner.value.toReversed().map(reversed);
  const key = `walls ${[...new Set(pieces.map(({ entity }) => entity))].sort().join(' ')}`;
  const area = (loop: readonly Piece[]) => loop.reduce((sum, piece) => sum + areaShare(piece), 0);
  if (closed) return ok({ key, outer: outer.value, holes: [back], area: area(outer.value) + area(back), depth: 0 });
  const [first, last] = [pieces[0]!, pieces.at(-1)!];
  const loop = [
    ...outer.value,
    lineBetween(`${last.entity} ${last.turned ? 'from' : 'to'}`, outer.value.at(-1)!.to, inner.value.at(-1)!.to),
    ...back,
    lineBetween(`${first.entity} ${first.turned ? 'to' : 'from'}`, inner.value[0]!.from, outer.value[0]!.from),
  ];
  return ok({ key, outer: loop, holes: [], area: area(loop), depth: 0 });
}

const lineBetween = (entity: Id, from: Vec2, to: Vec2): Segment => ({ form: 'segment', entity, from, to });

type Side = 'left' | 'right';
const sideName = ({ entity, turned }: Piece, side: Side): Id => entity + ((side === 'left') !== !!turned ? '+' : '-');

/** The chain moved to its left by a distance, its corners where the moved curves meet. */
function beside(
  pieces: readonly Straightforward[],
  closed: boolean,
  distance: number,
  side: Side,
): Result<Straightforward[]> {
  if (distance === 0) return ok(pieces.map((piece) => ({ ...piece, entity: sideName(piece, side) })));
  const carriers = pieces.map((piece) => carrierBeside(piece, distance));
  if (carriers.some((carrier) => carrier.form === 'circle' && carrier.radius <= SAME)) return fail('walls.thick');
  const corners: Vec2[] = [];
  for (let k = 0; k <= pieces.length; k++) {
    const before = k > 0 ? k - 1 : closed ? pieces.length - 1 : undefined;
    const after = k < pieces.length ? k : closed ? 0 : undefined;
    const corner = cornerOf(pieces, carriers, before, after, distance);
    if (!corner) return fail('walls.corner');
    corners.push(corner);
  }
  const moved = pieces.map((piece, k) => between(piece, carriers[k]!, corners[k]!, corners[k + 1]!, side));
  // a piece that has turned round is shorter than the wall is thick
  return moved.every((piece, k) => sameWay(piece, pieces[k]!)) ? ok(moved) : fail('walls.thick');
}

type Carrier =
  | { readonly form: 'line'; readonly at: Vec2; readonly along: Vec2 }
  | { readonly form: 'circle'; readonly centre: Vec2; readonly radius: number };

function carrierBeside(piece: Straightforward, distance: number): Carrier {
  if (piece.form === 'segment') {
    const along = direction2(sub2(piece.to, piece.from)) ?? [1, 0];
    return { form: 'line', at: add2(piece.from, scale2(left2(along), distance)), along };
  }
  return { form: 'circle', centre: piece.centre, radius: piece.radius - Math.sign(piece.sweep) * distance };
}

/** Where the moved curves meet: near the corner, on either side of it by its angle; square beside the end of the chain. */
function cornerOf(
  pieces: readonly Straightforward[],
  carriers: readonly Carrier[],
  before: number | undefined,
  after: number | undefined,
  distance: number,
): Vec2 | undefined {
  const place = after === undefined ? pieces[before!]!.to : pieces[after]!.from;
  const heading = (k: number, t: 0 | 1) => direction2(derivatives(pieces[k]!, t)[0]) ?? ([1, 0] as const);
  const out = [
    ...(before === undefined ? [] : [left2(heading(before, 1))]),
    ...(after === undefined ? [] : [left2(heading(after, 0))]),
  ];
  const straight = add2(place, scale2(out[0]!, distance));
  if (before === undefined || after === undefined) return straight;
  // where they go on into each other the place beside is the same for both
  if (Math.abs(cross2(out[0]!, out[1]!)) < 1e-9) return dot2(out[0]!, out[1]!) > 0 ? straight : undefined;
  const sum = add2(out[0]!, out[1]!);
  const guess = add2(place, scale2(sum, distance / Math.max(dot2(sum, out[0]!), 1e-9)));
  const met = meeting(carriers[before]!, carriers[after]!);
  return met.toSorted((a, b) => distance2(a, guess) - distance2(b, guess))[0];
}

/** Where two lines or circles meet. */
function meeting(a: Carrier, b: Carrier): Vec2[] {
  if (a.form === 'line' && b.form === 'line') {
    const across = cross2(a.along, b.along);
    return [add2(a.at, scale2(a.along, cross2(sub2(b.at, a.at), b.along) / across))];
  }
  if (a.form === 'circle' && b.form === 'circle') {
    const apart = sub2(b.centre, a.centre);
    const far = length2(apart);
    if (far < SAME) return [];
    const along = scale2(apart, 1 / far);
    const foot = (far ** 2 + a.radius ** 2 - b.radius ** 2) / (2 * far);
    return onChord(add2(a.centre, scale2(along, foot)), left2(along), a.radius ** 2 - foot ** 2);
  }
  const [line, circle] = (a.form === 'line' ? [a, b] : [b, a]) as [
    Extract<Carrier, { form: 'line' }>,
    Extract<Carrier, { form: 'circle' }>,
  ];
  const foot = add2(line.at, scale2(line.along, dot2(sub2(circle.centre, line.at), line.along)));
  return onChord(foot, line.along, circle.radius ** 2 - distance2(foot, circle.centre) ** 2);
}

const onChord = (middle: Vec2, along: Vec2, square: number): Vec2[] =>
  square < 0 ? [] : [Math.sqrt(square), -Math.sqrt(square)].map((t) => add2(middle, scale2(along, t)));

function between(piece: Straightforward, carrier: Carrier, from: Vec2, to: Vec2, side: Side): Straightforward {
  const entity = sideName(piece, side);
  if (piece.form === 'segment' || carrier.form === 'line') return { form: 'segment', entity, from, to };
  const { centre, radius } = carrier;
  const angle = (place: Vec2) => Math.atan2(place[1] - centre[1], place[0] - centre[0]);
  const start = angle(from);
  const full = Math.abs(Math.abs(piece.sweep) - 2 * Math.PI) < 1e-12;
  const turn = Math.sign(piece.sweep) * (angle(to) - start);
  const sweep = full ? piece.sweep : Math.sign(piece.sweep) * (turn - 2 * Math.PI * Math.floor(turn / (2 * Math.PI)));
  return { form: 'arc', entity, from, to, centre, radius, start, sweep };
}

function sameWay(moved: Straightforward, piece: Straightforward): boolean {
  if (moved.form === 'arc' && piece.form === 'arc') return Math.abs(moved.sweep - piece.sweep) < Math.PI;
  return dot2(sub2(moved.to, moved.from), sub2(piece.to, piece.from)) > 0;
}

export const wallWords: Words = {
  'walls.none': () => 'There are no lines in the sketch to make walls along: draw some first.',
  'walls.curve': () => 'Walls go along lines, arcs and circles; this sketch has a free curve or an ellipse.',
  'walls.branch': () => 'The lines branch: walls go along lines that follow each other. Make the others construction.',
  'walls.thick': () =>
    'The wall is thicker than an arc of the sketch is round, or than a line is long: make it thinner.',
  'walls.corner': () =>
    'At a corner the two sides of the wall do not meet: make the wall thinner, or the corner less sharp.',
};
