import type { Id } from '../records/index.ts';
import { issue, type Issue } from '../result/index.ts';

// A step that what stands before it is in the way of, such as walls round a boss: where it fails and no size builds, the
// engine looks for a place further up where it would.

/** Failures of these codes that name no size that builds. */
export const unlessSized =
  (...codes: readonly string[]) =>
  ({ code, facts }: Issue): boolean =>
    codes.includes(code) && !(Number(facts['most']) > 0);

/** The same failure, with the step right after which it builds. */
export const buildsAfter = ({ code, facts }: Issue, step: Id): Issue => ({ code, facts: { ...facts, after: step } });

/** The step right after which what failed builds as it is told; undefined where none is known. */
export const placeFurtherUp = ({ facts }: Issue): Id | undefined => facts['after'] as Id | undefined;

/** The same failure with that step by its name, as it is called now. */
export function withItsName(failed: Issue, nameOf: (step: Id) => string): Issue {
  const after = placeFurtherUp(failed);
  return after === undefined ? failed : issue(failed.code, { ...failed.facts, afterName: nameOf(after) });
}

/** What to do about it: at that place it builds, or else as is told. */
export const furtherUp = (facts: Issue['facts'], otherwise: string): string =>
  facts['afterName'] === undefined ? otherwise : `Right after ${facts['afterName'] as string} it builds.`;
