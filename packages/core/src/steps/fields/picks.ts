import { z } from 'zod';
import {
  ACCEPT_WORDS,
  needs,
  referenceSchema,
  referenceWords,
  type Accepts,
  type NameOf,
  type Reference,
  type Thing,
} from '../../references/index.ts';
import { fail, issue, ok } from '../../result/index.ts';
import type { Common, FieldKind } from './kind.ts';

export interface PicksField extends Common {
  readonly type: 'picks';
  readonly schema: z.ZodArray<typeof referenceSchema>;
  readonly accepts: Accepts;
  readonly min: number;
  readonly max: number;
  /** What several of them are called: "edges". */
  readonly many: string;
  /** What stands for it where none is picked. */
  readonly none: string;
}

const MOST_PICKS = 500;

type PickOptions = Partial<Pick<PicksField, 'min' | 'max' | 'many' | 'none' | 'when'>>;
/** A field for things that are picked; as many as from min to max. */
export const picks = (
  label: string,
  accepts: Accepts,
  { min = 1, max = 1, many = label, none = min === 0 ? `no ${many}` : 'choose', when }: PickOptions = {},
): PicksField => ({
  type: 'picks',
  schema: z.array(referenceSchema).max(MOST_PICKS),
  label,
  accepts,
  min,
  max,
  many,
  none,
  ...(when ? { when } : {}),
});

function picksWords({ many, none }: PicksField, picked: readonly Reference[], nameOf: NameOf): string {
  if (picked.length === 0) return none;
  return picked.length === 1 ? referenceWords(picked[0]!, nameOf) : `${picked.length} ${many}`;
}

export const picksKind: FieldKind<PicksField, readonly Reference[]> = {
  initial: () => [],
  lack: ({ min, accepts }, picked = []) =>
    picked.length < min ? issue('reference.missing', { asked: ACCEPT_WORDS[accepts] }) : undefined,
  resolve({ accepts, many }, references, context) {
    const things: Thing[] = [];
    let lost = 0;
    for (const reference of references) {
      const found = context.find(reference, accepts);
      if (found.ok) things.push(...('things' in found.value ? found.value.things : [found.value]));
      else if (references.length === 1) return found;
      else lost++;
    }
    return lost > 0 ? fail('field.lost', { lost, of: references.length, many }) : ok(things);
  },
  phrase: (name, field, picked, nameOf) => ({
    ...{ type: 'picks', field: name, text: picksWords(field, picked, nameOf), label: field.label },
  }),
  asks: ({ min, max, accepts }) => `${min === max ? min : `${min} to ${max}`} of: ${ACCEPT_WORDS[accepts]}`,
  references: (picked) => picked,
  picks: (field, { accepts, label, min, max }, picked) => ({
    ...{ field, accepts, label, min, max, picked },
    with: (next) => [...next],
  }),
  uses: (picked) => picked.flatMap(needs),
};
