import { customAlphabet } from 'nanoid';

/** An id of a project, or of a change. */
export const newId = customAlphabet('0123456789abcdefghijkmnpqrstuvwxyz', 12);
