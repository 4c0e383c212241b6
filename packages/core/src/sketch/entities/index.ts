import { z } from 'zod';
import type { Id } from '../../records/index.ts';
import { arc, arcSchema } from './arc/index.ts';
import { circle, circleSchema } from './circle/index.ts';
import { ellipse, ellipseSchema } from './ellipse/index.ts';
import { ellipseArc, ellipseArcSchema } from './ellipse-arc/index.ts';
import type { CurveEnd, EntityKind, Heading, Role } from './kind.ts';
import { line, lineSchema } from './line/index.ts';
import { point, pointSchema } from './point/index.ts';
import { chordKnots, spans, spline, splineSchema } from './spline/index.ts';
import { text, textSchema } from './text/index.ts';

export type { CurveEnd, Heading, Role };
export { chordKnots, spans as splineSpans };

/** The register: a new kind of entity is a folder beside these and a line here. */
const ENTITY_KINDS = { point, line, circle, arc, ellipse, 'ellipse-arc': ellipseArc, spline, text };

export const entitySchema = z.discriminatedUnion('kind', [
  pointSchema,
  lineSchema,
  circleSchema,
  arcSchema,
  ellipseSchema,
  ellipseArcSchema,
  splineSchema,
  textSchema,
]);
export type Entity = z.infer<typeof entitySchema>;
export type EntityOf<K extends Entity['kind']> = Extract<Entity, { kind: K }>;
export type Entities = Readonly<Record<Id, Entity>>;

/** What the register knows of a kind. */
export const entityKind = (kind: Entity['kind']): EntityKind<Entity> => ENTITY_KINDS[kind];

export const ORIGIN = 'origin';
export const X_AXIS = 'x-axis';
export const Y_AXIS = 'y-axis';

/** In every sketch, held still, never stored: the origin and the two axes with a point on each. */
export const BUILT_IN: Entities = {
  [ORIGIN]: { kind: 'point', x: 0, y: 0 },
  'x-end': { kind: 'point', x: 100, y: 0 },
  'y-end': { kind: 'point', x: 0, y: 100 },
  [X_AXIS]: { kind: 'line', a: ORIGIN, b: 'x-end', construction: true },
  [Y_AXIS]: { kind: 'line', a: ORIGIN, b: 'y-end', construction: true },
};

/** Is it one of those that every sketch has: the origin and its axes? */
export const isBuiltIn = (id: Id): boolean => Object.hasOwn(BUILT_IN, id);

/** Drawn entities with all drawn points that they stand on, points first. */
export function withPoints(entities: Entities, ids: readonly Id[]): Id[] {
  const drawn = ids.filter((id) => Object.hasOwn(entities, id));
  const points = drawn.flatMap((id) => [...entityKind(entities[id]!.kind).uses(entities[id]!)]);
  return [...new Set([...points.filter((id) => Object.hasOwn(entities, id)), ...drawn])];
}

/** What the entity is to relations; undefined if it is not there. */
export function roleIn(entities: Entities, id: Id): Role | undefined {
  const entity = findEntity(entities, id);
  return entity && entityKind(entity.kind).role;
}

/** The entity with this id, built-in or drawn. */
export const findEntity = (entities: Entities, id: Id): Entity | undefined =>
  Object.hasOwn(entities, id) ? entities[id] : Object.hasOwn(BUILT_IN, id) ? BUILT_IN[id] : undefined;
