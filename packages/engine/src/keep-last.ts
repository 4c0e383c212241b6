/** Keeps something as what was asked for last; of more than so many what was asked for longest ago goes. */
export function keepLast<T>(all: Map<string, T>, key: string, one: T, most: number): T {
  all.delete(key);
  all.set(key, one);
  if (all.size > most) all.delete(all.keys().next().value!);
  return one;
}
