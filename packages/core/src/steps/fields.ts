import { z } from 'zod';
import { evaluate } from '../expressions/index.ts';
import type { BodyHandle } from '../kernel-port/index.ts';
import { expressionSchema, fileSchema, idSchema, nameSchema, type FileRecord, type Id } from '../records/index.ts';
import { fail, issue, ok, type Issue, type Result, type Words } from '../result/index.ts';
import {
  ACCEPT_WORDS,
  needs,
  referenceSchema,
  referenceWords,
  type Accepts,
  type Reference,
  type Thing,
  type NameOf,
} from '../references/index.ts';
import type { Dimension } from '../units/index.ts';
import type { ExpressionPlace, Phrase, PickField, ReferencePlace, ResolveContext } from './kind.ts';

// What steps ask for. A kind of step lists its fields once; schema, sentence, lines on the desk and docs follow from them.

/** The fields of a step with what is not stored as it usually is. */
export type Filled = Readonly<Record<string, unknown>>;

interface Common {
  readonly label: string;
  /** Does it apply, as the other fields are? */
  readonly when?: (step: Filled) => boolean;
}

export interface NumberField extends Common {
  readonly type: 'number';
  readonly schema: z.ZodString;
  readonly asks: Dimension;
  readonly initial: string;
  /** Bounds of the result, mm or rad or a plain number. */
  readonly min: number;
  readonly max: number;
  readonly integer?: boolean;
  /** What to do instead, after the sentence that says what is wrong. */
  readonly hint?: string;
}

export interface ChoiceField<O extends string = string> extends Common {
  readonly type: 'choice';
  readonly schema: z.ZodEnum<{ [K in O]: K }>;
  readonly options: Readonly<Record<O, string>>;
  readonly initial: O;
}

export interface PicksField extends Common {
  readonly type: 'picks';
  readonly schema: z.ZodArray<typeof referenceSchema>;
  readonly accepts: Accepts;
  readonly min: number;
  readonly max: number;
  /** What several of them are called: "edges". */
  readonly many: string;
}

/** A sketch, and which of its areas; `areas` is stored beside it. */
export interface SketchField extends Common {
  readonly type: 'sketch';
  readonly schema: typeof idSchema;
}

export interface AreasField extends Common {
  readonly type: 'areas';
  readonly schema: z.ZodUnion<readonly [z.ZodLiteral<'outline'>, z.ZodArray<z.ZodString>]>;
}

/** Earlier steps, in their order. */
export interface StepsField extends Common {
  readonly type: 'steps';
  readonly schema: z.ZodArray<typeof idSchema>;
  readonly min: number;
}

export interface NumbersField extends Common {
  readonly type: 'skip';
  readonly schema: z.ZodArray<z.ZodInt>;
}

/** A file of the project. */
export interface FileField extends Common {
  readonly type: 'file';
  readonly schema: typeof fileSchema;
  /** How its name may end. */
  readonly endings: readonly string[];
}

/** Another part, for all of its bodies. */
export interface PartField extends Common {
  readonly type: 'part';
  readonly schema: typeof idSchema;
}

export type Field =
  PartField | NumberField | ChoiceField | PicksField | SketchField | AreasField | StepsField | NumbersField | FileField;
export type Fields = Readonly<Record<string, Field>>;

type NumberOptions = Pick<NumberField, 'asks' | 'initial' | 'min' | 'max'> &
  Partial<Pick<NumberField, 'when' | 'integer' | 'hint'>>;
/** A field for an expression; min and max are bounds of its result, in mm, rad or as a plain number. */
export const number = (label: string, options: NumberOptions): NumberField => ({
  type: 'number',
  schema: expressionSchema,
  label,
  ...options,
});

/** A field for one of a few words. */
export const choice = <O extends string>(
  label: string,
  options: Readonly<Record<O, string>>,
  initial: NoInfer<O>,
  when?: Common['when'],
): ChoiceField<O> => ({
  type: 'choice',
  schema: z.enum(Object.keys(options) as [O, ...O[]]),
  label,
  options,
  initial,
  ...(when ? { when } : {}),
});

type PickOptions = { readonly min?: number; readonly max?: number; readonly many?: string } & Pick<Common, 'when'>;
/** A field for things that are picked; as many as from min to max. */
export const picks = (
  label: string,
  accepts: Accepts,
  { min = 1, max = 1, many = label, when }: PickOptions = {},
): PicksField => ({
  type: 'picks',
  schema: z.array(referenceSchema).max(MOST_PICKS),
  label,
  accepts,
  min,
  max,
  many,
  ...(when ? { when } : {}),
});
export const MOST_PICKS = 500;

export const sketchField: SketchField = { type: 'sketch', schema: idSchema, label: 'sketch' };
export const areasField: AreasField = {
  type: 'areas',
  schema: z.union([z.literal('outline'), z.array(z.string().max(40_000)).max(200)]),
  label: 'areas',
  // thin walls go along all lines
  when: ({ body }) => body !== 'thin',
};
/** A field for earlier steps, at least so many. */
export const stepsField = (label: string, min: number, when?: Common['when']): StepsField => ({
  type: 'steps',
  schema: z.array(idSchema).max(100),
  label,
  min,
  ...(when ? { when } : {}),
});
/** A field for another part. */
export const partField = (label: string): PartField => ({ type: 'part', schema: idSchema, label });
/** A field for a file of the project. */
export const fileField = (label: string, endings: readonly string[]): FileField => ({
  type: 'file',
  schema: fileSchema,
  label,
  endings,
});
/** Instances that are left out, counted from 1. */
export const skipField: NumbersField = {
  type: 'skip',
  schema: z.array(z.int().min(1).max(10_000)).max(1000),
  label: 'left out',
};

/** What is stored of a field: nothing where it is as usual. */
type Shape<F extends Fields> = { [K in keyof F]: z.ZodOptional<F[K]['schema']> };
interface Base<K extends string> {
  kind: z.ZodLiteral<K>;
  name: typeof nameSchema;
  suppressed: z.ZodOptional<z.ZodBoolean>;
}

/** The schema of a step with these fields. */
export function schemaOf<K extends string, F extends Fields>(
  kind: K,
  fields: F,
): z.ZodObject<Base<K> & Shape<F>, z.core.$strict> {
  const shape = Object.fromEntries(Object.entries(fields).map(([name, field]) => [name, field.schema.optional()]));
  return z.strictObject({
    kind: z.literal(kind),
    name: nameSchema,
    suppressed: z.boolean().optional(),
    ...(shape as Shape<F>),
  });
}

/** What a field comes to: numbers in mm or rad, picks as what they were found to be. */
type Resolved<T extends Field> = T extends NumberField
  ? number
  : T extends ChoiceField<infer O>
    ? O
    : T extends PicksField
      ? readonly Thing[]
      : T extends SketchField
        ? Id
        : T extends AreasField
          ? 'outline' | readonly string[]
          : T extends StepsField
            ? readonly Id[]
            : T extends FileField
              ? FileRecord
              : T extends PartField
                ? readonly BodyHandle[]
                : readonly number[];
export type Values<F extends Fields> = { readonly [K in keyof F]: Resolved<F[K]> };

const usualOf = (field: Field): unknown => {
  if (field.type === 'number' || field.type === 'choice') return field.initial;
  if (field.type === 'sketch' || field.type === 'part') return '';
  if (field.type === 'file') return undefined;
  return field.type === 'areas' ? 'outline' : [];
};

/** All fields, those that are not stored as they usually are. */
export const filledIn = (fields: Fields, step: object): Filled =>
  Object.fromEntries(Object.entries(fields).map(([name, field]) => [name, (step as Filled)[name] ?? usualOf(field)]));

/** The fields that apply, by name. */
export const applying = (fields: Fields, step: object): [string, Field][] => {
  const filled = filledIn(fields, step);
  return Object.entries(fields).filter(([, { when }]) => !when || when(filled));
};

/** Evaluates the numbers and finds the picks; what does not apply comes as it usually is. */
export function resolved<F extends Fields>(fields: F, step: object, context: ResolveContext): Result<Values<F>> {
  const filled = filledIn(fields, step);
  const values: Record<string, unknown> = { ...filled };
  const active = new Set(applying(fields, step).map(([name]) => name));
  for (const [name, field] of Object.entries(fields)) {
    if (field.type === 'number') {
      const result = numberOf(field, active.has(name) ? (filled[name] as string) : field.initial, context);
      if (!result.ok) return result;
      values[name] = result.value;
    } else if (field.type === 'picks') {
      const found = active.has(name) ? thingsOf(field, filled[name] as Reference[], context) : ok([]);
      if (!found.ok) return found;
      values[name] = found.value;
    } else if (field.type === 'part') {
      const bodies = filled[name] === '' ? fail('field.part') : context.bodiesOf(filled[name] as Id);
      if (!bodies.ok) return bodies;
      values[name] = bodies.value;
    } else {
      const missing = active.has(name) ? lackIn(field, filled[name]) : undefined;
      if (missing) return { ok: false, issue: missing };
    }
  }
  return ok(values as Values<F>);
}

/** What has to be chosen still for a field; undefined where nothing has. */
export function lackIn(field: Field, value: unknown): Issue | undefined {
  const { label } = field;
  if (field.type === 'file' && value === undefined) return issue('field.file', { label });
  if (field.type === 'part' && value === '') return issue('field.part');
  const short = 'min' in field && field.type !== 'number' && (value as readonly unknown[]).length < field.min;
  if (!short) return undefined;
  return field.type === 'picks'
    ? issue('reference.missing', { asked: ACCEPT_WORDS[field.accepts] })
    : issue('field.steps', { label });
}

function numberOf(field: NumberField, text: string, context: ResolveContext): Result<number> {
  const result = evaluate(text, field.asks, context.scope);
  if (!result.ok) return result;
  const whole = !field.integer || Math.abs(result.value - Math.round(result.value)) < 1e-9;
  if (whole && result.value >= field.min && result.value <= field.max) return result;
  return fail('field.bounds', {
    text,
    label: field.label,
    least: boundWords(field.min, field),
    most: boundWords(field.max, field),
    whole: field.integer ? 1 : 0,
    hint: field.hint ?? '',
  });
}

function boundWords(bound: number, { asks }: NumberField): string {
  if (asks.angle === 1) return `${Math.round((bound * 180) / Math.PI)} deg`;
  return asks.length === 1 ? `${bound} mm` : `${bound}`;
}

function thingsOf(field: PicksField, references: readonly Reference[], context: ResolveContext): Result<Thing[]> {
  const missing = lackIn(field, references);
  if (missing) return { ok: false, issue: missing };
  const things: Thing[] = [];
  let lost = 0;
  for (const reference of references) {
    const found = context.find(reference, field.accepts);
    if (found.ok) things.push(...(found.value.to === 'rule' ? found.value.things : [found.value]));
    else if (references.length === 1) return found;
    else lost++;
  }
  return lost > 0 ? fail('field.lost', { lost, of: references.length, many: field.many }) : ok(things);
}

/** The expressions of the fields of a step that apply. */
export const expressionsIn = (fields: Fields, step: object, name: string): ExpressionPlace[] => {
  const filled = filledIn(fields, step);
  return applying(fields, step).flatMap(([field, spec]) =>
    spec.type === 'number'
      ? [{ path: [field], text: filled[field] as string, asks: spec.asks, label: `${name} · ${spec.label}` }]
      : [],
  );
};

/** The references in the fields of a step that apply. */
export const referencesIn = (fields: Fields, step: object): ReferencePlace[] => {
  const filled = filledIn(fields, step);
  return applying(fields, step).flatMap(([field, spec]) =>
    spec.type === 'picks'
      ? (filled[field] as Reference[]).map((reference, k) => ({
          path: [field, `${k}`],
          reference,
          accepts: spec.accepts,
          label: spec.label,
        }))
      : [],
  );
};

/** The earlier steps that fields of a step name. */
export const usesIn = (fields: Fields, step: object): Id[] => {
  const filled = filledIn(fields, step);
  const used = applying(fields, step).flatMap(([field, spec]): readonly Id[] => {
    if (spec.type === 'sketch') return filled[field] ? [filled[field] as Id] : [];
    if (spec.type === 'steps') return filled[field] as Id[];
    return spec.type === 'picks' ? (filled[field] as Reference[]).flatMap(needs) : [];
  });
  return [...new Set(used)];
};

/** The other parts whose bodies a step takes. */
export const partsIn = (fields: Fields, step: object): Id[] =>
  applying(fields, step).flatMap(([field, spec]) => {
    const part = spec.type === 'part' ? (filledIn(fields, step)[field] as Id) : '';
    return part === '' ? [] : [part];
  });

/** The files that a step needs to be built. */
export const filesIn = (fields: Fields, step: object): FileRecord[] =>
  applying(fields, step).flatMap(([field, spec]) => {
    const file = spec.type === 'file' ? (filledIn(fields, step)[field] as FileRecord | undefined) : undefined;
    return file ? [file] : [];
  });

/** What the fields of a step that apply ask to be picked. */
export const picksIn = (fields: Fields, step: object): PickField[] => {
  const filled = filledIn(fields, step);
  return applying(fields, step).flatMap(([field, spec]): PickField[] =>
    spec.type === 'picks'
      ? [
          {
            field,
            accepts: spec.accepts,
            label: spec.label,
            min: spec.min,
            max: spec.max,
            picked: filled[field] as Reference[],
            with: (picked) => [...picked],
          },
        ]
      : [],
  );
};

/**
 * The sentence of a step from a pattern: `{field}` stands for a field where it is edited, `[...]` is left out where a
 * field in it does not apply, `[?...]` also while all its fields are as initially: "Round {edges} by {radius}[ growing to {to}]".
 */
export function sentenceFrom(pattern: string, fields: Fields, step: object, nameOf: NameOf): Phrase[] {
  const active = new Set(applying(fields, step).map(([name]) => name));
  const filled = filledIn(fields, step);
  return pattern
    .split(/(\[[^\]]*\])/)
    .filter((part) => !part.startsWith('[') || fieldsOf(part).every((field) => active.has(field)))
    .filter((part) => !part.startsWith('[?') || fieldsOf(part).some((field) => !isUsual(fields[field]!, filled[field])))
    .flatMap((part) => part.replace(/^\[\??|\]$/g, '').split(/(\{\w+\})/))
    .filter((part) => part !== '')
    .map((part): Phrase => {
      const [, field] = /^\{(\w+)\}$/.exec(part) ?? [];
      return field ? phraseOf(field, fields[field]!, filled[field], nameOf) : { type: 'text', text: part };
    });
}

/** Is a field as it is unless somebody says otherwise? */
export const isUsual = (field: Field, value: unknown): boolean =>
  JSON.stringify(value) === JSON.stringify(usualOf(field));

const fieldsOf = (part: string): string[] => [...part.matchAll(/\{(\w+)\}/g)].map(([, field]) => field!);

function phraseOf(field: string, spec: Field, value: unknown, nameOf: NameOf): Phrase {
  const { label } = spec;
  if (spec.type === 'number') return { type: 'chip', field, text: value as string, asks: spec.asks, label };
  if (spec.type === 'choice') return { type: 'choice', field, value: value as string, options: spec.options, label };
  if (spec.type === 'part') return { type: 'part', field, value: value as Id, label };
  if (spec.type === 'sketch') return { type: 'strong', text: value ? nameOf(value as Id) : 'a sketch' };
  if (spec.type === 'file') return { type: 'strong', text: (value as FileRecord | undefined)?.name ?? 'a file' };
  if (spec.type === 'areas')
    return { type: 'text', text: value === 'outline' ? '' : ` (${(value as string[]).length} of its areas)` };
  if (spec.type === 'skip')
    return { type: 'text', text: (value as number[]).length > 0 ? ` without ${(value as number[]).join(', ')}` : '' };
  if (spec.type === 'steps')
    return { type: 'strong', text: (value as Id[]).map((id) => nameOf(id)).join(' and ') || 'some steps' };
  return { type: 'picks', field, text: picksWords(spec, value as Reference[], nameOf), label };
}

function picksWords(spec: PicksField, picked: readonly Reference[], nameOf: NameOf): string {
  if (picked.length === 0) return spec.min === 0 ? `no ${spec.many}` : 'choose';
  return picked.length === 1 ? referenceWords(picked[0]!, nameOf) : `${picked.length} ${spec.many}`;
}

export const fieldWords: Words = {
  'file.missing': (f) =>
    `${f['name']} is not here: ${f['reason'] ? `${f['reason'] as string}.` : 'choose the file again.'}`,
  'field.bounds': (f) => {
    const range = `from ${f['least']} to ${f['most']}`;
    const kind = f['whole'] === 1 ? `a whole number ${range} for the ${f['label']}` : `a ${f['label']} ${range}`;
    return `"${f['text']}" is not ${kind}.${f['hint'] ? ` ${f['hint']}` : ''}`;
  },
  'field.lost': (f) => `${f['lost']} of ${f['of']} ${f['many']} are gone: choose again.`,
  'field.file': (f) => `Choose the ${f['label']}.`,
  'field.part': () => 'Choose another part.',
  'field.steps': (f) => `Choose at least one step for the ${f['label']}.`,
};
