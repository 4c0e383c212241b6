import {
  add2,
  arcBetween,
  arcLeaving,
  arcThrough,
  centredRectangle,
  cross2,
  direction2,
  directionAtEnd,
  distance2,
  fullCircle,
  ORIGIN,
  rectangle,
  scale2,
  sub2,
  type DrawnArc,
  type Id,
  type Vec2,
} from '@helb/core';
import type { Snap } from './snapping.ts';
import {
  FigureMaker,
  NO_PREVIEW,
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

/** Where a chain goes on from, and in which direction its last piece arrived there. */
interface ChainEnd {
  readonly snap: Snap;
  readonly heading?: Vec2;
  /** The last piece: what touches it is related to it. */
  readonly piece?: { readonly id: Id; readonly round: boolean };
}

/** Lines and tangent arcs end to end; each click sets one. Clicking the first point closes the chain. */
export class ChainTool implements Tool {
  readonly name = 'chain';
  preview: Preview = NO_PREVIEW;
  private first: Id | undefined;
  private last: ChainEnd | undefined;
  private bent = false;

  constructor(private readonly host: ToolHost) {}

  get hint(): string {
    if (!this.last) return 'Click where the chain begins.';
    const other = this.bent ? 'T: a line next.' : this.last.heading ? 'T: a tangent arc next.' : '';
    return `Click the next point; the first point closes; Esc ends. ${other}`.trim();
  }

  key(key: string): boolean {
    if (key !== 't' || !this.last?.heading) return false;
    this.bent = !this.bent;
    this.preview = NO_PREVIEW;
    return true;
  }

  move(pointer: PointerAt): void {
    const from = this.last?.snap.place;
    const found = this.find(pointer);
    const arc = this.arcTo(found.place);
    const pieces = !from
      ? []
      : arc
        ? [arcBetween('', arc.centre, distance2(arc.centre, arc.a), arc.a, arc.b)]
        : [straight(from, found.place)];
    const tangent = from && (arc || this.goesOn(found.place, pointer)) ? [{ at: from, mark: 'T' }] : [];
    this.preview = { ...NO_PREVIEW, pieces, tags: [...tagsOf(found, from), ...tangent] };
  }

  down(pointer: PointerAt): void {
    const found = this.find(pointer);
    if (!this.last) {
      this.last = { snap: found };
      return;
    }
    const from = this.last.snap.place;
    if (distance2(from, found.place) < 1e-6) return;
    const maker = new FigureMaker(this.host.newId);
    const [start, end] = [maker.point(this.last.snap), maker.point(found)];
    const arc = this.arcTo(found.place);
    const piece = arc ? this.addArc(maker, arc, start, end) : maker.entity('l', { kind: 'line', a: start, b: end });
    if (!arc && found.level) maker.relate({ kind: found.level, a: piece });
    if (!arc && this.goesOn(found.place, pointer))
      maker.relate({ kind: 'tangent', circle: this.last.piece!.id, to: piece, side: 1 });
    this.first ??= start;
    this.host.draw(maker.figure, arc ? 'arc' : 'line');
    if (end === this.first) {
      this.escape();
      return;
    }
    const heading = arc ? directionAtEnd(arc) : direction2(sub2(found.place, from))!;
    this.last = { snap: { place: found.place, point: end }, heading, piece: { id: piece, round: arc !== undefined } };
    this.bent = false;
    this.preview = NO_PREVIEW;
  }

  escape(): boolean {
    const drawing = this.last !== undefined;
    this.first = this.last = undefined;
    this.bent = false;
    this.preview = NO_PREVIEW;
    return drawing;
  }

  /** An arc is not kept level: only lines are. */
  private find(pointer: PointerAt): Snap {
    return snapFor(this.host, pointer, this.bent ? undefined : this.last?.snap.place);
  }

  private arcTo(place: Vec2): DrawnArc | undefined {
    return this.bent && this.last?.heading ? arcLeaving(this.last.snap.place, this.last.heading, place) : undefined;
  }

  /** Would a line to this place go on straight from the arc before it? A guess, held off like the others. */
  private goesOn(place: Vec2, { free }: PointerAt): boolean {
    if (free || this.bent || !this.last?.piece?.round) return false;
    const along = direction2(sub2(place, this.last.snap.place));
    return along !== undefined && Math.abs(cross2(this.last.heading!, along)) < TANGENT_GUESS;
  }

  private addArc(maker: FigureMaker, arc: DrawnArc, start: Id, end: Id): Id {
    const id = addArc(maker, arc, start, end);
    if (this.last!.piece) maker.relate({ kind: 'tangent', circle: id, to: this.last!.piece.id, side: 1 });
    return id;
  }
}

/** The arc between two points, with a centre of its own. */
function addArc(maker: FigureMaker, arc: DrawnArc, start: Id, end: Id): Id {
  const centre = maker.point({ place: arc.centre });
  const [a, b] = arc.turned ? [end, start] : [start, end];
  return maker.entity('a', { kind: 'arc', centre, a, b, radius: distance2(arc.centre, arc.a) });
}

/** A figure that three clicks make, each place snapped. */
abstract class ThreeClickTool implements Tool {
  abstract readonly name: string;
  protected abstract readonly words: readonly [string, string, string];
  preview: Preview = NO_PREVIEW;
  private readonly clicked: Snap[] = [];

  constructor(protected readonly host: ToolHost) {}

  get hint(): string {
    return this.words[this.clicked.length]!;
  }

  move(pointer: PointerAt): void {
    const found = snapFor(this.host, pointer);
    const [first, second] = this.clicked;
    const arc = first && second && this.arc(first.place, second.place, found.place);
    const pieces = arc
      ? [arcBetween('', arc.centre, distance2(arc.centre, arc.a), arc.a, arc.b)]
      : first
        ? [straight(first.place, (second ?? found).place)]
        : [];
    this.preview = { ...NO_PREVIEW, pieces, tags: tagsOf(found) };
  }

  down(pointer: PointerAt): void {
    const found = snapFor(this.host, pointer);
    const before = this.clicked.at(-1);
    if (before && distance2(before.place, found.place) < pointer.reach / 4) return;
    const [first, second] = this.clicked;
    if (!first || !second) {
      this.clicked.push(found);
      return;
    }
    const arc = this.arc(first.place, second.place, found.place);
    if (!arc) return;
    const maker = new FigureMaker(this.host.newId);
    this.make(maker, arc, first, second, found);
    this.host.draw(maker.figure, 'arc');
    this.escape();
  }

  escape(): boolean {
    const drawing = this.clicked.length > 0;
    this.clicked.length = 0;
    this.preview = NO_PREVIEW;
    return drawing;
  }

  /** The arc that three places make; undefined where they make none. */
  protected abstract arc(first: Vec2, second: Vec2, third: Vec2): DrawnArc | undefined;
  protected abstract make(maker: FigureMaker, arc: DrawnArc, first: Snap, second: Snap, third: Snap): void;
}

export class ArcTool extends ThreeClickTool {
  readonly name = 'arc';
  protected readonly words = ['Click where the arc begins.', 'Click where it ends.', 'Click a place on it.'] as const;
  protected arc = arcThrough;

  protected make(maker: FigureMaker, arc: DrawnArc, first: Snap, second: Snap, third: Snap): void {
    const id = addArc(maker, arc, maker.point(first), maker.point(second));
    if (third.point !== undefined) maker.relate({ kind: 'coincident', a: third.point, b: id });
  }
}

export class CentredArcTool extends ThreeClickTool {
  readonly name = 'centred arc';
  protected readonly words = [
    'Click the centre.',
    'Click where the arc begins.',
    'Click where it ends, counter-clockwise.',
  ] as const;

  protected arc(centre: Vec2, start: Vec2, towards: Vec2): DrawnArc | undefined {
    const out = direction2(sub2(towards, centre));
    const radius = distance2(centre, start);
    return out && { centre, a: start, b: add2(centre, scale2(out, radius)), turned: false };
  }

  protected make(maker: FigureMaker, arc: DrawnArc, centre: Snap, start: Snap, end: Snap): void {
    // the end lies on the circle: an existing point there is used, a guess beside it is not
    const near = end.point !== undefined && distance2(end.place, arc.b) < 1e-6 ? end : { place: arc.b };
    const ids = { centre: maker.point(centre), a: maker.point(start), b: maker.point(near) };
    maker.entity('a', { kind: 'arc', ...ids, radius: distance2(arc.centre, arc.a) });
  }
}

/** A figure that two clicks make. */
abstract class TwoClickTool implements Tool {
  abstract readonly name: string;
  protected abstract readonly words: readonly [first: string, second: string];
  preview: Preview = NO_PREVIEW;
  private start: Snap | undefined;

  constructor(protected readonly host: ToolHost) {}

  get hint(): string {
    return this.words[this.start ? 1 : 0];
  }

  move(pointer: PointerAt): void {
    const found = snapFor(this.host, pointer);
    const shape = this.start ? this.outline(this.start.place, found.place) : {};
    this.preview = { ...NO_PREVIEW, ...shape, tags: tagsOf(found) };
  }

  down(pointer: PointerAt): void {
    const found = snapFor(this.host, pointer);
    if (!this.start) {
      this.start = found;
      return;
    }
    if (!this.possible(this.start.place, found.place, pointer.reach)) return;
    this.make(this.start, found);
    this.escape();
  }

  escape(): boolean {
    const drawing = this.start !== undefined;
    this.start = undefined;
    this.preview = NO_PREVIEW;
    return drawing;
  }

  protected possible(a: Vec2, b: Vec2, reach: number): boolean {
    return Math.abs(a[0] - b[0]) > reach / 4 && Math.abs(a[1] - b[1]) > reach / 4;
  }

  protected abstract outline(start: Vec2, end: Vec2): Partial<Preview>;
  protected abstract make(start: Snap, end: Snap): void;
}

const box = ([x0, y0]: Vec2, [x1, y1]: Vec2): Preview['pieces'] => {
  const corners: Vec2[] = [
    [x0, y0],
    [x1, y0],
    [x1, y1],
    [x0, y1],
  ];
  return corners.map((corner, k) => straight(corner, corners[(k + 1) % 4]!));
};

export class RectangleTool extends TwoClickTool {
  readonly name = 'rectangle';
  protected readonly words = ['Click one corner.', 'Click the opposite corner.'] as const;
  protected outline = (start: Vec2, end: Vec2) => ({ pieces: box(start, end) });

  protected make(start: Snap, end: Snap): void {
    const maker = new FigureMaker(this.host.newId);
    const { entities, relations, corners } = rectangle(this.host.newId, start.place, end.place);
    Object.assign(maker.entities, entities);
    Object.assign(maker.relations, relations);
    for (const [corner, found] of [
      [corners[0]!, start],
      [corners[2]!, end],
    ] as const)
      attach(maker, corner, found);
    this.host.draw(maker.figure, 'rectangle');
  }
}

/** Lays a corner of a ready-made figure on what was snapped to. */
function attach(maker: FigureMaker, corner: Id, { point, on, middleOf }: Snap): void {
  if (point !== undefined || on !== undefined) maker.relate({ kind: 'coincident', a: corner, b: (point ?? on)! });
  if (middleOf !== undefined) maker.relate({ kind: 'midpoint', point: corner, line: middleOf });
}

export class CentredRectangleTool extends TwoClickTool {
  readonly name = 'centred rectangle';
  protected readonly words = ['Click the centre.', 'Click a corner.'] as const;
  protected outline = (start: Vec2, end: Vec2) => ({
    pieces: box([2 * start[0] - end[0], 2 * start[1] - end[1]], end),
  });

  protected make(start: Snap, end: Snap): void {
    const maker = new FigureMaker(this.host.newId);
    // the middle of the diagonal may lie on the origin itself
    const centre = start.point === ORIGIN ? ORIGIN : maker.point(start);
    const { entities, relations, corners } = centredRectangle(this.host.newId, centre, start.place, end.place);
    Object.assign(maker.entities, entities);
    Object.assign(maker.relations, relations);
    attach(maker, corners[2]!, end);
    this.host.draw(maker.figure, 'rectangle');
  }
}

export class CircleTool extends TwoClickTool {
  readonly name = 'circle';
  protected readonly words = ['Click the centre.', 'Click how far the circle reaches.'] as const;
  protected outline = (start: Vec2, end: Vec2) => ({ pieces: [fullCircle('', start, distance2(start, end))] });
  protected override possible = (a: Vec2, b: Vec2, reach: number): boolean => distance2(a, b) > reach / 4;

  protected make(start: Snap, end: Snap): void {
    const maker = new FigureMaker(this.host.newId);
    const centre = maker.point(start);
    const circle = maker.entity('c', { kind: 'circle', centre, radius: distance2(start.place, end.place) });
    if (end.point !== undefined) maker.relate({ kind: 'coincident', a: end.point, b: circle });
    this.host.draw(maker.figure, 'circle');
  }
}
