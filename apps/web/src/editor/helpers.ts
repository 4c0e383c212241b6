import type { Id, SketchStep } from '@helb/core';

/**
 * Lines that only hold a figure together, such as the diagonal by which a rectangle lies about its centre: construction,
 * halved by a point, and between corners of what is drawn.
 */
export function helpersOf({ entities, relations }: Pick<SketchStep, 'entities' | 'relations'>): ReadonlySet<Id> {
  const corners = new Map<Id, number>();
  for (const one of Object.values(entities))
    if (one.kind === 'line' && !one.construction)
      for (const end of [one.a, one.b]) corners.set(end, (corners.get(end) ?? 0) + 1);
  const isCorner = (point: Id) => (corners.get(point) ?? 0) > 1;
  return new Set(
    Object.values(relations).flatMap((relation) => {
      const line = relation.kind === 'midpoint' ? entities[relation.line] : undefined;
      const isDiagonal = line?.kind === 'line' && line.construction && isCorner(line.a) && isCorner(line.b);
      return isDiagonal && relation.kind === 'midpoint' ? [relation.line] : [];
    }),
  );
}
