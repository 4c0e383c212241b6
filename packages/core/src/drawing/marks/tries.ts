import type { Id } from '../../records/index.ts';
import type { Reference } from '../../references/index.ts';
import type { Held, MarkTry, Picked } from './kind.ts';

// What several kinds of marks have in common when they are offered.

/** The mark of a kind with nothing but what is picked. */
export const onePlain =
  <K extends string>(kind: K) =>
  (picks: readonly Picked[], view: Id): MarkTry<{ kind: K; view: Id; of: Reference[] }>[] => [
    {
      mark: { kind, view, of: picks.map(({ reference }) => reference) },
      things: picks.map(({ thing }) => thing),
    },
  ];

/** Bores and arcs are told where they are seen as circles. */
export const whereEndOn = (_: unknown, [first]: readonly Held[]): number => (first?.spot?.endOn ? 0 : 2);
