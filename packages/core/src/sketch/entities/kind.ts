import type { z } from 'zod';
import type { Dual, DualVec, Vec2 } from '../../math/index.ts';
import type { Id } from '../../records/index.ts';
import type { Block } from '../../solver/index.ts';
import type { Layout } from '../geometry.ts';
import type { Entity } from './index.ts';
import type { Piece } from '../pieces/index.ts';
import type { FreeCurve } from '../residuals.ts';

/** What an entity can be to a relation: an arc is a circle to most. */
export type Role = 'point' | 'line' | 'circle' | 'ellipse' | 'spline' | 'text';

/** The direction of a curve in one of its ends, as a formula. */
export interface Heading {
  readonly unknowns: readonly number[];
  direction(v: readonly Dual[]): DualVec;
}

/** A place on a curve where a stretch of it shall begin or end, and the point that shall stand there. */
export interface CurveEnd {
  readonly t: number;
  readonly point: Id;
}

/** What the register knows of a kind of sketch entity. */
export interface EntityKind<E> {
  readonly schema: z.ZodType<E>;
  readonly title: string;
  readonly role: Role;
  /** Ids of the points that it stands on. */
  uses(entity: E): readonly Id[];
  /** Points at which it ends; none for closed curves. */
  ends?(entity: E): readonly [Id, Id];
  /** The entity standing on other points: each id that it uses replaced. */
  onto(entity: E, point: (id: Id) => Id): E;
  /** Its own unknowns as drawn (mm). */
  unknowns(entity: E): readonly number[];
  /** Its drawn curve; nothing for a point. */
  trace(id: Id, entity: E, point: (id: Id) => Vec2): readonly Piece[];
  /** What holds by itself, without any relation: the ends of an arc lie on its circle. */
  equations?(id: Id, entity: E, layout: Layout): readonly Block[];
  /** How far a place is off it, for curves without a formula of their own in the relations. */
  curve?(id: Id, entity: E, layout: Layout): FreeCurve;
  /**
   * For splines: the Bezier point beyond the handle at one of the ends, as weights of all its points, and which of these
   * are the end and the handle.
   */
  beyondHandle?(
    entity: E,
    end: Id,
  ): {
    readonly points: readonly Id[];
    readonly weights: readonly number[];
    readonly end: number;
    readonly handle: number;
  };
  /** Its direction in one of its ends. */
  heading?(id: Id, entity: E, end: Id, layout: Layout): Heading;
  /**
   * Its stretch between two parameters, standing on these points. Parameters count its pieces: 2.3 is at 0.3 of the third;
   * closed curves go on beyond their last.
   */
  part?(entity: E, from: CurveEnd, to: CurveEnd, pieces: readonly Piece[], make: (at: Vec2) => Id): Entity;
  /** The entity as it has to be described after all its points were mirrored; absent where a mirror image is none. */
  mirrored?(entity: E): E;
  /** The entity running the other way; absent where its direction is fixed. */
  reversed?(entity: E): E;
  /** The entity with its unknowns set to these. */
  moved(entity: E, unknowns: readonly number[]): E;
}
