import { z } from 'zod';
import type { BodyHandle } from '../../kernel-port/index.ts';
import { nameSchema, type FileRecord, type Id } from '../../records/index.ts';
import { ok, type Issue, type Result, type Words } from '../../result/index.ts';
import type { NameOf, Reference, Thing } from '../../references/index.ts';
import type { ExpressionPlace, Phrase, PickField, ReferencePlace, ResolveContext } from '../kind.ts';
import { choiceKind, type ChoiceField } from './choice.ts';
import type { FieldKind, Filled } from './kind.ts';
import { numberKind, type NumberField } from './number.ts';
import { fileKind, partKind, type FileField, type PartField } from './outside.ts';
import { picksKind, type PicksField } from './picks.ts';
import { areasKind, sketchKind, type AreasField, type SketchField } from './sketch.ts';
import { skipKind, stepsKind, type NumbersField, type StepsField } from './steps.ts';

// What steps ask for. A kind of step lists its fields once; schema, sentence, lines on the desk and docs follow from them.

export { choice } from './choice.ts';
export { number } from './number.ts';
export { fileField, partField } from './outside.ts';
export { picks } from './picks.ts';
export { areasField, sketchField } from './sketch.ts';
export { skipField, stepsField } from './steps.ts';
export type { Filled } from './kind.ts';

export type Field =
  PartField | NumberField | ChoiceField | PicksField | SketchField | AreasField | StepsField | NumbersField | FileField;
export type Fields = Readonly<Record<string, Field>>;

/** What is stored of each kind. */
interface Stored {
  readonly number: string;
  readonly choice: string;
  readonly picks: readonly Reference[];
  readonly sketch: Id;
  readonly areas: 'outline' | readonly string[];
  readonly steps: readonly Id[];
  readonly skip: readonly number[];
  readonly file: FileRecord;
  readonly part: Id;
}

/** The register: a new kind of field is a file beside these and a line here. */
const KINDS: { readonly [T in Field['type']]: FieldKind<Extract<Field, { type: T }>, Stored[T]> } = {
  number: numberKind,
  choice: choiceKind,
  picks: picksKind,
  sketch: sketchKind,
  areas: areasKind,
  steps: stepsKind,
  skip: skipKind,
  file: fileKind,
  part: partKind,
};
const kindOf = (field: Field) => KINDS[field.type] as FieldKind<Field, unknown>;

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

const initialOf = (field: Field): unknown => kindOf(field).initial(field);

/** All fields, those that are not stored as they are initially. */
export const filledIn = (fields: Fields, step: object): Filled =>
  Object.fromEntries(Object.entries(fields).map(([name, field]) => [name, (step as Filled)[name] ?? initialOf(field)]));

/** The fields that apply, by name. */
export const applying = (fields: Fields, step: object): [string, Field][] => {
  const filled = filledIn(fields, step);
  return Object.entries(fields).filter(([, { when }]) => !when || when(filled));
};

/** Evaluates the numbers and finds the picks; what does not apply comes as it is initially. */
export function resolved<F extends Fields>(fields: F, step: object, context: ResolveContext): Result<Values<F>> {
  const filled = filledIn(fields, step);
  const values: Record<string, unknown> = { ...filled };
  const active = new Set(applying(fields, step).map(([name]) => name));
  for (const [name, field] of Object.entries(fields)) {
    const missing = active.has(name) ? lackIn(field, filled[name]) : undefined;
    if (missing) return { ok: false, issue: missing };
    const { resolve } = kindOf(field);
    if (!resolve) continue;
    const found = resolve(field, active.has(name) ? filled[name] : initialOf(field), context);
    if (!found.ok) return found;
    values[name] = found.value;
  }
  return ok(values as Values<F>);
}

/** What has to be chosen still for a field; undefined where nothing has. */
export const lackIn = (field: Field, value: unknown): Issue | undefined => kindOf(field).lack?.(field, value);

/** What the fields of a step that apply say, each by its kind. */
function told<T>(
  fields: Fields,
  step: object,
  tell: (kind: FieldKind<Field, unknown>, name: string, field: Field, value: unknown) => readonly T[] | undefined,
): T[] {
  const filled = filledIn(fields, step);
  return applying(fields, step).flatMap(([name, field]) => tell(kindOf(field), name, field, filled[name]) ?? []);
}
const oneIf = <T>(value: T | undefined): readonly T[] => (value === undefined ? [] : [value]);

/** The expressions of the fields of a step that apply. */
export const expressionsIn = (fields: Fields, step: object, name: string): ExpressionPlace[] =>
  told(fields, step, (kind, field, spec, value) =>
    oneIf(kind.expression?.(spec, value)).map((expression) => ({
      ...{ path: [field], label: `${name} · ${spec.label}`, ...expression },
    })),
  );

/** The references in the fields of a step that apply. */
export const referencesIn = (fields: Fields, step: object): ReferencePlace[] =>
  told(fields, step, (kind, field, spec, value) =>
    kind.references?.(value).map((reference, k) => ({
      ...{ path: [field, `${k}`], reference, label: spec.label, accepts: (spec as PicksField).accepts },
    })),
  );

/** The earlier steps that fields of a step name. */
export const usesIn = (fields: Fields, step: object): Id[] => [
  ...new Set(told(fields, step, (kind, _, __, value) => kind.uses?.(value))),
];

/** The other parts whose bodies a step takes. */
export const partsIn = (fields: Fields, step: object): Id[] =>
  told(fields, step, (kind, _, __, value) => oneIf(kind.part?.(value)));

/** The files that a step needs to be built. */
export const filesIn = (fields: Fields, step: object): FileRecord[] =>
  told(fields, step, (kind, _, __, value) => oneIf(kind.file?.(value)));

/** What the fields of a step that apply ask to be picked. */
export const picksIn = (fields: Fields, step: object): PickField[] =>
  told(fields, step, (kind, name, field, value) => oneIf(kind.picks?.(name, field, value)));

/** The first field of a step that applies and goes the other way, changed to that. */
export function turnedIn(fields: Fields, step: object): Filled | undefined {
  const [turned] = told(fields, step, (kind, name, field, value) => {
    const other = kind.turned?.(field, value);
    return other === undefined ? [] : [{ [name]: other }];
  });
  return turned;
}

/** What a field asks for and what it is initially, for the docs. */
export const askWords = (field: Field): string => kindOf(field).asks(field);
/** What a field is initially, for the docs; empty for nothing. */
export const initialWords = (field: Field): string => kindOf(field).initialWords?.(field) ?? '';

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
    .filter(
      (part) => !part.startsWith('[?') || fieldsOf(part).some((field) => !isInitial(fields[field]!, filled[field])),
    )
    .flatMap((part) => part.replace(/^\[\??|\]$/g, '').split(/(\{\w+\})/))
    .filter((part) => part !== '')
    .map((part): Phrase => {
      const [, field] = /^\{(\w+)\}$/.exec(part) ?? [];
      return field
        ? kindOf(fields[field]!).phrase(field, fields[field]!, filled[field], nameOf)
        : { type: 'text', text: part };
    });
}

/** Is a field as it is unless somebody says otherwise? */
const isInitial = (field: Field, value: unknown): boolean => JSON.stringify(value) === JSON.stringify(initialOf(field));

const fieldsOf = (part: string): string[] => [...part.matchAll(/\{(\w+)\}/g)].map(([, field]) => field!);

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
