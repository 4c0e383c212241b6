import { z } from 'zod';
import type { Common, FieldKind } from './kind.ts';

export interface ChoiceField<O extends string = string> extends Common {
  readonly type: 'choice';
  readonly schema: z.ZodEnum<{ [K in O]: K }>;
  readonly options: Readonly<Record<O, string>>;
  readonly initial: O;
}

/** A field for one of a few words. */
export const choice = <O extends string>(
  label: string,
  options: Readonly<Record<O, string>>,
  initial: NoInfer<O>,
  when?: Common['when'],
): ChoiceField<O> => ({
  type: 'choice',
  schema: z.enum(Object.keys(options) as [O, ...O[]]),
  label,
  options,
  initial,
  ...(when ? { when } : {}),
});

/** Words that are each other's other way round. */
const OPPOSITES: readonly (readonly [string, string])[] = [
  ['forwards', 'backwards'],
  ['inwards', 'outwards'],
  ['front', 'back'],
];

/** What goes both ways goes one way when it is turned. */
const BOTH: readonly string[] = ['both', 'each'];

function opposite({ options }: ChoiceField, value: string): string | undefined {
  if (BOTH.includes(value) && Object.hasOwn(options, 'forwards')) return 'forwards';
  const pair = OPPOSITES.find((words) => words.includes(value) && words.every((word) => Object.hasOwn(options, word)));
  return pair?.find((word) => word !== value);
}

export const choiceKind: FieldKind<ChoiceField, string> = {
  initial: ({ initial }) => initial,
  phrase: (field, { options, label }, value) => ({ type: 'choice', field, value, options, label }),
  asks: ({ options }) =>
    Object.entries(options)
      .map(([value, words]) => `\`${value}\` ${words}`)
      .join(', '),
  initialWords: ({ initial }) => `\`${initial}\``,
  turned: opposite,
};
