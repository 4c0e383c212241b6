import { evaluate, fail, isNumber, ok, sameDimension, LENGTH, type Action, type Issue, type Result } from '@helb/core';
import { readIn } from './asking.ts';
import type { DrawnSize, TypedSize, TypedSizes } from './drawn-sizes.ts';
import type { SketchEditor } from './sketch-editor.ts';

/** Numbers that are being typed for what is drawn: a text for each; an empty one leaves it to the pointer. */
export interface SizeEntry {
  readonly texts: readonly string[];
  /** Which of them is typed now. */
  readonly focus: number;
  /** Why they can not be taken. */
  readonly wrong?: Issue;
}

const LENGTHS = { min: 0, max: 1e5 };

/** What the texts come to; refused with the first that says nothing, and where it stands. */
export function readEntry(
  editor: SketchEditor,
  { texts }: SizeEntry,
  sizes: readonly DrawnSize[],
): { readonly typed: TypedSizes; readonly wrong?: { readonly at: number; readonly issue: Issue } } {
  const before: Action[] = [];
  const typed: (TypedSize | undefined)[] = [];
  let wrong: { at: number; issue: Issue } | undefined;
  sizes.forEach((size, k) => {
    const text = texts[k]?.trim() ?? '';
    const read = text === '' ? ok(undefined) : readSize(editor, text, size, before);
    if (!read.ok) wrong ??= { at: k, issue: read.issue };
    typed.push(read.ok ? read.value : undefined);
    if (read.ok && read.value) before.push(...read.value.naming);
  });
  return { typed, ...(wrong && { wrong }) };
}

function readSize(
  editor: SketchEditor,
  text: string,
  { asks, within = sameDimension(asks, LENGTH) ? LENGTHS : undefined }: DrawnSize,
  before: readonly Action[],
): Result<TypedSize> {
  const read = readIn(editor, text, asks, before);
  if (!read.ok) return read;
  const { expression, naming, scope } = read.value;
  const number = evaluate(expression, asks, scope);
  if (!number.ok) return number;
  const size = number.value;
  if (isNumber(asks) && within && !(Number.isInteger(size) && size >= within.min && size <= within.max))
    return fail('size.count', { text, min: within.min, max: within.max });
  if (within && !isNumber(asks) && !(size > within.min && size <= within.max))
    return fail('size.bounds', { text, angle: asks.angle });
  return ok({ text: expression, size, naming: naming.slice(before.length) });
}
