import { once } from '@helb/core';

/** How many bytes a plain value takes as text; found once for every object that is never changed in place. */
export const writtenSize = (node: unknown): number =>
  typeof node === 'object' && node !== null ? sizeOf(node) : Buffer.byteLength(JSON.stringify(node) ?? '');

const sizeOf = once((node: object): number => {
  if (Array.isArray(node))
    return node.reduce((sum: number, entry) => sum + writtenSize(entry) + 1, node.length > 0 ? 1 : 2);
  const fields = Object.entries(node).filter(([, value]) => value !== undefined);
  return fields.reduce(
    (sum, [key, value]) => sum + writtenSize(key) + writtenSize(value) + 2,
    fields.length > 0 ? 1 : 2,
  );
});
