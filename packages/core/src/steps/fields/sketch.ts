import { z } from 'zod';
import { idSchema, type Id } from '../../records/index.ts';
import type { Common, FieldKind } from './kind.ts';

/** A sketch, and which of its areas; `areas` is stored beside it. */
export interface SketchField extends Common {
  readonly type: 'sketch';
  readonly schema: typeof idSchema;
}

export const sketchField: SketchField = { type: 'sketch', schema: idSchema, label: 'sketch' };

export const sketchKind: FieldKind<SketchField, Id> = {
  initial: () => '',
  phrase: (_, __, id, nameOf) => ({ type: 'strong', text: id ? nameOf(id) : 'a sketch' }),
  asks: () => 'a sketch before it',
  uses: (id) => (id ? [id] : []),
};

export interface AreasField extends Common {
  readonly type: 'areas';
  readonly schema: z.ZodUnion<readonly [z.ZodLiteral<'outline'>, z.ZodArray<z.ZodString>]>;
}

export const areasField: AreasField = {
  type: 'areas',
  schema: z.union([z.literal('outline'), z.array(z.string().max(40_000)).max(200)]),
  label: 'areas',
  // thin walls go along all lines
  when: ({ body }) => body !== 'thin',
};

export const areasKind: FieldKind<AreasField, 'outline' | readonly string[]> = {
  initial: () => 'outline',
  phrase: (_, __, areas) => ({ type: 'text', text: areas === 'outline' ? '' : ` (${areas.length} of its areas)` }),
  asks: () => '`outline` or region keys',
  initialWords: () => '`outline`',
};
