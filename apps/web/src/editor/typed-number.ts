import { fail, isName, nameIssue, ok, tidyName, type Action, type Id, type Project, type Result } from '@helb/core';

/** What a person typed into a number field: an expression, or `name = expression`, which names it on the spot. */
interface TypedNumber {
  readonly expression: string;
  /** Adds the value that was named. */
  readonly naming: readonly Action[];
}

export function readTyped(text: string, project: Project, newId: (prefix: string) => Id): Result<TypedNumber> {
  const at = text.indexOf('=');
  if (at < 0) return ok({ expression: text.trim(), naming: [] });
  const [name, expression] = [tidyName(text.slice(0, at)), text.slice(at + 1).trim()];
  if (!isName(name) || expression === '') return fail('value.name', { name });
  const wrong = nameIssue(
    name,
    Object.values(project.values).map((value) => value.name),
  );
  if (wrong) return { ok: false, issue: wrong };
  return ok({ expression: name, naming: [{ command: 'value.add', input: { id: newId('v'), name, expression } }] });
}
