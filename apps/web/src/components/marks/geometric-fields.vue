<script setup lang="ts">
import { CHARACTERISTICS, type Mark, type Result } from '@helb/core';
import { typedNumber } from '../../stores/typed-amount.ts';
import ChoiceWord from '../choice-word.vue';
import TypedField from '../typed-field.vue';

/** What is held within which zone, and seen from which datums. */
defineProps<{
  mark: Extract<Mark, { kind: 'geometric' }>;
  /** Takes a text that has to fit, or says what would. */
  take: (fields: (text: string) => object) => (text: string) => Result<void>;
}>();
const emit = defineEmits<{ set: [fields: object] }>();
const characteristics = Object.fromEntries(CHARACTERISTICS.map((name) => [name, name]));
</script>

<template>
  <p class="text-sm">
    <ChoiceWord
      :value="mark.characteristic"
      :options="characteristics"
      label="characteristic"
      @choose="(characteristic) => emit('set', { characteristic })"
    />
    within
    <TypedField
      class="field w-20"
      label="Width of the zone, mm"
      :value="`${mark.zone}`"
      :change="take((text) => ({ zone: typedNumber(text) }))"
    />
    mm
  </p>
  <label class="flex items-center gap-1.5 text-sm"
    ><input
      type="checkbox"
      :checked="mark.round"
      @change="emit('set', { round: ($event.target as HTMLInputElement).checked })"
    />a round zone</label
  >
  <label class="flex items-center gap-2 text-sm"
    >Datums
    <TypedField
      class="field w-24"
      label="Letters of datums, with spaces between"
      :value="mark.datums.join(' ')"
      :change="take((text) => ({ datums: text.split(/[\s,]+/).filter(Boolean) }))"
  /></label>
</template>
