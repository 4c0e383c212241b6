import type { Issue } from '../result/index.ts';

// A step that what stands before it is in the way of, such as walls round a boss: where it fails and no size builds, the
// engine looks for a place further up where it would.

/** Failures of these codes that name no size that builds. */
export const unlessSized =
  (...codes: readonly string[]) =>
  ({ code, facts }: Issue): boolean =>
    codes.includes(code) && !(Number(facts['most']) > 0);

/** The same failure, with the step right after which it builds. */
export const buildsAfter = ({ code, facts }: Issue, step: string, name: string): Issue => ({
  code,
  facts: { ...facts, after: step, afterName: name },
});

/** The step right after which what failed builds as it is told; undefined where none is known. */
export const placeFurtherUp = ({ facts }: Issue): string | undefined => facts['after'] as string | undefined;

/** What to do about it: at that place it builds, or else as is told. */
export const furtherUp = (facts: Issue['facts'], otherwise: string): string =>
  facts['afterName'] === undefined ? otherwise : `Right after ${facts['afterName'] as string} it builds.`;
