import { z } from 'zod';
import { distance2 } from '../../math/index.ts';
import { idSchema, type Id } from '../../records/index.ts';
import { lineAngle, type AngleLaw } from '../residuals.ts';
import type { RelationKind } from './kind.ts';
import { middleOf, picked } from './picking.ts';

/** A law for the directions of two lines: the shared body of parallel and perpendicular. */
interface Direction<K extends string> {
  readonly kind: K;
  readonly a: Id;
  readonly b: Id;
}

/** What is stored of a relation between the directions of two lines. */
export const directionSchema = <K extends string>(kind: K) =>
  z.strictObject({ kind: z.literal(kind), a: idSchema, b: idSchema });

/** A kind of relation between the directions of two lines, by its law of the angle between them. */
export function directionKind<K extends string>(
  kind: K,
  schema: z.ZodType<Direction<K>>,
  law: AngleLaw,
  face: Pick<RelationKind<never>, 'title' | 'verb' | 'words'> & { readonly mark: string },
): RelationKind<Direction<K>> {
  return {
    schema,
    ...face,
    refs: ({ a, b }) => [a, b],
    roles: ({ a, b }) => ({ [a]: ['line'], [b]: ['line'] }),
    fit(picks, geometry) {
      const lines = picked(picks, geometry, ['line', 'line']);
      return lines && { kind, a: lines[0]!, b: lines[1]! };
    },
    equations({ a, b }, { id, layout, start }) {
      // scaled by the mean length: the residual is about how far the ends are off, in mm
      const lengths = [start.line(a), start.line(b)].map((line) => distance2(line.a, line.b));
      const scale = Math.max((lengths[0]! + lengths[1]!) / 2, 1e-3);
      return { blocks: [lineAngle(id, layout.line(a), layout.line(b), scale, law)] };
    },
    anchors: ({ a, b }, geometry) => [middleOf(a, geometry), middleOf(b, geometry)],
  };
}
