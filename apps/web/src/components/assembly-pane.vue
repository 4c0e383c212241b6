<script setup lang="ts">
import { computed, markRaw, onBeforeUnmount, ref, shallowRef, watch } from 'vue';
import { drawnPart, middle3, middleOf, pointOf, transformPoint, PART_COLOURS, type Vec2, type Vec3 } from '@helb/core';
import { useHandle } from '../stores/handle.ts';
import { useJoining } from '../stores/joining.ts';
import { useModel } from '../stores/model.ts';
import { useProject } from '../stores/project.ts';
import { useAssembly } from '../stores/assembly.ts';
import { useUnits } from '../stores/units.ts';
import { useAssemblyVerbs } from '../verbs/assembly-verbs.ts';
import { VIEWS, type ViewName } from '../view/turns.ts';
import { guidesOf } from '../view/guides.ts';
import { themeOf } from '../view/theme.ts';
import { numberBy } from '../editor/size-typing.ts';
import { useMoving } from '../view/use-moving.ts';
import { usePicture } from '../view/use-picture.ts';
import { listWords, ownWords } from '../view/pick-words.ts';
import { pickKindOf } from '../view/picks.ts';
import type { MemberPick } from '../view/placed-picks.ts';
import { AssemblyView, type MemberGuide } from '../view/assembly-view.ts';
import { useSnapshot } from '../snapshots/use-snapshot.ts';
import { Picking } from '../view/picking.ts';
import LookPane, { type PaneKeys } from './look-pane.vue';
import ViewNames from './view-names.vue';
import ViewPicture from './view-picture.vue';
import JointFrames from './joint-frames.vue';
import PlacingHandle from './placing-handle.vue';

/** Everything that is placed: looked at, picked, joined, and moved by the hand. */
const assemblyStore = useAssembly();
const joining = useJoining();
const handle = useHandle();
const store = useProject();
const model = useModel();
const { place: here, verbs } = useAssemblyVerbs();

const shown = shallowRef<AssemblyView>();
const stage = useSnapshot(() => shown.value?.stage);
const current = ref<ViewName | ''>('Corner');
const picking = new Picking<MemberPick>((a, b) => a.name === b.name && a.member === b.member && a.kind === b.kind);
const pointing = useSnapshot(() => picking);
const { moving, during } = useMoving();
const keepPicture = usePicture(() => {
  const view = shown.value;
  // what is being joined is not there yet
  return view && !joining.draft
    ? { stage: view.stage, box: view.box, isWhole: assemblyStore.hidden.size === 0 }
    : undefined;
});

const retheme = () => shown.value?.setTheme(themeOf(PART_COLOURS[0]));

function ready(element: HTMLElement, canvas: HTMLCanvasElement) {
  const made = markRaw(new AssemblyView(element, canvas, themeOf(PART_COLOURS[0])));
  made.view.controls.addEventListener('control', () => (current.value = ''));
  shown.value = made;
}
onBeforeUnmount(() => {
  assemblyStore.stop();
  joining.leaveStanding();
  removeEventListener('pagehide', joining.keepStanding);
  shown.value?.dispose();
});

// the page may be loaded anew
addEventListener('pagehide', joining.keepStanding);

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
/** How many members there were when it was last shown. */
let fitted = 0;
watch(
  () => assemblyStore.built,
  (built) => {
    const view = shown.value;
    if (!built || !view) return;
    view.setBodies(Object.fromEntries(Object.entries(built.parts).map(([part, { bodies }]) => [part, bodies])));
    view.setMembers(members.value, assemblyStore.memberPoses);
    light();
    keepPicture();
    if (!view.box) return;
    // what is placed anew is seen; who looks closer on purpose stays there otherwise
    const isMore = fitted > 0 && members.value.length > fitted;
    if (isMore && !view.view.shows(view.box)) fit();
    else if (fitted === 0) void view.view.fit(view.box.low, view.box.high, false);
    fitted = members.value.length;
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
  joining.draft ? (pointing.value?.under?.picks[0]?.member ?? lastPointed.value) : undefined,
);
const lastPointed = ref<string>();
watch(
  () => pointing.value?.under?.picks[0]?.member,
  (member) => member !== undefined && (lastPointed.value = member),
);
/** Datums and drawn lines of a placement, as many as are wanted. */
function guidesAt(member: string, wanted: Parameters<typeof guidesOf>[2]): MemberGuide[] {
  const found = assemblyStore.memberOf(member);
  const part = found && store.project && drawnPart(store.project, found.part);
  const built = found && assemblyStore.built?.parts[found.part];
  return part && built ? guidesOf(part, built, wanted).map((guide) => ({ member, guide })) : [];
}
// what is drawn only, and not made solid yet, is there and moves along
const drawn = computed(() =>
  members.value
    .filter(({ layer }) => layer !== 'hidden')
    .flatMap(({ id }) => guidesAt(id, { origin: false, drawn: 'waiting', points: false }))
    .filter(({ guide }) => guide.look === 'drawn'),
);
watch([pointed, drawn, shown], ([member, others, view]) => {
  const own = member === undefined ? [] : guidesAt(member, { origin: true, drawn: 'all', points: true });
  view?.setGuides([...own, ...others.filter((other) => other.member !== member)]);
});

async function look(name: ViewName) {
  const { view, box } = shown.value ?? {};
  current.value = name;
  const isWhole = box && view?.shows(box);
  await during(view?.look(name));
  // what was seen whole is so afterwards
  if (isWhole && !view?.shows(box)) fit();
}
function fit() {
  const box = shown.value?.box;
  if (box) void during(shown.value?.view.fit(box.low, box.high));
}
const views = Object.keys(VIEWS) as ViewName[];

// picking and dragging
let pulling: { from: Vec2; at: Vec3; pull: (goal: Vec3) => void; begun: boolean } | undefined;

function hover(at: Vec2, { buttons }: PointerEvent) {
  const view = shown.value;
  if (!view) return;
  if (pulling) {
    const [dx, dy] = [at[0] - pulling.from[0], at[1] - pulling.from[1]];
    if (!pulling.begun && Math.hypot(dx, dy) < 4) return;
    pulling.begun = true;
    picking.forget();
    pulling.pull(view.shifted(pulling.at, dx, dy));
    return;
  }
  if (buttons !== 0) return;
  picking.hover(
    at,
    view.pick(at).filter((pick) => !joining.draft || joining.accepts(pick)),
  );
  light();
}

function press(at: Vec2, event: PointerEvent) {
  picking.press(at);
  if (event.button !== 0) return;
  const pick = picking.pointed;
  if (!pick || joining.draft || assemblyStore.exploded > 0) return;
  const pull = assemblyStore.grab(pick.member, pick.at);
  if (!pull) return;
  assemblyStore.stop();
  pulling = { from: at, at: pick.at, pull, begun: false };
  (event.target as HTMLElement).setPointerCapture(event.pointerId);
}

function release(at: Vec2, event: PointerEvent) {
  const pulled = pulling?.begun;
  pulling = undefined;
  if (!picking.release(at) || pulled) return;
  if (event.button === 2) picking.hold();
  else if (event.button === 0) take(event);
}
function choose(k: number, click?: MouseEvent) {
  picking.choose(k);
  if (click) take(click);
  else light();
}
/** What is chosen under the pointer answers what is asked, or is picked. */
function take({ shiftKey, ctrlKey }: MouseEvent) {
  if (joining.draft) {
    if (picking.pointed) joining.answer(picking.pointed);
    return forget();
  }
  assemblyStore.picked = picking.picked(assemblyStore.picked, shiftKey || ctrlKey);
  light();
}

function forget() {
  if (pulling) return;
  picking.forget();
  light();
}

/** What is picked lights up; of joined things both; of an overlap where it is. */
function light() {
  const view = shown.value;
  if (!view) return;
  assemblyStore.hovered = picking.pointed ? [picking.pointed] : [];
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
  const met = assemblyStore.against.map(({ at }) => [at, at] as const);
  view.highlight(lit, interference ? [[interference.from, interference.to]] : met);
}
watch(
  [
    () => assemblyStore.picked,
    () => assemblyStore.pointed,
    () => assemblyStore.against,
    () => joining.draft,
    () => assemblyStore.hidden,
    () => assemblyStore.lit,
  ],
  light,
  {
    flush: 'post',
  },
);

const { unit } = useUnits();
const wordsOf = (picks: readonly MemberPick[]): string[] =>
  listWords(picks, unit.value, {
    called: (pick) => `${assemblyStore.nameOf(pick.member)} · ${ownWords(pick, unit.value)}`,
    nameOf(step, { member }) {
      const part = assemblyStore.memberOf(member)?.part;
      return part === undefined ? undefined : store.project?.parts[part]?.steps[step]?.name;
    },
    placeOf({ member, thing }) {
      const [at, pose] = [pointOf(thing) ?? middleOf(thing), assemblyStore.poseOf(member)];
      return at && pose && transformPoint(pose, at);
    },
  });

const keys: PaneKeys = {
  next(onPage) {
    if (!onPage) return false;
    const stepped = picking.next();
    if (stepped) light();
    return stepped || (joining.desk?.typeNumber() ?? false);
  },
  escape() {
    if (joining.draft) return joining.leave();
    assemblyStore.picked = [];
    forget();
  },
  accept: () => joining.draft && void joining.accept(),
  letter: (key) => numberBy(key, joining.desk?.typeNumber),
  asksNumber: () => joining.draft !== undefined && joining.asked === undefined,
};

const offered = computed(() => {
  const found = pointing.value?.under;
  return found && { ...found, items: wordsOf(found.picks) };
});

/** For benches and tests: where something of a placement is on the screen. */
const middles = computed(() => {
  const screen = stage.value?.screen;
  // a test looks for a few; of hundreds nobody asks
  if (!screen || assemblyStore.memberPoses.size > MOST_TOLD) return {};
  return Object.fromEntries(
    [...assemblyStore.memberPoses].map(([id, pose]) => {
      const box = assemblyStore.built?.parts[assemblyStore.memberOf(id)!.part]?.totals.box_mm;
      const middle: Vec3 = box ? middle3(box.low, box.high) : [0, 0, 0];
      return [id, screen.toScreen(transformPoint(pose, middle)).map(Math.round)];
    }),
  );
});
const MOST_TOLD = 40;
</script>

<template>
  <LookPane
    label="The whole"
    canvas-label="All parts"
    :stage="stage"
    :camera="shown?.view"
    :offered="offered"
    :here="here"
    :verbs="verbs"
    :keys="keys"
    :data-arrivals="assemblyStore.arrivals"
    :data-calls="stage?.calls ?? 0"
    :data-moving="moving"
    :data-middles="JSON.stringify(middles)"
    @ready="ready"
    @retheme="retheme"
    @hover="hover"
    @press="press"
    @release="release"
    @leave="forget"
    @choose="choose"
    @take="choose"
    @nudged="current = ''"
  >
    <p class="bg-paper/80 absolute top-2 left-4 text-[13px]" data-testid="pose">
      <template v-if="assemblyStore.moved">
        Moved
        <button class="word-link ml-2" @click="assemblyStore.reset()">
          back to rest <kbd class="font-mono text-[12px]">0</kbd>
        </button>
      </template>
      <span v-else class="text-muted">At rest</span>
      <!-- on a line of its own: the names of views are beside it -->
      <span v-if="assemblyStore.stuck" class="text-loose mt-1 block max-w-md" role="status">{{
        assemblyStore.stuck
      }}</span>
    </p>
    <template #views>
      <ViewNames :names="views" :current="current" @look="(name) => look(name as ViewName)" />
      <button class="text-muted hover:text-ink" @click="fit">Fit</button>
      <ViewPicture :name="store.kept?.name ?? ''" :take="() => shown?.stage.png()" />
    </template>
    <JointFrames v-if="stage && joining.draft" :frames="joining.frames" :screen="stage.screen" />
    <PlacingHandle
      v-if="stage && handle.at"
      :at="handle.at"
      :screen="stage.screen"
      @move="handle.follow"
      @done="handle.letGo"
    />
    <template #above>
      <p v-if="!assemblyStore.isPlaced" class="text-muted absolute inset-0 grid place-items-center text-center">
        Nothing is placed yet.<br />Place parts from the list of parts on the Bench: the first one is held still.
      </p>
      <p v-if="model.busy" class="text-muted absolute bottom-14 left-4 text-[13px]" role="status">
        {{ model.progress || 'Bringing together …' }}
      </p>
    </template>
  </LookPane>
</template>
