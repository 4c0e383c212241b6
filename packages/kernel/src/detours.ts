import type { Issue } from '@helb/core';
import type { Library } from './library.ts';

/** Where the plain way did not lead: what was done instead, since it was last taken. */
const gone = new WeakMap<Library, readonly Issue[]>();

/** Notes that another way was gone. */
export function detoured(library: Library, way: Issue): void {
  const ways = gone.get(library) ?? [];
  const isSame = (one: Issue) => JSON.stringify(one) === JSON.stringify(way);
  if (!ways.some(isSame)) gone.set(library, [...ways, way]);
}

/** The other ways that were gone, each once; from now on there are none. */
export function takeDetours(library: Library): readonly Issue[] {
  const ways = gone.get(library) ?? [];
  gone.delete(library);
  return ways;
}

/** Tries something: where it does not come to what is wanted, the other ways that were gone in it are forgotten. */
export function trying<T>(library: Library, attempt: () => T, isWanted: (made: T) => boolean): T {
  const before = gone.get(library) ?? [];
  const made = attempt();
  if (!isWanted(made)) gone.set(library, before);
  return made;
}
