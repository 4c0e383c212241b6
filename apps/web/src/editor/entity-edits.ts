import { ok, type Entity, type Id, type Result } from '@helb/core';
import type { SketchEditor } from './sketch-editor.ts';

// What entities are, changed where they stand.

/** Makes what is selected construction, or outline where all of it is construction already. */
export function toggleConstruction(editor: SketchEditor): Result<void> {
  const { part, step, sketch } = editor;
  const ids = [...editor.selection].filter((id) => {
    const entity = sketch.entities[id];
    return entity !== undefined && entity.kind !== 'point';
  });
  if (ids.length === 0) return ok(undefined);
  const on = !ids.every((id) => (sketch.entities[id] as { construction?: boolean }).construction);
  return editor.act([{ command: 'sketch.construction', input: { part, step, ids, on } }]);
}

/** A centre line is construction, and diameters are measured across it. */
export function toggleCentreline(editor: SketchEditor): Result<void> {
  const { entities } = editor.sketch;
  const lines = [...editor.selection].filter((id) => entities[id]?.kind === 'line');
  const all = lines.every((id) => (entities[id] as { centreline?: boolean }).centreline);
  return editor.revise('centre line', (builder) => {
    for (const id of lines) {
      const { centreline: _, construction: __, ...line } = builder.now(id) as Extract<Entity, { kind: 'line' }>;
      builder.replace(id, all ? line : { ...line, construction: true, centreline: true });
    }
    return ok(builder.edit);
  });
}

export function setText(editor: SketchEditor, id: Id, text: string): Result<void> {
  const entity = editor.sketch.entities[id];
  if (entity?.kind !== 'text') return ok(undefined);
  return editor.revise('text', (builder) => {
    builder.replace(id, { ...entity, text });
    return ok(builder.edit);
  });
}
