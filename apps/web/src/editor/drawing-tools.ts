import { centredRectangle, distance2, ORIGIN, rectangle, type Id, type Vec2 } from '@helb/core';
import type { Snap } from './snapping.ts';
import {
  FigureMaker,
  NO_PREVIEW,
  snapFor,
  tagsOf,
  type PointerAt,
  type Preview,
  type Tool,
  type ToolHost,
} from './tool.ts';

/** Lines end to end; each click sets one. Clicking the first point closes the chain. */
export class ChainTool implements Tool {
  readonly name = 'chain';
  preview: Preview = NO_PREVIEW;
  private first: Id | undefined;
  private last: { readonly place: Vec2; readonly snap: Snap } | undefined;

  constructor(private readonly host: ToolHost) {}

  get hint(): string {
    return this.last ? 'Click the next point; the first point closes; Esc ends.' : 'Click where the chain begins.';
  }

  move(pointer: PointerAt): void {
    const found = snapFor(this.host, pointer, this.last?.place);
    const from = this.last?.place;
    this.preview = { ...NO_PREVIEW, lines: from ? [[from, found.place]] : [], tags: tagsOf(found, from) };
  }

  down(pointer: PointerAt): void {
    const found = snapFor(this.host, pointer, this.last?.place);
    if (!this.last) {
      this.last = { place: found.place, snap: found };
      return;
    }
    if (distance2(this.last.place, found.place) < 1e-6) return;
    const figure = new FigureMaker(this.host.newId);
    const a = figure.point(this.last.snap);
    const b = figure.point(found);
    const line = figure.entity('l', { kind: 'line', a, b });
    if (found.level) figure.relate({ kind: found.level, a: line });
    this.first ??= a;
    const closed = b === this.first;
    this.host.draw(figure.figure, 'line');
    if (closed) this.escape();
    else this.last = { place: found.place, snap: { place: found.place, point: b } };
    this.preview = NO_PREVIEW;
  }

  escape(): boolean {
    const drawing = this.last !== undefined;
    this.first = this.last = undefined;
    this.preview = NO_PREVIEW;
    return drawing;
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

const box = ([x0, y0]: Vec2, [x1, y1]: Vec2): Preview['lines'] => [
  [
    [x0, y0],
    [x1, y0],
  ],
  [
    [x1, y0],
    [x1, y1],
  ],
  [
    [x1, y1],
    [x0, y1],
  ],
  [
    [x0, y1],
    [x0, y0],
  ],
];

export class RectangleTool extends TwoClickTool {
  readonly name = 'rectangle';
  protected readonly words = ['Click one corner.', 'Click the opposite corner.'] as const;
  protected outline = (start: Vec2, end: Vec2) => ({ lines: box(start, end) });

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
    lines: box([2 * start[0] - end[0], 2 * start[1] - end[1]], end),
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
  protected outline = (start: Vec2, end: Vec2) => ({ circles: [{ centre: start, radius: distance2(start, end) }] });
  protected override possible = (a: Vec2, b: Vec2, reach: number): boolean => distance2(a, b) > reach / 4;

  protected make(start: Snap, end: Snap): void {
    const maker = new FigureMaker(this.host.newId);
    const centre = maker.point(start);
    const circle = maker.entity('c', { kind: 'circle', centre, radius: distance2(start.place, end.place) });
    if (end.point !== undefined) maker.relate({ kind: 'coincident', a: end.point, b: circle });
    this.host.draw(maker.figure, 'circle');
  }
}
