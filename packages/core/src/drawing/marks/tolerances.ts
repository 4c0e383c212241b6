import { z } from 'zod';
import { deviations, isFitClass, type Deviations } from '../../fits/index.ts';
import { schemaOfKinds, type RecordOf } from '../../records/index.ts';
import { ok, type Result } from '../../result/index.ts';
import { formatAmount } from '../../units/index.ts';
import type { LabelPart } from '../label.ts';

/** A part of a tolerance that is typed: a number, mm or degrees, or a class. */
interface ToleranceField {
  readonly name: string;
  readonly label: string;
  readonly isNumber: boolean;
}

/** What a kind of tolerance has to say of itself. */
interface ToleranceKind<T> {
  readonly schema: z.ZodType<T>;
  /** How it is chosen. */
  readonly title: string;
  readonly begun: T;
  readonly fields: readonly ToleranceField[];
  /** What stands behind the size. @param amount mm or degrees @param unit that of the size as written */
  row(tolerance: T, amount: number, unit: '' | '°'): Result<readonly LabelPart[]>;
}

const signed = (n: number): string => (n === 0 ? '0' : n > 0 ? `+${formatAmount(n)}` : `−${formatAmount(-n)}`);
const limitsOf = ({ upper, lower }: Deviations, unit = ''): LabelPart => ({
  upper: signed(upper) + unit,
  lower: signed(lower) + unit,
});
const small = z.number().min(-1000).max(1000);
const tolerance = <S extends z.ZodType>(kind: ToleranceKind<z.infer<S>> & { readonly schema: S }) => kind;

/** The register: by as much on both sides, between limits, or by a class of ISO 286. */
const TOLERANCE_KINDS = {
  even: tolerance({
    schema: z.strictObject({ kind: z.literal('even'), by: z.number().positive().max(1000) }),
    title: '±',
    begun: { kind: 'even', by: 0.1 },
    fields: [{ name: 'by', label: 'plus and minus', isNumber: true }],
    row: ({ by }, _, unit) => ok([` ±${formatAmount(by)}${unit}`]),
  }),
  limits: tolerance({
    schema: z
      .strictObject({ kind: z.literal('limits'), upper: small, lower: small })
      .refine(({ upper, lower }) => upper > lower, 'the upper limit lies over the lower one'),
    title: 'limits',
    begun: { kind: 'limits', upper: 0.1, lower: 0 },
    fields: [
      { name: 'upper', label: 'upper limit', isNumber: true },
      { name: 'lower', label: 'lower limit', isNumber: true },
    ],
    row: (limits, _, unit) => ok([limitsOf(limits, unit)]),
  }),
  fit: tolerance({
    schema: z.strictObject({
      kind: z.literal('fit'),
      class: z.string().refine(isFitClass, 'a tolerance class as H7 or g6'),
    }),
    title: 'class of ISO 286',
    begun: { kind: 'fit', class: 'H7' },
    fields: [{ name: 'class', label: 'tolerance class', isNumber: false }],
    row(fit, amount) {
      const limits = deviations(fit.class, amount);
      return limits.ok ? ok([` ${fit.class}`, limitsOf(limits.value)]) : limits;
    },
  }),
};

/** How far a size may be off; mm or degrees. */
export type Tolerance = RecordOf<typeof TOLERANCE_KINDS>;
export const toleranceSchema = schemaOfKinds(TOLERANCE_KINDS);

/** What the register knows of a kind. */
export const toleranceKind = (kind: Tolerance['kind']) => TOLERANCE_KINDS[kind] as unknown as ToleranceKind<Tolerance>;
/** How each kind is chosen, by its name. */
export const TOLERANCE_TITLES: Readonly<Record<Tolerance['kind'], string>> = Object.fromEntries(
  Object.entries(TOLERANCE_KINDS).map(([name, { title }]) => [name, title]),
) as Record<Tolerance['kind'], string>;
