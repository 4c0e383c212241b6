import { dot3, type Vec3 } from '../../math/index.ts';
import { placesOnCurve } from './places.ts';
import { mirrored, mirroredFace } from './mirrors.ts';
import type { Witness, WitnessedFace } from './witness.ts';

/** A plane in which the part is its own mirror image, square to an axis, where an unknown says. */
export interface Mirror {
  readonly across: number;
  readonly at: number;
  readonly unknown: number;
}

/** What holds without a figure: faces touch where they go on into each other, mirror images move as one sees them. */
export const impliedRows = (witness: Witness, mirrors: readonly Mirror[]): Float64Array[] => [
  ...touching(witness),
  ...mirrors.flatMap((mirror) => symmetric(witness, mirror)),
];

/** Along an edge at which two faces go on into each other both come out by as much. */
function touching(witness: Witness): Float64Array[] {
  return witness.topologies.flatMap(({ edges }, body) =>
    edges.flatMap(({ turn, faces, curve, middle }) => {
      if (turn !== 'smooth' || faces.length !== 2) return [];
      const [a, b] = faces.map((name) => witness.face(body, name)?.surface);
      if (!a || !b) return [];
      return placesOnCurve(curve, middle).map((place) => {
        const sign = Math.sign(dot3(a.normal(place), b.normal(place)));
        return a.off(place).sub(b.off(place).scaled(sign)).d;
      });
    }),
  );
}

function symmetric({ faces, count }: Witness, mirror: Mirror): Float64Array[] {
  const found = faces.map((one) => ({ ...one.face, one }));
  return faces.flatMap(({ face, surface, places }) => {
    const image = mirroredFace(face, found, mirror)?.one;
    return image ? places.map((place) => likeIts(image, surface, place, mirror, count)) : [];
  });
}

/** As a face comes out at a place, so does its image; where the mirror moves, the image moves twice as far. */
function likeIts(
  image: WitnessedFace,
  surface: WitnessedFace['surface'],
  place: Vec3,
  mirror: Mirror,
  count: number,
): Float64Array {
  const there = mirrored(place, mirror);
  const normal = image.surface.normal(there);
  const seen = surface.normal(place).map((c, k) => (k === mirror.across ? -c : c)) as unknown as Vec3;
  const sign = Math.sign(dot3(seen, normal));
  const row = Float64Array.from({ length: count }, () => 0);
  const [own, other] = [surface.off(place).d, image.surface.off(there).d];
  for (let k = 0; k < count; k++) row[k] = other[k]! - sign * own[k]!;
  row[mirror.unknown]! += 2 * normal[mirror.across]!;
  return row;
}
