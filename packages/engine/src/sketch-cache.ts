import { LRUCache } from 'lru-cache';
import { namesUsed, stepKind, type Scope, type SketchSources, type SolvedSketch, type Step } from '@helb/core';

const MOST = 300;

/** Solved sketches: each depends on its step, on what its sizes come to and on what it borrows. */
export class SketchCache {
  private readonly known = new LRUCache<string, SolvedSketch>({ max: MOST });

  solved(step: Step, scope: Scope, sources: SketchSources): SolvedSketch {
    const kind = stepKind(step.kind);
    const sizes = kind.expressions(step).map(({ text }) => resultsRead(text, scope));
    const key = JSON.stringify([{ ...step, name: '' }, sizes, sources]);
    let solved = this.known.get(key);
    if (!solved) this.known.set(key, (solved = kind.draw!(step, scope, sources)));
    return solved;
  }
}

/** What the values that an expression reads come to: all that its result depends on besides its text. */
const resultsRead = (text: string, scope: Scope): unknown => [
  scope.unit,
  ...namesUsed(text).map((name) => scope.lookup(name)),
];
