<script setup lang="ts">
import { computed, nextTick, ref, shallowRef } from 'vue';
import {
  evaluate,
  explain,
  formatQuantity,
  valueScope,
  type Action,
  type Dimension,
  type Issue,
  type Result,
} from '@helb/core';
import { isPlainNumber, readTyped } from '../editor/typed-number.ts';
import { newId } from '../stores/ids.ts';
import { useProject } from '../stores/project.ts';
import NumberTrouble from './number-trouble.vue';

/** A number where it stands: click to type, Enter keeps, Esc leaves, up and down nudge, dragging sideways scrubs. */
const props = defineProps<{
  text: string;
  asks: Dimension;
  label: string;
  prefix?: string;
  /** What it comes to stands elsewhere. */
  bare?: boolean;
  /** The gesture that puts an expression here. */
  change: (expression: string) => readonly Action[];
  /** Instead of a gesture: for numbers that are not in the document yet. */
  keep?: (expression: string, naming: readonly Action[]) => Result<void>;
  /** Begins the number after it, or before it; false where there is none. */
  next?: (by: 1 | -1) => boolean;
  /** It was begun by a key of the view, and Enter has taken it: what it belongs to is taken with it. */
  entered?: (() => void) | undefined;
}>();

const store = useProject();
const editing = ref(false);
const typed = ref('');
const wrong = shallowRef<Issue>();
const input = ref<HTMLInputElement>();
const box = ref<HTMLElement>();
/** What stood here before it was typed. */
let before = '';
/** Was it begun by a key of the view? */
let isByKey = false;

const scope = computed(() => valueScope(Object.values(store.project?.values ?? {}), store.project?.unit ?? 'mm'));
const amount = computed(() => evaluate(props.text, props.asks, scope.value));
const unit = computed(() => store.project?.unit ?? 'mm');
const shown = (digits: number): string =>
  amount.value.ok ? formatQuantity({ amount: amount.value.value, dimension: props.asks }, unit.value, digits) : '';
const comesTo = computed(() => (amount.value.ok ? `comes to ${shown(4)}` : explain(amount.value.issue)));
/** Of a name or a sum it is told how large that is; lengths as in a sketch, in the unit of the project without saying so. */
const result = computed(() =>
  props.bare || isPlainNumber(props.text) ? '' : shown(3).replace(new RegExp(` ${unit.value}$`), ''),
);

/** @param text what a key has typed already, in place of what stands there */
async function begin(text?: string, byKey = false) {
  [before, isByKey] = [props.text, byKey];
  typed.value = text ?? props.text;
  wrong.value = undefined;
  editing.value = true;
  await nextTick();
  input.value?.focus();
  if (text === undefined) input.value?.select();
  else show(text);
}

defineExpose({
  /** Begins it by a key of the view. @param text what the key typed, in place of what stands there */
  begin(text?: string) {
    return begin(text, true);
  },
});

/** What is wrong with the text, or the gesture's actions. */
function reading(
  text: string,
): { issue: Issue } | { actions: readonly Action[]; expression: string; naming: readonly Action[] } {
  const read = readTyped(text, props.asks, store.kept!, newId);
  if (!read.ok) return read;
  const { expression, naming } = read.value;
  if (naming.length === 0) {
    const result = evaluate(expression, props.asks, scope.value);
    if (!result.ok) return result;
  }
  return { actions: [...naming, ...props.change(expression)], expression, naming };
}

function take() {
  if (!editing.value) return;
  const read = reading(typed.value);
  if ('issue' in read) return void (wrong.value = read.issue);
  const result = props.keep ? props.keep(read.expression, read.naming) : store.act(read.actions);
  if (!result.ok) return void (wrong.value = result.issue);
  editing.value = false;
}

/** Enter takes it. */
function enter() {
  take();
  if (!editing.value && isByKey) props.entered?.();
}

/** Tab takes it and goes on to the next number of the sentence; from the last that a key of the view began back to that. */
function goOn(event: KeyboardEvent) {
  take();
  if (editing.value || props.next?.(event.shiftKey ? -1 : 1) || isByKey) event.preventDefault();
}

function show(text: string) {
  const read = reading(text);
  wrong.value = 'issue' in read ? read.issue : undefined;
  if ('issue' in read) return;
  if (!props.keep) store.preview(read.actions);
  // what would be accepted with it is seen before
  else if (props.entered && read.naming.length === 0) props.keep(read.expression, []);
}

function leave() {
  if (!props.keep) store.preview([]);
  else if (props.entered && before !== props.text) props.keep(before, []);
  editing.value = false;
}

/** A click elsewhere takes what was typed; what can't be taken is left as it was. */
function leaveTaking({ target, relatedTarget }: FocusEvent) {
  // the number was a button before it was typed: that it has gone is no leaving
  if (!(target instanceof HTMLInputElement)) return;
  // a name is given its number beside it
  if (box.value?.contains(relatedTarget as Node | null)) return;
  if (editing.value && typed.value !== before) take();
  if (editing.value) leave();
}

/** The number in the text made larger or smaller by a step of its own size; undefined for what is no plain number. */
function nudged(text: string, steps: number): string | undefined {
  const match = /^\s*(\d+\.?\d*)\s*([a-z"°]*)\s*$/i.exec(text);
  if (!match) return undefined;
  const decimals = match[1]!.split('.')[1]?.length ?? 0;
  const next = Number(match[1]) + steps * 10 ** -decimals;
  return next > 0 ? `${next.toFixed(decimals)}${match[2] ? ` ${match[2]}` : ''}` : undefined;
}

function nudge(steps: number) {
  const next = nudged(typed.value, steps);
  if (next === undefined) return;
  typed.value = next;
  show(next);
}

/** Dragging sideways: eight pixels a step; a press without a move is a click. */
function press(event: PointerEvent) {
  const from = event.clientX;
  // the text itself changes while it is scrubbed
  const before = props.text;
  let text: string | undefined;
  const target = event.currentTarget as HTMLElement;
  target.setPointerCapture(event.pointerId);
  const move = (moved: PointerEvent) => {
    const steps = Math.round((moved.clientX - from) / 8);
    if (steps === 0 && text === undefined) return;
    const next = nudged(before, steps);
    if (next === undefined || next === text) return;
    text = next;
    show(next);
  };
  const up = () => {
    target.removeEventListener('pointermove', move);
    target.removeEventListener('pointerup', up);
    if (text === undefined) return void begin();
    const read = reading(text);
    if (!('issue' in read)) {
      if (props.keep) props.keep(read.expression, read.naming);
      else store.act(read.actions);
    }
  };
  target.addEventListener('pointermove', move);
  target.addEventListener('pointerup', up);
}
</script>

<template>
  <span ref="box" class="relative inline-block" @focusout="leaveTaking">
    <input
      v-if="editing"
      ref="input"
      v-model="typed"
      class="chip border-act bg-lit outline-none"
      :size="Math.max(8, typed.length + 1)"
      :aria-label="label"
      :aria-invalid="wrong !== undefined"
      maxlength="240"
      @keydown.enter.prevent="enter"
      @keydown.tab="goOn"
      @keydown.esc.stop="leave"
      @keydown.up.prevent="nudge(1)"
      @keydown.down.prevent="nudge(-1)"
      @input="show(typed)"
    />
    <button
      v-else
      class="chip hover:bg-lit cursor-ew-resize text-left"
      :title="comesTo"
      :aria-label="`${label}: ${text}`"
      @pointerdown.left.prevent="press"
      @keydown.enter.prevent="begin()"
    >
      <span v-if="prefix">{{ prefix }}</span>{{ text }}<span v-if="result" class="text-muted"> = {{ result }}</span>
    </button>
    <NumberTrouble
      v-if="editing && wrong"
      class="absolute top-full left-0 z-20 mt-1 w-56"
      :issue="wrong"
      :asks="asks"
      @named="take"
      @left="leave"
    />
  </span>
</template>
