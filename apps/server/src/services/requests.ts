import { z } from 'zod';
import { idSchema, LIMITS, nameSchema } from '@helb/core';
import {
  credentialsSchema,
  newAccountSchema,
  newPasswordRequestSchema,
  recoverySchema,
  secondFactorSchema,
} from '../accounts/requests.ts';
import { checkedDocument, type CheckedDocument } from './checked-document.ts';
import { checkBounds, type JsonBounds } from './json-bounds.ts';
import { Refusal } from './refusal.ts';

// What requests carry, by name: how large each may be, and how it is read.

const fieldChangeSchema = z.strictObject({
  op: z.enum(['set', 'remove']),
  path: z.array(z.string().max(60)).min(1).max(12),
  value: z.unknown().optional(),
});

/** A change as the page sends it: applied there already, checked again here. */
const changeSchema = z.strictObject({
  id: idSchema,
  kind: z.enum(['do', 'undo', 'redo']),
  label: z.string().max(200),
  of: idSchema.optional(),
  /** The window in which it was made. */
  by: idSchema.optional(),
  /** Sent by older pages, and in what they have kept unsent; undo does not need it. */
  actions: z.unknown().optional(),
  forward: z.array(fieldChangeSchema).min(1).max(20000),
  backward: z.array(fieldChangeSchema).max(20000),
});

/** As many as the page sends at once. */
const MOST_CHANGES = 100;

const saveSchema = z.strictObject({
  /** The revision on which the first change was made. */
  base: z.int().min(0),
  changes: z.array(changeSchema).min(1).max(MOST_CHANGES),
});
export type SaveRequest = z.infer<typeof saveSchema>;

/** A PNG of a project, bytes. */
const MOST_PICTURE = 300 * 1024;

const newProjectSchema = z.union([
  z.strictObject({ name: nameSchema }),
  z.strictObject({ demo: z.literal(true) }),
  z.strictObject({ document: z.unknown() }),
]);
/** What can be changed of a project without opening it. */
const cardSchema = z.strictObject({ name: nameSchema.optional(), folder: nameSchema.nullable().optional() });
export type CardRequest = z.infer<typeof cardSchema>;
const lookSchema = z.strictObject({
  findings: z.int().min(0).max(100000),
  /** PNG, base64. */
  picture: z.base64().max((MOST_PICTURE * 4) / 3 + 4),
  /** Does it show all that there is? */
  whole: z.boolean().default(false),
});

interface Kind<T> {
  /** Bytes. */
  readonly most: number;
  /** Reading it takes long, however small it is: it is done in the thread. */
  readonly isSlow?: true;
  /** What it says, or a ZodError or a Refusal. */
  read(raw: unknown): T;
}
const by = <T>(most: number, schema: z.ZodType<T>): Kind<T> => ({ most, read: (raw) => schema.parse(raw) });
const MB = 1024 * 1024;
const SMALL = 4096;

export const REQUESTS = {
  credentials: by(SMALL, credentialsSchema),
  newAccount: { ...by(SMALL, newAccountSchema), isSlow: true as const },
  newPassword: { ...by(SMALL, newPasswordRequestSchema), isSlow: true as const },
  recovery: { ...by(SMALL, recoverySchema), isSlow: true as const },
  secondFactor: by(SMALL, secondFactorSchema),
  card: by(SMALL, cardSchema),
  look: by(2 * MOST_PICTURE, lookSchema),
  save: by(9 * MB, saveSchema),
  // written readably a document is larger than it is kept
  project: { most: 3 * LIMITS.bytes, read: (raw): CheckedDocument => checkedDocument(newProjectSchema.parse(raw)) },
} as const satisfies Record<string, Kind<unknown>>;
export type RequestName = keyof typeof REQUESTS;
export type RequestOf<N extends RequestName> = ReturnType<(typeof REQUESTS)[N]['read']>;

const BOUNDS: JsonBounds = { depth: LIMITS.depth + 8, inOne: 50_000, inAll: 600_000 };

/** Reads the bytes of a request. @throws Refusal, or ZodError where its fields are not as they should be */
export function readRequest<N extends RequestName>(name: N, bytes: Uint8Array): RequestOf<N> {
  checkBounds(bytes, BOUNDS);
  let raw: unknown;
  try {
    raw = JSON.parse(new TextDecoder('utf-8', { fatal: true }).decode(bytes));
  } catch {
    throw new Refusal(400, 'The request can not be read as JSON.');
  }
  return REQUESTS[name].read(raw) as RequestOf<N>;
}
