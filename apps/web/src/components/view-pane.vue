<script setup lang="ts">
import { computed, markRaw, onBeforeUnmount, ref, shallowRef, watch, watchEffect } from 'vue';
import {
  dot3,
  PART_COLOURS,
  planeReference,
  signLines,
  toSpace,
  type Reference,
  type Vec2,
  type Vec3,
} from '@helb/core';
import { useWorkbench } from '../stores/workbench.ts';
import { useLooking } from '../stores/looking.ts';
import { LOOKS } from '../view/shown-body.ts';
import ChoiceWord from './choice-word.vue';
import { useModel } from '../stores/model.ts';
import { usePainting } from '../stores/painting.ts';
import { useUnits } from '../stores/units.ts';
import { usePartVerbs } from '../verbs/part-verbs.ts';
import { facing, VIEWS, type Turn, type ViewName } from '../view/turns.ts';
import { crossedNear } from '../view/crossed.ts';
import { themeOf } from '../view/theme.ts';
import { PAPER, useFitting } from '../view/use-fitting.ts';
import { useBuilding } from '../view/use-building.ts';
import { useGuides } from '../view/use-guides.ts';
import { usePulls } from '../view/use-pulls.ts';
import { useOthers } from '../view/use-others.ts';
import { useKeptInView } from '../view/use-kept-in-view.ts';
import { useMoving } from '../view/use-moving.ts';
import { usePicture } from '../view/use-picture.ts';
import { PlaneMap } from '../editor/plane-map.ts';
import { numberBy } from '../editor/size-typing.ts';
import { useSnapshot } from '../snapshots/use-snapshot.ts';
import { Picking } from '../view/picking.ts';
import { answering } from '../view/answering.ts';
import { listWords } from '../view/pick-words.ts';
import type { Pick } from '../view/picks.ts';
import { Viewport } from '../view/viewport.ts';
import GuideNames from './guide-names.vue';
import LookPane, { type PaneKeys } from './look-pane.vue';
import PaintLegend from './paint-legend.vue';
import SketchCanvas from './sketch-canvas.vue';
import SketchHint from './sketch-hint.vue';
import SketchTitle from './sketch-title.vue';
import StepPulls from './step-pulls.vue';
import ViewNames from './view-names.vue';
import ViewPicture from './view-picture.vue';

const bench = useWorkbench();
const { place: here, verbs } = usePartVerbs();
const looking = useLooking();
const painting = usePainting();
const model = useModel();

const viewport = shallowRef<Viewport>();
const stage = useSnapshot(() => viewport.value?.stage);
const current = ref<ViewName | 'Square-on' | ''>('Corner');
const showRelations = ref(true);
const sketch = ref<InstanceType<typeof SketchCanvas>>();
const picking = new Picking<Pick>((a, b) => a.name === b.name && a.body === b.body);
const pointing = useSnapshot(() => picking);

const theme = () => themeOf(PART_COLOURS[bench.part?.colour ?? 0]!);
const retheme = () => viewport.value?.setTheme(theme());

function ready(element: HTMLElement, canvas: HTMLCanvasElement) {
  const made = markRaw(new Viewport(element, canvas, theme()));
  viewport.value = made;
  bench.view = {
    bodies: () => made.topologies,
    isBehind: (normal) => dot3(made.view.sight, normal) > 0,
    find: (reference) => made.find(reference),
    under(at) {
      const place = made.view.toScreen(toSpace(bench.editor!.solved.frame, at));
      const picks = [...made.pick(place), ...made.centresNear(place)];
      const crossed = crossedNear(made.view, place, model.built?.crossings ?? [], bench.around, (one) =>
        made.find(one),
      );
      const more = crossed.filter(({ name }) => !picks.some((pick) => pick.name === name));
      const all = [...picks, ...more];
      const words = wordsOf(all);
      return all.map((pick, k) => ({ ...pick, words: words[k]! }));
    },
  };
  made.view.controls.addEventListener('control', () => (current.value = ''));
  // a sketch that was left open is open before there is a view
  if (bench.editor) enterSketch(made);
}
onBeforeUnmount(() => {
  bench.view = undefined;
  viewport.value?.dispose();
});

const { moving, during } = useMoving();
const { fit, fitAtFirst, followGrowth, turning, shownBox, drawnBox, allBox } = useFitting(viewport, during);
useBuilding(viewport);
watch([() => model.built, () => bench.draft], () => bench.pickExpected(), { flush: 'post' });
/** Whoever borrows sees only what was there before the sketch. */
const isBorrowing = computed(() => bench.sketching?.tool.name === 'borrow');
function showBodies() {
  const { before, bodies, earlier } = model.built!;
  if (before === undefined) viewport.value!.setBodies(bodies);
  else viewport.value!.setBodies(isBorrowing.value ? earlier : bodies, earlier);
}
watch(isBorrowing, () => model.built?.part === bench.partId && viewport.value && showBodies());
watch(
  () => model.built,
  (built) => {
    if (!built || !viewport.value || built.part !== bench.partId) return;
    showBodies();
    // what was picked is told as it is now
    bench.picked = bench.picked.flatMap(({ reference }) => viewport.value!.find(reference).slice(0, 1));
    viewport.value.setMeshes(built.meshes);
    viewport.value.setSigns(built.signs.filter(({ full }) => !full).map(signLines));
    followGrowth();
    keepPicture();
  },
);

watch(() => bench.part?.colour, retheme);
watch([() => painting.walls, () => model.built, viewport], ([walls, , view]) => view?.setWalls(walls), {
  flush: 'post',
});
watch([() => looking.look, () => painting.painting, viewport], ([seen, paint, view]) => view?.setLook(seen, paint), {
  immediate: true,
});
watch([() => looking.planes, viewport], ([cuts, view]) => view?.setCuts(cuts), { immediate: true });
watch([() => bench.hiddenBodies, viewport], ([names, view]) => view?.setHidden(names), { immediate: true });

// a sketch is drawn square on, the rest pale
watch(
  () => bench.editor,
  (editor) => {
    const view = viewport.value;
    if (!view) return;
    picking.forget();
    if (editor) return enterSketch(view);
    view.fade(false);
    // as it was looked at before, if what was drawn is seen so
    const turn = lookedAt && drawnOn ? facing(drawnOn, lookedAt.turn) : view.view.turn;
    current.value = turn === lookedAt?.turn ? lookedAt.name : '';
    lookedAt = undefined;
    void during(view.view.turnTo(turn)).then(() => fit());
  },
);
/** How it was looked at before the sketch. */
let lookedAt: { readonly name: typeof current.value; readonly turn: Turn } | undefined;
/** Where the sketch faces, or did last. */
let drawnOn: Vec3 | undefined;
watchEffect(() => (drawnOn = bench.sketching?.solved.frame.z ?? drawnOn));
function enterSketch(view: Viewport) {
  // from sketch to sketch it is what was before the first
  lookedAt ??= { name: current.value, turn: view.view.turn };
  view.fade(true, planeReference(bench.sketching!.sketch.plane));
  void squareOn();
}

// a sketch may lie elsewhere once the engine has found its plane, or when that has moved
watch(
  () => bench.sketching && JSON.stringify(bench.sketching.solved.frame),
  (frame, before) => {
    if (frame && before && frame !== before && current.value === 'Square-on') void squareOn();
  },
);

async function look(name: ViewName) {
  current.value = name;
  await turning(() => viewport.value?.view.look(name));
}

async function squareOn() {
  const { sketching } = bench;
  const view = viewport.value;
  if (!view) return;
  current.value = 'Square-on';
  if (!sketching) {
    // on a flat face that is picked, else on the side that is looked at most
    const normal = bench.picked.map((pick) => view.normalOf(pick)).find((found) => found !== undefined);
    await during(normal ? view.view.squareOn({ x: [1, 0, 0], z: normal }) : view.view.squareOnNearest());
    return;
  }
  const { low, high } = drawnBox() ?? shownBox() ?? view.othersBox ?? PAPER;
  await during(Promise.all([view.view.squareOn(sketching.solved.frame), view.view.fit(low, high)]));
}

const views = Object.keys(VIEWS) as ViewName[];
function hover(at: Vec2, event: PointerEvent) {
  if (bench.editor || event.buttons !== 0 || !viewport.value) return;
  point(at, viewport.value.pick(at));
}
function point(at: Vec2, picks: readonly Pick[]) {
  picking.hover(at, bench.askedField ? answering(picks, bench.askedField.accepts) : picks);
  light();
}
/** A name in the view is meant, whatever was meant before. */
function pointAtName(at: Vec2, reference: Reference) {
  picking.forget();
  point(at, viewport.value!.find(reference).slice(0, 1));
}
/** What the list under the pointer shows: of the view, or of a sketch tool that offers a choice. */
const offered = computed(() => {
  const [{ tool, solved } = {}, screen] = [bench.sketching, stage.value?.screen];
  if (tool && solved) {
    if (!tool.offered || !screen) return undefined;
    const { words: items, at, ...rest } = tool.offered;
    return { ...rest, at: screen.toScreen(toSpace(solved.frame, at)), items };
  }
  const found = pointing.value?.under;
  return found && { ...found, items: wordsOf(found.picks) };
});
const { unit } = useUnits();
const wordsOf = (picks: readonly Pick[]) =>
  listWords(picks, unit.value, { nameOf: (step) => bench.part?.steps[step]?.name });

const screen = computed(() => stage.value?.screen);
const labels = useGuides(viewport, screen);
const pulls = usePulls(viewport, shownBox);
/** How the plane of the sketch lies on the screen. */
const map = computed(() => {
  const [frame, seen] = [bench.sketching?.solved.frame, screen.value];
  return frame && seen && new PlaneMap(frame, seen.toScreen, seen.pixel);
});

useKeptInView(
  () => {
    const { solution } = bench.sketching?.solved ?? {};
    const pane = viewport.value?.view.size;
    // turned away from it by hand nobody is brought back
    return solution && map.value && pane && current.value === 'Square-on'
      ? { geometry: solution.geometry, map: map.value, pane }
      : undefined;
  },
  () => void squareOn(),
);

function light() {
  const { pointed: found } = picking;
  bench.hovered = found ? [found] : [];
  const pointed = bench.pointedStep === undefined ? [] : (viewport.value?.facesOf(bench.pointedStep) ?? []);
  const offer = (bench.pointedAt && viewport.value?.find(bench.pointedAt)) ?? [];
  const answers = bench.fields.flatMap(({ picked }) => picked.flatMap((one) => viewport.value?.find(one) ?? []));
  viewport.value?.highlight(
    [...bench.picked, ...bench.hovered, ...pointed, ...answers, ...offer],
    bench.gap && [bench.gap.from, bench.gap.to],
  );
}
watch([() => bench.gap, () => bench.pointedStep, () => bench.pointedAt, () => bench.fields, () => model.built], light, {
  flush: 'post',
});
function release(at: Vec2, event: PointerEvent) {
  if (!picking.release(at) || bench.editor) return;
  if (event.button === 2) picking.hold();
  else if (event.button === 0) take(event);
}
function choose(k: number, click?: MouseEvent) {
  if (bench.editor) return bench.editor.choose(k, click !== undefined);
  picking.choose(k);
  if (click) take(click);
  else light();
}
/** What is chosen under the pointer answers what is asked, or is picked. */
function take({ shiftKey, ctrlKey }: MouseEvent) {
  if (bench.askedField) {
    if (picking.pointed) bench.answer(picking.pointed.reference);
    // what is asked next takes other things
    return forget();
  }
  bench.picked = picking.picked(bench.picked, shiftKey || ctrlKey);
  light();
}
function forget() {
  picking.forget();
  light();
}

const keys: PaneKeys = {
  see: (event) => sketch.value?.hold(event) ?? false,
  next(onPage) {
    if (bench.editor?.key('Tab')) return true;
    if (!onPage) return false;
    const stepped = picking.next();
    if (stepped) light();
    return stepped || (bench.desk?.typeNumber?.() ?? false);
  },
  escape,
  accept() {
    if (bench.draft) void bench.acceptDraft();
    else if (!bench.editor?.key('Enter')) bench.desk?.accept?.();
  },
  letter: (key) => bench.editor?.key(key) ?? numberBy(key, bench.desk?.typeNumber),
  asksNumber: () => bench.draft !== undefined,
};

function escape() {
  if (bench.draft) bench.cancelDraft();
  // a sketch is closed by saying so: whoever drops one thing too many does not lose their place
  else if (bench.editor) {
    if (!bench.desk?.leave?.()) bench.editor.escape();
  } else {
    bench.unpick();
    forget();
  }
}

const keepPicture = usePicture(() => {
  const view = viewport.value;
  // where the part stands among others the picture is of them all
  return view && { stage: view.stage, isWhole: view.othersBox !== undefined, box: allBox() };
});
const others = useOthers(viewport);
watch(others, () => (fitAtFirst(), keepPicture()), { flush: 'post' });

/** For benches and tests: what the view has come to. */
defineExpose({ viewport });
</script>

<template>
  <LookPane
    label="View"
    canvas-label="Model"
    :stage="stage"
    :camera="viewport?.view"
    :offered="offered"
    :here="here"
    :verbs="verbs"
    :keys="keys"
    :data-arrivals="model.arrivals"
    :data-took="model.built?.took"
    :data-load="stage && `${stage.calls} ${stage.triangles}`"
    :data-moving="moving"
    :data-others="others"
    :data-bodies="model.built?.bodies.length ?? 0"
    @ready="ready"
    @retheme="retheme"
    @hover="hover"
    @press="(at) => picking.press(at)"
    @release="release"
    @leave="forget"
    @choose="choose"
    @take="choose"
    @nudged="current = ''"
  >
    <SketchCanvas
      v-if="bench.editor && bench.sketching && viewport && map"
      ref="sketch"
      :editor="bench.editor"
      :state="bench.sketching"
      :viewport="viewport"
      :map="map"
      :show-relations="showRelations"
      :underlay="bench.underlay"
    />
    <SketchTitle v-if="bench.editor" />
    <p v-else class="bg-paper/80 absolute top-2 left-4 text-[13px]">
      <ChoiceWord
        :value="looking.look"
        :options="LOOKS"
        label="look"
        @choose="(name) => (looking.look = name as keyof typeof LOOKS)"
      />
      <label v-if="looking.isPlaced" class="text-muted ml-4"
        ><input v-model="looking.among" type="checkbox" /> among the others</label
      >
    </p>
    <PaintLegend v-if="!bench.editor" />
    <template #views>
      <ViewNames
        :names="bench.editor ? ['Corner'] : views"
        :current="current"
        @look="(name) => look(name as ViewName)"
      />
      <span class="bg-rule h-4 w-px" />
      <ViewNames :names="['Square-on']" :current="current" @look="squareOn" />
      <button class="text-muted hover:text-ink" @click="fit">Fit</button>
      <ViewPicture v-if="!bench.editor" :name="bench.part?.name ?? ''" :take="() => viewport?.png()" />
      <button
        v-if="bench.editor"
        :aria-pressed="showRelations"
        class="border-b"
        :class="showRelations ? 'border-ink text-ink' : 'text-muted hover:text-ink border-transparent'"
        @click="showRelations = !showRelations"
      >
        Relations
      </button>
    </template>
    <template #above>
      <GuideNames
        :names="labels"
        :idle="bench.editor !== undefined"
        @point="pointAtName"
        @take="take"
        @leave="forget"
      />
      <StepPulls
        v-if="screen && pulls.length > 0"
        :pulls="pulls"
        :screen="screen"
        :unit="unit"
        @pull="bench.setField"
        @turn="bench.turnDraft()"
      />
      <SketchHint v-if="bench.sketching" :state="bench.sketching" />
      <p
        v-if="model.busy && model.progress"
        class="bg-sheet border-rule absolute top-10 left-4 border px-3 py-1 text-sm"
        role="status"
      >
        Building {{ model.progress }}
      </p>
    </template>
  </LookPane>
</template>
