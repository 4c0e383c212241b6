import type { z } from 'zod';
import type { Scope } from '../expressions/index.ts';
import type { BodyHandle, Kernel } from '../kernel-port/index.ts';
import type { Frame } from '../math/index.ts';
import type { Id } from '../records/index.ts';
import type { Issue, Result } from '../result/index.ts';
import type { Entities, Regions, SketchSolution } from '../sketch/index.ts';
import type { Dimension } from '../units/index.ts';

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
    };

/** An expression somewhere in a step: the path to it from the step, and the dimension it must have. */
export interface ExpressionPlace {
  readonly path: readonly string[];
  readonly text: string;
  readonly asks: Dimension;
  readonly label: string;
}

export interface SolvedSketch {
  readonly frame: Frame;
  readonly solution: SketchSolution;
  /** The repetitions of its patterns, by names of their own. */
  readonly copies: Entities;
  readonly regions: Regions;
  /** What keeps it from being as asked: a clash, a dimension that can't be read. The shape is then the last good one. */
  readonly issue?: Issue;
  /** Why a dimension does not hold, by relation or pattern id. */
  readonly unread: ReadonlyMap<Id, Issue>;
}

export interface ResolveContext {
  readonly step: Id;
  readonly scope: Scope;
  /** The solved sketch of an earlier step. */
  sketch(step: Id): Result<SolvedSketch>;
}

/** What the register knows of a kind of step. `I` are its inputs with all numbers and outlines resolved: plain data. */
export interface StepKind<S, I> {
  readonly schema: z.ZodType<S>;
  readonly title: string;
  sentence(step: S, nameOf: (step: Id) => string): readonly Phrase[];
  /** Earlier steps that it needs. */
  uses(step: S): readonly Id[];
  expressions(step: S): readonly ExpressionPlace[];
  /** Present on steps that are drawn: the solved sketch for the steps after it. */
  draw?(step: S, scope: Scope): SolvedSketch;
  /**
   * Present on steps that make bodies: turns expressions and references into plain inputs. These and the bodies before
   * are all that the result depends on.
   */
  resolve?(step: S, context: ResolveContext): Result<I>;
  /** Makes the bodies after the step from those before. */
  build?(inputs: I, before: readonly BodyHandle[], kernel: Kernel): Result<readonly BodyHandle[]>;
}
