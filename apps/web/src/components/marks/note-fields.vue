<script setup lang="ts">
import type { Mark, Result } from '@helb/core';
import TypedField from '../typed-field.vue';

/** The words of a note. */
defineProps<{
  mark: Extract<Mark, { kind: 'note' }>;
  /** Takes a text that has to fit, or says what would. */
  take: (fields: (text: string) => object) => (text: string) => Result<void>;
}>();
</script>

<template>
  <TypedField
    class="field h-20 w-full"
    lines
    label="Text of the note"
    :most="300"
    :value="mark.text"
    :change="take((text) => ({ text }))"
  />
</template>
