import { namesOf, schemaOfKinds, type Kinds, type RecordOf } from '../../records/index.ts';
import type { RelationKind } from './kind.ts';

/** All that follows from kinds of relations, in their order: that is the one in which they are offered. */
export function relationRegister<K extends Kinds>(kinds: K) {
  type Name = Extract<keyof K, string>;
  const names = namesOf(kinds);
  const kind = (name: Name) => kinds[name] as unknown as RelationKind<RecordOf<K>>;
  return {
    names,
    schema: schemaOfKinds(kinds),
    kind,
    offered: names.flatMap((name) => {
      const { title, verb } = kind(name);
      return verb ? [{ kind: name, title, last: false, ...verb }] : [];
    }),
    clicked: names
      .flatMap((name) => {
        const turn = kind(name).dimension?.turn;
        return turn === undefined ? [] : [{ name, turn }];
      })
      .sort((a, b) => a.turn - b.turn)
      .map(({ name }) => name),
  };
}
