import {
  evaluate,
  fail,
  isSized,
  ok,
  perform,
  readSize,
  relationKind,
  valueScope,
  withUnit,
  type Action,
  type Dimension,
  type Id,
  type Result,
  type SizedRelation,
  type Vec2,
} from '@helb/core';
import type { SketchEditor } from './sketch-editor.ts';
import { readTyped } from './typed-number.ts';

/** A number that is being typed on the canvas: of a dimension, or what an edit asks for. */
export interface Asking {
  readonly prompt: string;
  readonly asks: Dimension;
  readonly text: string;
  /** Was the text begun by a key? It goes on from there. */
  readonly begun?: boolean;
  /** The dimension that is changed or proposed; its text is where the field stands. */
  readonly relation?: SizedRelation;
  readonly id?: Id;
  /** Where the field stands else. */
  readonly place?: Vec2;
  /** @param before what is named together with it: all of it happens, or nothing */
  take(text: string, before?: readonly Action[]): Result<void>;
}

/** A number that an edit asks for, and what is to be done with it. */
export interface NumberAsked {
  readonly prompt: string;
  readonly place: Vec2;
  readonly asks: Dimension;
  readonly text: string;
  /** What the number can be; lengths up to 100 m if it is not given. */
  readonly most?: { readonly size: number; readonly issue: string };
  take(number: TakenNumber): Result<void>;
}

/** The number as typed and what it comes to, with the values that are named on the way. */
interface TakenNumber {
  readonly text: string;
  readonly size: number;
  readonly naming: readonly Action[];
}

/** The number of a dimension that exists (id) or is proposed, with what was begun, or what it measures now, to start from. */
export const sizeAsked = (editor: SketchEditor, relation: SizedRelation, id?: Id, begun?: string): Asking => ({
  prompt: 'Size',
  asks: relationKind(relation.kind).dimension!.asks,
  relation,
  text: begun ?? (id === undefined || relation.measuring ? editor.measureText(relation) : relation.value),
  begun: begun !== undefined,
  ...(id === undefined ? {} : { id }),
  take: (text, before = []) =>
    // whoever empties a number wants it gone
    id !== undefined && text.trim() === '' ? editor.erase([id]) : takeSize(editor, relation, id, text, before),
});

const LENGTHS = { size: 1e5, issue: 'size.bounds' };

export const numberAsked = (
  editor: SketchEditor,
  { prompt, place, asks, text, most = LENGTHS, take }: NumberAsked,
): Asking => ({
  prompt,
  asks,
  place,
  text,
  take(typed, before = []) {
    const read = readIn(editor, typed, asks, before);
    if (!read.ok) return read;
    const { expression, naming, scope } = read.value;
    const number = evaluate(expression, asks, scope);
    if (!number.ok) return number;
    if (!(number.value > 0 && number.value <= most.size)) return fail(most.issue, { text: typed, angle: asks.angle });
    return take({ text: expression, size: number.value, naming });
  },
});

/**
 * The name of the value that another dimension takes its number from; a number that has no name yet gets one, so that two
 * dimensions can share it. Undefined where there is nothing to share.
 */
export function tieOf(
  editor: SketchEditor,
  other: Id,
): { readonly name: string; readonly naming: readonly Action[] } | undefined {
  const relation = editor.relations[other];
  if (!editor.asking || !relation || !isSized(relation) || editor.asking.id === other) return undefined;
  const names = Object.values(editor.port.project().values).map(({ name }) => name);
  if (names.includes(relation.value)) return { name: relation.value, naming: [] };
  let count = 1;
  while (names.includes(`size ${count}`)) count++;
  const name = `size ${count}`;
  const expression = withUnit(relation.value, relationKind(relation.kind).dimension!.asks, editor.scope);
  return {
    name,
    naming: [
      { command: 'value.add', input: { id: editor.newId('v'), name, expression } },
      { command: 'sketch.size', input: { part: editor.part, step: editor.step, relation: other, value: name } },
    ],
  };
}

/** What was typed where something is asked for, with the names as they would be after it. */
export function readIn(editor: SketchEditor, text: string, asks: Dimension, before: readonly Action[]) {
  const first = perform(editor.port.project(), before);
  if (!first.ok) return first;
  const typed = readTyped(text, asks, first.value.project, editor.newId);
  if (!typed.ok) return typed;
  const naming = [...before, ...typed.value.naming];
  const named = perform(first.value.project, typed.value.naming);
  if (!named.ok) return named;
  const { values, unit } = named.value.project;
  return ok({ expression: typed.value.expression, naming, scope: valueScope(Object.values(values), unit) });
}

function takeSize(
  editor: SketchEditor,
  relation: SizedRelation,
  id: Id | undefined,
  text: string,
  before: readonly Action[],
): Result<void> {
  const read = readIn(editor, text, relationKind(relation.kind).dimension!.asks, before);
  if (!read.ok) return read;
  const { expression, naming, scope } = read.value;
  const size = readSize(relation, expression, scope);
  if (!size.ok) return size;
  const where = { part: editor.part, step: editor.step };
  const action: Action = id
    ? { command: 'sketch.size', input: { ...where, relation: id, value: expression, measuring: false } }
    : {
        command: 'sketch.draw',
        input: {
          ...where,
          what: relationKind(relation.kind).title.toLowerCase(),
          entities: {},
          relations: { [editor.newId('d')]: { ...relation, value: expression } },
        },
      };
  return editor.actAndPlace([...naming, action]);
}
