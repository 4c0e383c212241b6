import type { z } from 'zod';
import { evaluate } from '../../expressions/index.ts';
import { expressionSchema } from '../../records/index.ts';
import { fail } from '../../result/index.ts';
import { isNumber, type Dimension } from '../../units/index.ts';
import type { Common, FieldKind } from './kind.ts';

export interface NumberField extends Common {
  readonly type: 'number';
  readonly schema: z.ZodString;
  readonly asks: Dimension;
  readonly initial: string;
  /** Bounds of the result, mm or rad or a plain number. */
  readonly min: number;
  readonly max: number;
  readonly integer?: boolean;
  /** What to do instead, after the sentence that says what is wrong. */
  readonly hint?: string;
}

type NumberOptions = Pick<NumberField, 'asks' | 'initial' | 'min' | 'max'> &
  Partial<Pick<NumberField, 'when' | 'integer' | 'hint'>>;
/** A field for an expression; min and max are bounds of its result, in mm, rad or as a plain number. */
export const number = (label: string, options: NumberOptions): NumberField => ({
  type: 'number',
  schema: expressionSchema,
  label,
  ...options,
});

const degrees = (rad: number): number => Math.round((rad * 180) / Math.PI);

function boundWords(bound: number, { asks }: NumberField): string {
  if (asks.angle === 1) return `${degrees(bound)} deg`;
  return asks.length === 1 ? `${bound} mm` : `${bound}`;
}

export const numberKind: FieldKind<NumberField, string> = {
  initial: ({ initial }) => initial,
  resolve(field, text, { scope }) {
    const result = evaluate(text, field.asks, scope);
    if (!result.ok) return result;
    const whole = !field.integer || Math.abs(result.value - Math.round(result.value)) < 1e-9;
    if (whole && result.value >= field.min && result.value <= field.max) return result;
    return fail('field.bounds', {
      text,
      label: field.label,
      least: boundWords(field.min, field),
      most: boundWords(field.max, field),
      whole: field.integer ? 1 : 0,
      hint: field.hint ?? '',
    });
  },
  phrase: (field, { asks, label }, text) => ({ type: 'chip', field, text, asks, label }),
  asks({ asks, min, max, integer }) {
    if (asks.angle === 1) return `an angle from ${degrees(min)} to ${degrees(max)} deg`;
    if (asks.length === 1) return `a length from ${min} to ${max} mm`;
    return `${integer ? 'a whole number' : isNumber(asks) ? 'a number' : 'a quantity'} from ${min} to ${max}`;
  },
  initialWords: ({ initial }) => `\`${initial}\``,
  expression: ({ asks }, text) => ({ text, asks }),
};
