import { z } from 'zod';

// What people enter about themselves.

/** The same name however its letters are typed: in one sign or in two, large or small. */
export const accountNameSchema = z
  .string()
  .trim()
  .normalize('NFC')
  .toLowerCase()
  .regex(/^[\p{L}\p{N}][\p{L}\p{N} ._-]{1,38}$/u, 'a name has 2-39 letters, digits, spaces, . _ -');

/** A password as it is entered: never changed on the way. */
export const passwordSchema = z.string().min(1, 'a password is needed').max(200);

export const newPasswordSchema = z
  .string()
  .min(10, 'a password has at least 10 characters')
  .max(200, 'a password has at most 200 characters');

/** A code of the second factor. */
export const codeSchema = z
  .string()
  .transform((text) => text.replace(/\s/g, ''))
  .pipe(z.string().regex(/^\d{6}$/, 'a code has six digits'));
