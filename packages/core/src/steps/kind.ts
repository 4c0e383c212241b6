import type { z } from 'zod';
import type { Scope } from '../expressions/index.ts';
import type { BodyHandle, EdgeFacts, Kernel } from '../kernel-port/index.ts';
import type { Frame, RigidTransform } from '../math/index.ts';
import type { FileRecord, Id } from '../records/index.ts';
import type { Issue, Result, Words } from '../result/index.ts';
import type { Accepts, Borrowing, Datum, Reference, Thing, NameOf } from '../references/index.ts';
import type { Entities, Geometry, Regions, Sizes, SketchSolution } from '../sketch/index.ts';
import type { Dimension } from '../units/index.ts';
import type { Fields } from './fields/index.ts';
import type { Pull, SeenAround } from './pulls.ts';
import type { Sign } from './thread/index.ts';

/** A piece of the sentence that a step is. */
export type Phrase =
  | { readonly type: 'text'; readonly text: string }
  | { readonly type: 'strong'; readonly text: string }
  /** A number in the sentence, edited where it stands: the field of the step that holds its expression. */
  | {
      readonly type: 'chip';
      readonly field: string;
      readonly text: string;
      readonly asks: Dimension;
      readonly label: string;
    }
  /** One of a few words, changed where it stands. */
  | {
      readonly type: 'choice';
      readonly field: string;
      readonly value: string;
      readonly options: Readonly<Record<string, string>>;
      readonly label: string;
    }
  /** Another part, changed where it stands. */
  | { readonly type: 'part'; readonly field: string; readonly value: Id; readonly label: string }
  /** What was picked in the view, changed by picking again. */
  | { readonly type: 'picks'; readonly field: string; readonly text: string; readonly label: string };

/** An expression somewhere in a step: the path to it from the step, and the dimension it must have. */
export interface ExpressionPlace {
  readonly path: readonly string[];
  readonly text: string;
  readonly asks: Dimension;
  readonly label: string;
}

/** A reference somewhere in a step: the path to it from the step, and what it must be. */
export interface ReferencePlace {
  readonly path: readonly string[];
  readonly reference: Reference;
  readonly accepts: Accepts;
  readonly label: string;
}

/** Something that the step asks to be picked, one or several; what is picked already is in `references`. */
export interface PickField {
  readonly field: string;
  readonly accepts: Accepts;
  readonly label: string;
  /** How many it takes. */
  readonly min: number;
  readonly max: number;
  readonly picked: readonly Reference[];
  /** The value of the field with these picked. */
  with(picked: readonly Reference[]): unknown;
}

/** Where a sketch lies and what it borrows, as what it comes from is now. */
export interface SketchSources {
  readonly frame: Frame;
  /** Borrowed entities as they have to be. */
  readonly borrowed: Entities;
  /** What can't be found or has changed its kind: by the id of the projected reference, `plane` for the plane itself. */
  readonly lost: Readonly<Record<string, Issue>>;
  /** What an outline has got besides since it was borrowed: how many curves, by the id of the projected reference. */
  readonly more: Readonly<Record<string, number>>;
  /** What a source looks like now that gives something else than was borrowed of it: by the id of the projected reference. */
  readonly now: Readonly<Record<string, Entities>>;
}

export interface SolvedSketch {
  readonly sources: SketchSources;
  readonly frame: Frame;
  readonly solution: SketchSolution;
  /** The repetitions of its patterns, by names of their own. */
  readonly copies: Entities;
  readonly regions: Regions;
  /** What keeps it from being as asked: a clash, a dimension that can't be read. The shape is then the last good one. */
  readonly issue?: Issue;
  /** What the dimensions that can be read come to, whether they hold or not: mm and rad, by relation id. */
  readonly sizes: Sizes;
  /** Why a dimension does not hold, by relation or pattern id. */
  readonly unread: ReadonlyMap<Id, Issue>;
}

export interface ResolveContext {
  readonly step: Id;
  readonly scope: Scope;
  /** The solved sketch of an earlier step. */
  sketch(step: Id): Result<SolvedSketch>;
  /** What a reference of this step points to; what was recovered is noted. */
  find(reference: Reference, accepts: Accepts): Result<Thing>;
  /** An earlier step that makes bodies, as it was resolved. */
  source(step: Id): Result<Source>;
  /** The bodies of another part as it is built; fails where it has none. */
  bodiesOf(part: Id): Result<readonly BodyHandle[]>;
  /** How a thing looks on a plane, as sketch entities by lasting keys. */
  project(thing: Thing, how: Borrowing, frame: Frame, source: Reference): Result<Entities>;
}

/** A sketch as a new step looks at it. */
export interface DrawnShape {
  readonly geometry: Geometry;
  /** How many of its lines are centre lines. */
  readonly centrelines: number;
  /** Is it an open line that encloses nothing, with its ends well apart: a path for walls, not an outline with a gap? */
  readonly isPath: boolean;
  /** What the bodies beside it are turned about, where that is one line in its plane. */
  readonly axis?: Reference | undefined;
}

/** How a kind of step is offered. */
export interface StepVerb {
  /** The title of the kind where absent. */
  readonly title?: string;
  /** One letter; empty for none. */
  readonly key: string;
  /** What it does, in one sentence and in the field's own words: by these it is found as well. */
  readonly says: string;
  /** Kinds of picks with which it is among the first. */
  readonly likely?: readonly ('face' | 'edge' | 'corner' | 'body' | 'guide')[];
}

/** What the register knows of a kind of step. `I` are its inputs with all numbers and outlines resolved: plain data. */
export interface StepKind<S, I> {
  readonly schema: z.ZodType<S>;
  readonly title: string;
  /** What a new one is called, where its title is a verb. */
  readonly noun?: string;
  /** How it is offered; absent on what is begun in another way. */
  readonly verb?: StepVerb;
  /** Sentences of what can go wrong with it. */
  readonly words?: Words;
  /** What it asks for, by the names of the fields; for steps that are made of fields. */
  readonly fields?: Fields;
  sentence(step: S, nameOf: NameOf): readonly Phrase[];
  /** Earlier steps that it needs. */
  uses(step: S): readonly Id[];
  expressions(step: S): readonly ExpressionPlace[];
  /** All references into what was there before. */
  references?(step: S): readonly ReferencePlace[];
  /** The values of its field `how`, for steps that are made in one of several ways. */
  readonly ways?: readonly string[];
  /** What is to be picked for it, in the order in which it is asked. */
  picks?(step: S): readonly PickField[];
  /** What a new one takes of the sketch that it is of, besides what is picked. */
  begun?(step: S, drawn: DrawnShape): Readonly<Record<string, unknown>>;
  /** The line of a new one that is asked though it may stay empty: nothing that is drawn stands for it. */
  asked?(step: S, drawn: DrawnShape): string | undefined;
  /** The fields that change where it is turned the other way round; undefined where it can't be. */
  turned?(step: S): Readonly<Record<string, unknown>> | undefined;
  /** Its lengths as they are seen in space, to be pulled by the hand. */
  pulls?(step: S, seen: SeenAround): readonly Pull[];
  /** Other parts whose bodies it takes. */
  parts?(step: S): readonly Id[];
  /** The files that have to be there for it to be built. */
  files?(step: S): readonly FileRecord[];
  /** Present on steps that are drawn: the plane and what is borrowed, for `draw`. */
  sources?(step: S, context: ResolveContext): SketchSources;
  /** Present on steps that are drawn: the solved sketch for the steps after it. */
  draw?(step: S, scope: Scope, sources: SketchSources): SolvedSketch;
  /** Present on steps that make a datum. */
  datum?(step: S, context: ResolveContext): Result<Datum>;
  /** Present on steps that lay triangles under the model. */
  lay?(step: S, context: ResolveContext): Result<LaidFile>;
  /**
   * Present on steps that make bodies: turns expressions and references into plain inputs. These and the bodies before
   * are all that the result depends on.
   */
  resolve?(step: S, context: ResolveContext): Result<I>;
  /** Makes the bodies after the step from those before; none of these is released. */
  build?(inputs: I, before: readonly BodyHandle[], kernel: Kernel): Result<readonly BodyHandle[]>;
  /** After which failures a place further up may do, where less is in its way. */
  yields?(issue: Issue): boolean;
  /** Present on steps that add or cut by solids of their own: these solids, so that a pattern can repeat them. */
  tools?(inputs: I, before: readonly BodyHandle[], kernel: Kernel): Result<BodyHandle[]>;
  /** What is done with the solids of `tools`. */
  resultOf?(inputs: I): BodyResult;
  /** The places of the bodies to which that is done; all if empty. */
  touches?(inputs: I): readonly number[];
  /** Present on steps that change edges: these, and the same inputs for other edges in their stead. */
  edges?(inputs: I): readonly EdgeOfBody[];
  again?(inputs: I, insteadOf: (edge: EdgeOfBody) => readonly EdgeOfBody[]): I;
  /** Present on steps that repeat others: what and where, so that they can be repeated themselves. */
  repeats?(inputs: I): { readonly sources: readonly Source[]; readonly copies: readonly Copy[] } | undefined;
  /** Present on steps that may be shown by a sign instead of being built in full. */
  signs?(inputs: I): readonly Sign[];
}

/** A file of triangles as a step lays it under the model. */
export interface LaidFile {
  readonly file: FileRecord;
  /** Millimetres for a unit of it; as the file says if undefined. */
  readonly unit: number | undefined;
  readonly at: RigidTransform;
}

export type BodyResult = 'new' | 'add' | 'cut' | 'overlap';

/** An edge by its name, with the place of its body among those before the step. */
export interface EdgeOfBody {
  readonly body: number;
  readonly name: string;
}

/** Where a copy stands, as seen from what it is one of; its faces carry the instance in their names. */
export interface Copy {
  readonly transform: RigidTransform;
  readonly instance: string;
}

/** An earlier step as it was resolved, for a pattern to repeat it. */
export interface Source {
  readonly kind: string;
  readonly inputs: unknown;
  /** Names of the bodies that it is told to touch; all if empty. */
  readonly on: readonly string[];
  /** The edges that it changed, as they were before it, in the order in which its kind tells them. */
  readonly edges?: readonly EdgeFacts[];
}
