import { z } from 'zod';
import type { Words } from '../result/index.ts';
import type { StepKind, StepVerb } from './kind.ts';

/** Kinds of steps by their names. */
export type StepKinds = Readonly<
  Record<string, Pick<StepKind<never, never>, 'title' | 'verb' | 'words'> & { readonly schema: z.ZodType }>
>;
/** A step of one of these kinds, as it is stored. */
export type StepOf<K extends StepKinds> = z.infer<K[keyof K]['schema']>;

/** A kind of step as it is offered, with one letter as its key (empty for none). */
export interface OfferedStep<N extends string> extends Required<StepVerb> {
  readonly kind: N;
}

/** All that follows from kinds of steps, in their order: that is the one in which they are offered and told in the docs. */
export function stepRegister<K extends StepKinds>(kinds: K) {
  type Step = StepOf<K>;
  type Name = Extract<keyof K, string>;
  const all = Object.entries(kinds) as [Name, K[Name]][];
  return {
    names: all.map(([name]) => name),
    schema: z.discriminatedUnion('kind', all.map(([, { schema }]) => schema) as never) as unknown as z.ZodType<Step>,
    kind: (name: Name): StepKind<Step, unknown> => kinds[name] as unknown as StepKind<Step, unknown>,
    words: Object.assign({}, ...all.map(([, { words }]) => words)) as Words,
    offered: all.flatMap(([kind, { title, verb }]): OfferedStep<Name>[] =>
      verb ? [{ kind, title, likely: [], ...verb }] : [],
    ),
  };
}
