import {
  evaluate,
  fail,
  isSized,
  ok,
  perform,
  readSize,
  relationKind,
  valueScope,
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
  readonly text: string;
  /** The dimension that is changed or proposed; its text is where the field stands. */
  readonly relation?: SizedRelation;
  readonly id?: Id;
  /** Where the field stands else. */
  readonly place?: Vec2;
  take(text: string): Result<void>;
}

/** A number that an edit asks for, and what is to be done with it. */
export interface NumberAsked {
  readonly prompt: string;
  readonly place: Vec2;
  readonly asks: Dimension;
  readonly text: string;
  take(number: { readonly text: string; readonly size: number }): Result<void>;
}

/** The number of a dimension that exists (id) or is proposed, with what it measures now to start from. */
export const sizeAsked = (editor: SketchEditor, relation: SizedRelation, id: Id | undefined): Asking => ({
  prompt: 'Size',
  relation,
  text: id === undefined || relation.measuring ? editor.measureText(relation) : relation.value,
  ...(id === undefined ? {} : { id }),
  take: (text) => takeSize(editor, relation, id, text),
});

export const numberAsked = (editor: SketchEditor, { prompt, place, asks, text, take }: NumberAsked): Asking => ({
  prompt,
  place,
  text,
  take(typed) {
    const read = readIn(editor, typed);
    if (!read.ok) return read;
    const { expression, naming, scope } = read.value;
    const number = evaluate(expression, asks, scope);
    if (!number.ok) return number;
    if (!(number.value > 0)) return fail('size.bounds', { text: typed, angle: asks.angle });
    const named = naming.length > 0 ? editor.port.act(naming) : ok(undefined);
    return named.ok ? take({ text: expression, size: number.value }) : named;
  },
});

/**
 * The name of the value that another dimension takes its number from; a number that has no name yet gets one, so that two
 * dimensions can share it. Undefined where there is nothing to share.
 */
export function tied(editor: SketchEditor, other: Id): Result<string | undefined> {
  const relation = editor.relations[other];
  if (!editor.asking || !relation || !isSized(relation) || editor.asking.id === other) return ok(undefined);
  const names = Object.values(editor.port.project().values).map(({ name }) => name);
  if (names.includes(relation.value)) return ok(relation.value);
  let count = 1;
  while (names.includes(`size ${count}`)) count++;
  const name = `size ${count}`;
  const made = editor.port.act([
    { command: 'value.add', input: { id: editor.newId('v'), name, expression: relation.value } },
    { command: 'sketch.size', input: { part: editor.part, step: editor.step, relation: other, value: name } },
  ]);
  return made.ok ? ok(name) : made;
}

/** What was typed, with the names as they would be after it. */
function readIn(editor: SketchEditor, text: string) {
  const project = editor.port.project();
  const typed = readTyped(text, project, editor.newId);
  if (!typed.ok) return typed;
  const named = perform(project, typed.value.naming);
  if (!named.ok) return named;
  const { values, unit } = named.value.project;
  return ok({ ...typed.value, scope: valueScope(Object.values(values), unit) });
}

function takeSize(editor: SketchEditor, relation: SizedRelation, id: Id | undefined, text: string): Result<void> {
  const read = readIn(editor, text);
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
