import { add2, direction2, dot2, left2, scale2, sub2, type Vec2 } from '../../math/index.ts';
import { linearAnnotation, linearPlaces, rimPlaces, type Annotation } from '../../sketch/annotation.ts';
import { stretchesOf } from '../../sketch/annotation-layout.ts';
import { boxAround, type Box, type Piece } from '../../sketch/pieces/index.ts';
import { arrowPieces, labelInk, labelSize, type Label, type LabelRow } from '../label.ts';
import { segment } from '../picture.ts';
import type { MarkContext, MarkInk } from './kind.ts';

// How dimensions are drawn on paper (ISO 129-1), mm.

/** Dimension lines are so far from the outline and from each other, in heights of capitals. */
const LANE = 2.9;
/** How far dimension lines stand from each other, mm on paper. */
export const gapOf = ({ height }: MarkContext): number => LANE * height;

/** The room that a dimension with this label has, for its layout. */
const spaceOf = (context: MarkContext, label: Label) => {
  const [width, height] = labelSize(label);
  return { gap: gapOf(context), width, height, ...context.box };
};

/** A label of rows in the height of the sheet. */
export const labelOf = (context: MarkContext, ...rows: LabelRow[]): Label => ({ rows, height: context.height });

/** The box of a label, with its middle at a place, turned. */
function labelBox(label: Label, [x, y]: Vec2, angle: number): Box {
  const [w, h] = labelSize(label);
  const [c, s] = [Math.abs(Math.cos(angle)), Math.abs(Math.sin(angle))];
  const [dx, dy] = [(w * c + h * s) / 2, (w * s + h * c) / 2];
  return { low: [x - dx, y - dy], high: [x + dx, y + dy] };
}

const strokePieces = (stroke: readonly Vec2[]): Piece[] => stretchesOf(stroke).map(([from, to]) => segment(from, to));

/** A drawn dimension with its label. @param angle in which the label is turned, rad */
export function inked({ strokes, arrows, text }: Annotation, label: Label, angle: number): MarkInk {
  const [line = [], ...extensions] = strokes;
  return {
    ...withLabel([...strokes.flatMap(strokePieces), ...arrows.flatMap(arrowOf)], label, text, angle),
    lines: stretchesOf(line),
    thin: extensions.flatMap(stretchesOf),
  };
}
const arrowOf = ({ tip, pointing }: Annotation['arrows'][number]): Piece[] => arrowPieces(tip, pointing);

/** Lines with the ink of their label, its middle at a place, turned by an angle, rad. */
export function withLabel(
  pieces: readonly Piece[],
  label: Label,
  text: Vec2,
  angle = 0,
): Omit<MarkInk, 'lines' | 'thin'> {
  const { pieces: signs, letters } = labelInk(label, text, angle);
  return { pieces: [...pieces, ...signs], letters, text: labelBox(label, text, angle) };
}

/** Text along a line reads from below or from the right. */
function readable([x, y]: Vec2): number {
  const angle = Math.atan2(y, x);
  if (angle > Math.PI / 2 + 1e-9) return angle - Math.PI;
  return angle <= -Math.PI / 2 + 1e-9 ? angle + Math.PI : angle;
}

/** Places and drawing of a dimension between two places along a direction, on paper. */
export function linear(p: readonly Vec2[], q: readonly Vec2[], along: Vec2, label: Label, context: MarkContext) {
  const space = spaceOf(context, label);
  const angle = readable(along);
  const [a, b] = [middleOf(p), middleOf(q)];
  return {
    places: () => linearPlaces(a, b, along, space),
    draw(at: Vec2): MarkInk {
      const [from, to] = [nearestBeside(p, along, at), nearestBeside(q, along, at)];
      const { line, ...rest } = alongLine(from, to, along, at, space);
      return inked({ ...rest, strokes: [line, ...rest.strokes] }, label, angle);
    },
  };
}

/** As sketches draw it, but with the text above the line as it is turned. */
function alongLine(from: Vec2, to: Vec2, along: Vec2, at: Vec2, space: { gap: number; width: number; height: number }) {
  const drawn = linearAnnotation(from, to, along, at, space);
  const [line = [], ...strokes] = drawn.strokes;
  const angle = readable(along);
  const up: Vec2 = [-Math.sin(angle), Math.cos(angle)];
  const middle = scale2(add2(line[0]!, line.at(-1)!), 0.5);
  const over = dot2(sub2(drawn.text, middle), up);
  const lift = 0.85 * space.height;
  return { ...drawn, line, strokes, text: add2(drawn.text, scale2(up, lift - over)) };
}

/** The place that dimensions are laid out for. */
function middleOf(places: readonly Vec2[]): Vec2 {
  const { low, high } = boxAround(places);
  return [(low[0] + high[0]) / 2, (low[1] + high[1]) / 2];
}

/** Of a thing the place from which a dimension line through `at` is reached on the shortest way. */
function nearestBeside(places: readonly Vec2[], along: Vec2, at: Vec2): Vec2 {
  const across = left2(along);
  return places.reduce((best, place) =>
    Math.abs(dot2(sub2(place, at), across)) < Math.abs(dot2(sub2(best, at), across)) - 1e-9 ? place : best,
  );
}

/** A leader from a place to a text with a shelf under it. @param pointing of the arrow; towards the place if absent */
export function leader(tip: Vec2, at: Vec2, label: Label, context: MarkContext, pointing?: Vec2): MarkInk {
  const [width, tall] = labelSize(label);
  const side = at[0] >= tip[0] ? 1 : -1;
  const under = at[1] - tall / 2 - 0.35 * context.height;
  const [near, far]: Vec2[] = [
    [at[0] - (side * width) / 2, under],
    [at[0] + (side * width) / 2, under],
  ] as Vec2[];
  const way = pointing ?? direction2(sub2(tip, near!)) ?? [0, -1];
  const pieces = [segment(tip, near!), segment(near!, far!), ...arrowPieces(tip, way)];
  return { ...withLabel(pieces, label, at), lines: [[tip, near!]] };
}

/** Places for the text of a leader. */
export const leaderPlaces = (tip: Vec2, radius: number, label: Label, context: MarkContext): Vec2[] =>
  rimPlaces(tip, radius, { gap: gapOf(context), width: labelSize(label)[0] });

/** A leader whose arrow stands on the rim of a circle, pointing to its middle. */
export function toRim(centre: Vec2, radius: number, at: Vec2, label: Label, context: MarkContext): MarkInk {
  const out = direction2(sub2(at, centre)) ?? [0, 1];
  return leader(add2(centre, scale2(out, radius)), at, label, context, scale2(out, -1));
}
