import type { BodyHandle, Kernel } from '../kernel-port/index.ts';
import type { Movement } from '../math/index.ts';
import type { Id } from '../records/index.ts';
import { fail, ok, type Result, type Words } from '../result/index.ts';
import { changing } from './define.ts';
import { choice, picks, schemaOf, stepsField, type Fields, type Filled, type Values } from './fields.ts';
import type { BodyResult, ResolveContext, Source, StepKind } from './kind.ts';
import { bodiesIn } from './bodies.ts';
import { withoutNumber, type Thing } from '../references/index.ts';

// What mirrors and patterns have in common: earlier steps, or bodies, again in other places.

const whatField = choice('what', { steps: 'steps', bodies: 'bodies' }, 'steps');
const repeatedSteps = stepsField('steps', 1, ({ what }: Filled) => what === 'steps');
const repeatedBodies = picks('bodies', 'body', {
  most: 100,
  many: 'bodies',
  when: ({ what }) => what === 'bodies',
});
/** For bodies: do the copies stand alone? */
const copiesField = choice(
  'result',
  { new: 'new bodies', add: 'added' },
  'new',
  ({ what }: Filled) => what === 'bodies',
);

/** What is repeated, as plain data. */
type Repeated =
  | { readonly form: 'steps'; readonly sources: readonly Source[] }
  | { readonly form: 'bodies'; readonly bodies: readonly number[]; readonly result: 'new' | 'add' };

interface RepeatInputs {
  readonly repeated: Repeated;
  /** The copies, each with the name that its faces get; the original is none of them. */
  readonly copies: readonly { readonly movement: Movement; readonly instance: string }[];
  readonly step: string;
}

/** The fields that every repetition has. */
const COMMON = { what: whatField, steps: repeatedSteps, bodies: repeatedBodies, copies: copiesField };
type Common = typeof COMMON;

/** A step that repeats earlier steps, or bodies, in the places that it gives. */
export const repeating = <K extends string, F extends Fields>(
  kind: K,
  kindOf: (kind: string) => StepKind<never, unknown>,
  definition: {
    readonly title: string;
    readonly fields: F;
    readonly sentence: string;
    places(values: Values<F>): RepeatInputs['copies'];
  },
) =>
  changing(kind, {
    title: definition.title,
    fields: { ...COMMON, ...definition.fields },
    sentence: definition.sentence,
    inputs(values, context): Result<RepeatInputs> {
      const repeated = repeatedOf(values as unknown as Values<Common>, context);
      if (!repeated.ok) return repeated;
      const copies = definition.places(values);
      return ok({ repeated: repeated.value, copies, step: context.step });
    },
    build: (inputs, before, kernel) => repeat(inputs, before, kernel, kindOf),
  });

/** The schema of such a step. */
export const repeatingSchema = <K extends string, F extends Fields>(kind: K, fields: F) =>
  schemaOf(kind, { ...COMMON, ...fields });

function repeatedOf(
  values: {
    readonly what: 'steps' | 'bodies';
    readonly steps: readonly Id[];
    readonly bodies: readonly Thing[];
    readonly copies: 'new' | 'add';
  },
  context: ResolveContext,
): Result<Repeated> {
  if (values.what === 'bodies') return ok({ form: 'bodies', bodies: bodiesIn(values.bodies), result: values.copies });
  const sources: Source[] = [];
  for (const id of values.steps) {
    const source = context.source(id);
    if (!source.ok) return source;
    sources.push(source.value);
  }
  return ok({ form: 'steps', sources });
}

/** Makes all copies: those of solids in one operation for each way of combining, then what changes their edges. */
function repeat(
  { repeated, copies, step }: RepeatInputs,
  before: readonly BodyHandle[],
  kernel: Kernel,
  kindOf: (kind: string) => StepKind<never, unknown>,
): Result<readonly BodyHandle[]> {
  if (copies.length === 0) return ok(before);
  if (repeated.form === 'bodies') return repeatBodies(repeated, copies, step, before, kernel);
  let bodies: readonly BodyHandle[] = before;
  // what was made on the way and is not in the end is released
  const between = (next: readonly BodyHandle[]) => {
    bodies.filter((body) => !before.includes(body) && !next.includes(body)).forEach((body) => kernel.release(body));
    bodies = next;
  };
  for (const source of repeated.sources) {
    const made = repeatSource(source, copies, step, bodies, kernel, kindOf(source.kind));
    if (!made.ok) {
      between(before);
      return made;
    }
    between(made.value);
  }
  return ok(bodies);
}

function repeatSource(
  { inputs, on }: Source,
  copies: RepeatInputs['copies'],
  step: string,
  bodies: readonly BodyHandle[],
  kernel: Kernel,
  kind: StepKind<never, unknown>,
): Result<readonly BodyHandle[]> {
  if (kind.tools && kind.resultOf) {
    const originals = kind.tools(inputs, bodies, kernel);
    if (!originals.ok) return originals;
    const tools = placed(originals.value, copies, step, kernel);
    originals.value.forEach((body) => kernel.release(body));
    return tools.ok ? joined(kind.resultOf(inputs), tools.value, bodies, on, kernel) : tools;
  }
  if (!kind.again || !kind.build) return fail('repeat.kind', { kind: kind.title });
  let now = bodies;
  for (const { instance } of copies) {
    const names = new Set(now.flatMap((body) => kernel.faceNames(body)));
    const rename = (face: string): string => {
      const copy = `${step}/${instance}/${face}`;
      return names.has(copy) ? copy : face;
    };
    const made = kind.build(kind.again(inputs, rename), now, kernel);
    now
      .filter((body) => !bodies.includes(body) && !(made.ok && made.value.includes(body)))
      .forEach((body) => kernel.release(body));
    if (!made.ok) return made;
    now = made.value;
  }
  return ok(now);
}

function placed(
  originals: readonly BodyHandle[],
  copies: RepeatInputs['copies'],
  step: string,
  kernel: Kernel,
): Result<BodyHandle[]> {
  const tools: BodyHandle[] = [];
  for (const { movement, instance } of copies)
    for (const body of originals) {
      const made = kernel.moved({ body, movement, step, instance });
      if (!made.ok) {
        tools.forEach((tool) => kernel.release(tool));
        return made;
      }
      tools.push(made.value);
    }
  return ok(tools);
}

function joined(
  result: BodyResult,
  tools: readonly BodyHandle[],
  bodies: readonly BodyHandle[],
  on: readonly string[],
  kernel: Kernel,
): Result<readonly BodyHandle[]> {
  // what begins a body is gone on with: its copies are added to it
  if (result === 'new') return ok([...bodies, ...tools]);
  const chosen = bodies.filter((body) => on.length === 0 || on.includes(withoutNumber(kernel.bodyName(body))));
  const made = chosen.length === 0 ? fail('body.none', { result }) : kernel.combine(result, chosen, tools);
  tools.forEach((tool) => kernel.release(tool));
  if (!made.ok) return made;
  return ok([...bodies.filter((body) => !chosen.includes(body)), ...made.value.bodies]);
}

function repeatBodies(
  { bodies, result }: Extract<Repeated, { form: 'bodies' }>,
  copies: RepeatInputs['copies'],
  step: string,
  before: readonly BodyHandle[],
  kernel: Kernel,
): Result<readonly BodyHandle[]> {
  const chosen = bodies.map((k) => before[k]!);
  const tools = placed(chosen, copies, step, kernel);
  if (!tools.ok) return tools;
  if (result === 'new') return ok([...before, ...tools.value]);
  const made = kernel.combine('add', chosen, tools.value);
  tools.value.forEach((tool) => kernel.release(tool));
  return made.ok ? ok([...made.value.bodies, ...before.filter((body) => !chosen.includes(body))]) : made;
}

export const repeatWords: Words = {
  'repeat.kind': (f) =>
    `A ${String(f['kind']).toLowerCase()} can not be repeated by itself: choose the steps that make what it changes, or repeat the body.`,
};
