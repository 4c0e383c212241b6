<script setup lang="ts">
import { computed, markRaw, onBeforeUnmount, onMounted, ref, shallowRef, watch } from 'vue';
import { boxRound, dot3, PART_COLOURS, signLines, suits, toSpace, type Vec2 } from '@helb/core';
import { useWorkbench } from '../stores/workbench.ts';
import { useLooking } from '../stores/looking.ts';
import { LOOKS } from '../view/shown-body.ts';
import ChoiceWord from './choice-word.vue';
import { useModel } from '../stores/model.ts';
import { usePainting } from '../stores/painting.ts';
import { useVerbs } from '../stores/verbs.ts';
import { VIEWS, type ViewName } from '../view/camera.ts';
import { crossedNear } from '../view/crossed.ts';
import { themeOf } from '../view/theme.ts';
import { useBuilding } from '../view/use-building.ts';
import { useGuides } from '../view/use-guides.ts';
import { useOthers } from '../view/use-others.ts';
import { useMoving } from '../view/use-moving.ts';
import { usePicture } from '../view/use-picture.ts';
import { pickWords, type Pick } from '../view/picks.ts';
import { Viewport } from '../view/viewport.ts';
import AxisMark from './axis-mark.vue';
import PaintLegend from './paint-legend.vue';
import SketchCanvas from './sketch-canvas.vue';
import SketchTitle from './sketch-title.vue';
import UnderList from './under-list.vue';
import ViewNames from './view-names.vue';
import ViewPicture from './view-picture.vue';
import VerbStrip from './verb-strip.vue';

const bench = useWorkbench();
const { place: here, verbs } = useVerbs();
const looking = useLooking();
const painting = usePainting();
const model = useModel();

const pane = ref<HTMLElement>();
const canvas = ref<HTMLCanvasElement>();
const viewport = shallowRef<Viewport>();
const viewVersion = ref(0);
const current = ref<ViewName | 'Square-on' | ''>('Corner');
const showRelations = ref(true);
const strip = ref<InstanceType<typeof VerbStrip>>();
const sketch = ref<InstanceType<typeof SketchCanvas>>();
const under = shallowRef<{ at: Vec2; picks: Pick[]; chosen: number }>();

const theme = () => themeOf(PART_COLOURS[bench.part?.colour ?? 0]!);
const darkness = matchMedia('(prefers-color-scheme: dark)');
const retheme = () => viewport.value?.setTheme(theme());

onMounted(() => {
  const made = markRaw(new Viewport(pane.value!, canvas.value!, theme()));
  made.onView = () => viewVersion.value++;
  viewport.value = made;
  bench.view = {
    bodies: () => made.topologies,
    isBehind: (normal) => dot3(made.view.sight, normal) > 0,
    thing: (reference) => made.find(reference)[0]?.thing,
    under(at) {
      const place = made.view.toScreen(toSpace(bench.editor!.solved.frame, at));
      const picks = made.pick(place);
      const crossed = crossedNear(made.view, place, model.built?.crossings ?? [], bench.around, (one) =>
        made.find(one),
      );
      const more = crossed.filter(({ name }) => !picks.some((pick) => pick.name === name));
      return [...picks, ...more].map((pick) => ({ ...pick, words: pickWords(pick) }));
    },
  };
  made.view.controls.addEventListener('control', () => (current.value = ''));
  darkness.addEventListener('change', retheme);
  addEventListener('keydown', onKey);
  addEventListener('keyup', onKey);
});
onBeforeUnmount(() => {
  darkness.removeEventListener('change', retheme);
  removeEventListener('keydown', onKey);
  removeEventListener('keyup', onKey);
  bench.view = undefined;
  viewport.value?.dispose();
});

useBuilding(viewport);
let fitted: string | undefined;
watch(
  () => model.built,
  (built) => {
    if (!built || !viewport.value || built.part !== bench.partId) return;
    // a sketch that borrows sees only what was there before it
    if (built.before === undefined) viewport.value.setBodies(built.bodies);
    else viewport.value.setBodies(bench.editor ? built.earlier : built.bodies, built.earlier);
    // what was picked is told as it is now
    bench.picked = bench.picked.flatMap(({ reference }) => viewport.value!.find(reference).slice(0, 1));
    viewport.value.setMeshes(built.meshes);
    viewport.value.setSigns(built.signs.filter(({ full }) => !full).map(signLines));
    const box = shownBox();
    if (fitted !== built.part && box && !bench.editor) {
      fitted = built.part;
      void viewport.value.view.fit(box.low, box.high, false);
    }
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
    view.fade(editor !== undefined);
    under.value = undefined;
    if (editor) void squareOn();
    else void look('Corner').then(() => fit());
  },
);

// a sketch may lie elsewhere once the engine has found its plane, or when that has moved
watch(
  () => bench.editor && (void bench.version, JSON.stringify(bench.editor.solved.frame)),
  (frame, before) => {
    if (frame && before && frame !== before && current.value === 'Square-on') void squareOn();
  },
);

async function look(name: ViewName) {
  current.value = name;
  await during(viewport.value?.view.look(name));
}

/** Round the bodies and what is laid under them. */
const shownBox = () =>
  boxRound(
    [model.built?.totals.box_mm, viewport.value?.underlayBox].filter((box) => box !== undefined && box !== null),
  );

/** What a view shows in which nothing is yet, mm. */
const USUAL = { low: [-40, -40, -40], high: [40, 40, 40] } as const;
/** And what a sketch does. */
const PAPER = { low: [-50, -50, -50], high: [50, 50, 50] } as const;

async function squareOn() {
  const editor = bench.editor;
  const view = viewport.value;
  if (!view) return;
  current.value = 'Square-on';
  if (!editor) {
    // on a flat face that is picked, else on the side that is looked at most
    const normal = bench.picked.map((pick) => view.normalOf(pick)).find((found) => found !== undefined);
    await during(normal ? view.view.squareOn({ x: [1, 0, 0], z: normal }) : view.view.squareOnNearest());
    return;
  }
  const { frame } = editor.solved;
  const box = editor.geometry.box();
  const body = shownBox() ?? view.othersBox ?? PAPER;
  const turned = Promise.all([
    view.view.squareOn(frame),
    box ? view.view.fit(toSpace(frame, box.low), toSpace(frame, box.high)) : view.view.fit(body.low, body.high),
  ]);
  await during(turned);
}

function fit() {
  const view = viewport.value?.view;
  // of another part that was just chosen nothing is known yet: it is fitted when it comes
  if (model.built && model.built.part !== bench.partId) return undefined;
  const box = shownBox();
  const drawn = bench.editor?.geometry.box();
  if (drawn && bench.editor)
    return during(
      view?.fit(toSpace(bench.editor.solved.frame, drawn.low), toSpace(bench.editor.solved.frame, drawn.high)),
    );
  const { low, high } = box ?? viewport.value?.othersBox ?? USUAL;
  return during(view?.fit(low, high));
}

const views = Object.keys(VIEWS) as ViewName[];
// picking
function place(event: PointerEvent): Vec2 {
  const box = pane.value!.getBoundingClientRect();
  return [event.clientX - box.left, event.clientY - box.top];
}
function hover(event: PointerEvent) {
  if (bench.editor || event.buttons !== 0 || !viewport.value) return;
  const at = place(event);
  const picks = viewport.value.pick(at).filter(suiting);
  under.value = picks.length > 0 ? { at, picks, chosen: 0 } : undefined;
  light();
}
/** While something is asked for, only what can be the answer is picked. */
function suiting(pick: Pick): boolean {
  const line = bench.askedField;
  return !line || suits(pick.thing, line.accepts);
}
/** What the list under the pointer shows: of the view, or of a sketch tool that offers a choice. */
const offered = computed(() => {
  void bench.version;
  void viewVersion.value;
  const tool = bench.editor?.tool;
  if (tool) {
    const { offered: choice } = tool;
    if (!choice || !viewport.value) return undefined;
    const at = viewport.value.view.toScreen(toSpace(bench.editor!.solved.frame, choice.at));
    return { at, items: choice.words, chosen: choice.chosen };
  }
  const found = under.value;
  return found && { at: found.at, items: found.picks.map((pick) => pickWords(pick)), chosen: found.chosen };
});

const labels = useGuides(viewport, viewVersion);

function light() {
  const found = under.value;
  bench.hovered = found ? [found.picks[found.chosen]!] : [];
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
let pressed: Vec2 | undefined;
const press = (event: PointerEvent) => (pressed = event.button === 0 ? place(event) : undefined);
function release(event: PointerEvent) {
  if (bench.editor || !pressed) return;
  const at = place(event);
  if (Math.hypot(at[0] - pressed[0], at[1] - pressed[1]) > 4) return;
  const found = under.value?.picks[under.value.chosen];
  if (bench.askedField) {
    if (found) bench.answer(found.reference);
    // what is asked next takes other things
    forget();
    return;
  }
  const add = event.shiftKey || event.ctrlKey;
  if (!found) bench.picked = [];
  else if (!add) bench.picked = [found];
  else {
    const without = bench.picked.filter((pick) => pick.name !== found.name || pick.body !== found.body);
    bench.picked = without.length < bench.picked.length ? without : [...without, found];
  }
  light();
}
function forget() {
  under.value = undefined;
  light();
}

const ARROWS: Readonly<Record<string, readonly [right: number, up: number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
};

function onKey(event: KeyboardEvent) {
  sketch.value?.hold(event);
  if (event.type === 'keyup') return;
  const target = event.target as HTMLElement;
  if (target.closest('input:not([type=checkbox]), textarea, select, [role=menu], [role=listbox]')) return;
  if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'k') {
    event.preventDefault();
    void strip.value?.search();
    return;
  }
  if (event.ctrlKey || event.metaKey || event.altKey) return;
  if (event.key === 'Tab' && bench.editor?.key('Tab')) {
    event.preventDefault();
    return;
  }
  if (event.key === 'Tab' && under.value && under.value.picks.length > 1 && target === document.body) {
    event.preventDefault();
    under.value = { ...under.value, chosen: (under.value.chosen + 1) % under.value.picks.length };
    light();
    return;
  }
  const onButton = target.closest('button, a') !== null;
  // a tick is set by Space, all other keys do what they do elsewhere
  if (event.key === ' ' && !onButton && target.closest('input') === null) {
    event.preventDefault();
    void strip.value?.search();
  } else if (event.key === 'Escape') escape();
  else if (event.key === 'Enter' && !onButton && bench.draft) bench.acceptDraft();
  else if (event.key === 'Delete' || event.key === 'Backspace') strip.value?.press('Del');
  else if (ARROWS[event.key]) {
    viewport.value?.view.nudge(...ARROWS[event.key]!, event.shiftKey);
    current.value = '';
    event.preventDefault();
  } else if (event.key === '+' || event.key === '-') viewport.value?.view.zoomBy(event.key === '+' ? 1.25 : 0.8);
  else if (bench.editor?.key(event.key)) event.preventDefault();
  else if (event.key.length === 1 && !event.repeat && strip.value?.press(event.key)) event.preventDefault();
}

function escape() {
  if (bench.draft) bench.cancelDraft();
  else if (bench.editor) {
    if (!bench.editor.escape()) bench.leaveSketch();
  } else {
    bench.picked = [];
    forget();
  }
}

const keepPicture = usePicture(viewport);
const others = useOthers(viewport);
const { moving, during } = useMoving();

/** For benches and tests: what the view has come to. */
defineExpose({ viewport });
const drawn = computed(() => (void viewVersion.value, viewport.value?.drawn ?? 0));
const load = computed(() => (void viewVersion.value, viewport.value?.load));
</script>

<template>
  <section
    ref="pane"
    class="bg-paper relative min-w-0 grow overflow-hidden"
    aria-label="View"
    :data-arrivals="model.arrivals"
    :data-took="model.built?.took"
    :data-drawn="drawn"
    :data-load="load"
    :data-moving="moving"
    :data-others="others"
    :data-bodies="model.built?.bodies.length ?? 0"
  >
    <canvas
      ref="canvas"
      class="absolute inset-0 size-full touch-none"
      aria-label="Model"
      data-testid="model-canvas"
      @pointermove="hover"
      @pointerdown="press"
      @pointerup="release"
      @pointerleave="forget"
      @contextmenu.prevent
    />
    <SketchCanvas
      v-if="bench.editor && viewport"
      ref="sketch"
      :editor="bench.editor"
      :viewport="viewport"
      :version="bench.version"
      :view-version="viewVersion"
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
    <nav class="bg-paper/80 absolute top-2 right-3 flex items-center gap-3 text-[13px]" aria-label="Views">
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
    </nav>
    <AxisMark v-if="viewport" :view="viewport.view" :view-version="viewVersion" />
    <UnderList
      v-if="offered"
      :at="offered.at"
      :items="offered.items"
      :chosen="offered.chosen"
      :width="pane?.clientWidth ?? 0"
    />
    <span
      v-for="label in labels"
      :key="label.name"
      class="text-link pointer-events-none absolute text-[12px] whitespace-nowrap"
      :style="{ left: `${label.at[0] + 4}px`, top: `${label.at[1] + 2}px` }"
      >{{ label.words }}</span
    >
    <p
      v-if="bench.editor"
      class="text-muted bg-paper/80 pointer-events-none absolute bottom-13 left-1/2 w-max -translate-x-1/2 px-2 text-sm"
      data-testid="hint"
    >
      {{ (bench.version, bench.editor.tool.hint) }}
    </p>
    <p
      v-if="model.busy && model.progress"
      class="bg-sheet border-rule absolute top-10 left-4 border px-3 py-1 text-sm"
      role="status"
    >
      Building {{ model.progress }}
    </p>
    <p
      v-if="model.trouble"
      class="bg-sheet border-clash text-clash absolute top-10 left-4 border px-3 py-1 text-sm"
      role="alert"
    >
      {{ model.trouble }}
    </p>
    <VerbStrip ref="strip" :place="here" :verbs="verbs" />
  </section>
</template>
