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

/**
 * What holds without a figure: faces touch where they go on into each other, mirror images move as one sees them. Row after
 * row: of rich parts there are too many to keep.
 */
export function* impliedRows(witness: Witness, mirrors: readonly Mirror[]): Generator<Float64Array> {
  yield* touching(witness);
  for (const mirror of mirrors) yield* symmetric(witness, mirror);
}

/** Along an edge at which two faces go on into each other both come out by as much. */
function* touching(witness: Witness): Generator<Float64Array> {
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

function* symmetric({ faces, count }: Witness, mirror: Mirror): Generator<Float64Array> {
  const found = faces.map((one, index) => ({ ...one.face, one, index }));
  for (const [index, one] of faces.entries()) {
    const image = mirroredFace(one.face, found, mirror);
    // what holds of one holds of the other
    if (!image || image.index < index) continue;
    for (const place of one.places) yield likeIts(image.one, one, place, mirror, count);
  }
}

/** As a face comes out at a place, so does its image; where the mirror moves, the image moves twice as far. */
function likeIts(image: WitnessedFace, face: WitnessedFace, place: Vec3, mirror: Mirror, count: number): Float64Array {
  const there = mirrored(place, mirror);
  const normal = image.alone.normal(there);
  const seen = face.alone.normal(place).map((c, k) => (k === mirror.across ? -c : c)) as unknown as Vec3;
  const sign = Math.sign(dot3(seen, normal));
  const row = new Float64Array(count);
  image.alone.off(there).d.forEach((d, k) => (row[image.own[k]!]! += d));
  face.alone.off(place).d.forEach((d, k) => (row[face.own[k]!]! -= sign * d));
  row[mirror.unknown]! += 2 * normal[mirror.across]!;
  return row;
}
