<script setup lang="ts">
import { computed } from 'vue';
import { isSketch, type Field, type Id } from '@helb/core';
import { useWorkbench } from '../../stores/workbench.ts';
import ChoiceWord from '../choice-word.vue';

/** The sketch that a step is made from: one of those before it. */
defineProps<{ field: Extract<Field, { type: 'sketch' }>; value: Id }>();
const emit = defineEmits<{ choose: [sketch: Id] }>();

const bench = useWorkbench();
const names = computed(() => {
  const drawn = bench.stepsBefore.filter((id) => isSketch(bench.part?.steps[id]));
  return Object.fromEntries(drawn.map((id) => [id, bench.nameOf(id)]));
});
</script>

<template>
  <div class="border-rule flex justify-between border-t py-1.5">
    <span class="text-muted first-letter:uppercase">{{ field.label }}</span>
    <ChoiceWord
      v-if="Object.keys(names).length > 0"
      :value="value"
      :options="{ '': 'choose', ...names }"
      :label="field.label"
      @choose="(id) => emit('choose', id)"
    />
    <span v-else class="text-muted">draw one first</span>
  </div>
</template>
