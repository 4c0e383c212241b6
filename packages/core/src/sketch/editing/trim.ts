import { distance2, type Vec2 } from '../../math/index.ts';
import type { Id } from '../../records/index.ts';
import { fail, ok, type Result } from '../../result/index.ts';
import { entityKind, type CurveEnd } from '../entities/index.ts';
import type { Geometry } from '../geometry.ts';
import { along, arcBetween, boxesOverlap, boxOf, intersections, stretch, type Piece } from '../pieces/index.ts';
import { relationKind, withEndMoved, type Relation } from '../relations/index.ts';
import { EditBuilder, keepWhole, parameterNear, placeAt, relationsOn, type SketchEdit } from './edit.ts';

const TOLERANCE = 1e-6;

/** A place where another curve crosses. */
interface Crossing {
  readonly t: number;
  readonly at: Vec2;
  readonly by: Id;
}

/** Where other curves cross these pieces, in order. */
function crossingsOf(geometry: Geometry, id: Id, pieces: readonly Piece[]): Crossing[] {
  const found: Crossing[] = [];
  for (const by of Object.keys(geometry.entities)) {
    if (by === id) continue;
    for (const other of geometry.pieces(by))
      pieces.forEach((piece, span) => {
        if (!boxesOverlap(boxOf(piece), boxOf(other), TOLERANCE)) return;
        for (const { t } of intersections(piece, other, TOLERANCE))
          found.push({ t: span + t, at: along(piece, t), by });
      });
  }
  return found.toSorted((a, b) => a.t - b.t);
}

/**
 * Takes away the stretch of a curve on which a place lies, up to the nearest crossings; the whole curve where nothing
 * crosses it. New ends stay on what cuts them; a second remaining stretch stays on the carrier of the first. What is borrowed
 * stays as construction, and what is left of it is drawn over it.
 */
export function trim(builder: EditBuilder, id: Id, at: Vec2): Result<SketchEdit> {
  const stretch = stretchAt(builder.geometry, id, at);
  if (!stretch.ok) return stretch;
  if (builder.isBorrowed(id)) return drawnOver(builder, id, stretch.value);
  const { before, after, pieces } = stretch.value;
  const entity = builder.now(id);
  const kind = entityKind(entity.kind);
  if (!before && !after) {
    builder.drop(id);
    return ok(builder.edit);
  }
  const end = (crossing: Crossing): CurveEnd => ({ t: crossing.t, point: endPoint(builder, crossing) });
  const part = (from: CurveEnd, to: CurveEnd) => kind.part!(entity, from, to, pieces, (place) => builder.place(place));
  const whole = keepWhole(builder, id);
  if (!kind.ends) {
    // of a closed curve the stretch between both crossings goes
    builder.replace(id, part(end(after!), end(before!)));
    return ok(builder.edit);
  }
  const [first, last] = kind.ends(entity);
  const [start, finish]: CurveEnd[] = [
    { t: 0, point: first },
    { t: pieces.length, point: last },
  ];
  if (before) {
    const cut = end(before);
    builder.replace(id, part(start!, cut));
    // with both the old end is that of the second stretch
    if (!after) moveEnd(builder, id, last, cut.point, whole);
  }
  if (after && !before) {
    const cut = end(after);
    builder.replace(id, part(cut, finish!));
    moveEnd(builder, id, first, cut.point, whole);
  }
  if (after && before) likeFirst(builder, id, builder.entity(id[0] ?? 'l', part(end(after), finish!)));
  return ok(builder.edit);
}

/**
 * What ran beside a curve does so still, though the curve ends elsewhere now.
 * @param whole stands for what it was, and stays on it: ends of an arc are as far from its centre as the other one
 */
function moveEnd(builder: EditBuilder, id: Id, before: Id, after: Id, whole?: Id): void {
  if (whole !== undefined && builder.geometry.roleOf(id) === 'line')
    builder.relate({ kind: 'coincident', a: before, b: id });
  for (const [key, relation] of relationsOn(builder.drawing.relations, before))
    if (relation.kind === 'offset')
      builder.replaceRelation(key, withEndMoved(relation, id, before, after, builder.geometry.roleOf(id) === 'circle'));
}

type Stretch = Extract<ReturnType<typeof stretchAt>, { ok: true }>['value'];

/** All of a borrowed curve but a stretch, drawn over it. */
function drawnOver(builder: EditBuilder, id: Id, { before, after, pieces }: Stretch): Result<SketchEdit> {
  const entity = builder.now(id);
  const kind = entityKind(entity.kind);
  if (entity.kind !== 'line' && entity.kind !== 'arc' && entity.kind !== 'circle') return fail('borrow.held');
  const { construction: _, ...outline } = entity;
  builder.replace(id, { ...entity, construction: true });
  const end = (crossing: Crossing): CurveEnd => ({ t: crossing.t, point: endPoint(builder, crossing) });
  const draw = (from: CurveEnd, to: CurveEnd, ends: readonly Id[]) => {
    builder.entity(
      id[0] ?? 'l',
      kind.part!(outline, from, to, pieces, (place) => builder.place(place)),
    );
    keepOn(builder, id, ends);
  };
  if (!kind.ends) {
    if (before && after) {
      const [from, to] = [end(after), end(before)];
      draw(from, to, [from.point, to.point]);
    }
    return ok(builder.edit);
  }
  const [first, last] = kind.ends(entity);
  if (before) {
    const cut = end(before);
    draw({ t: 0, point: first }, cut, [first, cut.point]);
  }
  if (after) {
    const cut = end(after);
    draw(cut, { t: pieces.length, point: last }, [cut.point, last]);
  }
  return ok(builder.edit);
}

/** Keeps the ends of what is drawn over a curve on it, each told once: the ends of an arc are as far from its centre. */
function keepOn(builder: EditBuilder, id: Id, ends: readonly Id[]): void {
  const isRound = builder.geometry.roleOf(id) === 'circle';
  const known = builder.drawing.relations;
  const told = (point: Id) =>
    relationsOn(known, point).find(([, relation]) => relation.kind === 'coincident' && refersTo(relation, id))?.[0];
  const [held, other] = ends.toSorted((a, b) => rank(b) - rank(a)) as [Id, Id];
  if (rank(held) === 0) builder.relate({ kind: 'coincident', a: held, b: id });
  if (!isRound && rank(other) === 0) builder.relate({ kind: 'coincident', a: other, b: id });
  const twice = isRound && !builder.isBorrowed(other) ? told(other) : undefined;
  if (twice !== undefined) builder.drop(twice);

  /** 2 for an end of the borrowed curve itself, 1 for a point that is on it already. */
  function rank(point: Id): number {
    return builder.isBorrowed(point) ? 2 : told(point) === undefined ? 0 : 1;
  }
}

const refersTo = (relation: Relation, id: Id): boolean => relationKind(relation.kind).refs(relation).includes(id);

/** The stretch that `trim` would take away, to be shown; empty where it would refuse. */
export function stretchUnder(geometry: Geometry, id: Id, at: Vec2): readonly Piece[] {
  const found = stretchAt(geometry, id, at);
  if (!found.ok) return [];
  const { before, after, pieces } = found.value;
  if (!before && !after) return pieces;
  const [from, to] = [before?.t ?? 0, after?.t ?? pieces.length];
  return between(pieces, from, to > from ? to : to + pieces.length);
}

/** The crossings on both sides of a place of a curve; of a closed curve both or none. */
function stretchAt(geometry: Geometry, id: Id, at: Vec2) {
  const entity = geometry.entities[id];
  const kind = entity && entityKind(entity.kind);
  const pieces = geometry.pieces(id);
  if (!kind?.part || pieces.length === 0) return fail('edit.curve');
  const closed = kind.ends === undefined;
  const length = pieces.length;
  const crossings = crossingsOf(geometry, id, pieces).filter(({ t }) => closed || (t > 1e-9 && t < length - 1e-9));
  const [before, after] = around(crossings, parameterNear(pieces, at), closed ? length : undefined);
  if (closed && before && after && distance2(before.at, after.at) <= TOLERANCE) return fail('edit.one-crossing');
  return ok({ before, after, pieces });
}

/** The pieces between two parameters; beyond the last they begin again. */
function between(pieces: readonly Piece[], from: number, to: number): Piece[] {
  const found: Piece[] = [];
  for (let span = Math.floor(from); span < to; span++) {
    const piece = pieces[span % pieces.length]!;
    const [t0, t1] = [Math.max(from, span) - span, Math.min(to, span + 1) - span];
    if (t1 > t0) found.push(stretch(piece, t0, t1, along(piece, t0), along(piece, t1)));
  }
  return found;
}

/** The nearest crossings before and after a parameter; round a closed curve they may lie beyond its seam. */
function around(crossings: readonly Crossing[], t: number, round: number | undefined) {
  const before = crossings.findLast((crossing) => crossing.t < t - 1e-9);
  const after = crossings.find((crossing) => crossing.t > t + 1e-9);
  if (round === undefined) return [before, after] as const;
  return [before ?? crossings.at(-1), after ?? crossings[0]] as const;
}

/** The end of the cutter where it ends there, else a new point that stays on it. */
function endPoint(builder: EditBuilder, { at, by }: Crossing): Id {
  const existing = builder.geometry.ends(by).find((end) => distance2(builder.geometry.point(end), at) <= TOLERANCE);
  if (existing !== undefined) return existing;
  const point = builder.place(at);
  if (builder.geometry.roleOf(by) !== 'text') builder.relate({ kind: 'coincident', a: point, b: by });
  return point;
}

/** Keeps the second remaining stretch on the carrier of the first. */
function likeFirst(builder: EditBuilder, first: Id, second: Id): void {
  const role = builder.geometry.roleOf(first);
  if (role === 'line') builder.relate({ kind: 'collinear', a: first, b: second });
  // they share their centre already, an ellipse its axis too
  if (role === 'circle' || role === 'ellipse') builder.relate({ kind: 'equal', a: first, b: second });
}

/** Cuts a curve in two at a place; a closed one at this place and at the one opposite. The parts share the new point. */
export function split(builder: EditBuilder, id: Id, at: Vec2): Result<SketchEdit> {
  const entity = builder.now(id);
  const kind = entityKind(entity.kind);
  const pieces = builder.geometry.pieces(id);
  if (!kind.part || pieces.length === 0) return fail('edit.curve');
  const t = parameterNear(pieces, at);
  const cut = (parameter: number): CurveEnd => ({ t: parameter, point: builder.place(placeAt(pieces, parameter)) });
  const part = (from: CurveEnd, to: CurveEnd) => kind.part!(entity, from, to, pieces, (place) => builder.place(place));
  if (kind.ends) {
    if (t < 1e-6 || t > pieces.length - 1e-6) return fail('edit.curve');
    const [first, last] = kind.ends(entity);
    keepWhole(builder, id);
    const middle = cut(t);
    builder.replace(id, part({ t: 0, point: first }, middle));
    const second = builder.entity(id[0] ?? 'l', part(middle, { t: pieces.length, point: last }));
    likeFirst(builder, id, second);
    return ok(builder.edit);
  }
  const opposite = (t + pieces.length / 2) % pieces.length;
  const [one, other] = [cut(t), cut(opposite)];
  builder.replace(id, part(one, other));
  // both end in the same two points about one centre: they are equal by themselves
  builder.entity(id[0] ?? 'a', part(other, one));
  return ok(builder.edit);
}

/** Prolongs a line or an arc at the end near a place up to the next curve; the new end stays on it. */
export function extend(builder: EditBuilder, id: Id, at: Vec2): Result<SketchEdit> {
  const { geometry } = builder;
  const entity = builder.now(id);
  if (entity.kind !== 'line' && entity.kind !== 'arc') return fail('edit.extend-kind');
  const kind = entityKind(entity.kind);
  const pieces = geometry.pieces(id);
  const atEnd = parameterNear(pieces, at) > 0.5;
  const ahead = aheadOf(geometry, pieces[0]!, atEnd);
  const [found] = crossingsOf(geometry, id, [ahead]).filter(({ t }) => t > 1e-9 && t < 1 - 1e-9);
  if (!found) return fail('edit.nothing-ahead');
  const [first, last] = kind.ends!(entity);
  const end: CurveEnd = { t: atEnd ? 1 : 0, point: endPoint(builder, found) };
  const kept: CurveEnd = { t: atEnd ? 0 : 1, point: atEnd ? first : last };
  moveEnd(builder, id, atEnd ? last : first, end.point, keepWhole(builder, id));
  const make = (place: Vec2) => builder.place(place);
  builder.replace(
    id,
    atEnd ? kind.part!(entity, kept, end, pieces, make) : kind.part!(entity, end, kept, pieces, make),
  );
  return ok(builder.edit);
}

/** The carrier beyond an end, going away from it: a long line, or the rest of the circle. */
function aheadOf(geometry: Geometry, piece: Piece, atEnd: boolean): Piece {
  const [from, to] = atEnd ? [piece.from, piece.to] : [piece.to, piece.from];
  if (piece.form === 'arc') {
    const rest = arcBetween('', piece.centre, piece.radius, piece.to, piece.from);
    if (atEnd) return rest;
    return { ...rest, from: rest.to, to: rest.from, start: rest.start + rest.sweep, sweep: -rest.sweep };
  }
  const box = geometry.box()!;
  const reach = 4 * distance2(box.low, box.high);
  const length = Math.max(distance2(from, to), TOLERANCE);
  const far: Vec2 = [to[0] + ((to[0] - from[0]) / length) * reach, to[1] + ((to[1] - from[1]) / length) * reach];
  return { form: 'segment', entity: '', from: to, to: far };
}
