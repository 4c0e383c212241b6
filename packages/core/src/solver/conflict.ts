/** Each try solves a problem anew: after so many what is still in question is told as part of the conflict. */
const MOST_TRIES = 200;

/**
 * A minimal set of what can not hold together: without any one of its members the rest of them could (QuickXplain:
 * Junker 2004). With more tries than `MOST_TRIES` it holds all that fights, and may hold more.
 * @param candidates clash when they are all told
 * @param suspects where these clash by themselves only they are looked at
 * @param clashes can these not hold together?
 */
export function minimalConflict<T>(
  candidates: readonly T[],
  suspects: readonly T[],
  clashes: (subset: readonly T[]) => boolean,
): T[] {
  let tries = 0;
  const isClash = (subset: readonly T[]): boolean => {
    tries++;
    return clashes(subset);
  };
  /** Those of `open` that are needed, beside `background`, for a clash. */
  const needed = (background: readonly T[], grown: boolean, open: readonly T[]): readonly T[] => {
    if (tries >= MOST_TRIES) return open;
    if (grown && isClash(background)) return [];
    if (open.length <= 1) return open;
    const half = Math.floor(open.length / 2);
    const [older, newer] = [open.slice(0, half), open.slice(half)];
    const ofNewer = needed([...background, ...older], true, newer);
    const ofOlder = needed([...background, ...ofNewer], ofNewer.length > 0, older);
    return [...ofOlder, ...ofNewer];
  };
  return [...needed([], false, suspects.length > 0 && isClash(suspects) ? suspects : candidates)];
}
