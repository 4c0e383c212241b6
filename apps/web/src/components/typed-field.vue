<script setup lang="ts">
import { ref } from 'vue';
import type { Result } from '@helb/core';

/** A text that is changed when it is left or Enter is pressed; Esc, or a refusal, puts the old one back. */
const {
  value,
  label,
  placeholder = '',
  most = 200,
  lines = false,
  change,
} = defineProps<{
  value: string;
  label: string;
  placeholder?: string;
  most?: number;
  /** Several lines: Enter begins another. */
  lines?: boolean;
  change: (text: string) => Result<void>;
}>();

/** What is being typed: it stays even if the page is drawn anew meanwhile. */
const typed = ref<string>();

function take() {
  const text = typed.value?.trim() ?? value;
  if (text !== value) change(text);
  typed.value = undefined;
}
function leave(event: Event) {
  typed.value = undefined;
  (event.target as HTMLElement).blur();
}
const enter = (event: Event) => (event.target as HTMLInputElement).blur();
</script>

<template>
  <component
    :is="lines ? 'textarea' : 'input'"
    :value="typed ?? value"
    :aria-label="label"
    :placeholder="placeholder"
    :maxlength="most"
    @input="typed = ($event.target as HTMLInputElement).value"
    @change="take"
    @keydown.enter="lines || enter($event)"
    @keydown.esc="leave"
  />
</template>
