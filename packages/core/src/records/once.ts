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

/** A function of a key: worked out once for each that is asked for. Made where it is not needed for long. */
export function onceEach<K extends string | number, T>(of: (key: K) => T): (key: K) => T {
  const known = new Map<K, T>();
  return (key) => {
    if (!known.has(key)) known.set(key, of(key));
    return known.get(key)!;
  };
}
