<script setup lang="ts">
import { ref, watch } from 'vue';
import type { Action, Phrase, Result } from '@helb/core';
import { useWorkbench } from '../stores/workbench.ts';
import ChoiceWord from './choice-word.vue';
import NumberChip from './number-chip.vue';

/** A sentence of a step, its numbers and words editable where they stand. */
const props = defineProps<{
  phrases: readonly Phrase[];
  /** The gesture that sets a field. */
  change: (field: string, value: string) => readonly Action[];
  choose: (field: string, value: string) => void;
  /** Opens what was picked to be picked again. */
  pick: (field: string) => void;
  keep?: (field: string, expression: string, naming: readonly Action[]) => Result<void>;
  /** A number that was begun by a key of the view has been taken by Enter. */
  entered?: (() => void) | undefined;
}>();

const bench = useWorkbench();
type Chip = InstanceType<typeof NumberChip>;
/** The numbers of the sentence, by the place of their phrases. */
const chips = new Map<number, Chip>();
function known(k: number, chip: unknown) {
  if (chip) chips.set(k, chip as Chip);
  else chips.delete(k);
}

/** Begins to type a number; false where there is none. */
function begin(k: number | undefined, text?: string): boolean {
  const chip = k === undefined ? undefined : chips.get(k);
  void chip?.begin(text);
  return chip !== undefined;
}
/** The number that a word has brought into the sentence: it is the one that is typed next. */
const aimed = ref<string>();
const numbers = () => props.phrases.flatMap((phrase) => (phrase.type === 'chip' ? [phrase.field] : []));
watch(numbers, (now, before) => {
  if (aimed.value !== undefined && !now.includes(aimed.value)) aimed.value = undefined;
  if (props.keep && before.length > 0) aimed.value = now.find((field) => !before.includes(field)) ?? aimed.value;
});
/** A number that is typed is the one that was meant. */
function keeping(field: string, expression: string, naming: readonly Action[]): Result<void> {
  aimed.value = undefined;
  return props.keep!(field, expression, naming);
}

const order = () => [...chips.keys()].sort((a, b) => a - b);
function next(from: number, by: 1 | -1): boolean {
  const all = order();
  return begin(all[all.indexOf(from) + by]);
}

defineExpose({
  /**
   * Begins to type the number that a word has just brought, else the first of the sentence, or opens it as it is; false where
   * it has none.
   */
  begin(text?: string): boolean {
    const at = props.phrases.findIndex((phrase) => phrase.type === 'chip' && phrase.field === aimed.value);
    return begin(at < 0 ? order()[0] : at, text);
  },
});
</script>

<template>
  <template v-for="(phrase, k) in phrases" :key="k">
    <strong v-if="phrase.type === 'strong'" class="font-semibold">{{ phrase.text }}</strong>
    <NumberChip
      v-else-if="phrase.type === 'chip'"
      :ref="(chip) => known(k, chip)"
      :text="phrase.text"
      :asks="phrase.asks"
      :label="phrase.label"
      :class="aimed === phrase.field ? 'outline-act outline-1' : ''"
      :next="(by) => next(k, by)"
      :change="(expression: string) => change(phrase.field, expression)"
      :entered="entered"
      v-bind="
        keep
          ? { keep: (expression: string, naming: readonly Action[]) => keeping(phrase.field, expression, naming) }
          : {}
      "
    />
    <ChoiceWord
      v-else-if="phrase.type === 'choice'"
      :value="phrase.value"
      :options="phrase.options"
      :label="phrase.label"
      @choose="(value) => choose(phrase.field, value)"
    />
    <ChoiceWord
      v-else-if="phrase.type === 'part'"
      :value="phrase.value"
      :options="{ ...(phrase.value === '' ? { '': 'choose' } : {}), ...bench.takeable }"
      :label="phrase.label"
      @choose="(value) => choose(phrase.field, value)"
    />
    <button
      v-else-if="phrase.type === 'picks'"
      class="decoration-muted hover:bg-chip text-left underline decoration-dotted underline-offset-3"
      :aria-label="`${phrase.label}: ${phrase.text}`"
      @click.stop="pick(phrase.field)"
    >
      {{ phrase.text }}
    </button>
    <span v-else class="whitespace-pre-wrap">{{ phrase.text }}</span>
  </template>
</template>
