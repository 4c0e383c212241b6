import { z } from 'zod';
import { weaknessOf } from './password-strength.ts';
import { accountNameSchema, codeSchema, newPasswordSchema, passwordSchema } from './words.ts';

// What is sent about accounts. Whoever changes one names it: a page that still shows somebody who has left changes nothing.

const proof = { name: accountNameSchema, password: passwordSchema, code: codeSchema.optional() };

export const credentialsSchema = z.strictObject(proof);
/** Who somebody is, shown once more before what can not be taken back. */
export type Credentials = z.infer<typeof credentialsSchema>;

const withNewPassword = <S extends z.ZodRawShape>(more: S) =>
  z
    .strictObject({ name: accountNameSchema, newPassword: newPasswordSchema, ...more })
    .superRefine((request, context) => {
      const { name, newPassword } = request as { name: string; newPassword: string };
      const message = weaknessOf(newPassword, [name]);
      if (message !== undefined) context.addIssue({ code: 'custom', path: ['newPassword'], message });
    });

export const newAccountSchema = withNewPassword({});
export const newPasswordRequestSchema = withNewPassword(proof);
/** Comes back with what the administrator has given. */
export const recoverySchema = withNewPassword({ recovery: z.string().max(100) });
export type NewAccount = z.infer<typeof newAccountSchema>;
export type NewPasswordRequest = z.infer<typeof newPasswordRequestSchema>;
export type RecoveryRequest = z.infer<typeof recoverySchema>;

export const secondFactorSchema = z.strictObject({
  name: accountNameSchema,
  password: passwordSchema,
  /** As it was given to the page a moment ago. */
  secret: z.string().regex(/^[A-Z2-7]{32}$/),
  code: codeSchema,
});
export type SecondFactorRequest = z.infer<typeof secondFactorSchema>;
