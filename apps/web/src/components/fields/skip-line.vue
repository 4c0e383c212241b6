<script setup lang="ts">
import type { Field } from '@helb/core';

/** Numbers of instances that are left out. */
defineProps<{ field: Field; value: readonly number[] }>();
const emit = defineEmits<{ choose: [numbers: readonly number[]] }>();

function read(text: string) {
  const numbers = text.split(/[\s,;]+/).flatMap((part) => (/^\d+$/.test(part) ? [Number(part)] : []));
  emit('choose', [...new Set(numbers.filter((k) => k > 0))]);
}
</script>

<template>
  <label class="border-rule flex items-baseline justify-between gap-3 border-t py-1">
    <span class="text-muted first-letter:uppercase">{{ field.label }}</span>
    <input
      class="chip border-rule w-28 border px-1"
      :value="value.join(', ')"
      placeholder="2, 5"
      @change="read(($event.target as HTMLInputElement).value)"
      @keydown.enter.stop="($event.target as HTMLInputElement).blur()"
    />
  </label>
</template>
