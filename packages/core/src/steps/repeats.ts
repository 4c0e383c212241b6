import { instanceOfFace, withoutNumber } from '../naming/index.ts';
import type { BodyHandle, Kernel } from '../kernel-port/index.ts';
import { boxesApart, compose, IDENTITY } from '../math/index.ts';
import type { Id } from '../records/index.ts';
import { fail, ok, type Result, type Words } from '../result/index.ts';
import { changing } from './define.ts';
import { choice, picks, stepsField, type Fields, type Filled, type Values } from './fields/index.ts';
import { edgesInPlace } from './edges.ts';
import type { BodyResult, Copy, EdgeOfBody, ResolveContext, Source, StepKind } from './kind.ts';
import type { Pull, SeenAround } from './pulls.ts';
import { bodiesIn } from './bodies.ts';
import { type Thing } from '../references/index.ts';

// What mirrors and patterns have in common: earlier steps, or bodies, again in other places.

const whatField = choice('what', { steps: 'steps', bodies: 'bodies' }, 'steps');
const repeatedSteps = stepsField('steps', {
  min: 1,
  of: 'bodies',
  order: 'built',
  when: ({ what }: Filled) => what === 'steps',
});
const repeatedBodies = picks('bodies', 'body', {
  max: 100,
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
  /** The original is none of them. */
  readonly copies: readonly Copy[];
  readonly step: string;
}

/** The fields that every repetition has. */
const COMMON = { what: whatField, steps: repeatedSteps, bodies: repeatedBodies, copies: copiesField };
type Common = typeof COMMON;

/** A step that repeats earlier steps, or bodies, in the places that it gives. */
export const repeating = <K extends string, F extends Fields>(
  kind: K,
  kindOf: (kind: string) => StepKind<never, unknown>,
  {
    fields,
    places,
    ...told
  }: Pick<StepKind<never, never>, 'title' | 'verb'> & {
    turned?(step: Filled): Filled | undefined;
    pulls?(step: Filled, seen: SeenAround): readonly Pull[];
    readonly fields: F;
    readonly sentence: string;
    places(values: Values<F>): readonly Copy[];
  },
) =>
  changing(kind, {
    ...told,
    fields: { ...COMMON, ...fields },
    inputs(values, context): Result<RepeatInputs> {
      const repeated = repeatedOf(values as unknown as Values<Common>, context);
      if (!repeated.ok) return repeated;
      const copies = places(values);
      return ok({ repeated: repeated.value, copies, step: context.step });
    },
    build: (inputs, before, kernel) => repeat(inputs, before, kernel, kindOf),
    repeats: ({ repeated, copies }) => (repeated.form === 'steps' ? { sources: repeated.sources, copies } : undefined),
  });

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
  return repeatAll(repeated.sources, copies, step, before, kernel, kindOf);
}

function repeatAll(
  sources: readonly Source[],
  copies: readonly Copy[],
  step: string,
  before: readonly BodyHandle[],
  kernel: Kernel,
  kindOf: (kind: string) => StepKind<never, unknown>,
): Result<readonly BodyHandle[]> {
  let bodies: readonly BodyHandle[] = before;
  // what was made on the way and is not in the end is released
  const between = (next: readonly BodyHandle[]) => {
    bodies.filter((body) => !before.includes(body) && !next.includes(body)).forEach((body) => kernel.release(body));
    bodies = next;
  };
  for (const source of sources) {
    const made = repeatSource(source, copies, step, bodies, kernel, kindOf);
    if (!made.ok) {
      between(before);
      return made;
    }
    between(made.value);
  }
  return ok(bodies);
}

function repeatSource(
  source: Source,
  copies: readonly Copy[],
  step: string,
  bodies: readonly BodyHandle[],
  kernel: Kernel,
  kindOf: (kind: string) => StepKind<never, unknown>,
): Result<readonly BodyHandle[]> {
  const kind = kindOf(source.kind);
  const repeated = kind.repeats?.(source.inputs);
  // what a repeat repeats is repeated once for each of its own copies
  if (repeated) return repeatAll(repeated.sources, nested(repeated.copies, copies), step, bodies, kernel, kindOf);
  if (kind.tools && kind.resultOf) {
    const originals = kind.tools(source.inputs, bodies, kernel);
    if (!originals.ok) return originals;
    const tools = placed(originals.value, copies, step, kernel);
    const each = originals.value.length;
    originals.value.forEach((body) => kernel.release(body));
    return tools.ok
      ? joined({ result: kind.resultOf(source.inputs), on: source.on, copies, each }, tools.value, bodies, kernel)
      : tools;
  }
  if (!kind.again || !kind.build || !kind.edges || !source.edges) return fail('repeat.kind', { kind: kind.title });
  return repeatOnEdges(source, copies, bodies, kernel, kind);
}

/** Copies of copies: each of the inner ones, carried along by each of the outer ones. */
const nested = (inner: readonly Copy[], outer: readonly Copy[]): Copy[] =>
  outer.flatMap((far) =>
    inner.map((near) => ({
      transform: compose(near.transform, far.transform),
      instance: `${far.instance}x${near.instance}`,
    })),
  );

/** Does again what was done to edges, to the edges that stand where the copies of those would be. */
function repeatOnEdges(
  { inputs, edges }: Source,
  copies: readonly Copy[],
  bodies: readonly BodyHandle[],
  kernel: Kernel,
  kind: StepKind<never, unknown>,
): Result<readonly BodyHandle[]> {
  const known = new Map(kind.edges!(inputs as never).map((edge, k) => [keyOf(edge), edges![k]!]));
  const all = bodies.map((body) => kernel.topology(body));
  let missing: string | undefined;
  const again = kind.again!(inputs, (edge) =>
    copies.flatMap(({ transform, instance }) => {
      const there = edgesInPlace(known.get(keyOf(edge))!, transform, all);
      if (there.length === 0) missing ??= instance;
      return there;
    }),
  );
  if (missing !== undefined) return fail('repeat.edges', { instance: missing, kind: kind.title.toLowerCase() });
  return kind.build!(again, bodies, kernel);
}
const keyOf = ({ body, name }: EdgeOfBody): string => `${body} ${name}`;

function placed(
  originals: readonly BodyHandle[],
  copies: readonly Copy[],
  step: string,
  kernel: Kernel,
): Result<BodyHandle[]> {
  const tools: BodyHandle[] = [];
  for (const { transform, instance } of copies)
    for (const body of originals) {
      const made = kernel.transformed({ body, transform, step, instance });
      if (!made.ok) {
        tools.forEach((tool) => kernel.release(tool));
        return made;
      }
      tools.push(made.value);
    }
  return ok(tools);
}

interface Joining {
  readonly result: BodyResult;
  /** Names of the bodies to be touched; all if empty. */
  readonly on: readonly string[];
  readonly copies: readonly Copy[];
  /** How many solids each copy has. */
  readonly each: number;
}

function joined(
  { result, on, copies, each }: Joining,
  tools: readonly BodyHandle[],
  bodies: readonly BodyHandle[],
  kernel: Kernel,
): Result<readonly BodyHandle[]> {
  if (result === 'new') return begun(tools, bodies, kernel);
  const chosen = bodies.filter((body) => on.length === 0 || on.includes(withoutNumber(kernel.bodyName(body))));
  return mergedWith({ result, copies, each }, tools, bodies, chosen, kernel);
}

/** Copies and the bodies that they touch; each of them has to change something. */
function mergedWith(
  { result, copies, each }: Omit<Joining, 'on'> & { readonly result: Exclude<BodyResult, 'new'> },
  tools: readonly BodyHandle[],
  bodies: readonly BodyHandle[],
  chosen: readonly BodyHandle[],
  kernel: Kernel,
): Result<readonly BodyHandle[]> {
  const made = chosen.length === 0 ? fail('body.none', { result }) : kernel.combine(result, chosen, tools);
  const idle = made.ok ? idleCopies(made.value.bodies, tools, each, chosen, result, kernel) : [];
  tools.forEach((tool) => kernel.release(tool));
  if (!made.ok) return made;
  if (idle.length > 0) {
    made.value.bodies.forEach((body) => kernel.release(body));
    const names = idle.map((k) => copies[k]!.instance);
    const some = names.length > 8 ? [...names.slice(0, 8), '…'] : names;
    return fail('repeat.idle', { count: names.length, of: copies.length, names: some.join(', ') });
  }
  return ok([...bodies.filter((body) => !chosen.includes(body)), ...made.value.bodies]);
}

/** Copies of what begins a body stand for themselves, but where they overlap with others they are one with them. */
function begun(
  tools: readonly BodyHandle[],
  bodies: readonly BodyHandle[],
  kernel: Kernel,
): Result<readonly BodyHandle[]> {
  const all = [...bodies, ...tools];
  const boxes = all.map((body) => kernel.measure(body).box_mm);
  const overlap = (a: number, b: number): boolean => {
    if (boxesApart(boxes[a]!, boxes[b]!) > 0) return false;
    const meeting = kernel.clearance(all[a]!, all[b]!, IDENTITY);
    return meeting.ok && meeting.value.overlap_mm3 > 0;
  };
  const meets = tools.some((_, k) => {
    const own = bodies.length + k;
    return all.some((_, other) => other < own && overlap(other, own));
  });
  if (!meets) return ok(all);
  const made = kernel.combine('add', bodies, tools);
  tools.forEach((tool) => kernel.release(tool));
  return made.ok ? ok(made.value.bodies) : made;
}

/** Copies that change nothing by themselves. One that has left a face has changed something: only the others are tried. */
function idleCopies(
  after: readonly BodyHandle[],
  tools: readonly BodyHandle[],
  each: number,
  chosen: readonly BodyHandle[],
  result: Exclude<BodyResult, 'new'>,
  kernel: Kernel,
): number[] {
  const left = new Set(after.flatMap((body) => kernel.faceNames(body)).map(instanceOfFace));
  return Array.from({ length: tools.length / each }, (_, k) => k).filter((k) => {
    const own = tools.slice(k * each, (k + 1) * each);
    if (own.some((tool) => left.has(withoutNumber(kernel.bodyName(tool))))) return false;
    const alone = kernel.combine(result, chosen, own);
    if (!alone.ok) return false;
    alone.value.bodies.forEach((body) => kernel.release(body));
    return !alone.value.touched;
  });
}

function repeatBodies(
  { bodies, result }: Extract<Repeated, { form: 'bodies' }>,
  copies: readonly Copy[],
  step: string,
  before: readonly BodyHandle[],
  kernel: Kernel,
): Result<readonly BodyHandle[]> {
  const chosen = bodies.map((k) => before[k]!);
  const tools = placed(chosen, copies, step, kernel);
  if (!tools.ok) return tools;
  if (result === 'new') return ok([...before, ...tools.value]);
  return mergedWith({ result: 'add', copies, each: chosen.length }, tools.value, before, chosen, kernel);
}

export const repeatWords: Words = {
  'repeat.edges': (f) =>
    `There is no edge for the ${f['kind']} at copy ${f['instance']}: what is repeated does not come out the same there. Leave that copy out, or choose the steps that make its edges too.`,
  'repeat.idle': (f) =>
    `${f['count']} of ${f['of']} copies ${f['count'] === 1 ? 'changes' : 'change'} nothing (${f['names']}): no body is met there, or they lie within it. Leave them out, or change the count or the spacing.`,
  'repeat.kind': (f) =>
    `A ${String(f['kind']).toLowerCase()} can not be repeated by itself: choose the steps that make what it changes, or repeat the body.`,
};
