import type { z } from 'zod';
import type { Vec2 } from '../../math/index.ts';
import type { Id } from '../../records/index.ts';
import type { Block } from '../../solver/index.ts';
import type { Layout } from '../geometry.ts';
import type { Piece } from '../pieces.ts';

/** What an entity can be to a relation: an arc is a circle to most. */
export type Role = 'point' | 'line' | 'circle';

/** What the register knows of a kind of sketch entity. */
export interface EntityKind<E> {
  readonly schema: z.ZodType<E>;
  readonly title: string;
  readonly role: Role;
  /** Ids of the points that it stands on. */
  uses(entity: E): readonly Id[];
  /** Its own unknowns as drawn (mm). */
  unknowns(entity: E): readonly number[];
  /** Its drawn curve; nothing for a point. */
  trace(id: Id, entity: E, point: (id: Id) => Vec2): readonly Piece[];
  /** What holds by itself, without any relation: the ends of an arc lie on its circle. */
  equations?(id: Id, entity: E, layout: Layout): readonly Block[];
  /** The entity with its unknowns set to these. */
  moved(entity: E, unknowns: readonly number[]): E;
}
