import { GROUND, type Substitution } from '../solver/index.ts';
import type { Vec2 } from '../math/index.ts';
import type { Id } from '../records/index.ts';
import {
  BUILT_IN,
  entityKind,
  findEntity,
  isBuiltIn,
  roleIn,
  type Entities,
  type Entity,
  type EntityOf,
  type Role,
} from './entities/index.ts';
import { polyline, type Piece } from './pieces/index.ts';

/** An unknown that is prescribed: where it was drawn, and where it has to be. */
interface Pin {
  readonly owner: Id;
  readonly at: number;
  readonly from: number;
  readonly to: number;
}

/** Where each entity keeps its unknowns in the solver's vector. */
export class Layout {
  readonly initial: Float64Array;
  readonly entities: Entities;
  private readonly pins: readonly Pin[];
  private readonly base = new Map<Id, number>();
  private readonly owners: Id[] = [];

  /** @param prescribed entities that are not free: as they have to be, whatever is drawn */
  constructor(entities: Entities, prescribed: Entities = {}) {
    this.entities = asPrescribed(entities, prescribed);
    const initial: number[] = [];
    const pins: Pin[] = [];
    for (const [id, entity] of Object.entries({ ...BUILT_IN, ...this.entities })) {
      this.base.set(id, initial.length);
      const target = isBuiltIn(id) ? entity : prescribed[id];
      const to = target && entityKind(target.kind).unknowns(target);
      for (const [k, place] of entityKind(entity.kind).unknowns(entity).entries()) {
        this.owners.push(id);
        if (to) pins.push({ owner: id, at: initial.length, from: place, to: to[k]! });
        initial.push(place);
      }
    }
    this.initial = Float64Array.from(initial);
    this.pins = pins;
  }

  /** Holds the built-in and the prescribed entities: at t = 0 where they were drawn, at t = 1 where they have to be. */
  groundAt(t: number): Substitution[] {
    return this.pins.map(({ owner, at, from, to }) => ({ owner, a: at, b: GROUND, offset: from + t * (to - from) }));
  }

  /** How far prescribed entities have to go from where they were drawn, mm. */
  get farthestPin(): number {
    return this.pins.reduce((most, { from, to }) => Math.max(most, Math.abs(to - from)), 0);
  }

  entity<K extends Entity['kind']>(id: Id, kind: K): EntityOf<K> {
    const entity = findEntity(this.entities, id);
    if (entity?.kind !== kind) throw new Error(`${id} is not a ${kind}`);
    return entity as EntityOf<K>;
  }

  roleOf = (id: Id): Role => roleIn(this.entities, id)!;

  /** Indices of x and y of a point. */
  point(id: Id): readonly [number, number] {
    this.entity(id, 'point');
    const at = this.base.get(id)!;
    return [at, at + 1];
  }

  /** Indices of ax, ay, bx, by of a line. */
  line(id: Id): readonly [number, number, number, number] {
    const { a, b } = this.entity(id, 'line');
    return [...this.point(a), ...this.point(b)];
  }

  /** Indices of centre x, centre y and radius of a circle or an arc. */
  circle(id: Id): readonly [number, number, number] {
    const entity = findEntity(this.entities, id);
    if (!entity || !('radius' in entity)) throw new Error(`${id} is not round`);
    return [...this.point(entity.centre), this.base.get(id)!];
  }

  /** Indices of x and y of the centre of what is round. */
  centre(id: Id): readonly [number, number] {
    const entity = findEntity(this.entities, id);
    if (!entity || !('centre' in entity)) throw new Error(`${id} has no centre`);
    return this.point(entity.centre);
  }

  /** Indices of centre x, y, tip x, y and the minor radius of an ellipse or an elliptical arc. */
  ellipse(id: Id): readonly [number, number, number, number, number] {
    const entity = findEntity(this.entities, id);
    if (!entity || !('tip' in entity)) throw new Error(`${id} is not an ellipse`);
    return [...this.point(entity.centre), ...this.point(entity.tip), this.base.get(id)!];
  }

  /** The entity that an unknown belongs to. */
  ownerOf = (unknown: number): Id => this.owners[unknown]!;

  /** All own unknowns of an entity, as indices. */
  unknownsOf(id: Id): readonly number[] {
    const entity = findEntity(this.entities, id)!;
    const at = this.base.get(id)!;
    return entityKind(entity.kind)
      .unknowns(entity)
      .map((_, k) => at + k);
  }

  /** The entities with the places that x gives them. */
  moved(x: Float64Array): Entities {
    return Object.fromEntries(
      Object.entries(this.entities).map(([id, entity]) => [
        id,
        entityKind(entity.kind).moved(
          entity,
          this.unknownsOf(id).map((at) => x[at]!),
        ),
      ]),
    );
  }
}

/** Held entities stand on the points that they have to stand on, but start from where they were drawn. */
function asPrescribed(entities: Entities, prescribed: Entities): Entities {
  const started = Object.entries(prescribed).flatMap(([id, target]) => {
    const drawn = entities[id];
    if (drawn?.kind !== target.kind) return [];
    const { moved, unknowns } = entityKind(target.kind);
    return [[id, { ...moved(target, unknowns(drawn)), ...flagsOf(drawn) }] as const];
  });
  return started.length === 0 ? entities : { ...entities, ...Object.fromEntries(started) };
}

const flagsOf = (entity: Entity): object => ({
  ...('construction' in entity ? { construction: entity.construction } : {}),
  ...('centreline' in entity ? { centreline: entity.centreline } : {}),
});

/** The places of entities, in mm on the sketch plane. */
export class Geometry {
  constructor(readonly entities: Entities) {}

  roleOf = (id: Id): Role | undefined => roleIn(this.entities, id);

  point(id: Id): Vec2 {
    const entity = findEntity(this.entities, id);
    if (entity?.kind !== 'point') throw new Error(`${id} is not a point`);
    return [entity.x, entity.y];
  }

  line(id: Id): { readonly a: Vec2; readonly b: Vec2 } {
    const entity = findEntity(this.entities, id);
    if (entity?.kind !== 'line') throw new Error(`${id} is not a line`);
    return { a: this.point(entity.a), b: this.point(entity.b) };
  }

  /** Centre and radius of a circle or an arc. */
  circle(id: Id): { readonly centre: Vec2; readonly radius: number } {
    const entity = findEntity(this.entities, id);
    if (!entity || !('radius' in entity)) throw new Error(`${id} is not round`);
    return { centre: this.point(entity.centre), radius: entity.radius };
  }

  centre(id: Id): Vec2 {
    const entity = findEntity(this.entities, id);
    if (!entity || !('centre' in entity)) throw new Error(`${id} has no centre`);
    return this.point(entity.centre);
  }

  /** Centre, end of the first axis and the radius across it of an ellipse or an elliptical arc. */
  ellipse(id: Id): { readonly centre: Vec2; readonly tip: Vec2; readonly minor: number } {
    const entity = findEntity(this.entities, id);
    if (!entity || !('tip' in entity)) throw new Error(`${id} is not an ellipse`);
    return { centre: this.point(entity.centre), tip: this.point(entity.tip), minor: entity.minor };
  }

  /** Points at which a curve ends; none for closed curves and points. */
  ends(id: Id): readonly Id[] {
    const entity = findEntity(this.entities, id);
    return entity ? (entityKind(entity.kind).ends?.(entity) ?? []) : [];
  }

  /** The drawn curve of an entity; nothing for a point. */
  pieces(id: Id): readonly Piece[] {
    const entity = findEntity(this.entities, id);
    return entity ? entityKind(entity.kind).trace(id, entity, (point) => this.point(point)) : [];
  }

  /** Smallest box round everything drawn, or undefined for an empty sketch. */
  box(): { readonly low: Vec2; readonly high: Vec2 } | undefined {
    const places = Object.entries(this.entities).flatMap(([id, entity]) =>
      entity.kind === 'point' ? [this.point(id)] : this.pieces(id).flatMap(polyline),
    );
    if (places.length === 0) return undefined;
    const xs = places.map((place) => place[0]);
    const ys = places.map((place) => place[1]);
    return { low: [Math.min(...xs), Math.min(...ys)], high: [Math.max(...xs), Math.max(...ys)] };
  }
}
