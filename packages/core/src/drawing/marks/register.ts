import { z } from 'zod';
import type { Id } from '../../records/index.ts';
import type { MarkKind, MarkTry, Picked } from './kind.ts';

/** Kinds of marks by their names. */
type MarkKinds = Readonly<Record<string, { readonly schema: z.ZodType; readonly title: string }>>;
/** A mark of one of these kinds, as it is stored. */
export type MarkOf<K extends MarkKinds> = z.infer<K[keyof K]['schema']>;

/** All that follows from kinds of marks, in their order: that is the one in which they are offered. */
export function markRegister<K extends MarkKinds>(kinds: K) {
  type Mark = MarkOf<K>;
  type Name = Extract<keyof K, string>;
  const kind = (name: Name) => kinds[name] as unknown as MarkKind<Mark>;
  const names = Object.keys(kinds) as Name[];
  return {
    names,
    kind,
    schema: z.discriminatedUnion(
      'kind',
      Object.values(kinds).map(({ schema }) => schema) as never,
    ) as unknown as z.ZodType<Mark>,
    written: names.flatMap((name) => {
      const { written } = kind(name);
      return written ? [{ kind: name, ...written }] : [];
    }),
    tries: (picks: readonly Picked[], view: Id): MarkTry<Mark>[] =>
      names.flatMap((name) => [...(kind(name).tries?.(picks, view) ?? [])]),
  };
}
