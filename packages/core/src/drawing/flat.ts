import { length3, type Vec2, type Vec3 } from '../math/index.ts';
import type { SpaceCurve } from '../kernel-port/index.ts';
import { arcBetween, ellipseBetween, fullCircle, fullEllipse, type Piece } from '../sketch/pieces/index.ts';

/** A curve of a view as drawn pieces: it lies in the plane of the eye, at height 0. */
export function flatPieces(curve: SpaceCurve): Piece[] {
  const at = (place: Vec3): Vec2 => [place[0], place[1]];
  if (curve.form === 'line') return [{ form: 'segment', entity: '', from: at(curve.from), to: at(curve.to) }];
  if (curve.form === 'free')
    return curve.spans.map(([a, b, c, d]) => ({
      form: 'bezier',
      entity: '',
      from: at(a),
      inner: [at(b), at(c)],
      to: at(d),
    }));
  // helices are of datums only: no view has them
  if (curve.form === 'helix') return [];
  const centre = at(curve.centre);
  const turn =
    curve.form === 'circle' ? curve.axis[2] : curve.major[0] * curve.minor[1] - curve.major[1] * curve.minor[0];
  const [from, to] = turn > 0 ? [curve.from, curve.to] : [curve.to, curve.from];
  const ends = from && to ? ([at(from), at(to)] as const) : undefined;
  if (curve.form === 'circle')
    return [ends ? arcBetween('', centre, curve.radius, ...ends) : fullCircle('', centre, curve.radius)];
  const tip: Vec2 = [centre[0] + curve.major[0], centre[1] + curve.major[1]];
  const minor = length3(curve.minor);
  return [ends ? ellipseBetween('', [centre, tip, minor], ...ends) : fullEllipse('', centre, tip, minor)];
}
