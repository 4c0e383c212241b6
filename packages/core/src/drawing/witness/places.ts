import type { Vec3 } from '../../math/index.ts';
import { placesOnCurve } from '../../geometry/index.ts';
import type { FaceFacts, Topology } from '../../kernel-port/index.ts';

/** So many places on its rim tell how a face moves: more than a surface has freedoms. */
const ENOUGH = 12;

/** Places on the rim of a face: as many as tell how it moves. */
export function placesOfFace({ edges }: Topology, { name }: Pick<FaceFacts, 'name'>): Vec3[] {
  const all = edges
    .filter(({ faces }) => faces.includes(name))
    .flatMap(({ curve, middle }) => placesOnCurve(curve, middle));
  // of many those that lie all round
  const step = Math.max(1, all.length / ENOUGH);
  return Array.from({ length: Math.min(all.length, ENOUGH) }, (_, k) => all[Math.floor(k * step)]!);
}
