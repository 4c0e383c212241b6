import type { z } from 'zod';
import type { Vec2 } from '../../math/index.ts';
import type { Id } from '../../records/index.ts';
import type { Block, Substitution } from '../../solver/index.ts';
import type { Dimension } from '../../units/index.ts';
import type { Role } from '../entities/index.ts';
import type { Annotation, AnnotationSpace } from '../annotation.ts';
import type { Geometry, Layout } from '../geometry.ts';

/** What a relation asks of the unknowns. */
export interface Equations {
  readonly blocks?: readonly Block[];
  readonly substitutions?: readonly Substitution[];
}

export interface EquationContext {
  /** Id of the relation: the owner of its equations. */
  readonly id: Id;
  readonly layout: Layout;
  /** The places from which the solver starts; scales and branches are read from it. */
  readonly start: Geometry;
  /** What a dimension shall measure (mm or rad); 0 for other relations. */
  readonly value: number;
}

/** The two unknowns of a place. */
type Place = readonly [x: number, y: number];

export type Roles = Readonly<Record<Id, readonly Role[]>>;

/** What the register knows of a kind of relation. */
export interface RelationKind<R> {
  readonly schema: z.ZodType<R>;
  /** The verb's name, for the verb strip. */
  readonly title: string;
  /** The drafting sign in the round tag; dimensions have none. */
  readonly mark?: string;
  refs(relation: R): readonly Id[];
  /** For each reference the kinds of entity that may play it. */
  roles(relation: R, roleOf: (id: Id) => Role | undefined): Roles;
  /** The relation between these picked entities, in any order; undefined where it makes no sense for them. */
  fit(picks: readonly Id[], geometry: Geometry): R | undefined;
  equations(relation: R, context: EquationContext): Equations;
  /**
   * Moves the places from which the solver starts (x, by the layout) where the drawing is so far off that the nearest
   * solution would be a degenerate one.
   */
  aim?(relation: R, layout: Layout, x: Float64Array): void;
  /** The relation saying the same of a line that now runs the other way; absent where the direction does not matter. */
  turned?(relation: R, line: Id): R;
  /** Present on dimensions. */
  readonly dimension?: DimensionKind<R>;
  /** The two places that it keeps apart without telling on which side of anything they lie. */
  spans?(relation: R, layout: Layout): readonly [at: Place, to: Place] | undefined;
  /** Where its tags stand. */
  anchors(relation: R, geometry: Geometry): readonly Vec2[];
  /** The sentence for lists: "line and circle touch". */
  readonly words: string;
}

export interface DimensionKind<R> {
  readonly asks: Dimension;
  /** Measures that differ by this are the same: a full turn, of an angle. */
  readonly period?: number;
  /** The present measure (mm or rad). */
  measure(relation: R, geometry: Geometry): number;
  /** Places where its text may stand by default, the usual one first. */
  places(relation: R, geometry: Geometry, space: AnnotationSpace): readonly Vec2[];
  /** How it is drawn after ISO 129-1 with its text in a place: extension lines, dimension line, arrows. */
  annotate(relation: R, geometry: Geometry, space: AnnotationSpace, at: Vec2): Annotation;
  /** Stands before the number: the sign for a diameter, R for a radius. */
  readonly prefix?: string;
}
