/** What stands at a path of own fields; undefined where there is nothing. */
export function valueAt(root: unknown, path: readonly string[]): unknown {
  let node = root;
  for (const key of path) {
    if (typeof node !== 'object' || node === null || !Object.hasOwn(node, key)) return undefined;
    node = (node as Record<string, unknown>)[key];
  }
  return node;
}
