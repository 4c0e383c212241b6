import { z } from 'zod';
import { idSchema, nameSchema, placementPathSchema, placeSchema } from '../records/index.ts';
import { MARK_LIMITS, markSchema } from './marks/index.ts';
import { PAPER_NAMES } from './papers.ts';
import { SCALE_NAMES } from './scales.ts';
import { titleSchema } from './title/index.ts';

export const SHEET_LIMITS = { sheets: 100, views: 30, issues: 50, numbers: 500 } as const;

/** From where a base view is seen, of the six sides of the part. */
export const SIDES = ['front', 'top', 'right', 'back', 'under', 'left'] as const;
/** From where a projected view is seen, as one looks at the view that it is beside. */
export const BESIDE = ['right', 'left', 'above', 'below'] as const;

/** What every view can be set to. */
export const viewFields = {
  /** Are hidden edges drawn, and those at which faces go on into each other? As usual for the kind if absent. */
  hidden: z.boolean().optional(),
  smooth: z.boolean().optional(),
  /** How far it was dragged from where it is laid out, mm on paper. */
  shift: placeSchema.optional(),
  /** Of the whole: how far its parts stand off from what they are joined to, as a share of the most that is shown. */
  apart: z.number().min(0).max(1).optional(),
  /** Of the whole: are parts called by their numbers in the list of parts? */
  numbered: z.boolean().optional(),
  /** Of the whole: where the numbers of parts were dragged to, mm of the thing in the plane of the eye. */
  numbers: z
    .record(idSchema, placeSchema)
    .refine((numbers) => Object.keys(numbers).length <= SHEET_LIMITS.numbers, `at most ${SHEET_LIMITS.numbers} numbers`)
    .optional(),
};

/** From other sections on, on their front, a view is cut open at yet another one, or not at all; at most so often. */
export const cutStepsSchema = z.array(z.strictObject({ at: idSchema, section: idSchema.optional() })).max(8);

/** What a detail can be set to: how much it shows, mm of the thing, and how many times as large as the sheet. */
export const DETAIL_TIMES = [2, 5, 10, 20] as const;
export const detailFields = { radius: z.number().min(0.01).max(1e5), times: z.literal(DETAIL_TIMES) };

/** Are stretches left out, in the direction in which a view is longer, over which nothing changes? */
export const brokenSchema = z.boolean().optional();

export const uncutSchema = z.array(idSchema).max(200);

export const viewSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('base'), from: z.enum(SIDES), broken: brokenSchema, ...viewFields }),
  z.strictObject({
    kind: z.literal('projected'),
    of: idSchema,
    beside: z.enum(BESIDE),
    broken: brokenSchema,
    ...viewFields,
  }),
  z.strictObject({ kind: z.literal('corner'), ...viewFields }),
  /** Cut open at a section that the part keeps by name; the whole at one of a part that is placed. */
  z.strictObject({
    kind: z.literal('section'),
    section: idSchema,
    at: placementPathSchema.optional(),
    /** Of the whole: parts that are not cut, as shafts and bolts are not along their axes. */
    uncut: uncutSchema.optional(),
    steps: cutStepsSchema.optional(),
    broken: brokenSchema,
    ...viewFields,
  }),
  /** What of another view lies in a circle, larger. */
  z.strictObject({
    kind: z.literal('detail'),
    of: idSchema,
    /** The middle of the circle in the plane of the eye, mm of the thing. */
    at: placeSchema,
    ...detailFields,
    ...viewFields,
  }),
]);
export type View = z.infer<typeof viewSchema>;

/** The view that one is folded out of, or shows a detail of. */
export const parentOf = (view: View): string | undefined => ('of' in view ? view.of : undefined);

/** A detail shows what it shows as the view does that it is of. */
const shownAs = (views: Readonly<Record<string, View>>, view: View): View =>
  view.kind === 'detail' ? (views[view.of] ?? view) : view;

/** How a view shows things: how far taken apart, and whether slanted, so that nothing has its true size. */
export function viewManner(views: Readonly<Record<string, View>>, view: View): ViewManner {
  const { kind, apart = 0 } = shownAs(views, view);
  return { apart, isSlanted: kind === 'corner' };
}
export interface ViewManner {
  readonly apart: number;
  readonly isSlanted: boolean;
}

/** A sheet as it went out: what it said then, to tell what has changed since. */
export const issuedSchema = z.strictObject({
  revision: z.string().trim().min(1).max(10),
  date: z.string().max(20),
  /** What is new in it. */
  words: z.string().max(120),
  /** What each mark said. */
  said: z.record(idSchema, z.string().max(600)).refine((said) => Object.keys(said).length <= MARK_LIMITS.marks),
  /** What each view looked like, as a short print. */
  looks: z.record(idSchema, z.string().max(80)).refine((looks) => Object.keys(looks).length <= SHEET_LIMITS.views),
});
export type Issued = z.infer<typeof issuedSchema>;

export const sheetSchema = z.strictObject({
  name: nameSchema,
  /** The part that is drawn; the whole as it is put together if absent. */
  part: idSchema.optional(),
  paper: z.enum(PAPER_NAMES),
  upright: z.boolean(),
  /** Which way views are folded out (ISO 5456-2). */
  projection: z.enum(['first', 'third']),
  /** The largest that fits if absent. */
  scale: z.enum(SCALE_NAMES).optional(),
  views: z
    .record(idSchema, viewSchema)
    .refine((views) => Object.keys(views).length <= SHEET_LIMITS.views, `at most ${SHEET_LIMITS.views} views`),
  viewOrder: z.array(idSchema).max(SHEET_LIMITS.views),
  /** What is written into the views. */
  marks: z
    .record(idSchema, markSchema)
    .refine((marks) => Object.keys(marks).length <= MARK_LIMITS.marks, `at most ${MARK_LIMITS.marks} marks`)
    .optional(),
  markOrder: z.array(idSchema).max(MARK_LIMITS.marks).optional(),
  title: titleSchema,
  /** As it went out, the last time last. */
  issued: z.array(issuedSchema).max(SHEET_LIMITS.issues).optional(),
});
export type Sheet = z.infer<typeof sheetSchema>;
