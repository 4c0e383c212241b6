import { namesOf, schemaOfKinds, type Kinds, type RecordOf } from '../records/index.ts';
import type { Words } from '../result/index.ts';
import type { StepKind, StepVerb } from './kind.ts';

type StepKinds = Kinds & Readonly<Record<string, Pick<StepKind<never, never>, 'title' | 'verb' | 'words'>>>;

/** A kind of step as it is offered, with one letter as its key (empty for none). */
export interface OfferedStep<N extends string> extends Required<StepVerb> {
  readonly kind: N;
}

/** All that follows from kinds of steps, in their order: that is the one in which they are offered and told in the docs. */
export function stepRegister<K extends StepKinds>(kinds: K) {
  type Name = Extract<keyof K, string>;
  const names = namesOf(kinds);
  return {
    names,
    schema: schemaOfKinds(kinds),
    kind: (name: Name) => kinds[name] as unknown as StepKind<RecordOf<K>, unknown>,
    words: Object.assign({}, ...names.map((name) => kinds[name]!.words)) as Words,
    offered: names.flatMap((kind): OfferedStep<Name>[] => {
      const { title, verb } = kinds[kind]!;
      return verb ? [{ kind, title, likely: [], ...verb }] : [];
    }),
  };
}
