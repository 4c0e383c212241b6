<script setup lang="ts">
import type { Result } from '@helb/core';

/** A text that is changed when it is left or Enter is pressed; Esc, or a refusal, puts the old one back. */
const {
  value,
  label,
  placeholder = '',
  most = 200,
  change,
} = defineProps<{
  value: string;
  label: string;
  placeholder?: string;
  most?: number;
  change: (text: string) => Result<void>;
}>();

function take(event: Event) {
  const input = event.target as HTMLInputElement;
  const text = input.value.trim();
  if (text !== value && !change(text).ok) input.value = value;
}
function leave(event: Event) {
  const input = event.target as HTMLInputElement;
  input.value = value;
  input.blur();
}
const enter = (event: Event) => (event.target as HTMLInputElement).blur();
</script>

<template>
  <input
    :value="value"
    :aria-label="label"
    :placeholder="placeholder"
    :maxlength="most"
    @change="take"
    @keydown.enter="enter"
    @keydown.esc="leave"
  />
</template>
