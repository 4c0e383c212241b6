<script setup lang="ts">
import { computed, onBeforeUnmount, onMounted, ref } from 'vue';
import type { Vec2, Vec3 } from '@helb/core';
import { useModel } from '../stores/model.ts';
import type { Verb } from '../verbs/verb.ts';
import type { StageState } from '../view/stage.ts';
import type { ViewCamera } from '../view/camera.ts';
import AxisMark from './axis-mark.vue';
import UnderList from './under-list.vue';
import VerbStrip from './verb-strip.vue';

/**
 * What every view of solids has, of a part as of the assembly: the canvas with the pointer on it, keys, the axes, the list
 * under the pointer, the verbs. What is shown and what a click means is the business of who uses it.
 */
const { keys, camera, stage, offered } = defineProps<{
  label: string;
  canvasLabel: string;
  /** What it came to, of the last frame; undefined before the first. */
  stage: StageState | undefined;
  camera: ViewCamera | undefined;
  /** What lies under the pointer, in words. */
  offered: Offered | undefined;
  /** What the verbs are for. */
  here: string;
  verbs: readonly Verb[];
  keys: PaneKeys;
}>();
const emit = defineEmits<{
  /** The elements are there: the view is made on them. */
  ready: [element: HTMLElement, canvas: HTMLCanvasElement];
  retheme: [];
  hover: [at: Vec2, event: PointerEvent];
  press: [at: Vec2, event: PointerEvent];
  release: [at: Vec2, event: PointerEvent];
  leave: [];
  /** This of the list under the pointer is meant. */
  choose: [k: number];
  /** It was clicked in the list. */
  take: [k: number, event: MouseEvent];
  /** The camera was turned or shifted by keys. */
  nudged: [];
}>();

interface Offered {
  readonly at: Vec2;
  readonly items: readonly string[];
  readonly chosen: number;
  readonly isHeld: boolean;
}

/** What the keys mean besides what they mean in every view. */
export interface PaneKeys {
  /** Sees every key as it goes down and comes up, wherever that is; true where that is all that it means. */
  see?(event: KeyboardEvent): boolean;
  /** Tab: true where there was something to step to. @param onPage is no button or the like in hand? */
  next(onPage: boolean): boolean;
  escape(): void;
  accept?(): void;
  /** A single letter before the verbs get it; true where it was taken. */
  letter?(key: string): boolean;
  /** Is a number asked for, to which digits and = go? */
  asksNumber?(): boolean;
}

const AS_NUMBER = 'The name of a number is typed after =, as in "=width".';

const model = useModel();
const pane = ref<HTMLElement>();
const canvas = ref<HTMLCanvasElement>();
const list = ref<InstanceType<typeof UnderList>>();
const strip = ref<InstanceType<typeof VerbStrip>>();

const darkness = matchMedia('(prefers-color-scheme: dark)');
const retheme = () => emit('retheme');
onMounted(() => {
  emit('ready', pane.value!, canvas.value!);
  darkness.addEventListener('change', retheme);
  addEventListener('keydown', onKey);
  addEventListener('keyup', onKey);
  addEventListener('click', letGo);
});
onBeforeUnmount(() => {
  darkness.removeEventListener('change', retheme);
  removeEventListener('keydown', onKey);
  removeEventListener('keyup', onKey);
  removeEventListener('click', letGo);
});

function place(event: PointerEvent): Vec2 {
  const box = pane.value!.getBoundingClientRect();
  return [event.clientX - box.left, event.clientY - box.top];
}
/** Where the origin and the ends of the unit vectors are on the screen: for benches and tests. */
const seen = computed(() => stage && JSON.stringify(UNITS.map(stage.screen.toScreen)));
const UNITS: readonly Vec3[] = [
  [0, 0, 0],
  [1, 0, 0],
  [0, 1, 0],
  [0, 0, 1],
];
const sideOf = (side: 'clientWidth' | 'clientHeight') => computed(() => (offered ? (pane.value?.[side] ?? 0) : 0));
const [width, height] = [sideOf('clientWidth'), sideOf('clientHeight')];

/** Between the canvas and the list under the pointer nothing is left. */
function left({ relatedTarget }: PointerEvent) {
  if (relatedTarget !== canvas.value && !list.value?.has(relatedTarget)) emit('leave');
}

const ARROWS: Readonly<Record<string, readonly [right: number, up: number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
};

/** A word that was clicked by hand gives the keys back to the view; who goes there by keys keeps them there. */
function letGo({ detail }: MouseEvent) {
  const held = document.activeElement;
  if (detail > 0 && held instanceof HTMLElement && held.matches(LETS_GO)) held.blur();
}
const LETS_GO = 'button:not([aria-haspopup], [role=menuitem], [role=option]), a, input[type=checkbox]';

function onKey(event: KeyboardEvent) {
  const target = event.target as HTMLElement;
  const isTyping = target.closest(
    'input:not([type=checkbox]):not([type=range]), textarea, select, [role=menu], [role=listbox], [role=dialog]',
  );
  const isHeld = keys.see?.(event) ?? false;
  if (event.type === 'keyup' || isTyping || isHeld) return;
  if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'k') {
    event.preventDefault();
    return void strip.value?.search();
  }
  if (event.ctrlKey || event.metaKey || event.altKey) return;
  if (event.key === 'Tab' && keys.next(target === document.body)) return event.preventDefault();
  const onButton = target.closest('button, a') !== null;
  // a tick is set by Space, a slider moved by arrows: all other keys do what they do elsewhere
  const onInput = target.closest('input') !== null;
  if (event.key === ' ' && !onButton && !onInput) {
    event.preventDefault();
    void strip.value?.search();
  } else if (event.key === 'Escape') keys.escape();
  else if (event.key === 'Enter' && !onButton) keys.accept?.();
  else if (event.key === 'Delete' || event.key === 'Backspace') strip.value?.press('Del');
  else if (ARROWS[event.key] && !onInput) {
    camera?.nudge(...ARROWS[event.key]!, event.shiftKey);
    emit('nudged');
    event.preventDefault();
  } else if (keys.letter?.(event.key)) event.preventDefault();
  // what is in hand came first: of a polygon + and - change the sides
  else if (event.key === '+' || event.key === '-') camera?.zoomBy(event.key === '+' ? 1.25 : 0.8);
  else if (event.key.length === 1 && !event.repeat && pressed(event.key)) event.preventDefault();
}
const pressed = (key: string) => strip.value?.press(key, keys.asksNumber?.() ? AS_NUMBER : '') ?? false;
</script>

<template>
  <section
    ref="pane"
    class="bg-paper relative min-w-0 grow overflow-hidden"
    :aria-label="label"
    :data-drawn="stage?.drawn ?? 0"
    :data-seen="seen"
  >
    <canvas
      ref="canvas"
      class="absolute inset-0 size-full touch-none"
      :aria-label="canvasLabel"
      data-testid="model-canvas"
      @pointermove="emit('hover', place($event), $event)"
      @pointerdown="emit('press', place($event), $event)"
      @pointerup="emit('release', place($event), $event)"
      @pointerleave="left"
      @contextmenu.prevent
    />
    <slot />
    <nav class="bg-paper/80 absolute top-2 right-3 flex items-center gap-3 text-[13px]" aria-label="Views">
      <slot name="views" />
    </nav>
    <AxisMark v-if="stage" :screen="stage.screen" />
    <UnderList
      v-if="offered"
      ref="list"
      :at="offered.at"
      :items="offered.items"
      :chosen="offered.chosen"
      :is-held="offered.isHeld"
      :width="width"
      :height="height"
      @choose="(k) => emit('choose', k)"
      @take="(k, event) => emit('take', k, event)"
      @leave="left"
    />
    <slot name="above" />
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
