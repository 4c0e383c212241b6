import type { Vec2 } from '../math/index.ts';
import type { Id } from '../records/index.ts';
import type { Entity } from './entities/index.ts';
import type { Relation } from './relations/index.ts';

/** Entities and relations to be added to a sketch together. */
export interface Figure {
  readonly entities: Readonly<Record<Id, Entity>>;
  readonly relations: Readonly<Record<Id, Relation>>;
}

/** Gives a new id with this beginning each time it is called. */
export type NewId = (prefix: string) => Id;

export const pointAt = ([x, y]: Vec2): Entity => ({ kind: 'point', x, y });

/** Four lines with two level and two upright sides, from corner to opposite corner. */
export function rectangle(newId: NewId, [x0, y0]: Vec2, [x1, y1]: Vec2): Figure & { readonly corners: readonly Id[] } {
  const places: Vec2[] = [
    [x0, y0],
    [x1, y0],
    [x1, y1],
    [x0, y1],
  ];
  const corners = places.map(() => newId('p'));
  const sides = places.map(() => newId('l'));
  const entities: Record<Id, Entity> = {};
  const relations: Record<Id, Relation> = {};
  corners.forEach((id, k) => (entities[id] = pointAt(places[k]!)));
  sides.forEach((id, k) => {
    entities[id] = { kind: 'line', a: corners[k]!, b: corners[(k + 1) % 4]! };
    relations[newId('r')] = { kind: k % 2 === 0 ? 'horizontal' : 'vertical', a: id };
  });
  return { entities, relations, corners };
}

/** A rectangle whose diagonal is a construction line with its middle on `centre`, an existing point. */
export function centredRectangle(
  newId: NewId,
  centre: Id,
  at: Vec2,
  corner: Vec2,
): Figure & { readonly corners: readonly Id[] } {
  const opposite: Vec2 = [2 * at[0] - corner[0], 2 * at[1] - corner[1]];
  const { entities, relations, corners } = rectangle(newId, opposite, corner);
  const diagonal = newId('l');
  return {
    entities: { ...entities, [diagonal]: { kind: 'line', a: corners[0]!, b: corners[2]!, construction: true } },
    relations: { ...relations, [newId('r')]: { kind: 'midpoint', point: centre, line: diagonal } },
    corners,
  };
}
