<script setup lang="ts">
import type { Field } from '@helb/core';
import ChoiceWord from '../choice-word.vue';

/** A word that the sentence leaves out while it is as initially. */
defineProps<{ field: Extract<Field, { type: 'choice' }>; value: string }>();
const emit = defineEmits<{ choose: [value: string] }>();
</script>

<template>
  <div class="border-rule flex items-baseline justify-between gap-3 border-t py-1">
    <span class="text-muted first-letter:uppercase">{{ field.label }}</span>
    <ChoiceWord
      :value="value"
      :options="field.options"
      :label="field.label"
      @choose="(chosen) => emit('choose', chosen)"
    />
  </div>
</template>
