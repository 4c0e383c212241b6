import { add2, cross2, direction2, distance2, left2, scale2, sub2, type Vec2 } from '../../math/index.ts';
import type { Id } from '../../records/index.ts';
import { fail, ok, type Result } from '../../result/index.ts';
import type { Entity } from '../entities/index.ts';
import type { Geometry } from '../geometry.ts';
import { derivatives, nearestOn, nearestParameter, along } from '../pieces/index.ts';
import { relationKind, type Relation, type Relations } from '../relations/index.ts';
import { EditBuilder, type SketchEdit } from './edit.ts';

type Offset = Extract<Relation, { kind: 'offset' }>;
type Pair = Offset['pairs'][number];
type Joint = Offset['joints'][number];

const canOffset = (geometry: Geometry, id: Id): boolean =>
  ['line', 'arc', 'circle'].includes(geometry.entities[id]?.kind ?? '');

/** Is it drawn to hold something, or to be the outline? */
const isConstruction = (entity: Entity | undefined): boolean =>
  entity !== undefined && 'construction' in entity && entity.construction === true;

/** All curves that hang together with one, end to end, as long as no end branches, and are outline or construction as it is; itself first. */
export function chainFrom(geometry: Geometry, start: Id): Id[] {
  const wanted = isConstruction(geometry.entities[start]);
  const curves = Object.keys(geometry.entities).filter(
    (id) => canOffset(geometry, id) && isConstruction(geometry.entities[id]) === wanted,
  );
  const at = (point: Id) => curves.filter((id) => geometry.ends(id).includes(point));
  const chain = [start];
  for (const id of chain)
    for (const end of geometry.ends(id)) {
      const here = at(end);
      if (here.length !== 2) continue;
      const next = here.find((other) => !chain.includes(other));
      if (next !== undefined) chain.push(next);
    }
  return chain;
}

/** How far a place lies left of a curve's own direction, mm. */
function leftOf(geometry: Geometry, id: Id, place: Vec2): number {
  const [piece] = geometry.pieces(id);
  const t = nearestParameter(piece!, place);
  const foot = nearestOn(piece!, place);
  const [heading] = derivatives(piece!, t);
  return Math.sign(cross2(heading, sub2(place, foot))) * distance2(place, foot);
}

/**
 * Curves beside a chain, a loop or single curves, all on the side on which `towards` lies of the first, with one dimension
 * for the distance; of `both` sides those of a line that ends are closed by lines across its ends. They are outline, also
 * beside construction. Inside arcs that would lose their radius are refused.
 */
export function offsetOf(
  builder: EditBuilder,
  chosen: readonly Id[],
  towards: Vec2,
  distance: { readonly text: string; readonly size: number },
  both = false,
): Result<SketchEdit> {
  const { geometry } = builder;
  if (chosen.length === 0 || !chosen.every((id) => canOffset(geometry, id))) return fail('edit.offset-kind');
  const first: 1 | -1 = leftOf(geometry, chosen[0]!, towards) >= 0 ? 1 : -1;
  const other: 1 | -1 = first === 1 ? -1 : 1;
  const beside = new Beside(builder, distance.size);
  for (const side of both ? [first, other] : [first]) {
    const done = beside.run(chosen, sidesOf(geometry, chosen, side));
    if (!done.ok) return done;
  }
  if (both) for (const [one, other] of beside.looseEnds()) if (one && other) builder.line(one.to, other.to);
  builder.relate({ kind: 'offset', pairs: beside.pairs, joints: beside.joints, value: distance.text });
  return ok(builder.edit);
}

/**
 * The offset that has curves beside what these go on from, end to end, with none of them apart from it, on the side on
 * which `towards` lies.
 */
export function growingOffset(
  relations: Relations,
  geometry: Geometry,
  chosen: readonly Id[],
  towards: Vec2,
): { readonly id: Id; readonly relation: Offset } | undefined {
  for (const [id, relation] of Object.entries(relations)) {
    if (relation.kind !== 'offset') continue;
    const beside = new Set(relation.pairs.map(({ from }) => from));
    let left = chosen.filter((one) => !beside.has(one));
    if (left.length === 0 || !left.every((one) => canOffset(geometry, one))) continue;
    const ends = new Set(relation.joints.filter(isLoose).map(({ from }) => from));
    for (let before = Infinity; left.length < before;) {
      before = left.length;
      const reached = left.filter((one) => geometry.ends(one).some((end) => ends.has(end)));
      reached.flatMap((one) => geometry.ends(one)).forEach((end) => ends.add(end));
      left = left.filter((one) => !reached.includes(one));
    }
    if (left.length === 0 && isBeside(relation, geometry, chosen, towards)) return { id, relation };
  }
  return undefined;
}

/** Does a place lie on a side of a chain on which an offset of a part of it is? */
function isBeside({ pairs }: Offset, geometry: Geometry, chosen: readonly Id[], towards: Vec2): boolean {
  const whole = [...new Set([...pairs.map(({ from }) => from), ...chosen])];
  const far = (id: Id) => distanceFrom(geometry, [id], towards);
  const nearest = whole.reduce((best, id) => (far(id) < far(best) ? id : best));
  const side = Math.sign(leftOf(geometry, nearest, towards)) || 1;
  const sides = pairs.filter(({ from }) => from === whole[0]).map((pair) => sidesOf(geometry, whole, pair.side));
  return sides.some((each) => each[whole.indexOf(nearest)] === side);
}

/**
 * An offset that goes on beside chosen curves that go on from its ends, on the sides where it is. A line across its end
 * moves on to the new one, with all that is built on it; where the chain closes there is no end, and no such line.
 */
export function grownOffset(
  builder: EditBuilder,
  { id, relation }: { readonly id: Id; readonly relation: Offset },
  chosen: readonly Id[],
): Result<SketchEdit> {
  const { geometry } = builder;
  const beside = new Beside(builder, offsetDistance(relation, geometry), relation);
  const left = new Set(chosen.filter((one) => !relation.pairs.some(({ from }) => from === one)));
  for (let grew = true; grew;) {
    grew = false;
    for (const ends of beside.looseEnds()) {
      const at = ends[0]!.from;
      const next = [...left].find((one) => geometry.ends(one).includes(at));
      if (next === undefined) continue;
      left.delete(next);
      grew = true;
      const after: GoneOn[] = [];
      for (const end of ends) {
        const made = beside.goOn(end, next);
        if (!made.ok) return made;
        after.push(made.value);
      }
      const [one, other] = after.map(({ to }) => to);
      if (!one || !other) continue;
      const across = linesAcross(builder, [ends[0]!.to, ends[1]!.to]);
      if (after.every(({ isClosed }) => isClosed))
        [...across, ...linesAcross(builder, [one, other])].forEach(({ id: line }) => builder.drop(line));
      else for (const { id: line, flip } of across) moveLine(builder, line, flip ? [other, one] : [one, other]);
    }
  }
  builder.replaceRelation(id, { ...relation, pairs: beside.pairs, joints: beside.joints });
  return ok(builder.edit);
}

/** How far beside its curves an offset is, mm. */
const offsetDistance = (relation: Offset, geometry: Geometry): number =>
  Math.abs(relationKind('offset').dimension!.measure(relation, geometry));

const isLoose = ({ pairs, cut }: Joint): boolean => pairs.length === 1 && !cut;

/** The lines from one place to another, and whether they run back. */
const linesAcross = (builder: EditBuilder, [from, to]: readonly [Id, Id]): { id: Id; flip: boolean }[] =>
  [...Object.keys(builder.geometry.entities), ...Object.keys(builder.entities)].flatMap((id) => {
    const line = builder.now(id);
    if (line.kind !== 'line' || ![line.a, line.b].includes(from) || ![line.a, line.b].includes(to)) return [];
    return [{ id, flip: line.a === to }];
  });

function moveLine(builder: EditBuilder, id: Id, [a, b]: readonly [Id, Id]): void {
  builder.replace(id, { ...(builder.now(id) as Extract<Entity, { kind: 'line' }>), a, b });
}

/** Where what runs beside one more curve ends now; it may have come round to where something ends already. */
interface GoneOn {
  readonly to: Id;
  readonly isClosed: boolean;
}

/** Curves beside others, as they are put together. */
class Beside {
  readonly pairs: Pair[];
  readonly joints: Joint[];

  constructor(
    private readonly builder: EditBuilder,
    private readonly size: number,
    { pairs, joints }: Pick<Offset, 'pairs' | 'joints'> = { pairs: [], joints: [] },
  ) {
    this.pairs = [...pairs];
    this.joints = [...joints];
  }

  /** One side of curves, each on its own. */
  run(chosen: readonly Id[], sides: readonly (1 | -1)[]): Result<void> {
    const { geometry } = this.builder;
    const meeting = new Map<Id, number[]>();
    const first = this.pairs.length;
    chosen.forEach((id, k) => geometry.ends(id).forEach((end) => meeting.set(end, [...(meeting.get(end) ?? []), k])));
    const joints = new Map<Id, Joint>();
    for (const [from, at] of meeting) {
      if (at.length > 2) return fail('edit.offset-kind');
      const ends = at.map((k) => this.besideEnd(chosen[k]!, sides[k]!, from));
      const to = this.builder.place(meetingPlace(ends, this.size));
      joints.set(from, {
        ...{ from, to, pairs: at.map((k) => first + k) },
        ...(isSmooth(ends, this.size) ? { smooth: true } : {}),
      });
    }
    for (const [k, from] of chosen.entries()) {
      const made = this.curve(
        from,
        sides[k]!,
        geometry.ends(from).map((end) => joints.get(end)!.to),
      );
      if (!made.ok) return made;
    }
    this.joints.push(...joints.values());
    return ok(undefined);
  }

  /** The joints at loose ends, those of one end together. */
  looseEnds(): Joint[][] {
    const at = new Map<Id, Joint[]>();
    for (const joint of this.joints) if (isLoose(joint)) at.set(joint.from, [...(at.get(joint.from) ?? []), joint]);
    return [...at.values()];
  }

  /** Goes on from a loose end beside another curve. */
  goOn(joint: Joint, next: Id): Result<GoneOn> {
    const { geometry } = this.builder;
    const n = this.pairs.length;
    const side = this.sideFrom(joint, next);
    const far = geometry.ends(next).find((end) => end !== joint.from)!;
    const there = this.joints.find((one) => isLoose(one) && one.from === far && this.sideFrom(one, next) === side);
    this.corner(joint, next, side);
    if (there) this.corner(there, next, side);
    const to = there?.to ?? this.builder.place(this.besideEnd(next, side, far).at);
    const made = this.curve(
      next,
      side,
      geometry.ends(next).map((end) => (end === far ? to : joint.to)),
    );
    if (!made.ok) return made;
    if (!there) this.joints.push({ from: far, to, pairs: [n] });
    return ok({ to, isClosed: there !== undefined });
  }

  /** The side of a curve that goes on from a loose end. */
  private sideFrom({ pairs: [k] }: Joint, next: Id): 1 | -1 {
    const { from, side } = this.pairs[k!]!;
    return sidesOf(this.builder.geometry, [from, next], side)[1]!;
  }

  /** A loose end becomes a corner with what will run beside another curve. */
  private corner(joint: Joint, next: Id, side: 1 | -1): void {
    const [k] = joint.pairs as [number];
    const before = this.pairs[k]!;
    const ends = [this.besideEnd(before.from, before.side, joint.from), this.besideEnd(next, side, joint.from)];
    const [x, y] = meetingPlace(ends, this.size);
    this.builder.replace(joint.to, { kind: 'point', x, y });
    const smooth = isSmooth(ends, this.size) ? { smooth: true } : {};
    this.joints[this.joints.indexOf(joint)] = { ...joint, pairs: [k, this.pairs.length], ...smooth };
  }

  private curve(from: Id, side: 1 | -1, [a, b]: readonly Id[]): Result<void> {
    const { builder } = this;
    const entity = builder.geometry.entities[from]!;
    if (entity.kind === 'line') this.pairs.push({ from, to: builder.line(a!, b!), side });
    else if (entity.kind === 'arc' || entity.kind === 'circle') {
      const radius = entity.radius - side * this.size;
      if (radius <= 1e-3) return fail('edit.offset-inside');
      const to =
        entity.kind === 'arc' ? builder.arc(entity.centre, a!, b!, radius) : builder.circle(entity.centre, radius);
      this.pairs.push({ from, to, side });
    }
    return ok(undefined);
  }

  /** The place square beside an end of a curve, and the direction of the curve there. */
  private besideEnd(id: Id, side: 1 | -1, point: Id): BesideEnd {
    const { geometry } = this.builder;
    const [piece] = geometry.pieces(id);
    const t = geometry.ends(id)[0] === point ? 0 : 1;
    const heading = direction2(derivatives(piece!, t)[0]) ?? [1, 0];
    return { at: add2(along(piece!, t), scale2(left2(heading), side * this.size)), heading };
  }
}

interface BesideEnd {
  readonly at: Vec2;
  readonly heading: Vec2;
}

/** Do two pieces go on into each other beside their corner? */
const isSmooth = (ends: readonly BesideEnd[], size: number): boolean =>
  ends.length === 2 && distance2(ends[0]!.at, ends[1]!.at) < 1e-6 * Math.max(1, size);

/** Where what runs beside one end, or beside both sides of a corner, meets. */
const meetingPlace = (ends: readonly BesideEnd[], size: number): Vec2 =>
  (ends.length === 2 && !isSmooth(ends, size) ? crossing(ends) : undefined) ?? ends[0]!.at;

/** The side of each curve, by its own direction: the side of the first carried along the chain. */
function sidesOf(geometry: Geometry, ids: readonly Id[], first: 1 | -1): (1 | -1)[] {
  const sides = new Map<Id, 1 | -1>([[ids[0]!, first]]);
  for (let round = 0; round < ids.length; round++)
    for (const id of ids) {
      if (sides.has(id)) continue;
      const own = geometry.ends(id);
      const neighbour = ids.find((other) => sides.has(other) && geometry.ends(other).some((end) => own.includes(end)));
      if (neighbour === undefined) continue;
      const theirs = geometry.ends(neighbour);
      // head to tail they run alike; head to head, or tail to tail, against each other
      const alike = own[0] === theirs[1] || own[1] === theirs[0];
      const side = sides.get(neighbour)!;
      sides.set(id, alike ? side : side === 1 ? -1 : 1);
    }
  // single curves apart from the chain: on the same side of their own direction
  return ids.map((id) => sides.get(id) ?? first);
}

/** Where the two carriers beside a sharp corner meet, taken straight; the solver does the rest for arcs. */
function crossing(beside: readonly BesideEnd[]): Vec2 | undefined {
  const [first, second] = beside as [BesideEnd, BesideEnd];
  const across = cross2(first.heading, second.heading);
  if (Math.abs(across) < 1e-6) return undefined;
  const t = cross2(sub2(second.at, first.at), second.heading) / across;
  return add2(first.at, scale2(first.heading, t));
}

/** The distance of a place from the nearest of some curves, mm. */
export const distanceFrom = (geometry: Geometry, ids: readonly Id[], place: Vec2): number =>
  Math.min(...ids.flatMap((id) => geometry.pieces(id).map((piece) => distance2(nearestOn(piece, place), place))));
