import {
  add2,
  arcBetween,
  arcLeaving,
  cross2,
  derivatives,
  direction2,
  directionAtEnd,
  distance2,
  dot2,
  findEntity,
  Geometry,
  intersections,
  isBuiltIn,
  left2,
  LENGTH,
  middle2,
  relationKind,
  reversed,
  scale2,
  sub2,
  type Action,
  type DrawnArc,
  type Id,
  type Vec2,
} from '@helb/core';
import {
  directionOf,
  holdTyped,
  lengthOf,
  namingOf,
  polar,
  radiusOf,
  type DrawnSize,
  type TypedSizes,
} from './drawn-sizes.ts';
import { anchorSigns, placedBy, placingSizes, type Anchor } from './placing.ts';
import { footOn, levelOf, type Snap } from './snapping.ts';
import { touchingLine } from './touching.ts';
import {
  exactly,
  FigureMaker,
  guidesOf,
  keptAt,
  NO_PREVIEW,
  orTyped,
  snapFor,
  straight,
  tagsOf,
  type PointerAt,
  type Preview,
  type Tool,
  type ToolHost,
} from './tool.ts';

/** A line within this angle of where an arc heads is guessed to be tangent, rad. */
const TANGENT_GUESS = 0.08;
/** A line within this angle of standing square on the one before is guessed to do so, rad. */
const SQUARE_GUESS = 0.04;

const LINE = polar(1);
/** Farther than anything that is drawn. */
const ENDLESS_mm = 1e5;

/** How level or upright a direction is, as a sine. */
const LEVEL = 1e-9;

/** Where a chain goes on from, and in which direction its last piece arrived there. */
interface ChainEnd {
  readonly snap: Snap;
  readonly heading?: Vec2;
  /** The last piece: what touches it is related to it. */
  readonly piece?: { readonly id: Id; readonly round: boolean };
}

/**
 * Lines and tangent arcs end to end; each click sets one. Clicking the first point closes the chain. It may begin at the
 * end of a curve and go on tangent from it.
 */
export class ChainTool implements Tool {
  preview: Preview = NO_PREVIEW;
  /** The point at which it began, once there is one. */
  private begun: Id | undefined;
  /** Where it went on from, one place after the other. */
  private trail: ChainEnd[] = [];
  private bent: boolean;
  private pointer: PointerAt | undefined;
  private typed: TypedSizes = [];
  /** Values that were named where it begins. */
  private begunNaming: readonly Action[] = [];

  /** @param beginsBent an arc comes first: it needs the end of a curve to go on from */
  constructor(
    private readonly host: ToolHost,
    private readonly beginsBent = false,
    readonly name = 'chain',
  ) {
    this.bent = beginsBent;
  }

  /** Where it goes on from: one place back where a piece was undone. */
  private get last(): ChainEnd | undefined {
    return this.trail.findLast(({ snap: { point } }) => point === undefined || this.has(point));
  }

  private get first(): Id | undefined {
    return this.begun !== undefined && this.has(this.begun) ? this.begun : undefined;
  }

  /** Where it began, and its arc: what closes, or has turned by half, lines up with that however far it is. */
  private get beginnings(): Anchor[] {
    const ids = [this.bent ? this.last?.snap.point : undefined, this.first].filter((id) => id !== undefined);
    return ids.map((id) => ({ id, at: this.host.reachable.point(id) }));
  }

  private has(point: Id): boolean {
    return findEntity(this.host.reachable.entities, point) !== undefined;
  }

  get isBusy(): boolean {
    return this.last !== undefined;
  }

  get hint(): string {
    if (!this.last) return this.bent ? 'Click the end of a line or curve.' : orTyped('Click where the chain begins.');
    const other = this.bent ? 'T: a line next.' : this.last.heading ? 'T: a tangent arc next.' : '';
    return `Click the next point; the first point closes; Esc ends. ${other}`.trim();
  }

  key(key: string): boolean {
    if (key !== 't' || !this.last?.heading) return false;
    this.bent = !this.bent;
    this.preview = NO_PREVIEW;
    return true;
  }

  /** Of a line its length and direction, of an arc its radius. */
  get sizes(): readonly DrawnSize[] {
    if (!this.pointer) return [];
    if (!this.last)
      return this.bent ? [] : placingSizes(this.host.anchoring.anchor, this.find(this.pointer).place, this.pointer);
    const { start, end } = this.piece(this.pointer);
    const arc = this.arcTo(end.place);
    if (arc) return [{ prompt: 'radius', asks: LENGTH, now: distance2(arc.centre, arc.a) }];
    const numbers = this.bent ? [] : LINE.read([start!.place], end.place)!;
    return numbers.map((now, k) => ({ ...LINE.asked[k]!, now }));
  }

  get naming(): readonly Action[] {
    return this.begunNaming;
  }

  keep(typed: TypedSizes): undefined {
    this.typed = typed;
    if (this.pointer) this.move(this.pointer);
  }

  move(pointer: PointerAt): void {
    this.pointer = pointer;
    const { start, end: found, touches } = this.piece(pointer);
    if (!start && found.point !== undefined) this.host.anchoring.touch(found.point);
    const from = start?.place;
    const counted = start || this.bent || found.apart ? [] : anchorSigns(this.host.anchoring.anchor);
    const arc = this.arcTo(found.place);
    const pieces = !from
      ? []
      : arc
        ? [arcBetween('', arc.centre, distance2(arc.centre, arc.a), arc.a, arc.b)]
        : [straight(from, found.place)];
    const tangent = from && (arc || this.goesOn(found.place, pointer)) ? [{ at: from, mark: 'T' }] : [];
    const touching = touches.map((of) => ({ at: of === start?.on ? start.place : found.place, mark: 'T', of }));
    const square = from && this.square(found, pointer) ? [{ at: from, mark: '⊥' }] : [];
    const quarter =
      arc && found.quarter ? [{ at: middle2(arc.centre, found.place), mark: relationKind(found.quarter).mark! }] : [];
    this.preview = {
      pieces,
      guides: guidesOf(found),
      tags: [...tagsOf(found, from), ...counted, ...tangent, ...touching, ...square, ...quarter],
    };
  }

  down(pointer: PointerAt): void {
    this.pointer = pointer;
    const { start: first, end: found, touches } = this.piece(pointer);
    const { last } = this;
    if (!last || !first) {
      const begun: ChainEnd = { snap: found, ...this.arriving(found) };
      if (begun.heading || !this.bent) this.trail = [begun];
      this.begunNaming = namingOf(this.typed);
      this.typed = [];
      return;
    }
    const from = first.place;
    if (distance2(from, found.place) < 1e-6) return;
    const maker = new FigureMaker(this.host.newId);
    const [start, end] = [maker.point(first), maker.point(found)];
    const arc = this.arcTo(found.place);
    const piece = arc
      ? this.addArc(maker, arc, start, end, found)
      : maker.entity('l', { kind: 'line', a: start, b: end });
    if (!arc && found.level) maker.relate({ kind: found.level, a: piece });
    if (!arc && this.goesOn(found.place, pointer))
      maker.relate({ kind: 'tangent', circle: last.piece!.id, to: piece, side: 1 });
    for (const rim of touches) this.touch(maker, rim, piece);
    if (!arc && this.square(found, pointer)) maker.relate({ kind: 'perpendicular', a: last.piece!.id, b: piece });
    const { typed } = this;
    holdTyped(maker, arc ? [radiusOf(piece)] : [lengthOf(maker, piece), directionOf(piece)], typed);
    const naming = [...this.begunNaming, ...namingOf(typed)];
    this.typed = [];
    this.begunNaming = [];
    this.host.draw(maker.figure, arc ? 'arc' : 'line', naming, this.first !== undefined);
    this.begun = this.first ?? start;
    if (end === this.begun) {
      this.escape();
      return;
    }
    const heading = arc ? directionAtEnd(arc) : direction2(sub2(found.place, from))!;
    this.trail.push({
      snap: { place: found.place, point: end },
      heading,
      piece: { id: piece, round: arc !== undefined },
    });
    this.bent = false;
    this.preview = NO_PREVIEW;
  }

  escape(): boolean {
    const drawing = this.isBusy;
    this.begun = undefined;
    this.trail = [];
    this.typed = [];
    this.begunNaming = [];
    this.bent = this.beginsBent;
    this.preview = NO_PREVIEW;
    return drawing;
  }

  /** The piece to come, from where to where; a line that is drawn from or to a rim is guessed to touch it. */
  private piece(pointer: PointerAt): {
    readonly start: Snap | undefined;
    readonly end: Snap;
    readonly touches: readonly Id[];
  } {
    const [start, end] = [this.last?.snap, this.find(pointer)];
    const isGuessed = start && !this.bent && !pointer.free && this.typed.length === 0;
    const line = isGuessed && touchingLine(this.host.reachable, [start, end], pointer.reach);
    return line ? { start: line.from, end: line.to, touches: line.touches } : { start, end, touches: [] };
  }

  /** Where the typed numbers put it, else what is guessed. An arc is not kept level: only lines are. */
  private find(pointer: PointerAt): Snap {
    const from = this.last?.snap.place;
    const found = snapFor(this.host, pointer, this.bent ? undefined : from, this.beginnings);
    if (!from) return placedBy(this.host.anchoring.anchor, found, pointer, this.typed);
    const [first, second] = this.typed.map((size) => size?.size);
    if (first === undefined && second === undefined) return this.bent ? this.arcEnd(found, pointer) : found;
    if (this.bent)
      return this.arcEnd(
        keptAt(this.host, found, (at) => this.onArc(at, first), pointer),
        pointer,
        first,
      );
    const there = exactly(this.host, LINE.aim([from], found.place, [first, second])!);
    if (first === undefined && found.on !== undefined)
      return this.meeting(from, there.place, found.on, pointer.at) ?? there;
    if (second !== undefined) return there;
    // a length alone leaves the direction that was guessed
    const { level, on, point, middleOf } = found;
    if ((on ?? point ?? middleOf) !== undefined) {
      if (there.point !== undefined) return there;
      if (on !== undefined && distance2(footOn(this.host.reachable, on, there.place), there.place) < 1e-9)
        return { ...there, on, ...(level && { level }) };
    }
    // near to where it begins a direction is told by less than further off
    const nearBy = Math.min(pointer.reach, distance2(from, pointer.at) / 3);
    const nearly = pointer.free ? undefined : (level ?? levelOf(from, pointer.at, nearBy));
    if (!nearly) return there;
    const ahead: Vec2 = nearly === 'horizontal' ? [pointer.at[0], from[1]] : [from[0], pointer.at[1]];
    return { ...exactly(this.host, LINE.aim([from], ahead, [first, undefined])!), level: nearly };
  }

  /** Where a line in a direction that is typed meets a curve under the pointer. */
  private meeting(from: Vec2, towards: Vec2, on: Id, at: Vec2): Snap | undefined {
    const along = direction2(sub2(towards, from));
    if (!along || isBuiltIn(on)) return undefined;
    const ray = straight(from, add2(from, scale2(along, ENDLESS_mm)));
    const places = this.host.reachable
      .pieces(on)
      .flatMap((piece) => intersections(ray, piece, 1e-9).map(({ t }) => add2(from, scale2(along, t * ENDLESS_mm))));
    const [place] = places.toSorted((a, b) => distance2(a, at) - distance2(b, at));
    return place && { place, on };
  }

  /** Where the arc of this radius that bends towards a place comes nearest to it. */
  private onArc(at: Vec2, radius: number | undefined): Vec2 {
    const { heading, snap } = this.last!;
    if (radius === undefined || !heading) return at;
    const left = left2(heading);
    const side = dot2(sub2(at, snap.place), left) < 0 ? -1 : 1;
    const centre = add2(snap.place, scale2(left, side * radius));
    return add2(centre, scale2(direction2(sub2(at, centre)) ?? heading, radius));
  }

  /** Where an arc that began level or upright would end after a quarter of its turn, if that is near; else as it is. */
  private arcEnd(found: Snap, { free, reach }: PointerAt, radius?: number): Snap {
    const { heading, snap } = this.last!;
    const isHeld = (found.point ?? found.on ?? found.middleOf) !== undefined || found.aligned !== undefined;
    if (free || isHeld || !heading || Math.min(Math.abs(heading[0]), Math.abs(heading[1])) > LEVEL) return found;
    const way = sub2(found.place, snap.place);
    const [ahead, aside] = [dot2(way, heading), dot2(way, left2(heading))];
    const size = radius ?? (ahead + Math.abs(aside)) / 2;
    const there = add2(snap.place, add2(scale2(heading, size), scale2(left2(heading), Math.sign(aside) * size)));
    if (distance2(there, found.place) > Math.max(reach, radius === undefined ? 0 : radius / 8)) return found;
    return { place: there, quarter: Math.abs(heading[1]) < LEVEL ? 'horizontal' : 'vertical' };
  }

  private arcTo(place: Vec2): DrawnArc | undefined {
    return this.bent && this.last?.heading ? arcLeaving(this.last.snap.place, this.last.heading, place) : undefined;
  }

  /** Would a line to this place go on straight from the arc before it? A guess, held off like the others. */
  private goesOn(place: Vec2, { free }: PointerAt): boolean {
    if (free || this.bent || this.typed[1] || !this.last?.piece?.round) return false;
    const along = direction2(sub2(place, this.last.snap.place));
    return along !== undefined && Math.abs(cross2(this.last.heading!, along)) < TANGENT_GUESS;
  }

  /** Does a line to this place stand square on the one before it? A guess, where nothing simpler is. */
  private square(found: Snap, { free }: PointerAt): boolean {
    const { heading, piece, snap } = this.last ?? {};
    if (
      free ||
      this.bent ||
      this.typed[1] ||
      !heading ||
      !piece ||
      piece.round ||
      found.level ||
      found.point ||
      found.on
    )
      return false;
    // beside a level or upright line the level guess says it already
    if (Math.min(Math.abs(heading[0]), Math.abs(heading[1])) < 1e-6) return false;
    const along = direction2(sub2(found.place, snap!.place));
    return along !== undefined && Math.abs(dot2(heading, along)) < SQUARE_GUESS;
  }

  private touch(maker: FigureMaker, rim: Id, line: Id): void {
    const drawn = new Geometry({ ...this.host.reachable.entities, ...maker.entities });
    const relation = relationKind('tangent').fit([rim, line], drawn);
    if (relation) maker.relate(relation);
  }

  private addArc(maker: FigureMaker, arc: DrawnArc, start: Id, end: Id, { quarter }: Snap): Id {
    const id = maker.drawnArc(arc, start, end);
    if (quarter) maker.relate({ kind: quarter, a: (maker.entities[id] as { centre: Id }).centre, b: end });
    if (this.last!.piece) maker.relate({ kind: 'tangent', circle: id, to: this.last!.piece.id, side: 1 });
    return id;
  }

  /** The curve that ends where the chain begins, and how it arrives there. */
  private arriving({ point }: Snap): Partial<ChainEnd> {
    const { geometry } = this.host;
    if (point === undefined) return {};
    const curves = Object.keys(geometry.entities).filter((id) => geometry.ends(id).includes(point));
    const [id, other] = curves;
    if (id === undefined || other !== undefined) return {};
    const pieces = geometry.pieces(id);
    const last = geometry.ends(id)[0] === point ? reversed(pieces[0]!) : pieces.at(-1)!;
    const heading = direction2(derivatives(last, 1)[0]);
    return heading ? { heading, piece: { id, round: geometry.roleOf(id) !== 'line' } } : {};
  }
}
