import type { BodyHandle, Kernel } from '../kernel-port/index.ts';
import type { Datum, NameOf } from '../references/index.ts';
import type { Result } from '../result/index.ts';
import { applied } from './bodies.ts';
import {
  expressionsIn,
  filesIn,
  filledIn,
  partsIn,
  picksIn,
  referencesIn,
  resolved,
  schemaOf,
  sentenceFrom,
  turnedIn,
  usesIn,
  type Fields,
  type Filled,
  type Values,
} from './fields/index.ts';
import type { BodyResult, DrawnShape, LaidFile, ResolveContext, StepKind } from './kind.ts';
import type { Pull, SeenAround } from './pulls.ts';

type Told = Pick<StepKind<never, never>, 'title' | 'noun' | 'verb' | 'words'>;

/** What has to be told of a kind; see `StepKind`. */
interface Definition<F extends Fields, I> extends Told {
  readonly fields: F;
  /** The sentence with its fields in braces; see `sentenceFrom`. */
  readonly sentence: string;
  /** See `StepKind`. */
  begun?(step: Filled, drawn: DrawnShape): Filled;
  /** See `StepKind`. */
  asked?(step: Filled, drawn: DrawnShape): string | undefined;
  /** See `StepKind`: of lengths that do not apply none is shown. */
  pulls?(step: Filled, seen: SeenAround): readonly Pull[];
  /** Where what goes the other way is not one of its words; see `StepKind`. */
  turned?(step: Filled): Filled | undefined;
  /** Plain inputs from what the fields come to. These and the bodies before are all that the result depends on. */
  inputs(values: Values<F>, context: ResolveContext): Result<I>;
}

/** Everything that follows from the fields. */
function fromFields<K extends string, F extends Fields, I>(
  kind: K,
  { title, noun, verb, words, fields, sentence, inputs, turned, begun, asked, pulls }: Definition<F, I>,
) {
  return {
    schema: schemaOf(kind, fields),
    title,
    ...(noun === undefined ? {} : { noun }),
    ...(verb ? { verb } : {}),
    ...(words ? { words } : {}),
    fields,
    sentence: (step: { name: string }, nameOf: NameOf) => sentenceFrom(sentence, fields, step, nameOf),
    uses: (step: object) => usesIn(fields, step),
    expressions: (step: { name: string }) => expressionsIn(fields, step, step.name),
    references: (step: object) => referencesIn(fields, step),
    picks: (step: object) => picksIn(fields, step),
    ...(pulls ? { pulls: (step: object, seen: SeenAround) => pulls(filledIn(fields, step), seen) } : {}),
    ...(begun ? { begun: (step: object, drawn: DrawnShape) => begun(filledIn(fields, step), drawn) } : {}),
    ...(asked ? { asked: (step: object, drawn: DrawnShape) => asked(filledIn(fields, step), drawn) } : {}),
    turned: (step: object): Filled | undefined => (turned ? turned(filledIn(fields, step)) : turnedIn(fields, step)),
    parts: (step: object) => partsIn(fields, step),
    files: (step: object) => filesIn(fields, step),
    resolve(step: object, context: ResolveContext): Result<I> {
      const values = resolved(fields, step, context);
      return values.ok ? inputs(values.value, context) : values;
    },
  };
}

/** A step that makes a datum. */
export function placing<K extends string, F extends Fields>(kind: K, definition: Definition<F, Datum>) {
  const { resolve: datum, ...common } = fromFields(kind, definition);
  return { ...common, datum };
}

/** A step that lays triangles under the model. */
export function laying<K extends string, F extends Fields>(kind: K, definition: Definition<F, LaidFile>) {
  const { resolve: lay, ...common } = fromFields(kind, definition);
  return { ...common, lay };
}

/** A step that changes the bodies before it. */
export const changing = <K extends string, F extends Fields, I>(
  kind: K,
  definition: Definition<F, I> & Pick<StepKind<never, I>, 'build' | 'yields' | 'edges' | 'again' | 'repeats' | 'signs'>,
) => ({
  ...fromFields(kind, definition),
  build: definition.build!,
  ...(definition.yields ? { yields: definition.yields } : {}),
  ...(definition.again ? { again: definition.again } : {}),
  ...(definition.edges ? { edges: definition.edges } : {}),
  ...(definition.repeats ? { repeats: definition.repeats } : {}),
  ...(definition.signs ? { signs: definition.signs } : {}),
});

/** What every step with solids of its own is told besides. */
export interface ToolInputs {
  readonly result: BodyResult;
  /** The places of the bodies that are touched; all if empty. */
  readonly only: readonly number[];
}

/** A step that makes solids and adds them, cuts them away, or keeps them as bodies. */
export const making = <K extends string, F extends Fields, I extends ToolInputs>(
  kind: K,
  definition: Definition<F, I> & {
    solids(inputs: I, before: readonly BodyHandle[], kernel: Kernel): Result<BodyHandle[]>;
  },
) => ({
  ...fromFields(kind, definition),
  tools: definition.solids,
  resultOf: (inputs: I): BodyResult => inputs.result,
  touches: (inputs: I): readonly number[] => inputs.only,
  build(inputs: I, before: readonly BodyHandle[], kernel: Kernel): Result<readonly BodyHandle[]> {
    const tools = definition.solids(inputs, before, kernel);
    return tools.ok ? applied(inputs.result, tools.value, before, inputs.only, kernel) : tools;
  },
});
