import { add3, middle3, scale3, type Vec3 } from '../../math/index.ts';
import type { FaceFacts, SpaceCurve, Topology } from '../../kernel-port/index.ts';
import { armsOf } from '../../references/index.ts';

/** So many places on its rim tell how a face moves: more than a surface has freedoms. */
const ENOUGH = 12;

/** Places on a curve: its ends and its middle, of what is closed four. */
export function placesOnCurve(curve: SpaceCurve, middle: Vec3): Vec3[] {
  if (curve.form === 'line') return [curve.from, middle3(curve.from, curve.to), curve.to];
  if (curve.form === 'circle' || curve.form === 'ellipse') {
    if (curve.from && curve.to) return [curve.from, middle, curve.to];
    const [u, v] = armsOf(curve);
    return [u, v, scale3(u, -1), scale3(v, -1)].map((arm) => add3(curve.centre, arm));
  }
  if (curve.form === 'free') return [curve.spans[0]![0], middle, curve.spans.at(-1)![3]];
  return [middle];
}

/** Places on the rim of a face: as many as tell how it moves. */
export function placesOfFace({ edges }: Topology, { name }: Pick<FaceFacts, 'name'>): Vec3[] {
  const all = edges
    .filter(({ faces }) => faces.includes(name))
    .flatMap(({ curve, middle }) => placesOnCurve(curve, middle));
  // of many those that lie all round
  const step = Math.max(1, all.length / ENOUGH);
  return Array.from({ length: Math.min(all.length, ENOUGH) }, (_, k) => all[Math.floor(k * step)]!);
}
