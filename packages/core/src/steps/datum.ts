import { z } from 'zod';
import { evaluate, negated } from '../expressions/index.ts';
import { expressionSchema, nameSchema } from '../records/index.ts';
import { fail, ok, type Result, type Words } from '../result/index.ts';
import {
  ACCEPT_WORDS,
  middleOf,
  needs,
  planeOf,
  referenceSchema,
  referenceWords,
  type Accepts,
  type Datum,
  type Reference,
  type Thing,
} from '../references/index.ts';
import { LENGTH, type Dimension } from '../units/index.ts';
import type { Phrase, PickField, StepKind } from './kind.ts';
import { pullOffPlane } from './pulls.ts';

interface Asked {
  readonly accepts: Accepts;
  readonly label: string;
  /** The word before it in the sentence; "and" if absent. */
  readonly joint?: string;
}

/** One way to make a datum: what it builds on, the number it takes, and the geometry. */
export interface Construction {
  /** The word in the sentence: "offset from", "halfway between". */
  readonly title: string;
  readonly asks: readonly Asked[];
  /** Kept for steps that were made by it, and offered no more. */
  readonly superseded?: true;
  readonly number?: { readonly label: string; readonly asks: Dimension; readonly initial: string };
  /** @param things as asked, in order; @param number in mm or rad. Fails where the things do not give one. */
  make(things: readonly Thing[], number: number): Result<Datum>;
}

/** The schema of a step that makes a datum in one of several ways. */
const datumSchema = <K extends string, H extends string>(kind: K, how: readonly H[]) =>
  z.strictObject({
    kind: z.literal(kind),
    name: nameSchema,
    suppressed: z.boolean().optional(),
    how: z.enum(how),
    /** What it builds on, in the order in which it is asked. */
    on: z.array(referenceSchema).max(4),
    /** The offset or the angle, where the way has one. */
    by: expressionSchema.optional(),
  });

type Told = Required<Pick<StepKind<never, never>, 'title' | 'noun' | 'verb'>>;

/** A kind of step from the ways in which its datum can be made: a new way is an entry. */
export function datumKind<K extends string, H extends string>(
  kind: K,
  { title, noun, verb, ways }: Told & { readonly ways: Record<H, Construction> },
) {
  const schema = datumSchema(kind, Object.keys(ways) as H[]);
  type DatumStep = z.infer<typeof schema>;
  const wayOf = ({ how }: DatumStep): Construction => ways[how];
  const titlesFor = (step: DatumStep) =>
    Object.fromEntries(
      Object.entries<Construction>(ways)
        .filter(([how, { superseded }]) => !superseded || how === step.how)
        .map(([how, { title: words }]) => [how, words]),
    );
  return {
    schema,
    title,
    noun,
    verb,
    ways: Object.keys(ways).filter((how) => !ways[how as H].superseded),
    sentence(step, nameOf): Phrase[] {
      const { asks, number } = wayOf(step);
      const picks = asks.flatMap(({ label, joint = 'and' }, k): Phrase[] => [
        { type: 'text', text: k === 0 ? ' ' : ` ${joint} ` },
        {
          type: 'picks',
          field: `on.${k}`,
          text: step.on[k] ? referenceWords(step.on[k], nameOf) : 'choose',
          label,
        },
      ]);
      return [
        { type: 'text', text: `${title} ` },
        { type: 'strong', text: step.name },
        { type: 'text', text: ' ' },
        { type: 'choice', field: 'how', value: step.how, options: titlesFor(step), label: 'way' },
        ...picks,
        ...(number
          ? ([
              { type: 'text', text: ' by ' },
              { type: 'chip', field: 'by', text: step.by ?? number.initial, asks: number.asks, label: number.label },
            ] as const)
          : []),
      ];
    },
    uses: (step) => [...new Set(step.on.flatMap(needs))],
    expressions(step) {
      const { number } = wayOf(step);
      if (!number) return [];
      const text = step.by ?? number.initial;
      return [{ path: ['by'], text, asks: number.asks, label: `${step.name} · ${number.label}` }];
    },
    turned(step) {
      const { number } = wayOf(step);
      return number && { by: negated(step.by ?? number.initial) };
    },
    // what is set off a plane, along its normal
    pulls(step, { find }) {
      const { asks, number } = wayOf(step);
      const thing = step.on[0] && find(step.on[0]);
      const plane = thing && planeOf(thing);
      if (number?.asks !== LENGTH || asks.length > 1 || !plane) return [];
      return [pullOffPlane('by', plane, middleOf(thing) ?? plane.origin)];
    },
    references: (step) =>
      wayOf(step).asks.flatMap(({ accepts, label }, k) =>
        step.on[k] ? [{ path: ['on', `${k}`], reference: step.on[k], accepts, label }] : [],
      ),
    picks: (step) =>
      wayOf(step).asks.map(({ accepts, label }, k): PickField => ({
        field: `on.${k}`,
        accepts,
        label,
        min: 1,
        max: 1,
        picked: step.on[k] ? [step.on[k]] : [],
        with: ([picked]) => placed(step.on, k, picked),
      })),
    datum(step, context) {
      const { asks, number, make } = wayOf(step);
      const things: Thing[] = [];
      for (const [k, { accepts }] of asks.entries()) {
        const reference = step.on[k];
        if (!reference) return fail('reference.missing', { asked: ACCEPT_WORDS[accepts] });
        const found = context.find(reference, accepts);
        if (!found.ok) return found;
        things.push(found.value);
      }
      const amount = number ? evaluate(step.by ?? number.initial, number.asks, context.scope) : ok(0);
      return amount.ok ? make(things, amount.value) : amount;
    },
  } satisfies StepKind<DatumStep, never>;
}

/** The list with one entry set or, with all after it, taken away. */
function placed(on: readonly Reference[], k: number, picked: Reference | undefined): Reference[] {
  return picked ? [...on.slice(0, k), picked, ...on.slice(k + 1)] : on.slice(0, k);
}

export const datumWords: Words = {
  'datum.parallel': () => 'These two are parallel: they do not meet. Choose two that do.',
  'datum.apart': () => 'The axis does not lie along the plane: choose one that does, or a plane through it.',
  'datum.line': () => 'The points lie on one line, or on each other: choose three that span a plane.',
  'datum.same': () => 'The two are in the same place: choose two that are apart.',
  'datum.tangent': () => 'The curve has no direction there.',
};
