import { defineStore } from 'pinia';
import { computed, ref, shallowRef, watch } from 'vue';
import {
  explain,
  fail,
  isSketch,
  ok,
  type Action,
  type ExtrudeStep,
  type Id,
  type Part,
  type RelationName,
  type Result,
  type SketchStep,
  type Step,
} from '@helb/core';
import { SketchEditor, type ToolName } from '../editor/sketch-editor.ts';
import type { Pick } from '../view/viewport.ts';
import type { Outline } from '@helb/core/outlines';
import { newId } from './ids.ts';
import { useProject } from './project.ts';

/** A step that is being made: shown in the view, not in the document yet. */
export interface Draft {
  readonly id: Id;
  readonly step: ExtrudeStep;
  /** Values that were named on the way: made together with the step. */
  readonly naming: readonly Action[];
}

/** An outline from a file that is about to be drawn into the sketch. */
export interface Incoming {
  readonly file: string;
  readonly outline: Outline;
}

/** What is being edited on the bench: the part, the sketch, the step in the making, what is picked. */
export const useBench = defineStore('bench', () => {
  const store = useProject();
  const partId = ref<Id>();
  const editor = shallowRef<SketchEditor>();
  /** Grows whenever the editor has changed: what is shown of it is computed anew. */
  const version = ref(0);
  const draft = shallowRef<Draft>();
  const incoming = shallowRef<Incoming>();
  const hovered = shallowRef<readonly Pick[]>([]);
  const picked = shallowRef<readonly Pick[]>([]);
  /** The step whose sentence is under the pointer: its faces light up. */
  const pointedStep = ref<Id>();

  const part = computed<Part | undefined>(() =>
    partId.value === undefined ? undefined : store.project?.parts[partId.value],
  );

  // the part or the sketch may vanish by undo, or in another window
  watch(
    () => store.project,
    (project) => {
      if (!project) return;
      if (partId.value === undefined || !project.parts[partId.value]) show(project.partOrder[0]);
      if (editor.value && !store.kept?.parts[editor.value.part]?.steps[editor.value.step]) leaveSketch();
    },
    { immediate: true },
  );

  function show(id: Id | undefined): void {
    leaveSketch();
    cancelDraft();
    partId.value = id;
    picked.value = [];
  }

  function editSketch(step: Id): void {
    cancelDraft();
    editor.value = new SketchEditor(partId.value!, step, {
      project: () => store.kept!,
      act: (actions) => store.act(actions),
      newId,
      changed: () => version.value++,
      told: (issue) => (store.message = explain(issue)),
    });
    version.value++;
  }

  function leaveSketch(): void {
    editor.value = incoming.value = undefined;
  }

  /** A new sketch on an origin plane, open for drawing. */
  function newSketch(plane: SketchStep['plane']): void {
    const id = newId('s');
    const step: Step = { kind: 'sketch', name: freeName('Sketch'), plane, entities: {}, relations: {} };
    if (store.act([{ command: 'step.add', input: { part: partId.value!, id, step } }]).ok) editSketch(id);
  }

  /** Reads a DXF or SVG file; the desk asks for the rest. */
  async function openOutline(file: File): Promise<void> {
    const { LIMITS, readOutline } = await import('@helb/core/outlines');
    if (file.size > LIMITS.bytes) {
      store.message = explain(fail('outline.large', { most: LIMITS.bytes / 1024 ** 2, of: 'MB' }).issue);
      return;
    }
    const outline = readOutline(file.name, await file.text());
    if (outline.ok) incoming.value = { file: file.name, outline: outline.value };
    else store.message = explain(outline.issue);
  }

  /** Draws the outline from the file, a unit of which is so many mm. */
  async function drawIncoming(unit: number): Promise<void> {
    const { drawOutline, scaled } = await import('@helb/core/outlines');
    const { curves } = incoming.value!.outline;
    const done = editor.value?.revise('outline from a file', (builder) => {
      drawOutline(builder, scaled(curves, unit));
      return ok(builder.edit);
    });
    if (done?.ok) incoming.value = undefined;
  }

  /** Begins an extrusion of a sketch; the desk asks for the rest. */
  function draftExtrude(sketch: Id): void {
    leaveSketch();
    const result = Object.values(part.value!.steps).some((step) => !isSketch(step)) ? 'add' : 'new';
    const step: ExtrudeStep = {
      kind: 'extrude',
      name: freeName('Extrusion'),
      sketch,
      areas: 'outline',
      distance: '10 mm',
      ways: 'forwards',
      result,
    };
    setDraft({ id: newId('s'), step, naming: [] });
  }

  function setDraft(next: Draft): Result<void> {
    draft.value = next;
    return store.preview(making(next));
  }

  /** Keeps the step in the making, with what was named on the way. */
  function acceptDraft(): Result<void> {
    const done = store.act(making(draft.value!));
    if (done.ok) draft.value = undefined;
    return done;
  }

  function cancelDraft(): void {
    if (!draft.value) return;
    draft.value = undefined;
    store.preview(undefined);
  }

  const making = ({ id, step, naming }: Draft): Action[] => [
    ...naming,
    { command: 'step.add', input: { part: partId.value!, id, step } },
  ];

  function freeName(base: string): string {
    const names = new Set(Object.values(part.value?.steps ?? {}).map((step) => step.name));
    for (let k = 1; ; k++) if (!names.has(`${base} ${k}`)) return `${base} ${k}`;
  }

  const take = (tool: ToolName) => editor.value?.take(tool);
  const relate = (kind: RelationName) => editor.value?.relate(kind);

  return {
    partId,
    part,
    editor,
    version,
    draft,
    incoming,
    hovered,
    picked,
    pointedStep,
    show,
    editSketch,
    leaveSketch,
    newSketch,
    openOutline,
    drawIncoming,
    draftExtrude,
    setDraft,
    acceptDraft,
    cancelDraft,
    take,
    relate,
  };
});
