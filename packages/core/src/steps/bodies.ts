import type { BodyHandle, Kernel } from '../kernel-port/index.ts';
import { fail, ok, type Result, type Words } from '../result/index.ts';
import type { Thing } from '../references/index.ts';
import { choice, picks } from './fields/index.ts';
import type { BodyResult, ResolveContext } from './kind.ts';

// What steps do with bodies: make new ones beside those before, add to them, cut them.

const RESULTS: Readonly<Record<BodyResult, string>> = {
  new: 'new body',
  add: 'added',
  cut: 'cut away',
  overlap: 'the overlap kept',
};
export const resultField = choice('result', RESULTS, 'new');

/** Which bodies are touched: all that there are, or those that are chosen. */
export const touchedField = picks('only on, else all', 'body', {
  min: 0,
  max: 100,
  many: 'bodies',
  when: ({ result }) => result !== 'new',
});

/** What every step with solids of its own is told besides, from its two fields. */
export const onBodies = (
  { result, only }: { readonly result: BodyResult; readonly only: readonly Thing[] },
  { step }: ResolveContext,
) => ({ step, result, only: bodiesIn(only) });

/** The places of chosen bodies among those before the step. */
export const bodiesIn = (things: readonly Thing[]): number[] => [
  ...new Set(things.flatMap((thing) => ('body' in thing ? [thing.body] : []))),
];

/**
 * Does with solids what a step says, to the chosen bodies or to all; the solids are released, or become new bodies.
 * Fails where there is nothing to be changed, or where nothing changes.
 */
export function applied(
  result: BodyResult,
  tools: readonly BodyHandle[],
  before: readonly BodyHandle[],
  only: readonly number[],
  kernel: Kernel,
): Result<readonly BodyHandle[]> {
  if (result === 'new') return ok([...before, ...tools]);
  const chosen = only.length === 0 ? before : only.map((k) => before[k]!);
  const untouched = before.filter((body) => !chosen.includes(body));
  const made = chosen.length === 0 ? fail('body.none', { result }) : kernel.combine(result, chosen, tools);
  tools.forEach((tool) => kernel.release(tool));
  if (!made.ok) return made;
  if (!made.value.touched) {
    made.value.bodies.forEach((body) => kernel.release(body));
    return fail(result === 'cut' ? 'body.misses' : 'body.same');
  }
  return ok([...untouched, ...made.value.bodies]);
}

/** The solids that are made of several things; those made are released again where a later one fails. */
export function gathered<T>(
  things: readonly T[],
  make: (thing: T, k: number) => Result<readonly BodyHandle[]>,
  kernel: Kernel,
): Result<BodyHandle[]> {
  const made: BodyHandle[] = [];
  for (const [k, thing] of things.entries()) {
    const result = make(thing, k);
    if (!result.ok) {
      made.forEach((body) => kernel.release(body));
      return result;
    }
    made.push(...result.value);
  }
  return ok(made);
}

/** Each of some bodies changed, the others as they are; what was made is released again where a later one fails. */
export function changedBodies(
  before: readonly BodyHandle[],
  changes: readonly { readonly body: number; make(handle: BodyHandle): Result<BodyHandle> }[],
  kernel: Kernel,
): Result<readonly BodyHandle[]> {
  const after = [...before];
  const made: BodyHandle[] = [];
  for (const { body, make } of changes) {
    const result = make(before[body]!);
    if (!result.ok) {
      made.forEach((handle) => kernel.release(handle));
      return result;
    }
    made.push(result.value);
    after[body] = result.value;
  }
  return ok(after);
}

export const bodyWords: Words = {
  'body.none': (f) =>
    f['result'] === 'cut'
      ? 'There is no body yet to cut from: make it a new body.'
      : 'There is no body yet for this: make it a new body.',
  'body.misses': () => 'This cuts nothing: it does not meet a body. Try the other direction.',
  'body.same': () => 'This changes nothing: it lies within the body already, or does not meet it.',
};
