import type { z } from 'zod';
import type { Vec2 } from '../../math/index.ts';
import type { Id } from '../../records/index.ts';
import type { Block, Substitution } from '../../solver/index.ts';
import type { Dimension } from '../../units/index.ts';
import type { Role } from '../entities/index.ts';
import type { Annotation, AnnotationSpace } from '../annotation.ts';
import type { Geometry, Layout } from '../geometry.ts';
import type { Similarity } from '../similarity.ts';

/** What a relation asks of the unknowns. */
interface Equations {
  readonly blocks?: readonly Block[];
  readonly substitutions?: readonly Substitution[];
}

interface EquationContext {
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

type Roles = Readonly<Record<Id, readonly Role[]>>;

/** What the register knows of a kind of relation. */
export interface RelationKind<R> {
  readonly schema: z.ZodType<R>;
  /** The verb's name, for the verb strip. */
  readonly title: string;
  /** How it is offered for what is chosen; absent on what the size tool makes. */
  readonly verb?: RelationVerb;
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
  /**
   * What is left of it when all that it is between is carried by a similarity; undefined for nothing. Absent where it
   * stays what it is, but for the scale of its number.
   */
  carried?(relation: R, by: Similarity): { readonly kind: string } | undefined;
  /** Which of several things of its kind it is: "level"; undefined where there is only one. */
  way?(relation: R): string | undefined;
  /** Present on dimensions. */
  readonly dimension?: DimensionKind<R>;
  /** The curves of which it speaks between their ends, as of how long they are: what they lie on does not tell it. */
  ofEnds?(relation: R, roleOf: (id: Id) => Role | undefined): readonly Id[];
  /** The two places that it keeps apart without telling on which side of anything they lie. */
  spans?(relation: R, layout: Layout): readonly [at: Place, to: Place] | undefined;
  /** Where its tags stand. */
  anchors(relation: R, geometry: Geometry): readonly Vec2[];
  /** The sentence for lists: "line and circle touch". */
  readonly words: string;
}

/** How a kind of relation is offered. */
interface RelationVerb {
  /** One letter; empty for none. */
  readonly key: string;
  /** What it does, in one sentence. */
  readonly says: string;
  /** What has to be chosen for it: "two lines". */
  readonly wants: string;
  /** Does it stand after the size tool, which makes its like? */
  readonly last?: boolean;
}

export interface DimensionKind<R> {
  readonly asks: Dimension;
  /** Its turn when the size tool looks what the things that were clicked can mean; absent where it is not asked. */
  readonly turn?: number;
  /** The dimension between the same things that a place of its text asks for: another sector, another direction. */
  toText?(relation: R, geometry: Geometry, at: Vec2): R;
  /** All that can be meant between the same things, each in words; absent where there is only one. */
  ways?(
    relation: R,
    geometry: Geometry,
  ): readonly { readonly title: string; readonly relation: { readonly kind: string } }[];
  /** It from the near (1) or far (-1) rims of picked circles instead of their centres. */
  toRims?(relation: R, picks: readonly Id[], geometry: Geometry, sign: 1 | -1): R;
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
