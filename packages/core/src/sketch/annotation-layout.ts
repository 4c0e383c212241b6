import { cross2, direction2, dot2, sub2, type Vec2 } from '../math/index.ts';
import type { Annotation, AnnotationSpace } from './annotation.ts';
import type { Geometry } from './geometry.ts';
import { boxesOverlap, polyline, type Box } from './pieces/index.ts';
import { relationKind, type SizedRelation } from './relations/index.ts';

/** A dimension to be drawn, with the width of its text in mm, and what it is told to be where that is known (mm or rad). */
export interface DimensionText {
  readonly relation: SizedRelation;
  readonly width: number;
  readonly amount?: number | undefined;
}

/** Something to be placed: what it is like with its text at a place. */
interface Placeable<T> {
  /** Where it was put by hand. */
  readonly at?: Vec2 | undefined;
  /** Where others are: it keeps out of there. */
  readonly avoid?: readonly Box[];
  /** Places for its text, the usual one first. */
  places(): readonly Vec2[];
  draw(at: Vec2): T;
}

type Stretch = readonly [Vec2, Vec2];

/** The straight stretches from each of a row of places to the next. */
export const stretchesOf = (places: readonly Vec2[]): Stretch[] => places.slice(1).map((to, k) => [places[k]!, to]);

/** What a drawn thing takes up: its text, and lines that others keep off. */
export interface Taken {
  readonly text: Box;
  readonly lines: readonly Stretch[];
  /** Lines that others may cross and run along, but no text should lie on: extension lines. */
  readonly thin?: readonly Stretch[];
}

/**
 * Places things so that no text lies on another, on a dimension line or on the outline, as long as there is room: those
 * placed by hand stay, the others take the first free place of their own, in the order given.
 * @param gap between dimension lines, mm @param before what is there already
 */
export function laidOutFreely<T>(
  items: readonly Placeable<T>[],
  takes: (drawn: T, index: number) => Taken,
  outline: readonly Stretch[],
  gap: number,
  before: readonly Taken[] = [],
): T[] {
  const sheet = new Sheet(outline, gap);
  before.forEach((one) => sheet.add(one));
  const drawn = items.map((): T | undefined => undefined);
  items.forEach(({ at, draw }, k) => {
    if (at) sheet.add(takes((drawn[k] = draw(at)), k));
  });
  items.forEach((item, k) => {
    if (drawn[k] !== undefined) return;
    let [best, fewest] = [undefined as T | undefined, Infinity];
    for (const at of item.places()) {
      const candidate = item.draw(at);
      const troubles = sheet.troubles(takes(candidate, k), item.avoid);
      if (troubles < fewest) [best, fewest] = [candidate, troubles];
      if (fewest === 0) break;
    }
    sheet.add(takes((drawn[k] = best!), k));
  });
  return drawn.map((one) => one!);
}

/** Draws all dimensions of a sketch. */
export function layoutDimensions(
  items: readonly DimensionText[],
  geometry: Geometry,
  { gap, height }: Pick<AnnotationSpace, 'gap' | 'height'>,
): Annotation[] {
  const box = geometry.box() ?? { low: [0, 0] as const, high: [0, 0] as const };
  return laidOutFreely(
    items.map(({ relation, width, amount }) => {
      const { dimension } = relationKind(relation.kind);
      const space = { ...box, gap, width, height, amount };
      return {
        at: relation.at,
        places: () => dimension!.places(relation, geometry, space),
        draw: (at) => dimension!.annotate(relation, geometry, space, at),
      };
    }),
    (annotation, k) => ({ text: textBox(annotation, items[k]!.width, height), lines: dimensionLine(annotation) }),
    outlineOf(geometry),
    gap,
  );
}

/** The box of the text. */
export function textBox({ text: [x, y], upright }: Annotation, width: number, height: number): Box {
  const [w, h] = upright ? [height / 2, width / 2] : [width / 2, height / 2];
  return { low: [x - w, y - h], high: [x + w, y + h] };
}

const outlineOf = (geometry: Geometry): Stretch[] =>
  Object.keys(geometry.entities).flatMap((id) => geometry.pieces(id).flatMap((piece) => stretchesOf(polyline(piece))));

/** What is on the sheet already. */
class Sheet {
  private readonly texts: Box[] = [];
  private readonly lines: Stretch[] = [];
  private readonly thin: Stretch[] = [];

  constructor(
    private readonly outline: readonly Stretch[],
    private readonly gap: number,
  ) {}

  add({ text, lines, thin = [] }: Taken): void {
    this.texts.push(text);
    this.lines.push(...lines);
    this.thin.push(...thin);
  }

  /** How often a dimension here would lie on something; on another text counts most. */
  troubles({ text, lines: own, thin = [] }: Taken, avoid: readonly Box[] = []): number {
    return (
      5 * avoid.filter((box) => boxesOverlap(box, text, 0) || own.some((line) => crosses(line, box))).length +
      4 * this.texts.filter((other) => boxesOverlap(other, text, this.gap * 0.1)).length +
      2 * this.texts.filter((other) => own.some((line) => crosses(line, other))).length +
      2 * this.lines.filter((line) => crosses(line, text)).length +
      2 * this.lines.filter((line) => own.some((mine) => runTogether(mine, line, this.gap * 0.4))).length +
      [...this.outline, ...this.thin].filter((line) => crosses(line, text)).length +
      this.texts.filter((other) => thin.some((line) => crosses(line, other))).length
    );
  }
}

/** The dimension line without extension lines, as straight stretches. */
const dimensionLine = ({ strokes: [line = []] }: Annotation): Stretch[] => stretchesOf(line);

/** Does the stretch go through the box? (Liang, Barsky 1984) */
function crosses([p, q]: Stretch, { low, high }: Box): boolean {
  let [enter, leave] = [0, 1];
  for (const k of [0, 1] as const) {
    const run = q[k] - p[k];
    if (Math.abs(run) < 1e-12) {
      if (p[k] <= low[k] || p[k] >= high[k]) return false;
      continue;
    }
    const [a, b] = [(low[k] - p[k]) / run, (high[k] - p[k]) / run];
    enter = Math.max(enter, Math.min(a, b));
    leave = Math.min(leave, Math.max(a, b));
  }
  return enter < leave;
}

/** Do two stretches run along each other, nearer than this? */
function runTogether(mine: Stretch, other: Stretch, near: number): boolean {
  const u = direction2(sub2(mine[1], mine[0]));
  const v = direction2(sub2(other[1], other[0]));
  if (!u || !v || Math.abs(cross2(u, v)) > 0.05 || Math.abs(cross2(u, sub2(other[0], mine[0]))) > near) return false;
  const along = (place: Vec2) => dot2(u, sub2(place, mine[0]));
  const [low, high] = [0, along(mine[1])];
  const [a, b] = [along(other[0]), along(other[1])];
  return Math.min(a, b) < high - 1e-9 && Math.max(a, b) > low + 1e-9;
}
