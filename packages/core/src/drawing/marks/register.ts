import { namesOf, schemaOfKinds, type Id, type Kinds, type RecordOf } from '../../records/index.ts';
import type { MarkKind, MarkTry, Picked } from './kind.ts';

/** All that follows from kinds of marks, in their order: that is the one in which they are offered. */
export function markRegister<K extends Kinds>(kinds: K) {
  type Mark = RecordOf<K>;
  type Name = Extract<keyof K, string>;
  const names = namesOf(kinds);
  const kind = (name: Name) => kinds[name] as unknown as MarkKind<Mark>;
  return {
    names,
    kind,
    schema: schemaOfKinds(kinds),
    written: names.flatMap((name) => {
      const { written } = kind(name);
      return written ? [{ kind: name, ...written }] : [];
    }),
    tries: (picks: readonly Picked[], view: Id): MarkTry<Mark>[] =>
      names.flatMap((name) => [...(kind(name).tries?.(picks, view) ?? [])]),
  };
}
