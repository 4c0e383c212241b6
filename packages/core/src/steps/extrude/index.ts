import { z } from 'zod';
import { evaluate } from '../../expressions/index.ts';
import type { BodyHandle, ExtrudeRequest, Kernel } from '../../kernel-port/index.ts';
import { expressionSchema, idSchema, nameSchema } from '../../records/index.ts';
import { fail, ok, type Result, type Words } from '../../result/index.ts';
import { filled, resolveRegions, type Region } from '../../sketch/index.ts';
import { LENGTH } from '../../units/index.ts';
import type { SolvedSketch, StepKind } from '../kind.ts';

const WAYS = { forwards: 'forwards', backwards: 'backwards', both: 'both ways' } as const;
const RESULTS = { new: 'new body', add: 'added', cut: 'cut away' } as const;

export const extrudeSchema = z.strictObject({
  kind: z.literal('extrude'),
  name: nameSchema,
  suppressed: z.boolean().optional(),
  sketch: idSchema,
  /** Region keys, or all that the outlines fill. */
  areas: z.union([z.literal('outline'), z.array(z.string().max(40_000)).min(1).max(200)]),
  distance: expressionSchema,
  /** Forwards is along the plane's normal, towards whoever looks square on it; both ways is half the distance each. */
  ways: z.enum(['forwards', 'backwards', 'both']),
  result: z.enum(['new', 'add', 'cut']),
});
export type ExtrudeStep = z.infer<typeof extrudeSchema>;

interface ExtrudeInputs extends ExtrudeRequest {
  readonly result: ExtrudeStep['result'];
}

const LEAST_DISTANCE = 1e-3;
const MOST_DISTANCE = 1e5;

export const extrude: StepKind<ExtrudeStep, ExtrudeInputs> = {
  schema: extrudeSchema,
  title: 'Extrude',
  sentence: (step, nameOf) => [
    { type: 'text', text: 'Extrude ' },
    { type: 'strong', text: nameOf(step.sketch) },
    { type: 'text', text: step.areas === 'outline' ? ' by ' : ` (${step.areas.length} of its areas) by ` },
    { type: 'chip', field: 'distance', text: step.distance, asks: LENGTH, label: 'distance' },
    { type: 'text', text: ', ' },
    { type: 'choice', field: 'ways', value: step.ways, options: WAYS, label: 'direction' },
    { type: 'text', text: ' → ' },
    { type: 'choice', field: 'result', value: step.result, options: RESULTS, label: 'result' },
  ],
  uses: (step) => [step.sketch],
  expressions: (step) => [{ path: ['distance'], text: step.distance, asks: LENGTH, label: `${step.name} · distance` }],
  resolve(step, context) {
    const distance = evaluate(step.distance, LENGTH, context.scope);
    if (!distance.ok) return distance;
    if (!(distance.value >= LEAST_DISTANCE && distance.value <= MOST_DISTANCE))
      return fail('extrude.distance', { text: step.distance });
    const sketch = context.sketch(step.sketch);
    if (!sketch.ok) return sketch;
    const regions = areasOf(step, sketch.value);
    if (!regions.ok) return regions;
    const [from, to] = span(step.ways, distance.value);
    const profile = { frame: sketch.value.frame, regions: regions.value };
    return ok({ profile, from, to, step: context.step, result: step.result });
  },
  build(inputs, before, kernel) {
    if (inputs.result !== 'new' && before.length === 0) return fail('extrude.nothing', { result: inputs.result });
    const tools = kernel.extrude(inputs);
    if (!tools.ok) return tools;
    if (inputs.result === 'new') return ok([...before, ...tools.value]);
    return combined(inputs.result, before, tools.value, kernel);
  },
};

/** Where the extrusion starts and ends along the normal. */
function span(ways: ExtrudeStep['ways'], distance: number): readonly [number, number] {
  if (ways === 'both') return [-distance / 2, distance / 2];
  return ways === 'forwards' ? [0, distance] : [-distance, 0];
}

function areasOf(step: ExtrudeStep, sketch: SolvedSketch): Result<readonly Region[]> {
  if (sketch.regions.regions.length === 0)
    return fail(sketch.regions.openEnds.length > 0 ? 'extrude.open' : 'extrude.empty', {
      places: sketch.regions.openEnds.map(({ at }) => at.map((c) => Math.round(c * 100) / 100).join(' / ')),
    });
  if (step.areas === 'outline') return ok(filled(sketch.regions));
  const { regions, gone } = resolveRegions(sketch.regions, step.areas);
  return gone.length > 0 ? fail('extrude.gone', { gone: gone.length, of: step.areas.length }) : ok(regions);
}

function combined(
  result: 'add' | 'cut',
  before: readonly BodyHandle[],
  tools: readonly BodyHandle[],
  kernel: Kernel,
): Result<readonly BodyHandle[]> {
  const made = kernel.combine(result, before, tools);
  tools.forEach((tool) => kernel.release(tool));
  if (!made.ok) return made;
  if (result === 'cut' && !made.value.touched) {
    made.value.bodies.forEach((body) => kernel.release(body));
    return fail('extrude.misses');
  }
  return ok(made.value.bodies);
}

export const extrudeWords: Words = {
  'extrude.distance': (f) =>
    `"${f['text']}" is not a distance from 0.001 mm to 100 m. To go the other way, change the direction.`,
  'extrude.empty': () => 'The sketch has no closed area yet: draw an outline first.',
  'extrude.open': (f) =>
    `The outline is not closed: it ends at ${(f['places'] as readonly string[]).join(' and at ')}.`,
  'extrude.gone': (f) => `${f['gone']} of ${f['of']} areas are gone: choose again.`,
  'extrude.nothing': (f) =>
    f['result'] === 'cut'
      ? 'There is no body yet to cut from: make it a new body.'
      : 'There is no body yet to add to: make it a new body.',
  'extrude.misses': () => 'This cuts nothing: it does not meet a body. Try the other direction.',
};
