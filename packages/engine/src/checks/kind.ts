import type { Action, Id, Project } from '@helb/core';
import type { Engine } from '../engine.ts';
import type { Model } from '../model.ts';

/** What a finding stands in the way of, the worst first. */
export const BLOCKS = {
  model: 'The model is not whole',
  fit: 'Parts do not go together',
  paper: 'Drawings are not ready',
  shop: 'Not to be made as it is',
  later: 'Hard to change later',
} as const;
export type Blocks = keyof typeof BLOCKS;

/** Something to mend, with where it is. */
export interface CheckFinding {
  readonly code: string;
  readonly blocks: Blocks;
  /** What is wrong and what would work. */
  readonly words: string;
  readonly part?: Id;
  readonly step?: Id;
  readonly sheet?: Id;
  readonly value?: Id;
  /** Paths of placements. */
  readonly placements?: readonly string[];
  /** What would mend it at once. */
  readonly cure?: { readonly label: string; readonly actions: readonly Action[] };
}

/** What checks look at. */
interface CheckContext {
  readonly project: Project;
  readonly engine: Engine;
  readonly model: Model;
  /** Tells what is looked at; gives way to other messages, and may throw to stop. */
  pause(words: string): Promise<void>;
}

/** A rule: a file beside this one and a line in the register. */
export interface Check {
  readonly title: string;
  look(context: CheckContext): Promise<readonly CheckFinding[]> | readonly CheckFinding[];
}
