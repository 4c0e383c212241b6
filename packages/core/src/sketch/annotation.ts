import { add2, dot2, left2, middle2, scale2, sub2, type Vec2 } from '../math/index.ts';

/** A dimension as drawn, in sketch millimetres. */
export interface Annotation {
  /** Thin lines: extension lines, dimension line, leaders, arcs as polylines. */
  readonly strokes: readonly (readonly Vec2[])[];
  readonly arrows: readonly { readonly tip: Vec2; readonly pointing: Vec2 }[];
  /** Centre of the text. */
  readonly text: Vec2;
  /** Text is turned to read from the right-hand side of the sheet. */
  readonly upright: boolean;
}

/** What the drawing of a dimension needs to know of its surroundings. */
export interface AnnotationSpace {
  /** Distance of a dimension line from its outline, mm; a fixed number of pixels at the present zoom. */
  readonly gap: number;
  /** Width and height of its text, mm. */
  readonly width: number;
  readonly height: number;
  /** What it is told to be, mm or rad, where that is known: how it is drawn may hang on its sign. */
  readonly amount?: number | undefined;
  /** Box round the sketch: dimensions are placed outside it. */
  readonly low: Vec2;
  readonly high: Vec2;
}

/**
 * A linear dimension from p to q, measured along `along` (unit vector), its dimension line through `through`.
 * ISO 129-1: extension lines reach a little beyond the dimension line and start with a small gap; where the text has no
 * room between them the dimension line goes on under it.
 */
export function linearAnnotation(p: Vec2, q: Vec2, along: Vec2, through: Vec2, { gap, width }: TextSpace): Annotation {
  const across = left2(along);
  const height = dot2(through, across);
  const foot = (place: Vec2): Vec2 => add2(place, scale2(across, height - dot2(place, across)));
  const a = foot(p);
  const b = foot(q);
  const extension = (from: Vec2, to: Vec2): Vec2[] => {
    const reach = dot2(sub2(to, from), across);
    if (Math.abs(reach) < gap / 4) return [];
    const beyond = (Math.sign(reach) * gap) / 5;
    return [add2(from, scale2(across, beyond)), add2(to, scale2(across, beyond))];
  };
  const pointing = dot2(sub2(b, a), along) >= 0 ? along : scale2(along, -1);
  const slope = Math.abs(along[1]) > 0.71;
  // text above the line, or left of an upright one
  const above = scale2(across, (slope ? Math.sign(-across[0]) : Math.sign(across[1])) * gap * 0.32);
  const middle = scale2(add2(a, b), 0.5);
  const offset = dot2(sub2(through, middle), along);
  const half = Math.abs(dot2(sub2(b, a), along)) / 2;
  const within = Math.abs(offset) < half + width + gap * 4 ? offset : 0;
  const beyond = Math.abs(within) > half ? Math.sign(within) * (Math.abs(within) + width / 2) : 0;
  const line =
    beyond === 0
      ? [a, b]
      : [add2(middle, scale2(along, -Math.sign(beyond) * half)), add2(middle, scale2(along, beyond))];
  return {
    strokes: [line, extension(p, a), extension(q, b)].filter((stroke) => stroke.length > 0),
    arrows: [
      { tip: a, pointing: scale2(pointing, -1) },
      { tip: b, pointing },
    ],
    text: add2(add2(middle, scale2(along, within)), above),
    upright: slope,
  };
}

/** The gap of the drawing and the width of the text, mm. */
type TextSpace = Pick<AnnotationSpace, 'gap' | 'width'>;

/** A leader from a circle's rim outwards to the text, the arrow on the rim. */
export function rimAnnotation(
  centre: Vec2,
  radius: number,
  text: Vec2,
  { gap, width }: TextSpace,
  across: boolean,
): Annotation {
  const offset = sub2(text, centre);
  const length = Math.hypot(offset[0], offset[1]) || 1;
  const out: Vec2 = [offset[0] / length, offset[1] / length];
  const rim = add2(centre, scale2(out, radius));
  const far = add2(centre, scale2(out, -radius));
  const side = Math.sign(out[0] || 1);
  const elbow = sub2(text, [(side * width) / 2, gap * 0.32]);
  const inside = length < radius;
  const line = across ? [far, inside ? rim : elbow] : [inside ? centre : rim, inside ? rim : elbow];
  const shelf: Vec2[] = [elbow, add2(elbow, [side * width, 0])];
  const arrows = [{ tip: rim, pointing: inside || across ? out : scale2(out, -1) }];
  if (across) arrows.push({ tip: far, pointing: scale2(out, -1) });
  return { strokes: inside ? [line] : [line, shelf], arrows, text, upright: false };
}

/** The arc of an angular dimension as a polyline, with arrows at its ends. */
export function arcAnnotation(centre: Vec2, radius: number, from: number, sweep: number, gap: number): Annotation {
  const at = (angle: number, r = radius): Vec2 => [centre[0] + r * Math.cos(angle), centre[1] + r * Math.sin(angle)];
  const steps = Math.max(4, Math.ceil(Math.abs(sweep) / 0.1));
  const arc = Array.from({ length: steps + 1 }, (_, k) => at(from + (sweep * k) / steps));
  const turn = Math.sign(sweep) || 1;
  const tangent = (angle: number): Vec2 => [-Math.sin(angle) * turn, Math.cos(angle) * turn];
  return {
    strokes: [arc],
    arrows: [
      { tip: at(from), pointing: scale2(tangent(from), -1) },
      { tip: at(from + sweep), pointing: tangent(from + sweep) },
    ],
    text: at(from + sweep / 2, radius + gap * 0.7),
    upright: false,
  };
}

const LANES = [0, 1, 2, 3, 4, 5, 6, 7, 8, 9];

/**
 * Places for the text of a linear dimension, the usual one first: outside the sketch on the nearer side, lane after lane,
 * then on the other side; slanting ones beside the pair. Where the text has no room between the arrows it goes beside them.
 */
export function linearPlaces(p: Vec2, q: Vec2, along: Vec2, space: AnnotationSpace): Vec2[] {
  const { gap, width, low, high } = space;
  const middle = middle2(p, q);
  const across = left2(along);
  const half = Math.abs(dot2(sub2(q, p), along)) / 2;
  const beside = half + width / 2 + gap * 0.45;
  // towards the middle of the sketch first: there the sheet does not end
  const inwards = dot2(sub2(middle2(low, high), middle), along) < 0 ? -1 : 1;
  const shifts = 2 * half >= width + gap * 0.7 ? [0] : [inwards * beside, -inwards * beside];
  const outwards = dot2(sub2(middle, middle2(low, high)), across) > 1e-6 ? 1 : -1;
  const axial = Math.min(Math.abs(along[0]), Math.abs(along[1])) < 1e-6;
  const corners: Vec2[] = [low, high, [low[0], high[1]], [high[0], low[1]]];
  return [outwards, -outwards].flatMap((side) => {
    const rim = axial ? Math.max(...corners.map((corner) => side * dot2(sub2(corner, middle), across))) : 0;
    return LANES.flatMap((lane) =>
      shifts.map((shift) =>
        add2(middle, add2(scale2(along, shift), scale2(across, side * (Math.max(rim, 0) + gap * (1 + lane))))),
      ),
    );
  });
}

/** Places for the text of a radius or diameter: round the circle, nearer ones first. */
export function rimPlaces(centre: Vec2, radius: number, { gap, width }: TextSpace): Vec2[] {
  const directions = [45, 135, -45, -135, 20, 160, -20, -160, 70, 110, -70, -110];
  return [1, 2.2, 3.6, 5].flatMap((far) =>
    directions.map((degrees): Vec2 => {
      const angle = (degrees * Math.PI) / 180;
      const [x, y] = [Math.cos(angle), Math.sin(angle)];
      return [centre[0] + x * (radius + gap * far) + (Math.sign(x) * width) / 2, centre[1] + y * (radius + gap * far)];
    }),
  );
}

/** Places for the text over an arc, on larger and larger radii. */
export const arcPlaces = (centre: Vec2, radii: readonly number[], angle: number, gap: number): Vec2[] =>
  radii.map((radius) => [
    centre[0] + (radius + gap * 0.7) * Math.cos(angle),
    centre[1] + (radius + gap * 0.7) * Math.sin(angle),
  ]);
