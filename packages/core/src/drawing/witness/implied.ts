import { dot3, Dual, type Gradient, type Vec3 } from '../../math/index.ts';
import { placesOnCurve } from '../../geometry/index.ts';
import { mirrored, mirroredFace } from './mirrors.ts';
import type { MovingFaces, WitnessedFace } from './moving-faces.ts';

/** A plane in which the part is its own mirror image, square to an axis, where an unknown says. */
interface Mirror {
  readonly across: number;
  readonly at: number;
  readonly unknown: number;
}

/**
 * What holds without a figure: faces touch where they go on into each other, mirror images move as one sees them. Row after
 * row: of rich parts there are too many to keep.
 */
export function* impliedRows(witness: MovingFaces, mirrors: readonly Mirror[]): Generator<Gradient> {
  yield* touching(witness);
  for (const mirror of mirrors) yield* symmetric(witness, mirror);
}

/** Along an edge at which two faces go on into each other both come out by as much. */
function* touching(witness: MovingFaces): Generator<Gradient> {
  for (const [body, { edges }] of witness.topologies.entries())
    for (const { turn, faces, curve, middle } of edges) {
      if (turn !== 'smooth' || faces.length !== 2) continue;
      const [a, b] = faces.map((name) => witness.face(body, name)?.surface);
      if (!a || !b) continue;
      for (const place of placesOnCurve(curve, middle)) {
        const sign = Math.sign(dot3(a.normal(place), b.normal(place)));
        yield a.off(place).sub(b.off(place).scaled(sign)).d;
      }
    }
}

function* symmetric({ faces }: MovingFaces, mirror: Mirror): Generator<Gradient> {
  const found = faces.map((one, index) => ({ ...one.face, one, index }));
  for (const [index, one] of faces.entries()) {
    const image = mirroredFace(one.face, found, mirror);
    // what holds of one holds of the other
    if (!image || image.index < index) continue;
    for (const place of one.places) yield likeIts(image.one, one, place, mirror);
  }
}

/** As a face comes out at a place, so does its image; where the mirror moves, the image moves twice as far. */
function likeIts(image: WitnessedFace, face: WitnessedFace, place: Vec3, mirror: Mirror): Gradient {
  const there = mirrored(place, mirror);
  const normal = image.surface.normal(there);
  const seen = face.surface.normal(place).map((c, k) => (k === mirror.across ? -c : c)) as unknown as Vec3;
  const sign = Math.sign(dot3(seen, normal));
  const carried = new Dual(0, { at: [mirror.unknown], by: [2 * normal[mirror.across]!] });
  return image.surface.off(there).sub(face.surface.off(place).scaled(sign)).add(carried).d;
}
