import type { Vec2 } from '../../math/index.ts';
import type { Id } from '../../records/index.ts';
import type { Words } from '../../result/index.ts';
import { findEntity, roleIn, type Entities, type Entity } from '../entities/index.ts';
import { FigureBuilder, type NewId } from '../figures/index.ts';
import type { Geometry } from '../geometry.ts';
import { along, nearestOn, nearestParameter, type Piece } from '../pieces/index.ts';
import { relationKind, type Relation, type Relations } from '../relations/index.ts';
import { distance2 } from '../../math/index.ts';

/** What an edit does to a sketch: entities and relations added or replaced by id, and what goes. */
export interface SketchEdit {
  readonly entities: Readonly<Record<Id, Entity>>;
  readonly relations: Readonly<Record<Id, Relation>>;
  readonly remove: readonly Id[];
}

/** The sketch as it is solved now. */
interface Drawing {
  readonly geometry: Geometry;
  readonly relations: Relations;
  /** What is borrowed: it stays what its source is. */
  readonly borrowed?: Entities;
}

/** Gathers an edit: what a figure builder adds, and besides what is replaced and what goes. */
export class EditBuilder extends FigureBuilder implements SketchEdit {
  private readonly gone = new Set<Id>();

  constructor(
    readonly drawing: Drawing,
    newId: NewId,
  ) {
    super(newId);
  }

  get geometry(): Geometry {
    return this.drawing.geometry;
  }

  isBorrowed(id: Id): boolean {
    return Object.hasOwn(this.drawing.borrowed ?? {}, id);
  }

  /** The entity as it is after what was replaced so far. */
  now(id: Id): Entity {
    return this.entities[id] ?? findEntity(this.geometry.entities, id)!;
  }

  replace(id: Id, entity: Entity): void {
    this.entities[id] = entity;
  }

  replaceRelation(id: Id, relation: Relation): void {
    this.relations[id] = relation;
  }

  drop(id: Id): void {
    this.gone.add(id);
  }

  get remove(): readonly Id[] {
    return [...this.gone];
  }

  get edit(): SketchEdit {
    return { entities: this.entities, relations: this.relations, remove: this.remove };
  }
}

/** Relations that refer to an entity. */
export const relationsOn = (relations: Relations, id: Id): [Id, Relation][] =>
  Object.entries(relations).filter(([, relation]) => relationKind(relation.kind).refs(relation).includes(id));

/** The same relation between other things. */
export function renamed(relation: Relation, nameOf: (id: Id) => Id): Relation {
  const refs = new Set(relationKind(relation.kind).refs(relation));
  // what is typed or names the kind is no reference, whatever it looks like
  return JSON.parse(JSON.stringify(relation), (key: string, value: unknown) =>
    typeof value === 'string' && key !== 'value' && key !== 'kind' && refs.has(value) ? nameOf(value) : value,
  ) as Relation;
}

/**
 * Before a curve gets another end: relations that speak of it between its ends, as of how long it is, go on speaking of the
 * whole of it, which stays as construction. The caller keeps the ends of that on the curve.
 * @returns the whole of it; undefined where nothing speaks of that
 */
export function keepWhole(builder: EditBuilder, id: Id): Id | undefined {
  const entities = { ...builder.geometry.entities, ...builder.entities };
  const speaking = relationsOn({ ...builder.drawing.relations, ...builder.relations }, id).filter(([, relation]) =>
    relationKind(relation.kind)
      .ofEnds?.(relation, (of) => roleIn(entities, of))
      .includes(id),
  );
  if (speaking.length === 0) return undefined;
  const { centreline: _, ...curve } = builder.now(id) as Extract<Entity, { kind: 'line' }>;
  const whole = builder.entity(id[0] ?? 'l', { ...curve, construction: true });
  for (const [key, relation] of speaking)
    builder.replaceRelation(
      key,
      renamed(relation, (of) => (of === id ? whole : of)),
    );
  return whole;
}

/** The parameter of the place of a curve that is nearest to another, counted over its pieces. */
export function parameterNear(pieces: readonly Piece[], at: Vec2): number {
  const far = (piece: Piece) => distance2(nearestOn(piece, at), at);
  const nearest = pieces.reduce((best, piece, k) => (far(piece) < far(pieces[best]!) ? k : best), 0);
  return nearest + nearestParameter(pieces[nearest]!, at);
}

/** The place at a parameter counted over the pieces; beyond the last it begins again. */
export function placeAt(pieces: readonly Piece[], t: number): Vec2 {
  if (t === pieces.length) return pieces.at(-1)!.to;
  const round = t % pieces.length;
  const span = Math.floor(round);
  return along(pieces[span]!, round - span);
}

export const editWords: Words = {
  'edit.curve': () => 'This works on lines, arcs, circles, ellipses and splines: click one of these.',
  'edit.one-crossing': () =>
    'Only one curve crosses here, so no stretch of it can be told from the rest: nothing to trim.',
  'edit.nothing-ahead': () => 'Nothing lies ahead of this end: draw what it shall reach first.',
  'edit.extend-kind': () => 'Only lines and arcs can be extended.',
  'edit.corner': () => 'Choose a corner where exactly two lines or arcs meet.',
  'edit.corner-lines': () => 'A chamfer needs a corner of two straight lines.',
  'edit.too-large': (f, length) =>
    `The corner has no room for ${f['size']}: at most about ${length(f['most'] as number)} fits.`,
  'edit.offset-kind': () => 'Lines, arcs and circles can be offset: choose some of these.',
  'edit.offset-inside': () => 'An arc would lose its radius: choose a smaller distance or the other side.',
  'edit.mirror-text': () => 'Text can not be mirrored: it would have to be read backwards.',
  'edit.held': () => 'It did not move: relations hold it where it is. The desk lists them; drop one, or change a size.',
  'edit.factor': (f) => `"${f['text']}" is not a factor above 0 and up to 1000.`,
  'edit.told': () =>
    'They are told to meet there already: what keeps them apart is another relation. The desk lists all; drop or change one.',
  'edit.empty': () => 'Choose what it is to be done with first.',
};
