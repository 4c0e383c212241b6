import type { z } from 'zod';
import type { Id } from '../../records/index.ts';

/** What the register knows of a kind of sketch entity. */
export interface EntityKind<E> {
  readonly schema: z.ZodType<E>;
  readonly title: string;
  /** Ids of the points that it stands on. */
  uses(entity: E): readonly Id[];
  /** Its own unknowns as drawn (mm). */
  unknowns(entity: E): readonly number[];
  /** The entity with its unknowns set to these. */
  moved(entity: E, unknowns: readonly number[]): E;
}
