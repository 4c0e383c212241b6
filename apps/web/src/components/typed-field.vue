<script setup lang="ts">
/** A text that is changed when it is left or Enter is pressed; Esc puts the old one back. */
const {
  value,
  label,
  placeholder = '',
  most = 200,
} = defineProps<{ value: string; label: string; placeholder?: string; most?: number }>();
const emit = defineEmits<{ change: [text: string, refused: () => void] }>();

function change(event: Event) {
  const input = event.target as HTMLInputElement;
  const text = input.value.trim();
  if (text !== value) emit('change', text, () => (input.value = value));
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
    @change="change"
    @keydown.enter="enter"
    @keydown.esc="leave"
  />
</template>
