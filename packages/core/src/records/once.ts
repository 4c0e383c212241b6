/**
 * A function of something that is never changed in place: worked out once for it, and forgotten with it. Not for drafts of
 * commands, which do change.
 */
export function once<K extends object, T>(of: (thing: K) => T): (thing: K) => T {
  const known = new WeakMap<K, { readonly of: T }>();
  return (thing) => {
    const found = known.get(thing);
    if (found) return found.of;
    const made = { of: of(thing) };
    known.set(thing, made);
    return made.of;
  };
}
