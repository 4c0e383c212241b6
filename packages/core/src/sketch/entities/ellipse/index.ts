import { z } from 'zod';
import { addD, leftD, scaleD, subD, timesD, unitD, type Dual, type DualVec } from '../../../math/index.ts';
import { idSchema } from '../../../records/index.ts';
import { fullEllipse, nearestParameter, TURN } from '../../pieces/index.ts';
import type { FreeCurve } from '../../residuals.ts';
import type { EntityKind } from '../kind.ts';

/** An ellipse by its centre, the point at the end of an axis, and the radius square to that axis. */
export const ellipseSchema = z.strictObject({
  kind: z.literal('ellipse'),
  centre: idSchema,
  tip: idSchema,
  minor: z.number().min(1e-6).max(1e5),
  construction: z.boolean().optional(),
});
type Ellipse = z.infer<typeof ellipseSchema>;

export const ellipse: EntityKind<Ellipse> = {
  schema: ellipseSchema,
  title: 'ellipse',
  role: 'ellipse',
  uses: ({ centre, tip }) => [centre, tip],
  onto: (entity, point) => ({ ...entity, centre: point(entity.centre), tip: point(entity.tip) }),
  part: (entity, from, to) => ({ ...entity, kind: 'ellipse-arc', a: from.point, b: to.point }),
  mirrored: (entity) => entity,
  unknowns: ({ minor }) => [minor],
  moved: (entity, [minor]) => ({ ...entity, minor: minor! }),
  trace: (id, { centre, tip, minor }, point) => [fullEllipse(id, point(centre), point(tip), minor)],
  curve: (id, _, layout) => freeEllipse(layout.ellipse(id)),
};

/** The two axes as formulas of centre, tip and minor radius. */
export function axesOf([cx, cy, tx, ty, minor]: readonly Dual[]): readonly [DualVec, DualVec, DualVec] {
  const centre: DualVec = [cx!, cy!];
  const major = subD([tx!, ty!], centre);
  return [centre, major, timesD(leftD(unitD(major)), minor!)];
}

/** The whole ellipse as a curve to be measured from, by the indices of its unknowns. */
export const freeEllipse = (unknowns: readonly number[]): FreeCurve => ({
  unknowns,
  foot: ([cx, cy, tx, ty, minor], p) => nearestParameter(fullEllipse('', [cx!, cy!], [tx!, ty!], minor!), p) * TURN,
  at(v, angle) {
    const [c, s] = [Math.cos(angle), Math.sin(angle)];
    const [centre, major, minor] = axesOf(v);
    // clockwise, so that outside is on the left
    return {
      place: addD(centre, addD(scaleD(major, c), scaleD(minor, s))),
      along: addD(scaleD(major, s), scaleD(minor, -c)),
    };
  },
});
