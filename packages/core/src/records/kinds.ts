import { z } from 'zod';

/** Kinds of a record by their names, each with the schema of what is stored of it: that has its name as `kind`. */
export type Kinds = Readonly<Record<string, { readonly schema: z.ZodType }>>;
/** A record of one of these kinds, as it is stored. */
export type RecordOf<K extends Kinds> = z.infer<K[keyof K]['schema']>;

/** The names of kinds in their order. */
export const namesOf = <K extends Kinds>(kinds: K): Extract<keyof K, string>[] =>
  Object.keys(kinds) as Extract<keyof K, string>[];

/** The schema of records of any of these kinds. */
export const schemaOfKinds = <K extends Kinds>(kinds: K): z.ZodType<RecordOf<K>> =>
  z.discriminatedUnion('kind', Object.values(kinds).map(({ schema }) => schema) as never);
