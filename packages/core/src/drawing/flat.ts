import { cross2, length3, type Vec2, type Vec3 } from '../math/index.ts';
import type { SpaceCurve } from '../geometry/index.ts';
import { arcBetween, ellipseBetween, fullCircle, fullEllipse, type Piece } from '../sketch/pieces/index.ts';
import { segment } from './picture.ts';

const at = (place: Vec3): Vec2 => [place[0], place[1]];

/** The ends of a round curve counter-clockwise as it is seen; none where it is closed. */
function endsOf(
  { from, to }: { readonly from?: Vec3; readonly to?: Vec3 },
  turn: number,
): readonly [Vec2, Vec2] | undefined {
  if (!from || !to) return undefined;
  return turn > 0 ? [at(from), at(to)] : [at(to), at(from)];
}

const FLAT: { readonly [F in SpaceCurve['form']]: (curve: Extract<SpaceCurve, { form: F }>) => Piece[] } = {
  line: ({ from, to }) => [segment(at(from), at(to))],
  circle: (curve) => {
    const [centre, ends] = [at(curve.centre), endsOf(curve, curve.axis[2])];
    return [ends ? arcBetween('', centre, curve.radius, ...ends) : fullCircle('', centre, curve.radius)];
  },
  ellipse: (curve) => {
    const [centre, major] = [at(curve.centre), at(curve.major)];
    const ends = endsOf(curve, cross2(major, at(curve.minor)));
    const tip: Vec2 = [centre[0] + major[0], centre[1] + major[1]];
    const minor = length3(curve.minor);
    return [ends ? ellipseBetween('', [centre, tip, minor], ...ends) : fullEllipse('', centre, tip, minor)];
  },
  // helices are of datums only: no view has them
  helix: () => [],
  free: ({ spans }) =>
    spans.map(([a, b, c, d]) => ({ form: 'bezier', entity: '', from: at(a), inner: [at(b), at(c)], to: at(d) })),
};

/** A curve of a view as drawn pieces: it lies in the plane of the eye, at height 0. */
export const flatPieces = (curve: SpaceCurve): Piece[] => FLAT[curve.form](curve as never);
