/**
 * The last of a list of which something holds, found by halving: it holds up to some place and not after it. Undefined where
 * it does not hold of the first.
 */
export function lastThat<T>(list: readonly T[], holds: (one: T) => boolean): T | undefined {
  if (list.length === 0 || !holds(list[0]!)) return undefined;
  let [good, bad] = [0, list.length];
  while (bad - good > 1) {
    const middle = (good + bad) >> 1;
    if (holds(list[middle]!)) good = middle;
    else bad = middle;
  }
  return list[good];
}
