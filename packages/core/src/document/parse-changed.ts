import { z } from 'zod';

/** What does not fit its schema, and where. */
interface Misfit {
  readonly path: readonly string[];
  readonly reason: string;
}

/**
 * What does not fit in a value that was made of one that fits, sharing all that did not change: only what is not the same
 * object as before is looked at, so that a change of a large project costs no more than what it changes.
 * @param before fits the schema
 */
export function misfitOf(schema: z.ZodType, value: unknown, before: unknown): Misfit | undefined {
  if (value === before) return undefined;
  const within = schema instanceof z.ZodOptional ? (schema.unwrap() as z.ZodType) : schema;
  const parts = isPlain(value) && isPlain(before) ? partsOf(within) : undefined;
  if (!parts) return misfitIn(schema, value);
  // the parts come first: what is asked of a thing as a whole takes them for what they have to be
  for (const [key, part] of Object.entries(value as object)) {
    const found = misfitOf(parts.of(key), part, (before as Record<string, unknown>)[key]);
    if (found) return { ...found, path: [key, ...found.path] };
  }
  return misfitIn(parts.around, value);
}

function misfitIn(schema: z.ZodType, value: unknown): Misfit | undefined {
  const parsed = schema.safeParse(value);
  if (parsed.success) return undefined;
  const [wrong] = parsed.error.issues;
  return { path: wrong!.path.map(String), reason: wrong!.message };
}

const isPlain = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** What a schema asks of its parts, and of the thing around them whatever they are. */
interface Parts {
  readonly around: z.ZodType;
  of(key: string): z.ZodType;
}
const known = new WeakMap<z.ZodType, Parts>();

/** Undefined where a thing can only be looked at as a whole. */
function partsOf(schema: z.ZodType): Parts | undefined {
  const found = known.get(schema) ?? madeOf(schema);
  if (found) known.set(schema, found);
  return found;
}

function madeOf(schema: z.ZodType): Parts | undefined {
  if (schema instanceof z.ZodRecord) {
    const around = schema.clone({ ...schema.def, valueType: z.unknown() });
    return { around, of: () => schema.valueType as z.ZodType };
  }
  if (schema instanceof z.ZodObject) {
    const shape = schema.shape as Record<string, z.ZodType>;
    const loose = Object.entries(shape).map(([key, part]) => [
      key,
      part.safeParse(undefined).success ? z.unknown().optional() : THERE,
    ]);
    const around = schema.clone({
      ...schema.def,
      shape: Object.fromEntries(loose) as typeof schema.shape,
    });
    return { around, of: (key) => shape[key] ?? z.unknown() };
  }
  return undefined;
}
const THERE = z.unknown().refine((value) => value !== undefined, { error: 'is missing', abort: true });
