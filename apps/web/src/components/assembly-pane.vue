<script setup lang="ts">
import { computed, markRaw, onBeforeUnmount, onMounted, ref, shallowRef, watch } from 'vue';
import { drawnPart, middle3, transformPoint, PART_COLOURS, type Vec2, type Vec3 } from '@helb/core';
import { useHandle } from '../stores/handle.ts';
import { useJoining } from '../stores/joining.ts';
import { useModel } from '../stores/model.ts';
import { useProject } from '../stores/project.ts';
import { useAssembly } from '../stores/assembly.ts';
import { useAssemblyVerbs } from '../stores/assembly-verbs.ts';
import { VIEWS, type ViewName } from '../view/camera.ts';
import { guidesOf } from '../view/guides.ts';
import { themeOf } from '../view/theme.ts';
import { useMoving } from '../view/use-moving.ts';
import { ownWords, pickKindOf } from '../view/picks.ts';
import type { MemberPick } from '../view/placed-picks.ts';
import { AssemblyView } from '../view/assembly-view.ts';
import UnderList from './under-list.vue';
import ViewNames from './view-names.vue';
import ViewPicture from './view-picture.vue';
import VerbStrip from './verb-strip.vue';
import AxisMark from './axis-mark.vue';
import PlacingHandle from './placing-handle.vue';

/** Everything that is placed: looked at, picked, joined, and moved by the hand. */
const assemblyStore = useAssembly();
const joining = useJoining();
const handle = useHandle();
const store = useProject();
const model = useModel();
const { place: here, verbs } = useAssemblyVerbs();

const pane = ref<HTMLElement>();
const canvas = ref<HTMLCanvasElement>();
const shown = shallowRef<AssemblyView>();
const strip = ref<InstanceType<typeof VerbStrip>>();
const viewVersion = ref(0);
const current = ref<ViewName | ''>('Corner');
const under = shallowRef<{ at: Vec2; picks: MemberPick[]; chosen: number }>();
const { moving, during } = useMoving();

const darkness = matchMedia('(prefers-color-scheme: dark)');
const retheme = () => shown.value?.setTheme(themeOf(PART_COLOURS[0]));

onMounted(() => {
  const made = markRaw(new AssemblyView(pane.value!, canvas.value!, themeOf(PART_COLOURS[0])));
  made.stage.onView = () => viewVersion.value++;
  made.view.controls.addEventListener('control', () => (current.value = ''));
  shown.value = made;
  darkness.addEventListener('change', retheme);
  addEventListener('keydown', onKey);
});
onBeforeUnmount(() => {
  assemblyStore.stop();
  joining.leave();
  darkness.removeEventListener('change', retheme);
  removeEventListener('keydown', onKey);
  shown.value?.dispose();
});

// brought together anew whenever anything has changed
watch(
  [() => store.project, shown],
  ([project, view]) => {
    if (project && view) void assemblyStore.assemble(project, view.known);
  },
  { immediate: true },
);

const members = computed(() =>
  (assemblyStore.assembled?.members ?? []).map(({ id, part }) => ({
    id,
    part,
    colour: PART_COLOURS[store.project?.parts[part]?.colour ?? 0]!,
    layer: assemblyStore.hidden.has(id) ? ('hidden' as const) : ('strong' as const),
  })),
);
let fitted = false;
watch(
  () => assemblyStore.built,
  (built) => {
    const view = shown.value;
    if (!built || !view) return;
    view.setBodies(Object.fromEntries(Object.entries(built.parts).map(([part, { bodies }]) => [part, bodies])));
    view.setMembers(members.value, assemblyStore.memberPoses);
    light();
    if (fitted || !view.box) return;
    fitted = true;
    void view.view.fit(view.box.low, view.box.high, false);
  },
);
watch(members, (all) => shown.value?.setMembers(all, assemblyStore.memberPoses));
watch(
  () => assemblyStore.memberPoses,
  (poses) => shown.value?.setPoses(poses),
);
watch([() => assemblyStore.paths, shown], ([paths, view]) => view?.setTraces([...paths.values()]));

// while something is joined the datums and points of what is under the pointer can be picked too
const pointed = computed(() =>
  joining.asked === undefined ? undefined : (under.value?.picks[0]?.member ?? lastPointed.value),
);
const lastPointed = ref<string>();
watch(
  () => under.value?.picks[0]?.member,
  (member) => member !== undefined && (lastPointed.value = member),
);
watch([pointed, shown], ([member, view]) => {
  const found = member === undefined ? undefined : assemblyStore.memberOf(member);
  const part = found && store.project && drawnPart(store.project, found.part);
  const built = found && assemblyStore.built?.parts[found.part];
  if (!part || !built) return view?.setGuides([]);
  const guides = guidesOf(part, built, { origin: true, drawn: true, points: true });
  view?.setGuides(guides.map((guide) => ({ member: member!, guide })));
});

function look(name: ViewName) {
  current.value = name;
  void during(shown.value?.view.look(name));
}
function fit() {
  const box = shown.value?.box;
  if (box) void during(shown.value?.view.fit(box.low, box.high));
}
const views = Object.keys(VIEWS) as ViewName[];

// picking and dragging
function place(event: PointerEvent): Vec2 {
  const box = pane.value!.getBoundingClientRect();
  return [event.clientX - box.left, event.clientY - box.top];
}
let pulling: { from: Vec2; at: Vec3; pull: (goal: Vec3) => void; begun: boolean } | undefined;
let pressed: Vec2 | undefined;

function hover(event: PointerEvent) {
  const view = shown.value;
  if (!view) return;
  const at = place(event);
  if (pulling) {
    const [dx, dy] = [at[0] - pulling.from[0], at[1] - pulling.from[1]];
    if (!pulling.begun && Math.hypot(dx, dy) < 4) return;
    pulling.begun = true;
    under.value = undefined;
    pulling.pull(view.shifted(pulling.at, dx, dy));
    return;
  }
  if (event.buttons !== 0) return;
  const picks = view.pick(at).filter((pick) => joining.asked === undefined || joining.accepts(pick));
  under.value = picks.length > 0 ? { at, picks, chosen: 0 } : undefined;
  light();
}

function press(event: PointerEvent) {
  if (event.button !== 0) return;
  pressed = place(event);
  const pick = under.value?.picks[under.value.chosen];
  if (!pick || joining.draft || assemblyStore.exploded > 0) return;
  const pull = assemblyStore.grab(pick.member, pick.at);
  if (!pull) return;
  assemblyStore.stop();
  pulling = { from: pressed, at: pick.at, pull, begun: false };
  canvas.value!.setPointerCapture(event.pointerId);
}

function release(event: PointerEvent) {
  const pulled = pulling?.begun;
  pulling = undefined;
  if (!pressed || pulled) return;
  const at = place(event);
  if (Math.hypot(at[0] - pressed[0], at[1] - pressed[1]) > 4) return;
  const found = under.value?.picks[under.value.chosen];
  if (joining.asked !== undefined) {
    if (found) joining.answer(found);
    forget();
    return;
  }
  const add = event.shiftKey || event.ctrlKey;
  const same = (pick: MemberPick) =>
    pick.name === found?.name && pick.member === found.member && pick.kind === found.kind;
  if (!found) assemblyStore.picked = [];
  else if (!add) assemblyStore.picked = [found];
  else {
    const without = assemblyStore.picked.filter((pick) => !same(pick));
    assemblyStore.picked = without.length < assemblyStore.picked.length ? without : [...without, found];
  }
  light();
}

function forget() {
  if (pulling) return;
  under.value = undefined;
  light();
}

/** What is picked lights up; of joined things both; of an overlap where it is. */
function light() {
  const view = shown.value;
  if (!view) return;
  const found = under.value;
  assemblyStore.hovered = found ? [found.picks[found.chosen]!] : [];
  const sides = (joining.draft?.sides ?? []).flatMap((side): MemberPick[] => {
    if (!side) return [];
    const { thing, reference } = side;
    const body = view.bodiesOf(side.placement)['body' in thing ? thing.body : 0];
    if (!body) return [];
    // of a datum all of the body lights up
    if (!('body' in thing)) return [body];
    return [
      { ...body, kind: pickKindOf(thing), name: 'name' in reference ? reference.name : body.name, reference, thing },
    ];
  });
  const { pointed: interference } = assemblyStore;
  const ends = [...(interference ? [interference.a, interference.b] : []), ...assemblyStore.lit].flatMap((member) =>
    view.bodiesOf(member),
  );
  const lit = [...assemblyStore.picked, ...assemblyStore.hovered, ...sides, ...ends].filter(
    ({ member }) => !assemblyStore.hidden.has(member),
  );
  view.highlight(lit, interference ? [[interference.from, interference.to]] : []);
}
watch(
  [
    () => assemblyStore.picked,
    () => assemblyStore.pointed,
    () => joining.draft,
    () => assemblyStore.hidden,
    () => assemblyStore.lit,
  ],
  light,
  {
    flush: 'post',
  },
);

// a body is told by the placement that it is of
const words = (pick: MemberPick): string =>
  `${assemblyStore.nameOf(pick.member)} · ${pick.kind === 'body' ? pick.words : ownWords(pick)}`;

function onKey(event: KeyboardEvent) {
  const target = event.target as HTMLElement;
  if (target.closest('input:not([type=checkbox]):not([type=range]), textarea, select, [role=menu], [role=listbox]'))
    return;
  if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'k') {
    event.preventDefault();
    void strip.value?.search();
    return;
  }
  if (event.ctrlKey || event.metaKey || event.altKey) return;
  if (event.key === 'Tab' && under.value && under.value.picks.length > 1 && target === document.body) {
    event.preventDefault();
    under.value = { ...under.value, chosen: (under.value.chosen + 1) % under.value.picks.length };
    light();
    return;
  }
  const onButton = target.closest('button, a, input') !== null;
  if (event.key === ' ' && !onButton) {
    event.preventDefault();
    void strip.value?.search();
  } else if (event.key === 'Escape') {
    if (joining.draft) joining.leave();
    else {
      assemblyStore.picked = [];
      forget();
    }
  } else if (event.key === 'Enter' && !onButton && joining.draft) joining.accept();
  else if (event.key === 'Delete' || event.key === 'Backspace') strip.value?.press('Del');
  else if (event.key === '+' || event.key === '-') shown.value?.view.zoomBy(event.key === '+' ? 1.25 : 0.8);
  else if (event.key.length === 1 && !event.repeat && strip.value?.press(event.key)) event.preventDefault();
}

/** For benches and tests: where something of a placement is on the screen. */
const drawn = computed(() => (void viewVersion.value, shown.value?.stage.drawn ?? 0));
const calls = computed(() => (void viewVersion.value, shown.value?.stage.calls ?? 0));
const middles = computed(() => {
  void viewVersion.value;
  const view = shown.value;
  // a test looks for a few; of hundreds nobody asks
  if (!view || assemblyStore.memberPoses.size > MOST_TOLD) return {};
  return Object.fromEntries(
    [...assemblyStore.memberPoses].map(([id, pose]) => {
      const box = assemblyStore.built?.parts[assemblyStore.memberOf(id)!.part]?.totals.box_mm;
      const middle: Vec3 = box ? middle3(box.low, box.high) : [0, 0, 0];
      return [id, view.view.toScreen(transformPoint(pose, middle)).map(Math.round)];
    }),
  );
});
const MOST_TOLD = 40;
</script>

<template>
  <section
    ref="pane"
    class="bg-paper relative min-w-0 grow overflow-hidden"
    aria-label="The whole"
    :data-arrivals="assemblyStore.arrivals"
    :data-drawn="drawn"
    :data-calls="calls"
    :data-moving="moving"
    :data-middles="JSON.stringify(middles)"
  >
    <canvas
      ref="canvas"
      class="absolute inset-0 size-full touch-none"
      aria-label="All parts"
      data-testid="whole-canvas"
      @pointermove="hover"
      @pointerdown="press"
      @pointerup="release"
      @pointerleave="forget"
      @contextmenu.prevent
    />
    <p class="bg-paper/80 absolute top-2 left-4 text-[13px]" data-testid="pose">
      <template v-if="assemblyStore.moved">
        Moved
        <button class="word-link ml-2" @click="assemblyStore.reset()">
          back to rest <kbd class="font-mono text-[12px]">0</kbd>
        </button>
      </template>
      <span v-else class="text-muted">At rest</span>
      <span v-if="assemblyStore.stuck" class="text-loose ml-3" role="status">{{ assemblyStore.stuck }}</span>
    </p>
    <nav class="bg-paper/80 absolute top-2 right-3 flex items-center gap-3 text-[13px]" aria-label="Views">
      <ViewNames :names="views" :current="current" @look="(name) => look(name as ViewName)" />
      <button class="text-muted hover:text-ink" @click="fit">Fit</button>
      <ViewPicture :name="store.kept?.name ?? ''" :take="() => shown?.stage.png()" />
    </nav>
    <PlacingHandle
      v-if="shown && handle.at"
      :at="handle.at"
      :view="shown.view"
      :view-version="viewVersion"
      @move="handle.follow"
      @done="handle.letGo"
    />
    <AxisMark v-if="shown" :view="shown.view" :view-version="viewVersion" />
    <UnderList
      v-if="under"
      :at="under.at"
      :items="under.picks.map(words)"
      :chosen="under.chosen"
      :width="pane?.clientWidth ?? 800"
    />
    <p v-if="!assemblyStore.isPlaced" class="text-muted absolute inset-0 grid place-items-center text-center">
      Nothing is placed yet.<br />Place parts from the list of parts on the Bench: the first one is held still.
    </p>
    <p v-if="model.busy" class="text-muted absolute bottom-14 left-4 text-[13px]" role="status">
      {{ model.progress || 'Bringing together …' }}
    </p>
    <p v-if="model.trouble" class="text-clash absolute bottom-14 left-4 text-[13px]" role="alert">
      {{ model.trouble }}
    </p>
    <VerbStrip ref="strip" :place="here" :verbs="verbs" />
  </section>
</template>
