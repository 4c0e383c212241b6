import { z } from 'zod';
import { coordinateSchema, idSchema, type Id } from '../../../records/index.ts';
import { GROUND } from '../../../solver/index.ts';
import { entityKind, findEntity, type Role } from '../../entities/index.ts';
import { Layout } from '../../geometry.ts';
import type { RelationKind } from '../kind.ts';
import { middleOf } from '../picking.ts';

/**
 * Stays where it was when it was fixed: x and y of a point, of the points of a line or spline, of a centre with the
 * radius, of an ellipse all that it has. Arcs are held on their circle; their ends may still run along it.
 */
const fixedSchema = z.strictObject({
  kind: z.literal('fixed'),
  entity: idSchema,
  at: z.array(coordinateSchema).min(2).max(204),
});
type Fixed = z.infer<typeof fixedSchema>;

const HELD: Readonly<Record<Role, (id: Id, layout: Layout) => readonly number[]>> = {
  point: (id, layout) => layout.point(id),
  line: (id, layout) => layout.line(id),
  circle: (id, layout) => layout.circle(id),
  ellipse: (id, layout) => layout.ellipse(id),
  spline: pointsOf,
  text: pointsOf,
};

function pointsOf(id: Id, layout: Layout): readonly number[] {
  const entity = findEntity(layout.entities, id)!;
  return entityKind(entity.kind)
    .uses(entity)
    .flatMap((point) => [...layout.point(point)]);
}

const unknownsHeld = (id: Id, layout: Layout) => HELD[layout.roleOf(id)](id, layout);

export const fixed: RelationKind<Fixed> = {
  schema: fixedSchema,
  title: 'Fixed',
  verb: { key: 'F', says: 'Keeps a thing where it is.', wants: 'a point, line or circle' },
  mark: 'F',
  words: 'stays where it is',
  carried: () => undefined,
  refs: ({ entity }) => [entity],
  roles: ({ entity }) => ({ [entity]: Object.keys(HELD) as Role[] }),
  fit(picks, geometry) {
    const [entity] = picks;
    if (picks.length !== 1 || entity === undefined || !geometry.entities[entity]) return undefined;
    const layout = new Layout(geometry.entities);
    return { kind: 'fixed', entity, at: unknownsHeld(entity, layout).map((at) => layout.initial[at]!) };
  },
  equations: ({ entity, at }, { id, layout }) => ({
    substitutions: unknownsHeld(entity, layout)
      .slice(0, at.length)
      .map((a, k) => ({ owner: id, a, b: GROUND, offset: at[k]! })),
  }),
  turned: (relation, line) => (relation.entity === line ? { ...relation, at: endForEnd(relation.at) } : relation),
  // of what is round the circle is held, not its ends
  ofEnds: ({ entity }, roleOf) => (['line', 'spline'].includes(roleOf(entity) ?? '') ? [entity] : []),
  anchors: ({ entity }, geometry) => [middleOf(entity, geometry)],
};

/** The places in the order of the curve run backwards: ends of a line; through points of a spline, then its handles. */
function endForEnd(at: readonly number[]): number[] {
  const places = Array.from({ length: at.length / 2 }, (_, k) => [at[2 * k]!, at[2 * k + 1]!]);
  const handles = places.length > 2 ? places.splice(-2) : [];
  return [...places.toReversed(), ...handles.toReversed()].flat();
}
