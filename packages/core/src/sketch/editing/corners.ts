import { add2, cross2, direction2, distance2, dot2, scale2, sub2, type Vec2 } from '../../math/index.ts';
import type { Id } from '../../records/index.ts';
import { fail, ok, type Result } from '../../result/index.ts';
import { entityKind, type Entity } from '../entities/index.ts';
import type { Geometry } from '../geometry.ts';
import { derivatives, lengthOf, reversed } from '../pieces/index.ts';
import { EditBuilder, keepWhole, relationsOn, type SketchEdit } from './edit.ts';

/** Where a corner is: a point in which two curves end, or two lines that cross or would, prolonged. */
export type CornerPlace = Id | readonly [Id, Id];

/** A corner: the two curves that make it and their directions away from it. */
interface Corner {
  /** In which both end, where they do. */
  readonly point?: Id;
  readonly at: Vec2;
  readonly sides: readonly [Side, Side];
  /** Angle between the sides, in (0, pi). */
  readonly angle: number;
}

interface Side {
  readonly id: Id;
  /** The end of it that gives way. */
  readonly end: Id;
  readonly out: Vec2;
  readonly length: number;
}

/** The corner in a point; undefined unless exactly two lines or arcs end there at an angle. */
function cornerAt(geometry: Geometry, point: Id): Corner | undefined {
  const sides = Object.entries(geometry.entities).flatMap(([id, entity]): Side[] => {
    if ('construction' in entity && entity.construction) return [];
    if (!geometry.ends(id).includes(point)) return [];
    const [piece] = geometry.pieces(id);
    const leaving = geometry.ends(id)[0] === point ? piece! : reversed(piece!);
    const out = direction2(derivatives(leaving, 0)[0]);
    const round = entity.kind === 'line' || entity.kind === 'arc';
    return out && round ? [{ id, end: point, out, length: lengthOf(piece!) }] : [];
  });
  if (sides.length !== 2) return undefined;
  return between(geometry.point(point), sides as [Side, Side], point);
}

/** The corner of two lines without a common end; of each the longer part stays. Undefined where they are parallel. */
function crossing(geometry: Geometry, ids: readonly [Id, Id]): Corner | undefined {
  if (ids.some((id) => geometry.entities[id]?.kind !== 'line')) return undefined;
  const [first, second] = ids.map((id) => geometry.line(id)) as [Line, Line];
  const at = meeting(first, second);
  return at && between(at, [sideFrom(geometry, ids[0], at), sideFrom(geometry, ids[1], at)]);
}
type Line = ReturnType<Geometry['line']>;

/** Where two lines meet, prolonged; undefined for parallel ones. */
function meeting(one: Line, other: Line): Vec2 | undefined {
  const [u, v] = [sub2(one.b, one.a), sub2(other.b, other.a)];
  const across = cross2(u, v);
  if (Math.abs(across) < 1e-9 * Math.hypot(...u) * Math.hypot(...v)) return undefined;
  return add2(one.a, scale2(u, cross2(sub2(other.a, one.a), v) / across));
}

/** A line as it goes from a place on it to its farther end. */
function sideFrom(geometry: Geometry, id: Id, at: Vec2): Side {
  const { a, b } = geometry.entities[id] as Extract<Entity, { kind: 'line' }>;
  const off = (end: Id) => distance2(geometry.point(end), at);
  const [end, far] = off(a) < off(b) ? [a, b] : [b, a];
  return { id, end, out: direction2(sub2(geometry.point(far), at))!, length: off(far) };
}

/** The corner between two sides; undefined where they hardly turn. */
function between(at: Vec2, sides: readonly [Side, Side], point?: Id): Corner | undefined {
  const angle = Math.acos(Math.min(1, Math.max(-1, dot2(sides[0].out, sides[1].out))));
  if (angle < 1e-3 || angle > Math.PI - 1e-3) return undefined;
  return { at, sides, angle, ...(point === undefined ? {} : { point }) };
}

const cornerOf = (geometry: Geometry, place: CornerPlace): Corner | undefined =>
  typeof place === 'string' ? cornerAt(geometry, place) : crossing(geometry, place);

/** The corners at these places; fails where there are none, or one of them is no corner. */
function cornersAt(geometry: Geometry, places: readonly CornerPlace[]): Result<Corner[]> {
  const corners = places.flatMap((place) => cornerOf(geometry, place) ?? []);
  return corners.length === 0 || corners.length < places.length ? fail('edit.corner') : ok(corners);
}

/**
 * Rounds corners: an arc tangent to both sides in each, the first with the radius as its dimension, the others equal to
 * it. A corner that relations speak of stays as a point on both sides.
 * @param radius as typed, and what it comes to in mm
 */
export function fillet(
  builder: EditBuilder,
  places: readonly CornerPlace[],
  radius: { readonly text: string; readonly size: number },
): Result<SketchEdit> {
  const corners = cornersAt(builder.geometry, places);
  if (!corners.ok) return corners;
  const wholes = new Map<Id, Id>();
  let first: Id | undefined;
  for (const corner of corners.value) {
    const reach = radius.size / Math.tan(corner.angle / 2);
    const most = roomIn(corner);
    if (reach > most)
      return fail('edit.too-large', { size: radius.text, most: round(most * Math.tan(corner.angle / 2)) });
    keepWholes(builder, wholes, corner.sides);
    const arc = roundOff(builder, corner, radius.size, reach);
    keepCorner(builder, corner, wholes);
    if (first === undefined) builder.relate({ kind: 'radius', circle: arc, value: radius.text });
    else builder.relate({ kind: 'equal', a: first, b: arc });
    first ??= arc;
  }
  return ok(builder.edit);
}

function roundOff(builder: EditBuilder, { at, sides, angle }: Corner, radius: number, reach: number): Id {
  const ends = sides.map((side) => shorten(builder, side, add2(at, scale2(side.out, reach)))) as [Id, Id];
  const middle = direction2(add2(sides[0].out, sides[1].out))!;
  const centre = builder.place(add2(at, scale2(middle, radius / Math.sin(angle / 2))));
  // the short way round, seen from the centre
  const [a, b] = cross2(sides[0].out, sides[1].out) > 0 ? [ends[1], ends[0]] : ends;
  const arc = builder.arc(centre, a, b, radius);
  // at a shared end the side says nothing
  for (const { id } of sides) builder.relate({ kind: 'tangent', circle: arc, to: id, side: 1 });
  return arc;
}

/**
 * Cuts corners of two lines off at equal distances: the first cut has the distance as its dimension, the others are equal.
 * The corner stays, with construction lines to the cut, on which the distances stand.
 */
export function chamfer(
  builder: EditBuilder,
  places: readonly CornerPlace[],
  distance: { readonly text: string; readonly size: number },
): Result<SketchEdit> {
  const corners = cornersAt(builder.geometry, places);
  if (!corners.ok) return corners;
  const wholes = new Map<Id, Id>();
  let first: Id | undefined;
  for (const corner of corners.value) {
    const { at, sides } = corner;
    if (sides.some(({ id }) => builder.geometry.roleOf(id) !== 'line')) return fail('edit.corner-lines');
    const most = roomIn(corner);
    if (distance.size > most) return fail('edit.too-large', { size: distance.text, most: round(most) });
    keepWholes(builder, wholes, sides);
    const ends = sides.map((side) => shorten(builder, side, add2(at, scale2(side.out, distance.size))));
    const point = corner.point ?? builder.place(at);
    builder.line(ends[0]!, ends[1]!);
    const legs = ends.map((end) => builder.line(point, end, true));
    sides.forEach(({ id }) => builder.relate({ kind: 'coincident', a: point, b: id }));
    if (corner.point === undefined) keepEnds(builder, sides, wholes);
    builder.relate({ kind: 'equal', a: legs[0]!, b: legs[1]! });
    if (first === undefined)
      builder.relate({
        kind: 'distance',
        a: point,
        b: ends[0]!,
        direction: 'aligned',
        sense: 1,
        value: distance.text,
      });
    else builder.relate({ kind: 'equal', a: first, b: legs[0]! });
    first ??= legs[0]!;
  }
  return ok(builder.edit);
}

/** How much may be taken off the sides. */
const roomIn = ({ sides }: Corner): number => 0.98 * Math.min(sides[0].length, sides[1].length);

const round = (size: number): number => Math.floor(size * 100) / 100;

/** Lets a curve end in a new point; a curve may lose both its ends so, one after the other. */
function shorten(builder: EditBuilder, { id, end: before }: Side, at: Vec2): Id {
  const end = builder.place(at);
  const entity = builder.now(id) as Extract<Entity, { a: Id; b: Id }>;
  builder.replace(id, { ...entity, ...(entity.a === before ? { a: end } : { b: end }) });
  return end;
}

/** The wholes of the sides of which relations speak, by their sides. */
function keepWholes(builder: EditBuilder, wholes: Map<Id, Id>, sides: readonly Side[]): void {
  for (const { id } of sides) {
    const whole = wholes.has(id) ? undefined : keepWhole(builder, id);
    if (whole !== undefined) wholes.set(id, whole);
  }
}

/** The wholes of lines that cross end where they did, on them. */
function keepEnds(builder: EditBuilder, sides: readonly Side[], wholes: ReadonlyMap<Id, Id>): void {
  for (const { id, end } of sides) if (wholes.has(id)) builder.relate({ kind: 'coincident', a: end, b: id });
}

/** A corner that dimensions, relations or the whole of a side speak of is kept where the sides, prolonged, meet. */
function keepCorner(builder: EditBuilder, { point, sides }: Corner, wholes: ReadonlyMap<Id, Id>): void {
  const { geometry, drawing } = builder;
  if (point === undefined) return keepEnds(builder, sides, wholes);
  const elsewhere = Object.entries(geometry.entities).some(
    ([id, entity]) => !sides.some((side) => side.id === id) && entityKind(entity.kind).uses(entity).includes(point),
  );
  const isWhole = sides.some(({ id }) => wholes.has(id));
  if (relationsOn(drawing.relations, point).length === 0 && !elsewhere && !isWhole) return;
  for (const { id } of sides)
    if (!isKeptOn(builder, id, wholes.get(id))) builder.relate({ kind: 'coincident', a: point, b: id });
}

/** Are all ends of the whole of a side on it already? Those of an arc are as far from its centre as the end that it shares. */
function isKeptOn(builder: EditBuilder, id: Id, whole: Id | undefined): boolean {
  const [side, kept] = [builder.now(id), whole === undefined ? undefined : builder.now(whole)];
  return side.kind === 'arc' && kept?.kind === 'arc' && (side.a === kept.a || side.b === kept.b);
}

/** Corners among the chosen things: points that are corners, those where two chosen curves meet, else two lines that cross. */
export function cornersAmong(geometry: Geometry, ids: readonly Id[]): CornerPlace[] {
  const ends = ids.flatMap((id) => [...geometry.ends(id)]);
  const shared = ends.filter((end, k) => ends.indexOf(end) !== k);
  const points = ids.filter((id) => geometry.roleOf(id) === 'point');
  const found = [...new Set([...points, ...shared])].filter((point) => cornerAt(geometry, point));
  const [one, other, ...more] = ids;
  if (found.length > 0 || one === undefined || other === undefined || more.length > 0) return found;
  return crossing(geometry, [one, other]) ? [[one, other]] : [];
}

/** Where such a corner is. */
export const cornerPoint = (geometry: Geometry, place: CornerPlace): Vec2 => cornerOf(geometry, place)!.at;
