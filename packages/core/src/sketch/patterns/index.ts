import { z } from 'zod';
import { direction2, sub2 } from '../../math/index.ts';
import { expressionSchema, idSchema, type Id } from '../../records/index.ts';
import { ANGLE, LENGTH, NUMBER, type Dimension } from '../../units/index.ts';
import { transformed } from '../editing/copies.ts';
import type { Similarity } from '../similarity.ts';
import { entityKind, withPoints, type Entities, type Entity } from '../entities/index.ts';
import { Geometry } from '../geometry.ts';

const curves = z.array(idSchema).min(1).max(500);

/**
 * Curves repeated along a line, or round a centre. The repetitions are never stored: they follow the originals, the count
 * and the spacing, which are dimensions like any other.
 */
export const patternSchema = z.discriminatedUnion('layout', [
  z.strictObject({
    layout: z.literal('line'),
    of: curves,
    /** The line whose direction it takes. */
    along: idSchema,
    backwards: z.boolean().optional(),
    count: expressionSchema,
    spacing: expressionSchema,
  }),
  z.strictObject({
    layout: z.literal('round'),
    of: curves,
    centre: idSchema,
    count: expressionSchema,
    /** The angle over which all are spread; a full turn is spread evenly. */
    over: expressionSchema,
  }),
]);
export type Pattern = z.infer<typeof patternSchema>;

export const MOST_COPIES = 500;

/** The numbers of a pattern by field, with what each asks for. */
export const patternFields = (
  pattern: Pattern,
): readonly {
  readonly field: 'count' | 'spacing' | 'over';
  readonly text: string;
  readonly asks: Dimension;
  readonly title: string;
}[] => [
  { field: 'count', text: pattern.count, asks: NUMBER, title: 'count' },
  pattern.layout === 'line'
    ? { field: 'spacing', text: pattern.spacing, asks: LENGTH, title: 'spacing' }
    : { field: 'over', text: pattern.over, asks: ANGLE, title: 'over' },
];

/** What a pattern refers to. */
export const patternRefs = (pattern: Pattern): readonly Id[] => [
  ...pattern.of,
  pattern.layout === 'line' ? pattern.along : pattern.centre,
];

/** The pattern without what is gone; undefined if nothing of it is left. */
export function patternWithout(pattern: Pattern, gone: ReadonlySet<Id>): Pattern | undefined {
  const of = pattern.of.filter((id) => !gone.has(id));
  const frame = pattern.layout === 'line' ? pattern.along : pattern.centre;
  return of.length === 0 || gone.has(frame) ? undefined : { ...pattern, of };
}

/** @param count how many there are with the original; @param step spacing in mm, or the whole angle in rad */
export interface PatternNumbers {
  readonly count: number;
  readonly step: number;
}

const FULL = 2 * Math.PI - 1e-9;

/** The repetitions as entities, named after the pattern, their number and the original: `pt1.2.l3`. */
export function repeated(id: Id, pattern: Pattern, numbers: PatternNumbers, geometry: Geometry): Entities {
  const copies: Record<Id, Entity> = {};
  const originals = withPoints(geometry.entities, pattern.of);
  for (let k = 1; k < numbers.count; k++) {
    const similarity = placement(pattern, numbers, k, geometry);
    const nameOf = (original: Id) => (originals.includes(original) ? `${id}.${k}.${original}` : original);
    for (const original of originals) {
      const entity = transformed(geometry.entities[original]!, similarity);
      copies[nameOf(original)] = entityKind(entity.kind).onto(entity, nameOf);
    }
  }
  return copies;
}

function placement(pattern: Pattern, { count, step }: PatternNumbers, k: number, geometry: Geometry): Similarity {
  if (pattern.layout === 'round') {
    const each = step >= FULL ? step / count : step / (count - 1);
    return { about: geometry.point(pattern.centre), angle: each * k, scale: 1, shift: [0, 0] };
  }
  const { a, b } = geometry.line(pattern.along);
  const [x, y] = direction2(sub2(b, a)) ?? [1, 0];
  const reach = (pattern.backwards ? -1 : 1) * step * k;
  return { about: [0, 0], angle: 0, scale: 1, shift: [x * reach, y * reach] };
}
