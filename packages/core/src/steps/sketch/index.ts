import { z } from 'zod';
import { evaluate } from '../../expressions/index.ts';
import { needs, referenceWords, type NameOf } from '../../references/index.ts';
import { idSchema, nameSchema, type Id } from '../../records/index.ts';
import { fail, issue, ok, type Issue, type Result } from '../../result/index.ts';
import {
  Geometry,
  MOST_COPIES,
  patternFields,
  patternSchema,
  repeated,
  type Entity,
  type Pattern,
  type PatternNumbers,
  type Piece,
  entitySchema,
  findRegions,
  isSized,
  relationKind,
  relationSchema,
  solveSketch,
  type Relations,
  type SizedRelation,
} from '../../sketch/index.ts';
import type { Scope } from '../../expressions/index.ts';
import { ANGLE, LENGTH, NUMBER } from '../../units/index.ts';
import type { ExpressionPlace, SketchSources, SolvedSketch, StepKind } from '../kind.ts';
import {
  drawnSources,
  projectedReferencePlaces,
  projectedReferenceSchema,
  projectedReferenceWords,
  planeReference,
  planeSchema,
  sourcesOf,
  sourceTrouble,
} from './projected-references.ts';

export const PLANE_NAMES: Readonly<Record<OriginPlane, string>> = { front: 'Front', top: 'Top', right: 'Right' };
export type OriginPlane = 'front' | 'top' | 'right';

const MOST = 5000;
const atMost = (most: number) => (record: object) => Object.keys(record).length <= most;

const sketchSchema = z.strictObject({
  kind: z.literal('sketch'),
  name: nameSchema,
  suppressed: z.boolean().optional(),
  plane: planeSchema,
  entities: z.record(idSchema, entitySchema).refine(atMost(MOST), `a sketch has at most ${MOST} entities`),
  relations: z.record(idSchema, relationSchema).refine(atMost(MOST), `a sketch has at most ${MOST} relations`),
  patterns: z.record(idSchema, patternSchema).refine(atMost(100), 'a sketch has at most 100 patterns').optional(),
  /** What is borrowed from elsewhere. */
  loans: z
    .record(idSchema, projectedReferenceSchema)
    .refine(atMost(500), 'a sketch borrows at most 500 things')
    .optional(),
});
export type SketchStep = z.infer<typeof sketchSchema>;

export const sketch: StepKind<SketchStep, never> = {
  schema: sketchSchema,
  title: 'Sketch',
  sentence: (step, nameOf) => [
    { type: 'text', text: 'Sketch ' },
    { type: 'strong', text: step.name },
    { type: 'text', text: ' on ' },
    { type: 'picks', field: 'plane', text: planeWords(step, nameOf), label: 'sketch plane' },
  ],
  uses: (step) => [...new Set(projectedReferencePlaces(step).flatMap(({ reference }) => needs(reference)))],
  expressions: (step) => [...sizePlaces(step), ...patternPlaces(step)],
  references: projectedReferencePlaces,
  picks: ({ plane }) => [
    {
      field: 'plane',
      accepts: 'plane',
      label: 'sketch plane',
      min: 1,
      max: 1,
      picked: [planeReference(plane)],
      with: ([picked]) => (picked?.to === 'origin' ? picked.name : picked),
    },
  ],
  sources: sourcesOf,
  draw: solved,
  words: {
    ...projectedReferenceWords,
    'sketch.clash': (f) =>
      `${f['count'] === 1 ? '1 relation' : `${f['count']} relations`} can't hold${f['count'] === 1 ? '' : ' together'}; drop or change one. The last good shape is shown.`,
    'pattern.count': (f) => `"${f['text']}" is not a whole number from 1 to ${MOST_COPIES}.`,
    'size.count': (f) =>
      `"${f['text']}" does not do here: a whole number from ${f['min']} to ${f['max']} is asked for.`,
    'size.short': (f) =>
      `"${f['text']}" is too short: nothing so small reaches from the one place to the other. Half of the way between them is the least.`,
    'size.none': (f) => `With "${f['text']}" no such figure can be drawn here: change it, or move the pointer first.`,
    'size.bounds': (f) =>
      f['angle'] === 1
        ? `"${f['text']}" is not an angle above 0 and up to 360 deg.`
        : Number(f['turns']) > 0
          ? `"${f['text']}" is more than ${f['turns']} turns.`
          : `"${f['text']}" is not a size above 0 and up to 100 m.`,
  },
};

const planeWords = ({ plane }: SketchStep, nameOf: NameOf): string => referenceWords(planeReference(plane), nameOf);

const sizePlaces = (step: SketchStep): ExpressionPlace[] =>
  Object.entries(step.relations).flatMap(([id, relation]) =>
    isSized(relation) && !relation.measuring
      ? [
          {
            path: ['relations', id, 'value'],
            text: relation.value,
            asks: relationKind(relation.kind).dimension!.asks,
            label: `${step.name} · ${relationKind(relation.kind).title.toLowerCase()}`,
          },
        ]
      : [],
  );

const patternPlaces = (step: SketchStep): ExpressionPlace[] =>
  Object.entries(step.patterns ?? {}).flatMap(([id, pattern]) =>
    patternFields(pattern).map(({ field, text, asks, title }) => ({
      path: ['patterns', id, field],
      text,
      asks,
      label: `${step.name} · pattern ${title}`,
    })),
  );

/** Reads the sizes, solves, repeats what is patterned and finds the regions; trouble comes as `issue`, with the last good shape. */
export function solved(step: SketchStep, scope: Scope, sources: SketchSources = drawnSources(step)): SolvedSketch {
  const { sizes, unread } = readSizes(step.relations, scope);
  const solution = solveSketch(step.entities, step.relations, sizes, sources.borrowed);
  const copies: Record<Id, Entity> = {};
  for (const [id, pattern] of Object.entries(step.patterns ?? {})) {
    const numbers = readPattern(pattern, scope);
    if (numbers.ok) Object.assign(copies, repeated(id, pattern, numbers.value, solution.geometry));
    else unread.set(id, numbers.issue);
  }
  return {
    sources,
    frame: sources.frame,
    solution,
    copies,
    regions: findRegions(
      Object.keys(copies).length === 0 ? solution.geometry : new Geometry({ ...solution.geometry.entities, ...copies }),
    ),
    sizes,
    unread,
    ...troubleOf(solution.clash, unread, sources),
  };
}

/** The count and the spacing of a pattern, or what is wrong with them. */
function readPattern(pattern: Pattern, scope: Scope): Result<PatternNumbers> {
  const count = evaluate(pattern.count, NUMBER, scope);
  if (!count.ok) return count;
  if (!Number.isInteger(count.value) || count.value < 1 || count.value > MOST_COPIES)
    return fail('pattern.count', { text: pattern.count });
  const round = pattern.layout === 'round';
  const text = round ? pattern.over : pattern.spacing;
  const step = evaluate(text, round ? ANGLE : LENGTH, scope);
  if (!step.ok) return step;
  const most = round ? 2 * Math.PI + 1e-9 : LARGEST;
  if (!(step.value >= SMALLEST && step.value <= most)) return fail('size.bounds', { text, angle: round ? 1 : 0 });
  return ok({ count: count.value, step: step.value });
}

/** All curves that bound something: what goes into a file. */
export function outlinePieces({ solution, copies }: Pick<SolvedSketch, 'solution' | 'copies'>): Piece[] {
  const geometry = new Geometry({ ...solution.geometry.entities, ...copies });
  return Object.entries(geometry.entities).flatMap(([id, entity]) =>
    'construction' in entity && entity.construction ? [] : geometry.pieces(id),
  );
}

const SMALLEST = 1e-6;
const LARGEST = 1e5;
const MOST_TURNS = 100;

/** Results of all dimensions; those that can't be read or are out of bounds come back as issues by relation. */
export function readSizes(relations: Relations, scope: Scope) {
  const sizes = new Map<Id, number>();
  const unread = new Map<Id, Issue>();
  for (const [id, relation] of Object.entries(relations)) {
    if (!isSized(relation) || relation.measuring) continue;
    const result = readSize(relation, relation.value, scope);
    if (result.ok) sizes.set(id, result.value);
    else unread.set(id, result.issue);
  }
  return { sizes, unread };
}

/** What the text would make of this dimension, in mm or rad. */
export function readSize(relation: SizedRelation, text: string, scope: Scope) {
  const { asks, period } = relationKind(relation.kind).dimension!;
  const result = evaluate(text, asks, scope);
  if (!result.ok) return result;
  // a line can turn either way, and on and on
  const [least, most] = period === undefined ? [SMALLEST, LARGEST] : [-MOST_TURNS * period, MOST_TURNS * period];
  if (result.value >= least && result.value <= most) return result;
  return { ok: false as const, issue: issue('size.bounds', { text, turns: period === undefined ? 0 : MOST_TURNS }) };
}

function troubleOf(clash: readonly Id[], unread: ReadonlyMap<Id, Issue>, sources: SketchSources): { issue?: Issue } {
  const [first = sourceTrouble(sources)] = unread.values();
  if (first) return { issue: first };
  return clash.length > 0 ? { issue: issue('sketch.clash', { count: clash.length, relations: clash }) } : {};
}
