import type { Issue } from '@helb/core';
import type { Library } from './library.ts';

/** Where the plain way did not lead: what was done instead, since it was last taken. */
const gone = new WeakMap<Library, Issue[]>();

/** Notes that another way was gone. */
export function detoured(library: Library, way: Issue): void {
  const ways = gone.get(library) ?? [];
  gone.set(library, ways);
  if (!ways.some(({ code }) => code === way.code)) ways.push(way);
}

/** The other ways that were gone, each once; from now on there are none. */
export function takeDetours(library: Library): readonly Issue[] {
  const ways = gone.get(library) ?? [];
  gone.delete(library);
  return ways;
}
