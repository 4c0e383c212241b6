import type { Vec2 } from '../../math/index.ts';
import type { Id } from '../../records/index.ts';
import type { Entity } from '../entities/index.ts';
import type { Relation } from '../relations/index.ts';

/** Entities and relations to be added to a sketch together. */
export interface Figure {
  readonly entities: Readonly<Record<Id, Entity>>;
  readonly relations: Readonly<Record<Id, Relation>>;
}

/** Gives a new id with this beginning each time it is called. */
export type NewId = (prefix: string) => Id;

/** A point at a place. */
export const pointAt = ([x, y]: Vec2): Entity => ({ kind: 'point', x, y });

/** Gathers the entities and relations of a figure. */
export class FigureBuilder implements Figure {
  readonly entities: Record<Id, Entity> = {};
  readonly relations: Record<Id, Relation> = {};

  constructor(private readonly newId: NewId) {}

  place(at: Vec2): Id {
    return this.entity('p', pointAt(at));
  }

  line(a: Id, b: Id, construction = false): Id {
    return this.entity('l', { kind: 'line', a, b, ...(construction ? { construction } : {}) });
  }

  /** Counter-clockwise from a to b. */
  arc(centre: Id, a: Id, b: Id, radius: number, construction = false): Id {
    return this.entity('a', { kind: 'arc', centre, a, b, radius, ...(construction ? { construction } : {}) });
  }

  circle(centre: Id, radius: number, construction = false): Id {
    return this.entity('c', { kind: 'circle', centre, radius, ...(construction ? { construction } : {}) });
  }

  entity(prefix: string, entity: Entity): Id {
    const id = this.newId(prefix);
    this.entities[id] = entity;
    return id;
  }

  relate(relation: Relation): Id {
    const id = this.newId('r');
    this.relations[id] = relation;
    return id;
  }

  /** The entities and relations alone, as plain data. */
  get figure(): Figure {
    return { entities: this.entities, relations: this.relations };
  }
}
