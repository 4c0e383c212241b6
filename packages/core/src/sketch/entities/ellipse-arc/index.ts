import { z } from 'zod';
import { addD, dotD, scaleD, subD, timesD } from '../../../math/index.ts';
import { idSchema } from '../../../records/index.ts';
import { ellipseBetween } from '../../pieces/index.ts';
import { curveDistance } from '../../residuals.ts';
import { axesOf, freeEllipse } from '../ellipse/index.ts';
import type { EntityKind } from '../kind.ts';

/** The stretch of an ellipse that runs counter-clockwise from point `a` to point `b`. */
export const ellipseArcSchema = z.strictObject({
  kind: z.literal('ellipse-arc'),
  centre: idSchema,
  tip: idSchema,
  a: idSchema,
  b: idSchema,
  minor: z.number().min(1e-6).max(1e5),
  construction: z.boolean().optional(),
});
type EllipseArc = z.infer<typeof ellipseArcSchema>;

export const ellipseArc: EntityKind<EllipseArc> = {
  schema: ellipseArcSchema,
  title: 'elliptical arc',
  role: 'ellipse',
  uses: ({ centre, tip, a, b }) => [centre, tip, a, b],
  ends: ({ a, b }) => [a, b],
  onto: (entity, point) => ({
    ...entity,
    centre: point(entity.centre),
    tip: point(entity.tip),
    a: point(entity.a),
    b: point(entity.b),
  }),
  part: (entity, from, to) => ({ ...entity, a: from.point, b: to.point }),
  // it runs counter-clockwise still
  mirrored: (entity) => ({ ...entity, a: entity.b, b: entity.a }),
  unknowns: ({ minor }) => [minor],
  moved: (entity, [minor]) => ({ ...entity, minor: minor! }),
  trace: (id, { centre, tip, a, b, minor }, point) => [
    ellipseBetween(id, [point(centre), point(tip), minor], point(a), point(b)),
  ],
  curve: (id, _, layout) => freeEllipse(layout.ellipse(id)),
  /** Both ends lie on the ellipse; an end that is the tip does so by itself. */
  equations: (id, { tip, a, b }, layout) =>
    [a, b]
      .filter((end) => end !== tip)
      .map((end) => curveDistance(id, freeEllipse(layout.ellipse(id)), layout.point(end), 1)),
  heading: (id, _, end, layout) => ({
    unknowns: [...layout.ellipse(id), ...layout.point(end)],
    direction(v) {
      const [centre, major, minor] = axesOf(v);
      const out = subD([v[5]!, v[6]!], centre);
      // at cos q major + sin q minor the curve heads for cos q minor - sin q major
      const cos = dotD(out, major).over(dotD(major, major));
      const sin = dotD(out, minor).over(dotD(minor, minor));
      return addD(timesD(minor, cos), scaleD(timesD(major, sin), -1));
    },
  }),
};
