import { defineStore } from 'pinia';
import { computed, ref, shallowRef, watch } from 'vue';
import {
  drawnPart,
  explain,
  isSketch,
  namesFor,
  fingerprintOfBody,
  type DrawnShape,
  type EdgeFacts,
  type Gap,
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
  type Topology,
  type Vec2,
  type Vec3,
} from '@helb/core';
import { SketchEditor } from '../editor/sketch-editor.ts';
import type { ToolName } from '../editor/tools.ts';
import type { Pick } from '../view/picks.ts';
import type { Under } from '../editor/borrow-tool.ts';
import { hasBodies, likelySteps } from '../making/likely-steps.ts';
import { begunStep, type Beginning } from '../making/begin.ts';
import { axisBeside, materialBeside, shapeOfSketch } from '../making/beside.ts';
import { StandingSteps } from '../making/standing-steps.ts';
import { putAfter, StepMaking, type StepInMaking } from '../making/step-making.ts';
import { useSnapshot } from '../snapshots/use-snapshot.ts';
import { newId } from './ids.ts';
import { useIncoming } from './incoming.ts';
import { useModel } from './model.ts';
import { useProject } from './project.ts';
import { toolOf } from '../verbs/tool-verbs.ts';

/** What is being edited on the bench: the part, the sketch, the step in the making, what is picked. */
export const useWorkbench = defineStore('bench', () => {
  const store = useProject();
  const model = useModel();
  /** What the view can tell of itself, while there is one. */
  const view = shallowRef<{
    under(at: Vec2): readonly Under[];
    /** The bodies of which is picked. */
    bodies(): readonly Topology[];
    find(reference: Reference): readonly Pick[];
    /** Is somebody who looks at it behind a plane with this normal? */
    isBehind(normal: Vec3): boolean;
  }>();
  /** The desk of what is in the making, while there is one. */
  const desk = shallowRef<{
    /** Begins to type its main number, or opens it as it is; false where it has none. */
    typeNumber?(text?: string): boolean;
    /** Keeps what it shows to be looked at, or drops it; false where there is nothing. */
    accept?(): boolean;
    leave?(): boolean;
  }>();
  const partId = ref<Id>();
  /** Is everything that is placed looked at, not one part by itself? */
  const isWhole = ref(false);
  const editor = shallowRef<SketchEditor>();
  /** What is shown of the sketch that is edited. */
  const sketching = useSnapshot(() => editor.value);
  const making = new StepMaking({
    get part() {
      return partId.value!;
    },
    step: (id) => store.kept!.parts[partId.value!]!.steps[id],
    placeAfter: () => placeAfter(),
    draft: (actions) => store.draft(actions),
    act: (actions) => store.act(actions),
    newId,
    material({ id, step }) {
      const { sketch = '' } = step as { sketch?: Id };
      const drawn = part.value?.steps[sketch];
      const bodies = view.value?.bodies() ?? [];
      return isSketch(drawn) ? materialBeside(drawn, model.built?.sketches[sketch]?.frame, bodies, id) : undefined;
    },
    isGone: (step, reference) => model.isGone(step, reference),
    told: (issue) => (store.message = issue ? explain(issue, store.project?.unit) : ''),
  });
  const makingNow = useSnapshot(() => making);
  const draft = computed(() => makingNow.value!.draft);
  const fields = computed(() => makingNow.value!.fields);
  /** The line that is asked now: picks in the view go there. */
  const askedField = computed(() => makingNow.value!.asked);
  const asked = computed({ get: () => askedField.value?.field, set: (field) => making.ask(field) });
  /** What was left standing in the parts of this project. */
  const standing = shallowRef<StandingSteps>();
  const standingNow = useSnapshot(() => standing.value);
  const { incoming, openOutline, drawIncoming } = useIncoming((title, edit) => editor.value?.revise(title, edit));
  const hovered = shallowRef<readonly Pick[]>([]);
  const picked = shallowRef<readonly Pick[]>([]);
  /** Steps that are chosen in their list: the next verb takes them. */
  const chosen = shallowRef<ReadonlySet<Id>>(new Set());
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

  /** The project that the bench is about. */
  let opened: Id | undefined;
  /** Is somebody at the bench, not on another screen? */
  let isThere = false;
  // the part or the sketch may vanish by undo, or in another window
  watch(
    () => store.project,
    (project) => {
      if (!project) return;
      if (partId.value === undefined || !project.parts[partId.value]) turnTo(project.partOrder[0]);
      if (editor.value && !store.kept?.parts[editor.value.part]?.steps[editor.value.step]) leaveSketch();
    },
    { immediate: true },
  );

  /** A project was opened: the bench is where it was when it was left. */
  function comeIn(): void {
    const project = store.kept;
    if (!project) return;
    opened = store.id!;
    const key = `helb standing ${opened}`;
    standing.value = new StandingSteps({
      read: () => sessionStorage.getItem(key),
      write: (text) => sessionStorage.setItem(key, text),
    });
    const last = sessionStorage.getItem(`helb part ${opened}`) ?? '';
    turnTo(project.parts[last] ? last : project.partOrder[0]);
    if (isThere) comeBack();
  }

  function goOut(): void {
    turnTo(undefined);
    opened = standing.value = undefined;
  }

  function goAway(): void {
    isThere = false;
    leaveStanding();
  }

  /** What has been made of a step so far stands until somebody goes on with it. */
  function keepStanding(): void {
    const { made } = making;
    if (made && partId.value !== undefined) standing.value?.put(partId.value, made);
  }

  /** Goes away from what is being made. */
  function leaveStanding(): void {
    keepStanding();
    making.leave();
    editor.value = incoming.value = undefined;
  }

  /** Comes back to the bench: a sketch that was open is open again. */
  function comeBack(): void {
    isThere = true;
    const sketch = partId.value === undefined ? undefined : standing.value?.of(partId.value).sketch;
    if (sketch !== undefined && !editor.value && isSketch(store.kept?.parts[partId.value!]?.steps[sketch]))
      editSketch(sketch);
  }

  function resume(id: Id): void {
    leaveStanding();
    const left = standing.value?.take(partId.value!, id);
    if (left) making.resume(left);
  }
  const dropStanding = (id: Id) => void standing.value?.take(partId.value!, id);

  /** Shows another part, also when one comes in again. */
  function show(id: Id): void {
    turnTo(id);
    sessionStorage.setItem(`helb part ${opened}`, id);
  }

  function turnTo(id: Id | undefined): void {
    leaveStanding();
    partId.value = id;
    unpick();
    upTo.value = undefined;
    hiddenBodies.value = new Set();
  }

  /** Nothing is picked in the view nor chosen in the list any more. */
  function unpick(): void {
    picked.value = [];
    chosen.value = new Set();
  }

  function toggleBody(name: string): void {
    const { value } = hiddenBodies;
    hiddenBodies.value = new Set(value.has(name) ? [...value].filter((other) => other !== name) : [...value, name]);
  }

  function editSketch(step: Id): void {
    leaveStanding();
    standing.value?.putSketch(partId.value!, step);
    unpick();
    editor.value = new SketchEditor(partId.value!, step, {
      project: () => store.kept!,
      act: (actions) => store.act(actions),
      newId,
      sources: () => sourcesOf(step),
      under: (at) => view.value?.under(at) ?? [],
      crossings: (source) => (source.to === 'other' ? around.value[source.at] : model.built?.crossings) ?? [],
      underlay: () => underlay.value,
      toolOf,
      told: (issue) => (store.message = explain(issue, store.project?.unit)),
    });
  }

  /** What the engine has told of a sketch. */
  function sourcesOf(step: Id): SketchSources | undefined {
    const { built } = model;
    if (!built || built.part !== partId.value) return undefined;
    return built.sketches[step]?.sources;
  }
  // the document has changed, or what is borrowed has moved with its source: the sketch is solved anew
  watch([() => store.kept, () => model.built], () => editor.value?.refresh(), { flush: 'sync' });

  function leaveSketch(): void {
    if (editor.value) standing.value?.putSketch(editor.value.part, undefined);
    editor.value = incoming.value = undefined;
  }
  /** A sketch is closed by saying so: the next verb means it, not another one that waits for its step too. */
  function closeSketch(): void {
    const step = editor.value?.step;
    leaveSketch();
    chosen.value = new Set(likely.value?.waiting.slice(0, -1).filter((id) => id === step));
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

  /** Begins a step with what is picked where it is asked for that, and with a sketch that no step uses yet. */
  function draftOf(kind: StepName, sketch = likely.value?.sketch): void {
    const { waiting = [], latest = [] } = likely.value ?? {};
    const step = begunStep(kind, {
      ...{ picked: picked.value, freeName, sketch, waiting, latest, parts: Object.keys(takeableParts.value) },
      ...{ hasBody: hasBodies(part.value!), ...shownBodies(), unit: store.kept!.unit },
    });
    const shape = sketch === undefined ? undefined : shapeOf(sketch);
    if (!shape) return draftStep(step);
    const begun = { ...step, ...stepKind(kind).begun?.(step, shape) };
    draftStep(begun, stepKind(kind).asked?.(begun, shape));
  }

  /** What a sketch looks like now. */
  function shapeOf(id: Id): DrawnShape | undefined {
    const [step, project] = [part.value?.steps[id], store.kept];
    if (!isSketch(step) || !project) return undefined;
    const frame = model.built?.sketches[id]?.frame;
    const axis = frame && axisBeside(id, frame, view.value?.bodies() ?? []);
    return { ...shapeOfSketch(step, project, sourcesOf(id)), axis };
  }

  /** The bodies that are shown, where some are not: what is hidden is not touched by accident. And the only one. */
  function shownBodies(): { shown: Beginning['shown']; only: Beginning['only'] } {
    const bodies = view.value?.bodies() ?? [];
    const shown = bodies.filter(({ name }) => !hiddenBodies.value.has(name));
    const all = shown.map((one): Reference => ({ to: 'body', name: one.name, print: fingerprintOfBody(one) }));
    return { shown: shown.length === bodies.length ? undefined : all, only: all.length === 1 ? all[0] : undefined };
  }

  /** What the next step is most likely meant for: what is chosen in the list of steps comes first. */
  const likely = computed(() => part.value && likelySteps(part.value, stepsBefore.value, chosen.value));

  /** Begins a step; the desk asks for what is missing, one line after another. @param field asked if nothing is */
  function draftStep(step: Step, field?: string): void {
    leaveSketch();
    unpick();
    making.begin(step, field);
  }

  /** A sketch that was open when it was to be changed is open again afterwards. */
  let reopened: Id | undefined;
  function reopen(id: Id): void {
    if (reopened === id) editSketch(id);
    reopened = undefined;
  }

  /** Opens a step again to choose anew what it builds on. */
  function editStep(id: Id, field?: string): void {
    reopened = editor.value?.step === id ? id : undefined;
    leaveSketch();
    leaveStanding();
    making.edit(id, field);
  }

  /** The steps before the one in the making, or before where one would be begun: what it can take. */
  const stepsBefore = computed((): readonly Id[] => {
    const order = part.value?.stepOrder ?? [];
    const at = draft.value
      ? order.indexOf(draft.value.id)
      : upTo.value === undefined
        ? -1
        : order.indexOf(upTo.value) + 1;
    return at < 0 ? order : order.slice(0, at);
  });

  /** Keeps the step in the making; what is built up to a step is built up to this one then. @param after put there, further up */
  function acceptDraft(after?: Id): Result<void> {
    const { id, isNew, step } = draft.value!;
    const done = making.accept(after === undefined ? [] : [putAfter(partId.value!, part.value!, id, after)]);
    // a page that was about to go may have put it there
    if (done.ok) dropStanding(id);
    if (done.ok && isNew && upTo.value !== undefined && after === undefined) upTo.value = id;
    if (done.ok && isNew && stepKind(step.kind).datum) expected.value = { to: 'datum', step: id };
    if (done.ok) reopen(id);
    return done;
  }

  /** A datum that was just made, which the next verb is meant for: picked as soon as it is there. */
  const expected = shallowRef<Extract<Reference, { to: 'datum' }>>();
  function pickExpected(): void {
    if (draft.value || editor.value || picked.value.length > 0) expected.value = undefined;
    const [made] = expected.value ? (view.value?.find(expected.value) ?? []) : [];
    if (!made) return;
    picked.value = [made];
    expected.value = undefined;
  }
  /** It as a plane to be drawn on, before it is there to be seen. */
  const expectedPlane = computed(() => {
    const step = expected.value && part.value?.steps[expected.value.step];
    return step?.kind === 'datum-plane' ? expected.value : undefined;
  });

  /** Where a new step goes: after the one up to which is built, else at the end. */
  const placeAfter = (): { at?: number } => {
    const at = upTo.value === undefined ? -1 : store.kept!.parts[partId.value!]!.stepOrder.indexOf(upTo.value);
    return at < 0 ? {} : { at: at + 1 };
  };

  // built up to a step means no later one is there, that in the making excepted
  const built = computed(() => (draft.value?.isNew && upTo.value !== undefined ? draft.value.id : upTo.value));

  /** Before which step things are picked: that of the draft while it asks, that of the sketch, which can borrow them. */
  const before = computed<Id | undefined>(() => (askedField.value ? draft.value!.id : editor.value?.step));

  function freeName(base: string): string {
    const names = new Set(Object.values(part.value?.steps ?? {}).map((step) => step.name));
    for (let k = 1; ; k++) if (!names.has(`${base} ${k}`)) return `${base} ${k}`;
  }

  const take = (tool: ToolName) => editor.value?.take(tool);
  const relate = (kind: RelationName) => editor.value?.relate(kind);

  return {
    view,
    desk,
    partId,
    isWhole,
    part,
    nameOf,
    takeable: takeableParts,
    editor,
    sketching,
    draft,
    incoming,
    hovered,
    picked,
    chosen,
    unpick,
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
    comeIn,
    goOut,
    comeBack,
    goAway,
    keepStanding,
    standing: computed(() => (partId.value === undefined ? undefined : standingNow.value?.[partId.value])),
    resume,
    dropStanding,
    editSketch,
    closeSketch,
    newSketch,
    openOutline,
    drawIncoming,
    draftOf,
    likely,
    editStep,
    stepsBefore,
    fields,
    asked,
    askedField,
    answer: (reference: Reference) => making.answer(reference),
    setPicks: (line: PickField, references: readonly Reference[]) => making.setPicks(line, references),
    before,
    setDraft: (next: StepInMaking) => making.set(next),
    setField: (field: string, value: unknown) => making.setField(field, value),
    turnDraft: () => making.turn(),
    acceptDraft,
    pickExpected,
    expectedPlane,
    cancelDraft() {
      const { id } = draft.value ?? {};
      making.leave();
      if (id === undefined) return;
      dropStanding(id);
      reopen(id);
    },
    take,
    relate,
  };
});
