import {
  add3,
  cross3,
  length3,
  transformPoint,
  scale3,
  transformDirection,
  type RigidTransform,
  type Vec3,
} from '../math/index.ts';
import type { Sign } from '../steps/index.ts';
import { flatCurve } from './flat-curve.ts';
import type { Track } from './outlines.ts';

/** What the flanks of a thread take off the diameter, in pitches: ISO 724 d1 = d - 1.0825 P. */
const DEPTH = 1.0825;
/** Of the circle at its end three quarters are drawn, a little turned (ISO 6410-1). */
const [OPEN, SWEEP] = [(100 / 180) * Math.PI, 1.5 * Math.PI];
const STEPS = 36;
const SIGHT: Vec3 = [0, 0, 1];
const STRAIGHT = 1e-9;

/**
 * The thin lines of a thread that is shown by a sign (ISO 6410-1), as an eye has them: along its axis at the ends of its
 * flanks, and from its end three quarters of a circle. None where the eye looks at it slantwise.
 * @param before how far before a face, mm, a line is looked at that lies on it
 */
export function threadLines(sign: Sign, toEye: RigidTransform, before: number): Track[] {
  const [origin, axis] = [transformPoint(toEye, sign.origin), transformDirection(toEye, sign.axis)];
  const end = add3(origin, scale3(axis, sign.length));
  const [major, minor] = [sign.diameter / 2, (sign.diameter - DEPTH * sign.pitch) / 2];
  // the line tells where the flanks end within the material
  const radius = sign.inside ? major : minor;
  const across = cross3(axis, SIGHT);
  if (length3(across) < STRAIGHT) return [endCircle(origin[2] > end[2] ? origin : end, radius, before)];
  if (Math.abs(axis[2]) > STRAIGHT) return [];
  // of an outer one that is seen where its face turns away, since it lies within
  const shown = sign.inside ? radius : sign.radius + before;
  return [1, -1].map((side) => {
    const out = scale3(across, side);
    const [from, to] = [origin, end].map((place) => add3(place, scale3(out, shown))) as [Vec3, Vec3];
    const inwards = scale3(out, radius - shown);
    return {
      places: [from, to],
      curve: (places) => {
        const [a, b] = [add3(places[0]!, inwards), add3(places.at(-1)!, inwards)];
        return flatCurve({ form: 'line', from: a, to: b })([a, b]);
      },
    };
  });
}

function endCircle(centre: Vec3, radius: number, before: number): Track {
  const at = (k: number): Vec3 => {
    const angle = OPEN + (SWEEP * k) / STEPS;
    return add3(centre, [radius * Math.cos(angle), radius * Math.sin(angle), before]);
  };
  return {
    places: Array.from({ length: STEPS + 1 }, (_, k) => at(k)),
    curve: flatCurve({ form: 'circle', centre, axis: SIGHT, radius }),
  };
}
