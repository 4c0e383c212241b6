import { defineStore } from 'pinia';
import { computed, ref, shallowRef, watch } from 'vue';
import {
  drawnPart,
  explain,
  fail,
  isSketch,
  lacking,
  namesFor,
  ok,
  fingerprintOfBody,
  type Action,
  type EdgeFacts,
  type Gap,
  sameReference,
  stepKind,
  takeable,
  type Id,
  type Part,
  type PickField,
  type Reference,
  type RelationName,
  type Result,
  type SketchSources,
  type SketchStep,
  type Step,
  type StepName,
  type Thing,
  type Topology,
  type Vec2,
  type Vec3,
} from '@helb/core';
import { SketchEditor, type ToolName } from '../editor/sketch-editor.ts';
import type { Pick } from '../view/picks.ts';
import type { Outline } from '@helb/core/outlines';
import type { Under } from '../editor/borrow-tool.ts';
import { readOutlineApart } from '../workers/read-outline.ts';
import { begunStep } from '../making/begin.ts';
import { newId } from './ids.ts';
import { useModel } from './model.ts';
import { useProject } from './project.ts';

/** A step that is being made or changed: shown in the view, not in the document yet. */
export interface StepInMaking {
  readonly id: Id;
  readonly step: Step;
  /** Is it made anew? Else it is in the document already. */
  readonly isNew: boolean;
  /** Values that were named on the way: made together with the step. */
  readonly naming: readonly Action[];
}

/** An outline from a file that is about to be drawn into the sketch. */
export interface Incoming {
  readonly file: string;
  readonly outline: Outline;
}

/** Of what is picked for one way, what another asks for in the same places. */
function keptPicks(before: Step, after: Step): { on?: Reference[] } {
  if (!('on' in before)) return {};
  const [was, is] = [before, after].map((step) => stepKind(step.kind).picks!(step)) as [PickField[], PickField[]];
  const other = is.findIndex(({ accepts }, k) => was[k]?.accepts !== accepts);
  return { on: before.on.slice(0, other < 0 ? is.length : other) };
}

/** What is being edited on the bench: the part, the sketch, the step in the making, what is picked. */
export const useWorkbench = defineStore('bench', () => {
  const store = useProject();
  const model = useModel();
  /** What the view can tell of itself, while there is one. */
  const view = shallowRef<{
    under(at: Vec2): readonly Under[];
    /** The bodies of which is picked. */
    bodies(): readonly Topology[];
    thing(reference: Reference): Thing | undefined;
    /** Is somebody who looks at it behind a plane with this normal? */
    isBehind(normal: Vec3): boolean;
  }>();
  const partId = ref<Id>();
  /** Is everything that is placed looked at, not one part by itself? */
  const isWhole = ref(false);
  const editor = shallowRef<SketchEditor>();
  /** Grows whenever the editor has changed: what is shown of it is computed anew. */
  const version = ref(0);
  const draft = shallowRef<StepInMaking>();
  const asked = ref<string>();
  const incoming = shallowRef<Incoming>();
  const hovered = shallowRef<readonly Pick[]>([]);
  const picked = shallowRef<readonly Pick[]>([]);
  /** The step whose sentence is under the pointer: its faces light up. */
  const pointedStep = ref<Id>();
  /** Steps that somebody wants to remove although others stand on them. */
  const removing = shallowRef<{ steps: readonly Id[]; needing: readonly Id[]; naming: readonly Id[] }>();
  /** The step up to which is built; new steps stand after it. */
  const upTo = ref<Id>();
  /** Where the two things that are picked come nearest: shown as a line in the view. */
  const gap = shallowRef<Gap>();
  /** Names of bodies that are not shown. */
  const hiddenBodies = shallowRef<ReadonlySet<string>>(new Set());
  /** Where the plane of the sketch crosses what stands round the part, by placements. */
  const around = shallowRef<Readonly<Record<string, readonly EdgeFacts[]>>>({});
  /** Where that plane crosses what is laid under the part. */
  const underlay = computed(() =>
    editor.value && model.built?.sketch === editor.value.step ? model.built.underlay : [],
  );
  /** What an offer on the build sheet speaks of: it lights up. */
  const pointedAt = shallowRef<Reference>();

  const part = computed<Part | undefined>(() =>
    store.project && partId.value !== undefined ? drawnPart(store.project, partId.value) : undefined,
  );

  /** What the steps are called that a reference speaks of. */
  const nameOf = computed(() => namesFor(store.project, partId.value));
  /** The names of the parts that this one can take from. */
  const takeableParts = computed((): Readonly<Record<Id, string>> => {
    const [project, own] = [store.kept, partId.value];
    if (!project || own === undefined) return {};
    return Object.fromEntries(takeable(project, own).map((id) => [id, project.parts[id]!.name]));
  });

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
    upTo.value = undefined;
    hiddenBodies.value = new Set();
  }

  function toggleBody(name: string): void {
    const { value } = hiddenBodies;
    hiddenBodies.value = new Set(value.has(name) ? [...value].filter((other) => other !== name) : [...value, name]);
  }

  function editSketch(step: Id): void {
    cancelDraft();
    picked.value = [];
    editor.value = new SketchEditor(partId.value!, step, {
      project: () => store.kept!,
      act: (actions) => store.act(actions),
      newId,
      sources: () => sourcesOf(step),
      under: (at) => view.value?.under(at) ?? [],
      crossings: (source) => (source.to === 'other' ? around.value[source.at] : model.built?.crossings) ?? [],
      underlay: () => underlay.value,
      changed: () => version.value++,
      told: (issue) => (store.message = explain(issue)),
    });
    version.value++;
  }

  /** What the engine has told of a sketch. */
  function sourcesOf(step: Id): SketchSources | undefined {
    const { built } = model;
    if (!built || built.part !== partId.value) return undefined;
    return built.sketches[step]?.sources;
  }
  // what is borrowed has moved with its source: the sketch is solved anew
  watch(
    () => model.built,
    () => version.value++,
  );

  function leaveSketch(): void {
    editor.value = incoming.value = undefined;
  }

  /** A new sketch on a plane, open for drawing. */
  function newSketch(plane: SketchStep['plane']): void {
    const id = newId('s');
    const step: Step = { kind: 'sketch', name: freeName('Sketch'), plane, entities: {}, relations: {} };
    const done = store.act([{ command: 'step.add', input: { part: partId.value!, id, step, ...placeAfter() } }]);
    if (!done.ok) return;
    if (upTo.value !== undefined) upTo.value = id;
    editSketch(id);
  }

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
    const done = editor.value?.revise('outline from a file', (builder) => {
      drawOutline(builder, scaled(curves, unit));
      return ok(builder.edit);
    });
    if (done?.ok) incoming.value = undefined;
  }

  /** Begins a step with what is picked where it is asked for that, and with a sketch that no step uses yet. */
  function draftOf(kind: StepName, sketch = nextSketch()): void {
    draftStep(
      begunStep(kind, {
        ...{ picked: picked.value, freeName, sketch, parts: Object.keys(takeableParts.value) },
        ...{ hasBody: hasBody(), shown: shownBodies() },
      }),
    );
  }

  /** The bodies that are shown, where some are not: what is hidden is not touched by accident. */
  function shownBodies(): Reference[] | undefined {
    const bodies = view.value?.bodies() ?? [];
    const shown = bodies.filter(({ name }) => !hiddenBodies.value.has(name));
    if (shown.length === bodies.length) return undefined;
    return shown.map((topology) => ({ to: 'body', name: topology.name, print: fingerprintOfBody(topology) }));
  }

  const hasBody = (): boolean =>
    Object.values(part.value!.steps).some((step) => stepKind(step.kind).tools !== undefined && !step.suppressed);

  /** The last sketch that no step uses; the last of all if each is used. */
  function nextSketch(): Id | undefined {
    const { steps, stepOrder } = part.value!;
    const drawn = stepOrder.filter((id) => isSketch(steps[id]));
    const used = new Set(Object.values(steps).flatMap((step) => stepKind(step.kind).uses(step)));
    return drawn.findLast((id) => !used.has(id)) ?? drawn.at(-1);
  }

  /** Begins a step; the desk asks for what is missing, one line after another. */
  function draftStep(step: Step): void {
    leaveSketch();
    picked.value = [];
    setDraft({ id: newId('s'), step, isNew: true, naming: [] });
    askNext();
  }

  /** Opens a step again to choose anew what it builds on. */
  function editStep(id: Id, field?: string): void {
    leaveSketch();
    setDraft({ id, step: store.kept!.parts[partId.value!]!.steps[id]!, isNew: false, naming: [] });
    // a place in a list is asked by its line
    asked.value = fields.value.find((line) => field === line.field || field?.startsWith(`${line.field}.`))?.field;
  }

  function setDraft(next: StepInMaking): Result<void> {
    draft.value = next;
    return store.draft(making(next));
  }

  /** The steps before the one in the making: what it can take. */
  const stepsBefore = computed((): readonly Id[] => {
    const order = part.value?.stepOrder ?? [];
    const at = draft.value ? order.indexOf(draft.value.id) : -1;
    return at < 0 ? order : order.slice(0, at);
  });

  /** Sets a field of the step in the making. */
  function setField(field: string, value: unknown): Result<void> {
    const { step } = draft.value!;
    // another way asks for other things: what comes first may still do
    const kept = field === 'how' ? keptPicks(step, { ...step, how: value } as Step) : {};
    const done = setDraft({ ...draft.value!, step: { ...step, [field]: value, ...kept } });
    if (field === 'how') askNext();
    return done;
  }

  const fields = computed<readonly PickField[]>(() => {
    const step = draft.value?.step;
    return step ? (stepKind(step.kind).picks?.(step) ?? []) : [];
  });
  /** The line that is asked now: picks in the view go there. */
  const askedField = computed(() => fields.value.find(({ field }) => field === asked.value));

  /** The first line that lacks something; of a new step else the first that takes several, so that more can be picked. */
  function askNext(): void {
    const missing = fields.value.find(({ picked: has, min }) => has.length < min);
    const open = draft.value?.isNew ? fields.value.find(({ max, min }) => max > 1 && min > 0) : undefined;
    asked.value = (missing ?? open)?.field;
  }

  /** Puts what was picked into the line that is asked. */
  function answer(reference: Reference): void {
    const line = askedField.value;
    if (!line) return;
    const has = line.picked.filter((other) => !sameReference(other, reference));
    const next = line.max === 1 ? [reference] : has.length < line.picked.length ? has : [...has, reference];
    setPicks(line, next.slice(-line.max));
    if (line.max === 1) askNext();
  }

  function setPicks(line: PickField, references: readonly Reference[]): void {
    setField(line.field.split('.')[0]!, line.with(references));
  }

  /** Keeps the step in the making, with what was named on the way. */
  function acceptDraft(): Result<void> {
    const { id, isNew } = draft.value!;
    const missing = lacking(draft.value!.step);
    if (missing) {
      asked.value = missing.field;
      store.message = explain(missing.issue);
      return { ok: false, issue: missing.issue };
    }
    const done = store.act(making(draft.value!));
    if (done.ok && isNew && upTo.value !== undefined) upTo.value = id;
    if (!done.ok) return done;
    cancelDraft();
    store.message = '';
    return done;
  }

  function cancelDraft(): void {
    if (!draft.value) return;
    draft.value = asked.value = undefined;
    store.draft([]);
  }

  /** Where a new step goes: after the one up to which is built, else at the end. */
  const placeAfter = (): { at?: number } => {
    const at = upTo.value === undefined ? -1 : store.kept!.parts[partId.value!]!.stepOrder.indexOf(upTo.value);
    return at < 0 ? {} : { at: at + 1 };
  };

  const making = ({ id, step, isNew, naming }: StepInMaking): Action[] => {
    const where = { part: partId.value! };
    if (isNew) return [...naming, { command: 'step.add', input: { ...where, id, step, ...placeAfter() } }];
    const before = store.kept!.parts[where.part]!.steps[id]! as unknown as Record<string, unknown>;
    const changes = Object.entries(step).filter(([field, value]) => before[field] !== value);
    if (changes.length === 0) return [...naming];
    return [...naming, { command: 'step.set', input: { ...where, step: id, fields: Object.fromEntries(changes) } }];
  };

  // built up to a step means no later one is there, that in the making excepted
  const built = computed(() => (draft.value?.isNew && upTo.value !== undefined ? draft.value.id : upTo.value));

  /** Before which step things are picked: that of the draft while it asks, that of the sketch while it borrows. */
  const before = computed<Id | undefined>(() => {
    if (askedField.value) return draft.value!.id;
    void version.value;
    return editor.value?.tool.name === 'borrow' ? editor.value.step : undefined;
  });

  function freeName(base: string): string {
    const names = new Set(Object.values(part.value?.steps ?? {}).map((step) => step.name));
    for (let k = 1; ; k++) if (!names.has(`${base} ${k}`)) return `${base} ${k}`;
  }

  const take = (tool: ToolName) => editor.value?.take(tool);
  const relate = (kind: RelationName) => editor.value?.relate(kind);

  return {
    view,
    partId,
    isWhole,
    part,
    nameOf,
    takeable: takeableParts,
    editor,
    version,
    draft,
    incoming,
    hovered,
    picked,
    pointedStep,
    pointedAt,
    around,
    hiddenBodies,
    underlay,
    toggleBody,
    gap,
    upTo,
    removing,
    freeName,
    builtTo: built,
    show,
    editSketch,
    leaveSketch,
    newSketch,
    openOutline,
    drawIncoming,
    draftOf,
    nextSketch,
    editStep,
    stepsBefore,
    fields,
    asked,
    askedField,
    answer,
    setPicks,
    before,
    setDraft,
    setField,
    acceptDraft,
    cancelDraft,
    take,
    relate,
  };
});
