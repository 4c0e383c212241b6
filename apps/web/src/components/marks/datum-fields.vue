<script setup lang="ts">
import type { Mark, Result } from '@helb/core';
import TypedField from '../typed-field.vue';

/** The letter of a datum. */
defineProps<{
  mark: Extract<Mark, { kind: 'datum' }>;
  /** Takes a text that has to fit, or says what would. */
  take: (fields: (text: string) => object) => (text: string) => Result<void>;
}>();
</script>

<template>
  <TypedField
    class="field w-16"
    label="Letter of the datum"
    :value="mark.letter"
    :change="take((letter) => ({ letter }))"
  />
</template>
