import { customAlphabet } from 'nanoid';

const tail = customAlphabet('0123456789abcdefghijkmnpqrstuvwxyz', 8);

/** A new id with a readable beginning. */
export const newId = (prefix: string): string => `${prefix}${tail()}`;
