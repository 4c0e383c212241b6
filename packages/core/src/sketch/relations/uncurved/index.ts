import { z } from 'zod';
import { crossD, subD, unitD, type DualVec } from '../../../math/index.ts';
import { idSchema } from '../../../records/index.ts';
import { entityKind, findEntity } from '../../entities/index.ts';
import { formulaBlock } from '../../residuals.ts';
import type { RelationKind } from '../kind.ts';
import { picked } from '../picking.ts';

/** A spline leaves one of its ends without curvature, as a straight line would go on. */
const uncurvedSchema = z.strictObject({ kind: z.literal('uncurved'), spline: idSchema, end: idSchema });
type Uncurved = z.infer<typeof uncurvedSchema>;

export const uncurved: RelationKind<Uncurved> = {
  schema: uncurvedSchema,
  title: 'No curvature at the end',
  verb: { key: '', says: 'Lets a spline leave its end straight on, without curvature.', wants: 'a spline and its end' },
  mark: 'K0',
  words: 'leaves without curvature',
  refs: ({ spline, end }) => [spline, end],
  roles: ({ spline, end }) => ({ [spline]: ['spline'], [end]: ['point'] }),
  fit(picks, geometry) {
    const [spline, end] = picked(picks, geometry, ['spline', 'point']) ?? [];
    return spline && end && geometry.ends(spline).includes(end) ? { kind: 'uncurved', spline, end } : undefined;
  },
  /** The inner Bezier point next to the handle lies on the line from the end through the handle: 0 mm from it. */
  equations({ spline, end }, { id, layout }) {
    const entity = findEntity(layout.entities, spline);
    const next = entity && entityKind(entity.kind).beyondHandle?.(entity, end);
    if (!next) return {};
    const unknowns = next.points.flatMap((point) => [...layout.point(point)]);
    const block = formulaBlock(id, unknowns, (v) => {
      const at = (k: number): DualVec => [v[2 * k]!, v[2 * k + 1]!];
      const [from, handle] = [at(next.end), at(next.handle)];
      const inner = next.weights.map((weight, k) => at(k).map((c) => c.scaled(weight)));
      const sum = (axis: 0 | 1) => inner.map((place) => place[axis]!).reduce((a, b) => a.add(b));
      return [crossD(unitD(subD(handle, from)), subD([sum(0), sum(1)], from))];
    });
    return { blocks: [block] };
  },
  anchors: ({ end }, geometry) => [geometry.point(end)],
};
