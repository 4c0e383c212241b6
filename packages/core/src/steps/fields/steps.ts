import { z } from 'zod';
import { idSchema, type Id } from '../../records/index.ts';
import { issue } from '../../result/index.ts';
import type { Common, FieldKind } from './kind.ts';

/** Earlier steps. */
export interface StepsField extends Common {
  readonly type: 'steps';
  readonly schema: z.ZodArray<typeof idSchema>;
  readonly min: number;
  /** Sketches, or what makes bodies. */
  readonly of: 'sketches' | 'bodies';
  /** Do they stand in the order in which they are chosen, or in that of the part? */
  readonly order: 'chosen' | 'built';
}

/** A field for earlier steps, at least so many. */
export const stepsField = (
  label: string,
  { min, of, order, when }: Pick<StepsField, 'min' | 'of' | 'order' | 'when'>,
): StepsField => ({
  type: 'steps',
  schema: z.array(idSchema).max(100),
  label,
  min,
  of,
  order,
  ...(when ? { when } : {}),
});

export const stepsKind: FieldKind<StepsField, readonly Id[]> = {
  initial: () => [],
  lack: ({ min, label }, ids = []) => (ids.length < min ? issue('field.steps', { label }) : undefined),
  phrase: (_, __, ids, nameOf) => ({
    type: 'strong',
    text: ids.map((id) => nameOf(id)).join(' and ') || 'some steps',
  }),
  asks: () => 'earlier steps',
  uses: (ids) => ids,
};

/** Numbers of instances. */
export interface NumbersField extends Common {
  readonly type: 'skip';
  readonly schema: z.ZodArray<z.ZodInt>;
}

/** Instances that are left out, counted from 1. */
export const skipField: NumbersField = {
  type: 'skip',
  schema: z.array(z.int().min(1).max(10_000)).max(1000),
  label: 'left out',
};

export const skipKind: FieldKind<NumbersField, readonly number[]> = {
  initial: () => [],
  phrase: (_, __, numbers) => ({ type: 'text', text: numbers.length > 0 ? ` without ${numbers.join(', ')}` : '' }),
  asks: () => 'numbers of instances',
};
