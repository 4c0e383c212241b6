import { z } from 'zod';
import { assemblySchema, groupsSchema } from '../assembly/index.ts';
import { SHEET_LIMITS, sheetSchema, titleBlockSchema } from '../drawing/index.ts';
import { expressionSchema, idSchema, nameSchema } from '../records/index.ts';
import { referenceSchema } from '../references/index.ts';
import { stepSchema } from '../steps/index.ts';
import { studiesSchema } from '../study/index.ts';
import { LENGTH_UNITS } from '../units/index.ts';

/** Version of the document format; every change of the shape adds one and a migration. */
export const SCHEMA_VERSION = 1;

export const LIMITS = {
  values: 500,
  variants: 20,
  parts: 200,
  steps: 500,
  sections: 20,
  bytes: 8 * 1024 * 1024,
  depth: 32,
  /** Projects within projects from which parts are brought. */
  origins: 3,
} as const;

const atMost = (most: number) => (record: object) => Object.keys(record).length <= most;

export const valueSchema = z.strictObject({
  name: z.string().min(1).max(40),
  expression: expressionSchema,
  note: z.string().max(200).optional(),
  /** Values of one group stand together in the table. */
  group: nameSchema.optional(),
  /** What it may come to: within a range, or one of a list. */
  allowed: z
    .union([
      z.strictObject({ least: expressionSchema.optional(), most: expressionSchema.optional() }),
      z.strictObject({ list: z.array(expressionSchema).min(1).max(50) }),
    ])
    .optional(),
});
export type Value = z.infer<typeof valueSchema>;

export const materialSchema = z.strictObject({
  name: nameSchema,
  /** Mass of a unit of volume, kg/m^3. */
  density_kg_m3: z.number().min(1).max(30000),
});
export type Material = z.infer<typeof materialSchema>;

/** A view of a part cut open at a plane: what lies in front of it, on the side of its normal, is left out. */
export const sectionSchema = z.strictObject({
  name: nameSchema,
  plane: referenceSchema,
  /** How far in front of the plane, or behind it if negative. */
  offset: expressionSchema,
  /** Is the other side left out? */
  turned: z.boolean(),
});
export type Section = z.infer<typeof sectionSchema>;

/**
 * From where a part of another project was brought. What it is built from comes along, so that it stays as it was at that
 * revision, whatever becomes of the project.
 */
export const originSchema = z.strictObject({
  /** Absent for a project that was read from a file. */
  project: z
    .string()
    .regex(/^[0-9a-z]{12}$/, 'the id of a project')
    .optional(),
  revision: z.int().min(0),
  /** In which of its variants; as it stands without one. */
  variant: idSchema.optional(),
  part: idSchema,
  /** The part, those that it takes from, and the values that they use: all else of the project is left out. */
  get design(): z.ZodType<Design> {
    return projectSchema;
  },
  /** Values of the design that are given here instead, by expressions over the values of this project. */
  given: z.record(idSchema, expressionSchema).refine(atMost(LIMITS.values)).optional(),
});
// eslint-disable-next-line @typescript-eslint/no-empty-object-type -- an alias could not refer to itself
interface Design extends Project {}
export type Origin = z.infer<typeof originSchema>;

const partSchema = z.strictObject({
  name: nameSchema,
  /** Index into the palette of twelve muted colours. */
  colour: z.int().min(0).max(11),
  material: materialSchema.optional(),
  sections: z
    .record(idSchema, sectionSchema)
    .refine(atMost(LIMITS.sections), `a part has at most ${LIMITS.sections} sections`)
    .optional(),
  steps: z.record(idSchema, stepSchema).refine(atMost(LIMITS.steps), `a part has at most ${LIMITS.steps} steps`),
  /** Build order; holds each id of `steps` once. */
  stepOrder: z.array(idSchema).max(LIMITS.steps),
  /** A part of another project: it has no steps here. */
  from: originSchema.optional(),
});
export type Part = z.infer<typeof partSchema>;

/** A named set of values, and of steps that are left out besides; all else is as in the project itself. */
const variantSchema = z.strictObject({
  name: nameSchema,
  /** Other expressions of values. */
  values: z.record(idSchema, expressionSchema).refine(atMost(LIMITS.values)),
  /** Steps that are left out, by their parts; those that are not there any more count for nothing. */
  leftOut: z.record(idSchema, z.array(idSchema).max(LIMITS.steps)).refine(atMost(LIMITS.parts)),
});
export type Variant = z.infer<typeof variantSchema>;

/** What checks take for too little; as usual where nothing is set. */
export const limitsSchema = z.strictObject({
  /** The thinnest wall that can be made. */
  wall: expressionSchema.optional(),
  /** What has to be left beside a hole, in parts of its diameter. */
  web: expressionSchema.optional(),
});
export type Limits = z.infer<typeof limitsSchema>;
export const USUAL_LIMITS = { wall: '1 mm', web: '0.5' } as const satisfies Limits;

export const projectSchema = z.strictObject({
  format: z.literal('helb-project'),
  schema: z.literal(SCHEMA_VERSION),
  name: nameSchema,
  /** What a bare number means where a length is asked. */
  unit: z.enum(LENGTH_UNITS),
  values: z.record(idSchema, valueSchema).refine(atMost(LIMITS.values), `at most ${LIMITS.values} values`),
  valueOrder: z.array(idSchema).max(LIMITS.values),
  /** What the project is called as it is, beside its variants. */
  basis: nameSchema.optional(),
  variants: z
    .record(idSchema, variantSchema)
    .refine(atMost(LIMITS.variants), `at most ${LIMITS.variants} variants`)
    .optional(),
  variantOrder: z.array(idSchema).max(LIMITS.variants).optional(),
  parts: z.record(idSchema, partSchema).refine(atMost(LIMITS.parts), `at most ${LIMITS.parts} parts`),
  partOrder: z.array(idSchema).max(LIMITS.parts),
  /** The parts where they are used, and how they hold together and move. */
  assembly: assemblySchema.optional(),
  groups: groupsSchema.optional(),
  /** How it is moved, and what is looked at then. */
  studies: studiesSchema.optional(),
  /** What parts are drawn on, in their order. */
  sheets: z.record(idSchema, sheetSchema).refine(atMost(SHEET_LIMITS.sheets)).optional(),
  sheetOrder: z.array(idSchema).max(SHEET_LIMITS.sheets).optional(),
  /** How the title blocks of sheets are laid out; as usual if absent. */
  titleBlock: titleBlockSchema.optional(),
  limits: limitsSchema.optional(),
});
export type Project = z.infer<typeof projectSchema>;

/** A project in which nothing is. */
export const emptyProject = (name: string): Project => ({
  format: 'helb-project',
  schema: SCHEMA_VERSION,
  name,
  unit: 'mm',
  values: {},
  valueOrder: [],
  parts: {},
  partOrder: [],
});

/** Twelve muted colours for parts, none of them one of the state colours. */
export const PART_COLOURS = [
  '#8FA6A1',
  '#C7A98B',
  '#A9B6C9',
  '#B9A7C2',
  '#A8B58A',
  '#C9B77E',
  '#B5918A',
  '#8CA8B8',
  '#A3A3A0',
  '#C2A0A8',
  '#93AD97',
  '#B3A58F',
] as const;
