import { z } from 'zod';
import type { RelationKind } from './kind.ts';

/** Kinds of relations by their names. */
type RelationKinds = Readonly<
  Record<
    string,
    Pick<RelationKind<never>, 'title' | 'verb'> & { readonly schema: z.ZodType; readonly dimension?: unknown }
  >
>;
/** A relation of one of these kinds, as it is stored. */
export type RelationOf<K extends RelationKinds> = z.infer<K[keyof K]['schema']>;

/** All that follows from kinds of relations, in their order: that is the one in which they are offered. */
export function relationRegister<K extends RelationKinds>(kinds: K) {
  type Relation = RelationOf<K>;
  type Name = Extract<keyof K, string>;
  const kind = (name: Name) => kinds[name] as unknown as RelationKind<Relation>;
  const names = Object.keys(kinds) as Name[];
  return {
    names,
    schema: z.discriminatedUnion(
      'kind',
      Object.values(kinds).map(({ schema }) => schema) as never,
    ) as unknown as z.ZodType<Relation>,
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
