import { suits, type Accepts } from '@helb/core';
import type { Pick } from './picks.ts';

/** What is asked for where a face is the usual answer. */
const FACES: readonly Accepts[] = ['plane', 'sheet', 'face'];

/** Of what lies under the pointer what can be the answer; where that is a face, before what is seen edge-on through it. */
export function answering<P extends globalThis.Pick<Pick, 'kind' | 'thing'>>(
  picks: readonly P[],
  accepts: Accepts,
): readonly P[] {
  const isFace = ({ kind }: P) => kind === 'face' && FACES.includes(accepts);
  return picks.filter(({ thing }) => suits(thing, accepts)).toSorted((a, b) => Number(isFace(b)) - Number(isFace(a)));
}
