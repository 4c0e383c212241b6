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
  /** Box round the sketch: dimensions are placed outside it. */
  readonly low: Vec2;
  readonly high: Vec2;
  /** How many dimension lines already stand on this side. */
  lane(side: 'below' | 'above' | 'left' | 'right', from: number, to: number): number;
}

/** Remembers which stretches of each side are taken, so that dimension lines do not lie on each other. */
export function annotationSpace(low: Vec2, high: Vec2, gap: number): AnnotationSpace {
  const taken: { side: string; lane: number; from: number; to: number }[] = [];
  return {
    gap,
    low,
    high,
    lane(side, p, q) {
      const from = Math.min(p, q) - gap / 2;
      const to = Math.max(p, q) + gap / 2;
      let lane = 0;
      const clash = () => taken.some((t) => t.side === side && t.lane === lane && t.from < to && from < t.to);
      while (clash()) lane++;
      taken.push({ side, lane, from, to });
      return lane;
    },
  };
}

/**
 * A linear dimension from p to q, measured along `along` (unit vector), its dimension line through `through`.
 * ISO 129-1: extension lines reach a little beyond the dimension line and start with a small gap.
 */
export function linearAnnotation(p: Vec2, q: Vec2, along: Vec2, through: Vec2, gap: number): Annotation {
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
  const offset = dot2(sub2(through, scale2(add2(a, b), 0.5)), along);
  const within = Math.abs(offset) < Math.abs(dot2(sub2(b, a), along)) / 2 + gap * 4 ? offset : 0;
  const centre = add2(scale2(add2(a, b), 0.5), scale2(along, within));
  return {
    strokes: [[a, b], extension(p, a), extension(q, b)].filter((stroke) => stroke.length > 0),
    arrows: [
      { tip: a, pointing: scale2(pointing, -1) },
      { tip: b, pointing },
    ],
    text: add2(centre, above),
    upright: slope,
  };
}

/** A leader from a circle's rim outwards to the text, the arrow on the rim. */
export function rimAnnotation(centre: Vec2, radius: number, text: Vec2, gap: number, across: boolean): Annotation {
  const offset = sub2(text, centre);
  const length = Math.hypot(offset[0], offset[1]) || 1;
  const out: Vec2 = [offset[0] / length, offset[1] / length];
  const rim = add2(centre, scale2(out, radius));
  const far = add2(centre, scale2(out, -radius));
  const elbow = sub2(text, [Math.sign(out[0] || 1) * gap * 0.8, gap * 0.32]);
  const inside = length < radius;
  const line = across ? [far, inside ? rim : elbow] : [inside ? centre : rim, inside ? rim : elbow];
  const shelf: Vec2[] = [elbow, add2(elbow, [Math.sign(out[0] || 1) * gap * 1.6, 0])];
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

/** A free place outside the sketch: below for flat dimensions, left for upright ones, beside the pair for slanting. */
export function besideSketch(p: Vec2, q: Vec2, along: Vec2, space: AnnotationSpace): Vec2 {
  const middle = middle2(p, q);
  const centre = middle2(space.low, space.high);
  if (Math.abs(along[1]) < 1e-6) {
    const side = middle[1] > centre[1] + 1e-6 ? 'above' : 'below';
    const out = space.gap * (1 + space.lane(side, p[0], q[0]));
    return [middle[0], side === 'above' ? space.high[1] + out : space.low[1] - out];
  }
  if (Math.abs(along[0]) < 1e-6) {
    const side = middle[0] > centre[0] + 1e-6 ? 'right' : 'left';
    const out = space.gap * (1 + space.lane(side, p[1], q[1]));
    return [side === 'right' ? space.high[0] + out : space.low[0] - out, middle[1]];
  }
  const across = left2(along);
  const outwards = dot2(sub2(middle, centre), across) >= 0 ? 1 : -1;
  return add2(middle, scale2(across, outwards * space.gap));
}
