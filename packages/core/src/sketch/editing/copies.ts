import { mirrored2, offLine2, type Vec2 } from '../../math/index.ts';
import type { Id } from '../../records/index.ts';
import { fail, ok, type Result } from '../../result/index.ts';
import { entityKind, findEntity, withPoints, type Entity } from '../entities/index.ts';
import { isSized, relationKind, type Relation } from '../relations/index.ts';
import { carriedBy, type Similarity } from '../similarity.ts';
import { EditBuilder, renamed, type SketchEdit } from './edit.ts';

/** Relations all of whose members are among these. */
const within = (builder: EditBuilder, ids: ReadonlySet<Id>): [Id, Relation][] =>
  Object.entries(builder.drawing.relations).filter(([, relation]) =>
    relationKind(relation.kind)
      .refs(relation)
      .every((ref) => ids.has(ref)),
  );

/** What is left of a relation when its members are moved: lengths grow with the scale. */
function movedRelation(relation: Relation, similarity: Similarity): Relation | undefined {
  const { carried, dimension } = relationKind(relation.kind);
  const left = (carried ? carried(relation, similarity) : relation) as Relation | undefined;
  if (!left || !isSized(left) || dimension!.asks.length !== 1 || Math.abs(similarity.scale - 1) <= 1e-12) return left;
  return { ...left, value: `(${left.value}) * ${Number(similarity.scale.toPrecision(12))}` };
}

/** Copies with the relations that they have among themselves. */
export function copied(builder: EditBuilder, chosen: readonly Id[], similarity: Similarity): Result<SketchEdit> {
  const ids = withPoints(builder.geometry.entities, chosen);
  if (ids.length === 0) return fail('edit.empty');
  const copyOf = copyEntities(builder, ids, (entity) => transformed(entity, similarity));
  for (const [, relation] of within(builder, new Set(ids))) {
    const moved = movedRelation(relation, similarity);
    if (moved) builder.relate(renamed(withoutPlace(moved), copyOf));
  }
  return ok(builder.edit);
}

/** Moves, turns or scales what is chosen itself; level lines that are turned are let go, sizes within are scaled too. */
export function moved(builder: EditBuilder, chosen: readonly Id[], similarity: Similarity): Result<SketchEdit> {
  const ids = withPoints(builder.geometry.entities, chosen);
  if (ids.length === 0) return fail('edit.empty');
  for (const id of ids) builder.replace(id, transformed(builder.now(id), similarity));
  for (const [id, relation] of within(builder, new Set(ids))) {
    const next = movedRelation(relation, similarity);
    if (!next) builder.drop(id);
    else if (next !== relation) builder.replaceRelation(id, next);
  }
  return ok(builder.edit);
}

/** The entity carried by a similarity; curves only by their own sizes, their points are carried by themselves. */
export function transformed(entity: Entity, similarity: Similarity): Entity {
  if (entity.kind === 'point') {
    const [x, y] = carriedBy(similarity, [entity.x, entity.y]);
    return { ...entity, x, y };
  }
  const kind = entityKind(entity.kind);
  // own unknowns of curves are lengths
  return kind.moved(
    entity,
    kind.unknowns(entity).map((length) => length * similarity.scale),
  );
}

/** Adds changed copies; points that `keep` names are shared instead. */
function copyEntities(
  builder: EditBuilder,
  ids: readonly Id[],
  change: (entity: Entity) => Entity,
  keep: ReadonlySet<Id> = new Set(),
): (id: Id) => Id {
  const copies = new Map<Id, Id>();
  const copyOf = (id: Id) => copies.get(id) ?? id;
  for (const id of ids) {
    if (keep.has(id)) continue;
    const entity = change(builder.now(id));
    copies.set(id, builder.entity(id[0] ?? 'c', entityKind(entity.kind).onto(entity, copyOf)));
  }
  return copyOf;
}

/** A copied dimension finds its own place for its text. */
function withoutPlace(relation: Relation): Relation {
  if (!isSized(relation) || relation.at === undefined) return relation;
  const { at: _, ...rest } = relation;
  return rest;
}

/**
 * The mirror image of what is chosen, kept symmetric: points that lie on the line are shared, all others are tied to
 * their images. Relations among the originals follow for the images by themselves.
 */
export function mirrored(builder: EditBuilder, chosen: readonly Id[], axis: Id): Result<SketchEdit> {
  const ids = withPoints(builder.geometry.entities, chosen).filter((id) => id !== axis);
  if (ids.length === 0) return fail('edit.empty');
  if (ids.some((id) => !entityKind(builder.now(id).kind).mirrored)) return fail('edit.mirror-text');
  const line = builder.geometry.line(axis);
  const image = (place: Vec2): Vec2 => mirrored2(place, line.a, line.b);
  const onAxis = new Set(
    ids.filter((id) => {
      const entity = builder.now(id);
      return entity.kind === 'point' && Math.abs(offLine2([entity.x, entity.y], line.a, line.b)) < 1e-6;
    }),
  );
  const copyOf = copyEntities(
    builder,
    ids,
    (entity) => {
      if (entity.kind === 'point') {
        const [x, y] = image([entity.x, entity.y]);
        return { ...entity, x, y };
      }
      return entityKind(entity.kind).mirrored!(entity);
    },
    onAxis,
  );
  const follows = followingPoints(builder, ids);
  for (const id of ids) {
    if (onAxis.has(id)) continue;
    const entity = builder.now(id);
    if (entity.kind === 'point' && !follows.has(id)) builder.relate({ kind: 'symmetric', a: id, b: copyOf(id), axis });
    if (entity.kind !== 'point' && entityKind(entity.kind).unknowns(entity).length > 0)
      builder.relate({ kind: 'equal', a: id, b: copyOf(id) });
  }
  return ok(builder.edit);
}

/** Centres of arcs alone: with both ends mirrored and an equal radius they are where they have to be. */
function followingPoints(builder: EditBuilder, ids: readonly Id[]): Set<Id> {
  const centres = ids.flatMap((id) => {
    const entity = builder.now(id);
    return entity.kind === 'arc' ? [entity.centre] : [];
  });
  const used = (point: Id) =>
    ids.filter((id) => {
      const entity = findEntity(builder.geometry.entities, id)!;
      return entityKind(entity.kind).uses(entity).includes(point);
    }).length;
  return new Set(centres.filter((centre) => used(centre) === 1));
}

/** Lets lines and splines run the other way; what depends on their direction is told anew, so that nothing moves. */
export function turnedRound(builder: EditBuilder, chosen: readonly Id[]): Result<SketchEdit> {
  const ids = chosen.filter((id) => Object.hasOwn(builder.geometry.entities, id));
  const able = ids.filter((id) => entityKind(builder.now(id).kind).reversed);
  if (able.length === 0) return fail('edit.empty');
  for (const id of able) builder.replace(id, entityKind(builder.now(id).kind).reversed!(builder.now(id)));
  for (const [id, relation] of Object.entries(builder.drawing.relations)) {
    const next = able.reduce<Relation>((turned, line) => {
      const kind = relationKind(turned.kind);
      return kind.refs(turned).includes(line) && kind.turned ? kind.turned(turned, line) : turned;
    }, relation);
    if (next !== relation) builder.replaceRelation(id, next);
  }
  return ok(builder.edit);
}
