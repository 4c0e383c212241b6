import { add2, chordKnots, distance2, scale2, splineSpans, sub2, type Vec2 } from '@helb/core';
import type { Snap } from './snapping.ts';
import {
  FigureMaker,
  guidesOf,
  NO_PREVIEW,
  snapFor,
  tagsOf,
  type PointerAt,
  type Preview,
  type Tool,
  type ToolHost,
} from './tool.ts';

const MOST_POINTS = 100;

/** A smooth curve through as many clicks as one likes; Enter, or a second click on the last point, ends it. */
export class SplineTool implements Tool {
  readonly name = 'spline';
  preview: Preview = NO_PREVIEW;
  private clicked: Snap[] = [];

  constructor(private readonly host: ToolHost) {}

  get hint(): string {
    return this.clicked.length < 2
      ? 'Click the places that the spline goes through.'
      : 'Click on; Enter or a click on the last place ends it.';
  }

  key(key: string): boolean {
    if (key !== 'Enter' || this.clicked.length < 2) return false;
    this.finish();
    return true;
  }

  move(pointer: PointerAt): void {
    const found = snapFor(this.host, pointer);
    const places = [...this.clicked, found].map(({ place }) => place).filter(isNew);
    const pieces = places.length < 2 ? [] : splineSpans('', chordKnots(places), withHandles(places));
    this.preview = { pieces, guides: guidesOf(found), tags: tagsOf(found) };
  }

  down(pointer: PointerAt): void {
    const found = snapFor(this.host, pointer);
    const last = this.clicked.at(-1);
    if (last && distance2(last.place, found.place) < pointer.reach / 2) {
      if (this.clicked.length >= 2) this.finish();
      return;
    }
    this.clicked.push(found);
    if (this.clicked.length === MOST_POINTS) this.finish();
  }

  get isBusy(): boolean {
    return this.clicked.length > 0;
  }

  escape(): boolean {
    const drawing = this.isBusy;
    this.clicked = [];
    this.preview = NO_PREVIEW;
    return drawing;
  }

  private finish(): void {
    const maker = new FigureMaker(this.host.newId);
    const places = this.clicked.map(({ place }) => place);
    const handles = withHandles(places);
    const points = this.clicked.map((snap) => maker.point(snap));
    const ends = { start: maker.place(handles[0]!), end: maker.place(handles.at(-1)!) };
    maker.entity('s', { kind: 'spline', points, ...ends, knots: chordKnots(places) });
    this.host.draw(maker.figure, 'spline');
    this.escape();
  }
}

const isNew = (place: Vec2, k: number, all: readonly Vec2[]): boolean =>
  k === 0 || distance2(place, all[k - 1]!) > 1e-6;

/** Handles a third of the way to the next place: the ends leave towards their neighbours. */
const withHandles = (places: readonly Vec2[]): Vec2[] => {
  const towards = (a: Vec2, b: Vec2) => add2(a, scale2(sub2(b, a), 1 / 3));
  return [towards(places[0]!, places[1]!), ...places, towards(places.at(-1)!, places.at(-2)!)];
};
