import { z } from 'zod';
import { direction2, mirrored2, sub2 } from '../../../math/index.ts';
import { expressionSchema, idSchema, measuringSchema, placeSchema, type Id } from '../../../records/index.ts';
import { LENGTH } from '../../../units/index.ts';
import { linearAnnotation, linearPlaces } from '../../annotation.ts';
import type { Geometry } from '../../geometry.ts';
import { halfAxis, ON_LINE } from '../../half-profile.ts';
import { lineDistance } from '../../residuals.ts';
import { acrossLine, offAxis, waysFromLine } from '../from-line.ts';
import type { RelationKind } from '../kind.ts';
import { parallelLines, picked } from '../picking.ts';

/**
 * The diameter that half a profile will have: twice the distance of a point from a centre line, or from an axis that the
 * profile lies beside. `sense` keeps the side that was drawn: 1 left of the line.
 */
const acrossSchema = z.strictObject({
  kind: z.literal('across'),
  point: idSchema,
  axis: idSchema,
  sense: z.union([z.literal(1), z.literal(-1)]),
  value: expressionSchema,
  measuring: measuringSchema,
  at: placeSchema.optional(),
});
type Across = z.infer<typeof acrossSchema>;

export const across: RelationKind<Across> = {
  schema: acrossSchema,
  title: 'Diameter across',
  verb: {
    key: '',
    says: 'Measures twice the way from a centre line: the diameter of what is turned.',
    wants: 'a centre line and a point or line',
  },
  words: 'measure across',
  refs: ({ point, axis }) => [point, axis],
  roles: ({ point, axis }) => ({ [point]: ['point'], [axis]: ['line'] }),
  fit(picks, geometry) {
    const found =
      picked(picks, geometry, ['point', 'line']) ?? onParallel(picks, geometry) ?? besideAxis(picks, geometry);
    if (!found) return undefined;
    const [point, axis] = found as [Id, Id];
    return isCentreLine(geometry, axis) || axis === halfAxis(geometry) ? acrossLine(geometry, point, axis) : undefined;
  },
  equations: ({ point, axis, sense }, { id, layout, value }) => ({
    blocks: [lineDistance(id, layout.line(axis), layout.point(point), sense, value / 2)],
  }),
  turned: (relation, line) =>
    relation.axis === line ? { ...relation, sense: relation.sense === 1 ? -1 : 1 } : relation,
  dimension: {
    asks: LENGTH,
    turn: 0,
    prefix: '⌀',
    ways: (relation, geometry) => waysFromLine(geometry, relation.point, relation.axis),
    measure: ({ point, axis, sense }, geometry) => 2 * sense * offAxis(geometry, point, axis),
    places(relation, geometry, space) {
      const { p, mirrored, along } = spanOf(relation, geometry);
      return linearPlaces(p, mirrored, along, space);
    },
    annotate(relation, geometry, space, at) {
      const { p, mirrored, along } = spanOf(relation, geometry);
      return linearAnnotation(p, mirrored, along, at, space);
    },
  },
  anchors: ({ point }, geometry) => [geometry.point(point)],
};

/** From the point to its mirror image. */
function spanOf({ point, axis }: Across, geometry: Geometry) {
  const p = geometry.point(point);
  const { a, b } = geometry.line(axis);
  const mirrored = mirrored2(p, a, b);
  return { p, mirrored, along: direction2(sub2(mirrored, p)) ?? ([1, 0] as const) };
}

/** A line along the axis, by one of its ends. */
function onParallel(picks: readonly Id[], geometry: Geometry): readonly [Id, Id] | undefined {
  const lines = picked(picks, geometry, ['line', 'line']);
  if (!lines) return undefined;
  const isAxis = (id: Id) => isCentreLine(geometry, id) || id === halfAxis(geometry);
  const ordered = isAxis(lines[0]!) ? [lines[1]!, lines[0]!] : lines;
  return parallelLines(ordered as [Id, Id], geometry);
}

/** A point alone, of half a profile. */
function besideAxis(picks: readonly Id[], geometry: Geometry): readonly [Id, Id] | undefined {
  const point = picked(picks, geometry, ['point'])?.[0];
  const axis = point !== undefined && geometry.entities[point] ? halfAxis(geometry) : undefined;
  return axis !== undefined && Math.abs(offAxis(geometry, point!, axis)) > ON_LINE ? [point!, axis] : undefined;
}

const isCentreLine = (geometry: Geometry, id: Id): boolean => {
  const entity = geometry.entities[id];
  return entity?.kind === 'line' && entity.centreline === true;
};
