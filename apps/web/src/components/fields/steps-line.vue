<script setup lang="ts">
import { computed } from 'vue';
import { isRepeatable, isSketch, type Field, type Id, type Step } from '@helb/core';
import { useWorkbench } from '../../stores/workbench.ts';

/** Earlier steps that a step takes: sketches, or what makes bodies. */
const { field, value } = defineProps<{ field: Extract<Field, { type: 'steps' }>; value: readonly Id[] }>();
const emit = defineEmits<{ choose: [steps: readonly Id[]] }>();

const bench = useWorkbench();
const IS_ONE: Readonly<Record<typeof field.of, (step: Step) => boolean>> = {
  sketches: isSketch,
  bodies: ({ kind }) => isRepeatable(kind),
};
const takes = computed(() => bench.stepsBefore.filter((id) => IS_ONE[field.of](bench.part!.steps[id]!)));

function toggle(id: Id) {
  const next = value.includes(id) ? value.filter((other) => other !== id) : [...value, id];
  emit('choose', field.order === 'chosen' ? next : takes.value.filter((other) => next.includes(other)));
}
</script>

<template>
  <fieldset class="border-rule mb-1 border-t py-1.5">
    <legend class="text-muted float-left w-full first-letter:uppercase">{{ field.label }}</legend>
    <label v-for="id in takes" :key="id" class="clear-left flex items-center gap-2 py-0.5">
      <input type="checkbox" :checked="value.includes(id)" @change="toggle(id)" />
      {{ bench.nameOf(id) }}
    </label>
    <p v-if="takes.length === 0" class="text-muted clear-left text-sm">There is none before this step.</p>
  </fieldset>
</template>
