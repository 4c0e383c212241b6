import { z } from 'zod';
import { COORDINATES, type PlacementPath } from '../naming/index.ts';
import { expressionSchema, idSchema, nameSchema, placementPathSchema, type Id } from '../records/index.ts';
import { LAWS, type LawName } from './laws.ts';

// Studies as they are kept: what is driven, how, and what is shown of it. Expressions as typed.

export const STUDY_LIMITS = {
  studies: 50,
  drives: 6,
  charts: 12,
  approaches: 12,
  table: 2000,
  steps: 2000,
  seconds: 1e6,
} as const;

const endSchema = z.strictObject({ joint: placementPathSchema, coordinate: z.enum(COORDINATES) });
/** A coordinate of a joint, of a group that is placed too. */
export type StudyEnd = z.infer<typeof endSchema>;

/** How often what is shown is differentiated by the time. */
export const SHOWN = { value: 'where', speed: 'speed', acceleration: 'acceleration' } as const;
export type Shown = keyof typeof SHOWN;

const keysOf = <K extends string>(record: Readonly<Record<K, unknown>>) => Object.keys(record) as [K, ...K[]];
const shownSchema = z.enum(keysOf<Shown>(SHOWN));

/** What a chart shows over the time of its study. */
export const chartSchema = z.discriminatedUnion('of', [
  z.strictObject({ of: z.literal('coordinate'), end: endSchema, shown: shownSchema }),
  /** A traced point: where it is along x, y and z. */
  z.strictObject({ of: z.literal('point'), trace: idSchema, shown: shownSchema }),
  /** How far two placements are apart. */
  z.strictObject({ of: z.literal('distance'), a: placementPathSchema, b: placementPathSchema }),
  /** How much faster the one goes than the other. */
  z.strictObject({ of: z.literal('ratio'), first: endSchema, second: endSchema }),
  /** What holds the mechanism against its weight at the first that is driven, without friction. */
  z.strictObject({ of: z.literal('holding') }),
]);
export type Chart = z.infer<typeof chartSchema>;

/** How near two placements come; a side that is not told is all the rest, and both are every two. */
export const approachSchema = z.strictObject({
  a: placementPathSchema.optional(),
  b: placementPathSchema.optional(),
  /** How near they may come. */
  least: expressionSchema.optional(),
});
export type Approach = z.infer<typeof approachSchema>;

/** What of an assembly is mentioned. */
interface Mentioned {
  readonly ends?: readonly StudyEnd[];
  readonly placements?: readonly PlacementPath[];
  readonly traces?: readonly Id[];
}
const MENTIONED: { readonly [K in Chart['of']]: (chart: Chart & { readonly of: K }) => Mentioned } = {
  coordinate: ({ end }) => ({ ends: [end] }),
  point: ({ trace }) => ({ traces: [trace] }),
  distance: ({ a, b }) => ({ placements: [a, b] }),
  ratio: ({ first, second }) => ({ ends: [first, second] }),
  holding: () => ({}),
};
/** What of the assembly a chart shows; the ends are those of its record. */
export const mentionedBy = (chart: Chart): Mentioned => (MENTIONED[chart.of] as (chart: Chart) => Mentioned)(chart);

export const studySchema = z.strictObject({
  name: nameSchema,
  /** All go at the same time by the same law. */
  drives: z
    .array(z.strictObject({ ...endSchema.shape, from: expressionSchema, to: expressionSchema }))
    .min(1)
    .max(STUDY_LIMITS.drives),
  law: z.enum(keysOf<LawName>(LAWS)),
  /** For what is driven by a table: times, s, and where the first coordinate is, deg or mm. */
  table: z
    .array(z.tuple([z.number(), z.number()]))
    .max(STUDY_LIMITS.table)
    .optional(),
  /** How long it takes. */
  seconds: expressionSchema,
  /** Into how many steps it is divided. */
  steps: expressionSchema,
  /** Does it obey what touches? */
  touching: z.boolean(),
  charts: z
    .record(idSchema, chartSchema)
    .refine((all) => Object.keys(all).length <= STUDY_LIMITS.charts, `at most ${STUDY_LIMITS.charts} charts`),
  approaches: z
    .record(idSchema, approachSchema)
    .refine((all) => Object.keys(all).length <= STUDY_LIMITS.approaches, `at most ${STUDY_LIMITS.approaches} distances`)
    .optional(),
});
export type Study = z.infer<typeof studySchema>;

export const studiesSchema = z
  .record(idSchema, studySchema)
  .refine((all) => Object.keys(all).length <= STUDY_LIMITS.studies, `at most ${STUDY_LIMITS.studies} studies`);
