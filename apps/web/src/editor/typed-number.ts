import {
  evaluate,
  fail,
  isName,
  nameIssue,
  ok,
  tidyName,
  valueScope,
  withUnit,
  type Action,
  type Dimension,
  type Id,
  type Project,
  type Result,
} from '@helb/core';

/** What a person typed into a number field: an expression, or `name = expression`, which names it on the spot. */
interface TypedNumber {
  readonly expression: string;
  /** Adds the value that was named. */
  readonly naming: readonly Action[];
}

/** @param asks what the field asks for: a number that is named there without a unit is one of those */
export function readTyped(
  text: string,
  asks: Dimension,
  project: Project,
  newId: (prefix: string) => Id,
): Result<TypedNumber> {
  const at = text.indexOf('=');
  if (at < 0) return ok({ expression: text.trim(), naming: [] });
  const [name, typed] = [tidyName(text.slice(0, at)), text.slice(at + 1).trim()];
  if (!isName(name) || typed === '') return fail('value.name', { name });
  const values = Object.values(project.values);
  const wrong = nameIssue(
    name,
    values.map((value) => value.name),
  );
  if (wrong) return { ok: false, issue: wrong };
  const scope = valueScope(values, project.unit);
  const expression = withUnit(typed, asks, scope);
  // nothing is named that comes to nothing
  const number = evaluate(expression, asks, scope);
  if (!number.ok) return number;
  return ok({ expression: name, naming: [{ command: 'value.add', input: { id: newId('v'), name, expression } }] });
}

/** Is it a number as it was typed, such as 12.5 mm? A name or a sum says only by what it comes to how large it is. */
export const isPlainNumber = (text: string): boolean => /^\s*-?[\d.]+\s*(°|"|[a-z]+)?\s*$/.test(text);
