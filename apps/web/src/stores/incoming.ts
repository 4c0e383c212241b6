import { shallowRef } from 'vue';
import { explain, fail, ok, type Result } from '@helb/core';
import type { Outline } from '@helb/core/outlines';
import type { EditMaker } from '../editor/sketch-editor.ts';
import { readOutlineApart } from '../workers/read-outline.ts';
import { useProject } from './project.ts';

/** An outline from a file that is about to be drawn into the sketch. */
interface Incoming {
  readonly file: string;
  readonly outline: Outline;
}

/** Outlines from files. @param revise draws into the open sketch; nothing where none is open */
export function useIncoming(revise: (title: string, edit: EditMaker) => Result<void> | undefined) {
  const store = useProject();
  const incoming = shallowRef<Incoming>();

  /** Reads a DXF or SVG file; the desk asks for the rest. */
  async function openOutline(file: File): Promise<void> {
    const { LIMITS } = await import('@helb/core/outlines');
    if (file.size > LIMITS.bytes) {
      store.message = explain(fail('outline.large', { most: LIMITS.bytes / 1024 ** 2, of: 'MB' }).issue);
      return;
    }
    const outline = await readOutlineApart(file);
    if (outline.ok) incoming.value = { file: file.name, outline: outline.value };
    else store.message = explain(outline.issue);
  }

  /** Draws the outline from the file, a unit of which is so many mm. */
  async function drawIncoming(unit: number): Promise<void> {
    const { drawOutline, scaled } = await import('@helb/core/outlines');
    const { curves } = incoming.value!.outline;
    const done = revise('outline from a file', (builder) => {
      drawOutline(builder, scaled(curves, unit));
      return ok(builder.edit);
    });
    if (done?.ok) incoming.value = undefined;
  }

  return { incoming, openOutline, drawIncoming };
}
