import { distance2, type Vec2 } from '../../math/index.ts';
import type { Id } from '../../records/index.ts';
import { fail, ok, type Result } from '../../result/index.ts';
import { formatQuantity, LENGTH, type LengthUnit } from '../../units/index.ts';
import { EditBuilder, placeAt, trim, type SketchEdit } from '../editing/index.ts';
import type { Geometry } from '../geometry.ts';
import { halfAxis } from '../half-profile.ts';
import { boxesOverlap, boxOf, lengthOf, intersections, nearestOn, parameterAt, type Piece } from '../pieces/index.ts';
import type { Regions } from '../regions/index.ts';

/** Something that keeps an outline from closing, or lies in it twice. */
export interface Flaw {
  readonly kind: keyof typeof MENDS;
  readonly at: Vec2;
  /** What it concerns: curves, or the points and curves to be joined. */
  readonly ids: readonly Id[];
  /** Width of a gap or length of what is too much, mm. */
  readonly size: number;
}

const TOLERANCE = 1e-6;
/** Ends farther apart than this share of the sketch are not taken for a gap. */
const NEAR = 0.06;
/** A stretch beyond a crossing is an overrun up to this share of its curve. */
const STUB = 0.3;

/** All flaws of the outline: gaps and ends that stop short or overrun, curves that lie on each other. */
export function findFlaws(geometry: Geometry, { openEnds }: Regions): Flaw[] {
  const curves = outlineCurves(geometry);
  const ends = openEnds.flatMap(({ at, entity }) => {
    const point = geometry.ends(entity).find((end) => distance2(geometry.point(end), at) <= 1e-3);
    return point === undefined ? [] : [{ point, at, entity }];
  });
  const box = geometry.box();
  const reach = box ? NEAR * distance2(box.low, box.high) : 0;
  const doubled = overlaps(geometry, curves);
  const shared = new Set(doubled.flatMap(({ ids }) => ids));
  const joined = new Set<Id>();
  const flaws: Flaw[] = [];
  // half a profile is whole once it is turned or mirrored
  const isHalf = halfAxis(geometry) !== undefined;
  for (const end of ends) {
    if (joined.has(end.point) || shared.has(end.entity)) continue;
    const stub = overrun(geometry, curves, end);
    const other = nearestEnd(geometry, ends, end, reach);
    const wall = other ? undefined : nearestCurve(geometry, curves, end, reach);
    if (stub) flaws.push(stub);
    else if (other) {
      joined.add(other.point);
      flaws.push({ kind: 'gap', at: end.at, ids: [end.point, other.point], size: distance2(end.at, other.at) });
    } else if (wall) flaws.push({ kind: 'short', at: end.at, ids: [end.point, wall.id], size: wall.far });
    else if (!isHalf) flaws.push({ kind: 'open', at: end.at, ids: [end.entity], size: 0 });
  }
  return [...flaws, ...doubled];
}

const outlineCurves = (geometry: Geometry): Id[] =>
  Object.entries(geometry.entities).flatMap(([id, entity]) =>
    entity.kind === 'point' || entity.kind === 'text' || entity.construction ? [] : [id],
  );

interface End {
  readonly point: Id;
  readonly at: Vec2;
  readonly entity: Id;
}

function nearestEnd(geometry: Geometry, ends: readonly End[], end: End, reach: number): End | undefined {
  const others = ends.filter((other) => other.point !== end.point && !closesItself(geometry, end, other));
  const [best] = others.toSorted((a, b) => distance2(a.at, end.at) - distance2(b.at, end.at));
  return best && distance2(best.at, end.at) <= reach ? best : undefined;
}

/** The two ends of one straight line can't meet. */
const closesItself = (geometry: Geometry, a: End, b: End): boolean =>
  a.entity === b.entity && geometry.roleOf(a.entity) === 'line';

function nearestCurve(geometry: Geometry, curves: readonly Id[], end: End, reach: number) {
  const near = curves
    .filter((id) => id !== end.entity && !geometry.ends(id).includes(end.point))
    .map((id) => ({
      id,
      far: Math.min(...geometry.pieces(id).map((piece) => distance2(nearestOn(piece, end.at), end.at))),
    }))
    .toSorted((a, b) => a.far - b.far)[0];
  return near && near.far <= reach ? near : undefined;
}

/** A short stretch from the last crossing to a loose end. */
function overrun(geometry: Geometry, curves: readonly Id[], end: End): Flaw | undefined {
  const pieces = geometry.pieces(end.entity);
  const atStart = geometry.ends(end.entity)[0] === end.point;
  const crossings = curves
    .filter((id) => id !== end.entity)
    .flatMap((id) => geometry.pieces(id).flatMap((other) => crossingParameters(pieces, other)))
    .filter((t) => t > 1e-9 && t < pieces.length - 1e-9);
  if (crossings.length === 0) return undefined;
  const cut = atStart ? Math.min(...crossings) : Math.max(...crossings);
  const share = (atStart ? cut : pieces.length - cut) / pieces.length;
  const size = share * pieces.reduce((sum, piece) => sum + lengthOf(piece), 0);
  return share <= STUB ? { kind: 'overrun', at: end.at, ids: [end.entity], size } : undefined;
}

const crossingParameters = (pieces: readonly Piece[], other: Piece): number[] =>
  pieces.flatMap((piece, span) =>
    boxesOverlap(boxOf(piece), boxOf(other), TOLERANCE)
      ? intersections(piece, other, TOLERANCE).map(({ t }) => span + t)
      : [],
  );

/** Pairs of curves that lie on each other over some stretch; the newer one comes last. */
function overlaps(geometry: Geometry, curves: readonly Id[]): Flaw[] {
  const flaws: Flaw[] = [];
  curves.forEach((older, k) => {
    for (const newer of curves.slice(k + 1)) {
      const shared = sharedStretch(geometry.pieces(older), geometry.pieces(newer));
      if (shared) flaws.push({ ...shared, ids: [older, newer] });
    }
  });
  return flaws;
}

function sharedStretch(older: readonly Piece[], newer: readonly Piece[]): Omit<Flaw, 'ids'> | undefined {
  const [a, b] = [older[0]!, newer[0]!];
  if (older.length > 1 || newer.length > 1 || a.form !== b.form) return undefined;
  if (!boxesOverlap(boxOf(a), boxOf(b), TOLERANCE)) return undefined;
  // the middle between two meetings that follow each other lies on both only where they run together
  const cuts = [...new Set([0, ...intersections(b, a, TOLERANCE).map(({ t }) => t), 1])].sort((p, q) => p - q);
  const spans = cuts.slice(1).map((t1, k) => ({ t0: cuts[k]!, t1 }));
  const common = spans.filter(({ t0, t1 }) => {
    if (t1 - t0 < 1e-9) return false;
    const middle = placeAt(newer, (t0 + t1) / 2);
    return parameterAt(a, middle, TOLERANCE) !== undefined;
  });
  if (common.length === 0) return undefined;
  const share = common.reduce((sum, { t0, t1 }) => sum + t1 - t0, 0);
  const at = placeAt(newer, (common[0]!.t0 + common[0]!.t1) / 2);
  const size = share * lengthOf(b);
  if (size <= 10 * TOLERANCE) return undefined;
  const whole = share > 1 - 1e-9 || Math.abs(size - lengthOf(a)) < 1e-6;
  return { kind: whole ? 'doubled' : 'overlap', at, size };
}

/** Puts a flaw right; what it does is told by `flawWords`. */
export function mend(builder: EditBuilder, flaw: Flaw): Result<SketchEdit> {
  const done = MENDS[flaw.kind](builder, flaw);
  if (!done.ok || Object.keys(done.value.entities).length + done.value.remove.length > 0) return done;
  const known = Object.values(builder.drawing.relations).map((relation) => JSON.stringify(relation));
  const isTold = Object.values(done.value.relations).every((relation) => known.includes(JSON.stringify(relation)));
  return isTold ? fail('edit.told') : done;
}

/** Can it be put right by a click? */
export const isMendable = ({ kind }: Flaw): boolean => kind !== 'open';

type Mend = (builder: EditBuilder, flaw: Flaw) => Result<SketchEdit>;

const MENDS = {
  open: (builder) => ok(builder.edit),
  gap(builder, { ids }) {
    builder.relate({ kind: 'coincident', a: ids[0]!, b: ids[1]! });
    return ok(builder.edit);
  },
  short(builder, { ids }) {
    builder.relate({ kind: 'coincident', a: ids[0]!, b: ids[1]! });
    return ok(builder.edit);
  },
  overrun: (builder, { ids, at }) => trim(builder, ids[0]!, at),
  doubled(builder, { ids }) {
    // the one that lies wholly on the other goes; of two alike the newer
    const [older, newer] = ids as [Id, Id];
    const length = (id: Id) => builder.geometry.pieces(id).reduce((sum, piece) => sum + lengthOf(piece), 0);
    builder.drop(length(older) < length(newer) - TOLERANCE ? older : newer);
    return ok(builder.edit);
  },
  overlap(builder, { ids }) {
    const [older, newer] = ids as [Id, Id];
    const { geometry } = builder;
    const [piece] = geometry.pieces(older);
    // the newer one begins where the older one ends
    const inside = geometry
      .ends(newer)
      .find((end) => parameterAt(piece!, geometry.point(end), TOLERANCE) !== undefined);
    const [other] = geometry.pieces(newer);
    const border = geometry
      .ends(older)
      .find((end) => parameterAt(other!, geometry.point(end), TOLERANCE) !== undefined && end !== inside);
    const entity = builder.now(newer);
    if (inside !== undefined && border !== undefined && 'a' in entity)
      builder.replace(newer, { ...entity, ...(entity.a === inside ? { a: border } : { b: border }) });
    return ok(builder.edit);
  },
} satisfies Record<string, Mend>;

const sizeWords = (size: number, unit: LengthUnit): string =>
  size < 0.01 ? `${size.toExponential(1)} mm` : formatQuantity({ amount: size, dimension: LENGTH }, unit, 2);

/** What is wrong, and what the offer does about it. */
export function flawWords(
  flaw: Flaw,
  nameOf: (id: Id) => string,
  unit: LengthUnit,
): { readonly wrong: string; readonly offer: string } {
  const [first, second] = flaw.ids.map(nameOf);
  return WORDS[flaw.kind](first!, second ?? '', sizeWords(flaw.size, unit));
}

const WORDS: Readonly<
  Record<Flaw['kind'], (first: string, second: string, size: string) => { wrong: string; offer: string }>
> = {
  open: (first) => ({ wrong: `${first} ends here and meets nothing`, offer: '' }),
  gap: (first, second, size) => ({ wrong: `gap of ${size} between ${first} and ${second}`, offer: 'join' }),
  short: (first, second, size) => ({ wrong: `${first} stops ${size} short of ${second}`, offer: 'reach it' }),
  overrun: (first, _, size) => ({ wrong: `${first} runs ${size} too far`, offer: 'cut off' }),
  doubled: (first, second) => ({ wrong: `${first} and ${second} lie on each other`, offer: 'drop one' }),
  overlap: (first, second, size) => ({ wrong: `${first} and ${second} share ${size}`, offer: 'shorten one' }),
};
