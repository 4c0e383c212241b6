<script setup lang="ts">
import type { Mark, Result } from '@helb/core';
import ChoiceWord from '../choice-word.vue';
import TypedField from '../typed-field.vue';

/** The texture of a surface, and whether material is taken away for it. */
defineProps<{
  mark: Extract<Mark, { kind: 'surface' }>;
  /** Takes a text that has to fit, or says what would. */
  take: (fields: (text: string) => object) => (text: string) => Result<void>;
}>();
const emit = defineEmits<{ set: [fields: object] }>();
</script>

<template>
  <TypedField class="field w-32" label="Texture" :value="mark.text" :change="take((text) => ({ text }))" />
  <p class="text-sm">
    material is removed for it:
    <ChoiceWord
      :value="mark.removed"
      :options="{ any: 'as one likes', yes: 'yes', no: 'no' }"
      label="removed"
      @choose="(removed) => emit('set', { removed })"
    />
  </p>
</template>
