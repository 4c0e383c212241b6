import type { Id } from '../records/index.ts';
import { evaluate, type Scope } from '../expressions/index.ts';
import { fail, ok, type Issue, type Result } from '../result/index.ts';
import { formatQuantity } from '../units/index.ts';
import type { Project, Value } from './schema.ts';

/** A project as it is in one of its variants; as it stands without one. */
export function variantOf(project: Project, id: Id | undefined): Project {
  const variant = id === undefined ? undefined : project.variants?.[id];
  if (!variant) return project;
  const values = Object.fromEntries(
    Object.entries(project.values).map(([key, value]) => {
      const expression = variant.values[key];
      return [key, expression === undefined ? value : { ...value, expression }];
    }),
  );
  const parts = Object.fromEntries(
    Object.entries(project.parts).map(([key, part]) => {
      const out = (variant.leftOut[key] ?? []).filter((step) => part.steps[step]);
      if (out.length === 0) return [key, part];
      const left = Object.fromEntries(out.map((step) => [step, { ...part.steps[step]!, suppressed: true }]));
      return [key, { ...part, steps: { ...part.steps, ...left } }];
    }),
  );
  return { ...project, values, parts };
}

/** What the project itself is called beside its variants. */
export const basisOf = ({ basis }: Project): string => basis ?? 'as drawn';

/** Everything that the project can be shown as: itself first, without an id, then its variants in their order. */
export const variantsOf = (project: Project): { readonly id: Id | undefined; readonly name: string }[] => [
  { id: undefined, name: basisOf(project) },
  ...(project.variantOrder ?? []).map((id) => ({ id, name: project.variants![id]!.name })),
];

/** The variant of a name; undefined for the project itself. Fails where there is none of that name. */
export function variantNamed(project: Project, name: string): Result<Id | undefined> {
  const all = variantsOf(project);
  const found = all.find((other) => other.name === name);
  return found ? ok(found.id) : fail('variant.unknown', { name, names: all.map((other) => other.name).join(', ') });
}

/** What a value comes to that it may not; undefined where it may, or where nothing is said. */
export function outside({ name, allowed }: Value, scope: Scope): Issue | undefined {
  const result = scope.lookup(name);
  if (!allowed || !result.ok) return undefined;
  const { amount, dimension } = result.value;
  const said = 'list' in allowed ? allowed.list : [allowed.least, allowed.most].filter((text) => text !== undefined);
  const amounts: number[] = [];
  for (const text of said) {
    const bound = evaluate(text, dimension, scope);
    if (!bound.ok) return bound.issue;
    amounts.push(bound.value);
  }
  const near = 1e-9 * Math.max(1, Math.abs(amount));
  const fits =
    'list' in allowed
      ? amounts.some((other) => Math.abs(other - amount) <= near)
      : (allowed.least === undefined || amount >= amounts[0]! - near) &&
        (allowed.most === undefined || amount <= amounts.at(-1)! + near);
  if (fits) return undefined;
  const words = formatQuantity(result.value, scope.unit, 4);
  return fail('value.outside', { name, is: words, allowed: allowedWords(allowed) }).issue;
}

/** What a value may come to, in words. */
export function allowedWords(allowed: NonNullable<Value['allowed']>): string {
  if ('list' in allowed) return `one of ${allowed.list.join(', ')}`;
  const { least, most } = allowed;
  if (least !== undefined && most !== undefined) return `from ${least} to ${most}`;
  return least === undefined ? `at most ${most}` : `at least ${least}`;
}
