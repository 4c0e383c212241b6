import { z } from 'zod';
import { middle2 } from '../../math/index.ts';
import { idSchema, type Id } from '../../records/index.ts';
import type { Geometry, Layout } from '../geometry.ts';
import { quarterTurns } from '../similarity.ts';
import type { RelationKind } from './kind.ts';
import { picked } from './picking.ts';

/** Indices of x and y of a point. */
type Place = readonly [number, number];

/** Two points at one height (or one behind the other): the shared body of horizontal and vertical. */
interface Level<K extends string> {
  readonly kind: K;
  readonly a: Id;
  readonly b?: Id | undefined;
}

/** What is stored of a relation that levels a line or two points. */
export const levelSchema = <K extends string>(kind: K) =>
  z.strictObject({ kind: z.literal(kind), a: idSchema, b: idSchema.optional() });

/** @param coordinate which coordinate is equal at both points: 0 for x, 1 for y @param squareTo the kind that it is after a quarter turn */
export function levelKind<K extends string>(
  kind: K,
  schema: z.ZodType<Level<K>>,
  coordinate: 0 | 1,
  squareTo: string,
  face: Pick<RelationKind<never>, 'title' | 'verb' | 'words'> & { readonly mark: string },
): RelationKind<Level<K>> {
  const along01 = coordinate === 0 ? 1 : 0;
  const ends = ({ a, b }: Level<K>, of: Geometry | Layout): readonly [Id, Id] => {
    if (b !== undefined) return [a, b];
    const line = of.entities[a] as { a: Id; b: Id };
    return [line.a, line.b];
  };
  return {
    schema,
    ...face,
    carried(relation, by) {
      const turns = quarterTurns(by);
      return turns === undefined ? undefined : turns % 2 === 0 ? relation : { ...relation, kind: squareTo };
    },
    refs: ({ a, b }) => (b === undefined ? [a] : [a, b]),
    roles: ({ a, b }) => (b === undefined ? { [a]: ['line'] } : { [a]: ['point'], [b]: ['point'] }),
    fit(picks, geometry) {
      const line = picked(picks, geometry, ['line']);
      if (line && geometry.entities[line[0]!]) return { kind, a: line[0]! };
      const points = picked(picks, geometry, ['point', 'point']);
      return points && { kind, a: points[0]!, b: points[1]! };
    },
    equations(relation, { id, layout }) {
      const [a, b] = ends(relation, layout);
      return {
        substitutions: [{ owner: id, a: layout.point(a)[coordinate], b: layout.point(b)[coordinate], offset: 0 }],
      };
    },
    aim(relation, layout, x) {
      const [a, b] = ends(relation, layout).map((id) => layout.point(id)) as [Place, Place];
      const along = x[b[along01]]! - x[a[along01]]!;
      const across = x[b[coordinate]]! - x[a[coordinate]]!;
      // nearer to square on what is asked than to it: turned about its middle, so that it does not shrink to nothing
      if (Math.abs(along) >= Math.abs(across)) return;
      const middle = [0, 1].map((k) => (x[a[k as 0 | 1]]! + x[b[k as 0 | 1]]!) / 2) as [number, number];
      const half = Math.hypot(along, across) / 2;
      const way = along < 0 || (along === 0 && across < 0) ? -1 : 1;
      x[a[coordinate]] = x[b[coordinate]] = middle[coordinate];
      x[a[along01]] = middle[along01] - way * half;
      x[b[along01]] = middle[along01] + way * half;
    },
    anchors(relation, geometry) {
      const [a, b] = ends(relation, geometry);
      return [middle2(geometry.point(a), geometry.point(b))];
    },
  };
}
