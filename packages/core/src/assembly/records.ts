import { COORDINATES } from '../naming/index.ts';
import { z } from 'zod';
import { expressionSchema, idSchema, nameSchema, placementPathSchema } from '../records/index.ts';
import { referenceSchema } from '../references/index.ts';
import { JOINTS, type JointName } from './joints.ts';
import { ASSEMBLY_RELATIONS, FACINGS, type AssemblyRelationName, type FacingName } from './relations.ts';

// How parts are put together, as it is kept: expressions as typed, references by lasting names.

export const ASSEMBLY_LIMITS = {
  placements: 500,
  joints: 500,
  relations: 500,
  ratios: 100,
  pressed: 500,
  contacts: 100,
  traces: 50,
  groups: 100,
  /** Groups within groups. */
  depth: 6,
  /** Everything that is placed, groups and repeats written out. */
  members: 2000,
} as const;

const keysOf = <K extends string>(record: Readonly<Record<K, unknown>>) => Object.keys(record) as [K, ...K[]];
const records = <S extends z.ZodType>(schema: S, what: string, most: number) =>
  z.record(idSchema, schema).refine((all) => Object.keys(all).length <= most, `at most ${most} ${what}`);

/** Along x, y and z. */
const tripleSchema = z.strictObject({ x: expressionSchema, y: expressionSchema, z: expressionSchema });
export type Triple = z.infer<typeof tripleSchema>;
/** Three expressions, along x, y and z. */
export const triple = (x: string, y: string, z: string): Triple => ({ x, y, z });

/** Something of the part that is placed there. */
const onReferenceSchema = referenceSchema.refine(({ to }) => to !== 'other', 'a thing of the part that is placed');

/** The same again: in a row, or round an axis of something that is placed. */
const repeatSchema = z.discriminatedUnion('layout', [
  z.strictObject({ layout: z.literal('line'), count: expressionSchema, by: tripleSchema }),
  z.strictObject({
    layout: z.literal('round'),
    count: expressionSchema,
    over: expressionSchema,
    about: z.strictObject({ placement: placementPathSchema, on: onReferenceSchema }),
  }),
]);

export const placementSchema = z.strictObject({
  name: nameSchema,
  of: z.union([
    z.strictObject({ part: idSchema }),
    /** Stiff: moved as one body. Else its joints move here too. */
    z.strictObject({ group: idSchema, stiff: z.boolean() }),
  ]),
  /** Where its origin lies. */
  at: tripleSchema,
  /** Turned about the x axis, then the y axis, then the z axis of space. */
  turn: tripleSchema,
  /** Does it stand still? */
  held: z.boolean(),
  repeat: repeatSchema.optional(),
});
export type Placement = z.infer<typeof placementSchema>;

/** Where on something long: in its middle or at one of its ends. */
export const SPOTS = { middle: 'its middle', start: 'its one end', end: 'its other end' } as const;
export type Spot = keyof typeof SPOTS;

const coordinateSchema = z.enum(COORDINATES);
const sideSchema = z.strictObject({
  placement: placementPathSchema,
  on: onReferenceSchema,
  spot: z.enum(keysOf(SPOTS)),
});
export type Side = z.infer<typeof sideSchema>;

/** The schema of joints of these kinds. */
export const jointSchemaOf = <K extends string>(kinds: Readonly<Record<K, unknown>>) =>
  z.strictObject({
    name: nameSchema,
    kind: z.enum(keysOf<K>(kinds)),
    a: sideSchema,
    /** Without a thing of its own it is held as it was drawn: its frame is the other's, where the placements put it. */
    b: z.union([sideSchema, z.strictObject({ placement: placementPathSchema })]),
    /** Do the axes of the frames look against each other? */
    flip: z.boolean(),
    /** How far the second frame stands off along the axis of the first. */
    offset: expressionSchema,
    /** How far it stands off along x and y of the first. */
    aside: z.tuple([expressionSchema, expressionSchema]).optional(),
    /** How far it is turned about that axis, where nothing else turns it. */
    angle: expressionSchema,
    limits: z
      .partialRecord(
        coordinateSchema,
        z.strictObject({ least: expressionSchema.optional(), most: expressionSchema.optional() }),
      )
      .optional(),
    /** Where the design puts it. */
    rest: z.partialRecord(coordinateSchema, expressionSchema).optional(),
  });
export const jointSchema = jointSchemaOf<JointName>(JOINTS);
export type JointRecord = z.infer<typeof jointSchema>;

const onSchema = z.strictObject({ placement: placementPathSchema, on: onReferenceSchema });

export const assemblyRelationSchema = z.strictObject({
  name: nameSchema,
  kind: z.enum(keysOf<AssemblyRelationName>(ASSEMBLY_RELATIONS)),
  a: onSchema,
  b: onSchema,
  amount: expressionSchema.optional(),
  /** How two flat faces come to look; as they do where they are drawn, without it. */
  facing: z.enum(keysOf<FacingName>(FACINGS)).optional(),
});
export type RelationRecord = z.infer<typeof assemblyRelationSchema>;

const endSchema = z.strictObject({ joint: idSchema, coordinate: coordinateSchema });
/** Two joints that go together: a turn with a turn, a way with a way, or a way with each whole turn. */
export const ratioSchema = z.strictObject({
  name: nameSchema,
  first: endSchema,
  second: endSchema,
  factor: expressionSchema,
});
export type RatioRecord = z.infer<typeof ratioSchema>;

export const traceSchema = z.strictObject({ name: nameSchema, ...onSchema.shape });
export type TraceRecord = z.infer<typeof traceSchema>;

/** Two that are meant to press into each other: no finding where they overlap. */
export const pressedSchema = z.strictObject({ a: placementPathSchema, b: placementPathSchema });

/**
 * What is kept out of each other while it moves: two placements or groups, one against all else, or, where neither is told,
 * everything that can meet.
 */
export const contactSchema = z.strictObject({
  a: placementPathSchema.optional(),
  b: placementPathSchema.optional(),
  on: z.boolean(),
});
export type ContactRecord = z.infer<typeof contactSchema>;

const togetherSchema = z.strictObject({
  placements: records(placementSchema, 'placements', ASSEMBLY_LIMITS.placements),
  joints: records(jointSchema, 'joints', ASSEMBLY_LIMITS.joints),
  relations: records(assemblyRelationSchema, 'relations', ASSEMBLY_LIMITS.relations),
  ratios: records(ratioSchema, 'ratios', ASSEMBLY_LIMITS.ratios),
  traces: records(traceSchema, 'traces', ASSEMBLY_LIMITS.traces),
  pressed: records(pressedSchema, 'pairs', ASSEMBLY_LIMITS.pressed),
});

export const assemblySchema = z.strictObject({
  ...togetherSchema.shape,
  contacts: records(contactSchema, 'contacts', ASSEMBLY_LIMITS.contacts).optional(),
});
export type Assembly = z.infer<typeof assemblySchema>;

/** Placements with what joins them, used as one. */
export const groupSchema = z.strictObject({ name: nameSchema, ...togetherSchema.shape });
export const groupsSchema = records(groupSchema, 'groups', ASSEMBLY_LIMITS.groups);
export type Group = z.infer<typeof groupSchema>;

/** An assembly in which nothing is placed. */
export const emptyAssembly = (): Assembly => ({
  placements: {},
  joints: {},
  relations: {},
  ratios: {},
  traces: {},
  pressed: {},
});

/** A placement as drawn: at the origin, not turned. */
export const placementOf = (name: string, of: Placement['of'], held = false): Placement => ({
  name,
  of,
  at: triple('0 mm', '0 mm', '0 mm'),
  turn: triple('0 deg', '0 deg', '0 deg'),
  held,
});
