import { evaluate, fail, isNumber, LENGTH, ok, sameDimension, type Action, type Issue, type Result } from '@helb/core';
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
/** Keys that begin a number. */
const NUMBER_KEY = /^[\d.,(]$/;
export const beginsNumber = (key: string): boolean => NUMBER_KEY.test(key);
/** Begins the number of what is in the making by a key: = goes before a name, since letters are verbs there. */
export function numberBy(key: string, begin: ((text?: string) => boolean) | undefined): boolean {
  if (key === '=') return begin?.('') ?? false;
  return (beginsNumber(key) || key === '-') && (begin?.(key) ?? false);
}
/** Letters begin the name of a number where nothing else is waited for; the one that holds guesses off is never typed. */
const NAME_KEY = /^(?!q)\p{L}$/iu;
export const beginsName = (key: string): boolean => NAME_KEY.test(key);

/** Typing the numbers of what a tool has on its way: they stand at the pointer, which decides those that are left empty. */
export class SizeTyping {
  entry: SizeEntry | undefined;

  constructor(private readonly editor: SketchEditor) {}

  /**
   * A digit begins the first number, so does a minus where that may be negative, and a letter where the tool takes names, else
   * = before a name; Tab opens them all.
   * False where nothing is on its way, or they are open already.
   */
  key(key: string): boolean {
    const { sizes = [], takesNames = false } = this.editor.tool;
    if (this.entry || sizes.length === 0) return false;
    const opens = key === 'Tab' || (key === '=' && !takesNames);
    const isSign = key === '-' && (sizes[0]!.within?.min ?? 0) < 0;
    if (!(opens || isSign || beginsNumber(key) || (takesNames && beginsName(key)))) return false;
    const open = sizes.findIndex(({ isGuessed }) => !isGuessed);
    this.entry = { texts: sizes.map(() => ''), focus: Math.max(0, open) };
    this.type(opens ? '' : key);
    return true;
  }

  /** All that was typed, where that is one letter and the name of no value. */
  get letter(): string | undefined {
    const text = this.entry?.texts.join('') ?? '';
    const names = Object.values(this.editor.port.project().values).map(({ name }) => name);
    return beginsName(text) && !names.includes(text) ? text : undefined;
  }

  /** Types the number in hand; what is on its way keeps to all that can be read so far. */
  type(text: string): void {
    if (!this.entry) return;
    const { focus, texts } = this.entry;
    this.entry = { texts: texts.map((before, k) => (k === focus ? text : before)), focus };
    this.editor.tool.keep?.(readEntry(this.editor, this.entry).typed);
    this.editor.changed();
  }

  /** Takes another of the numbers in hand. */
  focus(focus: number): void {
    if (!this.entry || this.entry.focus === focus) return;
    this.entry = { texts: this.entry.texts, focus };
    this.editor.changed();
  }

  /** The next one, or the one before, all round. */
  step(by: 1 | -1): void {
    const { texts, focus } = this.entry ?? { texts: [''], focus: 0 };
    this.focus((focus + by + texts.length) % texts.length);
  }

  /** Takes the numbers as a click that has them; refused with the reason where it can't. */
  take(): Result<void> {
    const { entry, editor } = this;
    if (!entry || !editor.last) return ok(undefined);
    const { typed, wrong } = readEntry(editor, entry);
    const reason = wrong ? wrong.issue : editor.tool.keep?.(typed);
    this.entry = reason && { ...entry, focus: wrong?.at ?? 0, wrong: reason };
    if (!reason) editor.tool.down?.(editor.last);
    editor.changed();
    return reason ? { ok: false, issue: reason } : ok(undefined);
  }

  /** Leaves them to the pointer again; false where none were typed. */
  leave(): boolean {
    if (!this.entry) return false;
    this.entry = undefined;
    this.editor.tool.keep?.([]);
    return true;
  }
}

/** What the texts come to; refused with the first that says nothing, and where it stands. */
function readEntry(
  editor: SketchEditor,
  { texts }: SizeEntry,
): { readonly typed: TypedSizes; readonly wrong?: { readonly at: number; readonly issue: Issue } } {
  const before = [...(editor.tool.naming ?? [])];
  const typed: (TypedSize | undefined)[] = [];
  let wrong: { at: number; issue: Issue } | undefined;
  editor.tool.sizes?.forEach((size, k) => {
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
  // a count is a number of the figure's making alone: nothing would be driven by a name
  if (isNumber(asks) && within && naming.length > before.length)
    return fail('size.count', { text, min: within.min, max: within.max });
  if (isNumber(asks) && within && !(Number.isInteger(size) && size >= within.min && size <= within.max))
    return fail('size.count', { text, min: within.min, max: within.max });
  if (within && !isNumber(asks) && !(size > within.min && size <= within.max))
    return fail('size.bounds', { text, angle: asks.angle });
  return ok({ text: expression, size, naming: naming.slice(before.length) });
}
