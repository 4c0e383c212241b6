import { facesOfName, stepOfFace } from '../naming/index.ts';
import { z } from 'zod';
import type { Id } from '../records/index.ts';
import { idSchema, memberPathSchema, placementPathSchema } from '../records/index.ts';

const vectorSchema = z.tuple([z.number(), z.number(), z.number()]);

/**
 * How something looked when it was last chosen or confirmed: a fingerprint, to find it again where its name is gone.
 * `size` is an area (mm^2) or a length (mm), `at` its middle, `along` its normal, axis or direction.
 */
const fingerprintSchema = z.strictObject({
  form: z.string().max(20),
  size: z.number().min(0),
  at: vectorSchema,
  along: vectorSchema.optional(),
});
export type Fingerprint = z.infer<typeof fingerprintSchema>;

/** Longer than any name that the kernel adapter makes of a few faces. */
const lastingName = z.string().min(1).max(4000);
const ofBody = <K extends string>(to: K) =>
  z.strictObject({ to: z.literal(to), name: lastingName, print: fingerprintSchema.optional() });

const ORIGIN_THINGS = ['front', 'top', 'right', 'x', 'y', 'z', 'origin'] as const;
export type OriginThing = (typeof ORIGIN_THINGS)[number];

/** Faces by their origin: all that a step made, or those that play one part in it ("side"). */
const familySchema = z.strictObject({ step: idSchema, role: z.string().min(1).max(40).optional() });
export type Family = z.infer<typeof familySchema>;

/** Edges or faces by a rule instead of one by one: whatever fits it when the part is built. */
const ruleSchema = z.strictObject({
  to: z.literal('rule'),
  gives: z.enum(['edges', 'faces']),
  /** Faces of a family; edges of such faces, and with `and` those where they meet another family. */
  of: familySchema.optional(),
  and: familySchema.optional(),
  /** Edges that turn this way. */
  turn: z.enum(['outer', 'inner']).optional(),
  /** Straight edges that run this way. */
  along: z.enum(['x', 'y', 'z']).optional(),
});
export type Rule = z.infer<typeof ruleSchema>;

/** One thing of a part. */
const things = [
  z.strictObject({ to: z.literal('origin'), name: z.enum(ORIGIN_THINGS) }),
  z.strictObject({ to: z.literal('datum'), step: idSchema }),
  z.strictObject({ to: z.literal('drawn'), step: idSchema, entity: idSchema }),
  ofBody('face'),
  ofBody('edge'),
  ofBody('vertex'),
  ofBody('body'),
] as const;

/** A thing of another part where that is placed, as the design has it; `print` is how it looks from here. */
const otherSchema = z.strictObject({
  to: z.literal('other'),
  at: memberPathSchema,
  /** The placement of this part from which it is seen; without it this part lies as it is drawn. */
  from: placementPathSchema.optional(),
  on: z.discriminatedUnion('to', things),
  print: fingerprintSchema.optional(),
});
export type OtherReference = z.infer<typeof otherSchema>;

/**
 * What a step builds on: something of the bodies before it by its lasting name, a datum by its step, a curve or point of a
 * sketch, what every part has: its three planes, three axes and the origin; whatever fits a rule; or a thing of another
 * part.
 */
export const referenceSchema = z.discriminatedUnion('to', [...things, ruleSchema, otherSchema]);
export type Reference = z.infer<typeof referenceSchema>;
export type BodyReference = Extract<Reference, { name: string; to: 'face' | 'edge' | 'vertex' | 'body' }>;

const OF_BODIES: ReadonlySet<string> = new Set<BodyReference['to']>(['face', 'edge', 'vertex', 'body']);
/** Does it point to a face, an edge, a vertex or a body? */
export const isOfBody = (reference: Reference): reference is BodyReference => OF_BODIES.has(reference.to);

/** The step that has to be there, built, for the reference to be found; none for what every part has. */
export const needs = (reference: Reference): readonly Id[] =>
  'gives' in reference
    ? [reference.of, reference.and].flatMap((family) => (family ? [family.step] : []))
    : 'step' in reference
      ? [reference.step]
      : [];

/** The steps that made what the reference names. */
export const madeBy = (reference: Reference): readonly Id[] =>
  isOfBody(reference) ? [...new Set(facesOfName(reference.name).map(stepOfFace))] : needs(reference);

/** Do both name the same thing, whatever it looked like? */
export const sameReference = (a: Reference, b: Reference): boolean => keyOf(a) === keyOf(b);

const keyOf = (reference: Reference): string =>
  [
    'on' in reference ? `${reference.at} ${reference.from ?? ''} ${keyOf(reference.on)}` : '',
    'gives' in reference ? ruleKey(reference) : '',
    reference.to,
    'step' in reference ? reference.step : '',
    'entity' in reference ? reference.entity : '',
    'name' in reference ? reference.name : '',
  ].join(' ');

const familyKey = (family: Family | undefined): string => `${family?.step ?? ''}/${family?.role ?? ''}`;
const ruleKey = ({ gives, of, and, turn, along }: Rule): string =>
  [gives, familyKey(of), familyKey(and), turn, along].join(' ');
