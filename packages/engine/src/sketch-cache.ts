import { namesUsed, stepKind, type Scope, type SketchSources, type SolvedSketch, type Step } from '@helb/core';
import { keepLast } from './keep-last.ts';

const MOST = 300;

/** Solved sketches: each depends on its step, on what its sizes come to and on what it borrows. */
export class SketchCache {
  /** The ones asked for last are at the end. */
  private readonly known = new Map<string, SolvedSketch>();

  solved(step: Step, scope: Scope, sources: SketchSources): SolvedSketch {
    const kind = stepKind(step.kind);
    const sizes = kind.expressions(step).map(({ text }) => resultsRead(text, scope));
    const key = JSON.stringify([{ ...step, name: '' }, sizes, sources]);
    const solved = this.known.get(key) ?? kind.draw!(step, scope, sources);
    return keepLast(this.known, key, solved, MOST);
  }
}

/** What the values that an expression reads come to: all that its result depends on besides its text. */
const resultsRead = (text: string, scope: Scope): unknown => [
  scope.unit,
  ...namesUsed(text).map((name) => scope.lookup(name)),
];
