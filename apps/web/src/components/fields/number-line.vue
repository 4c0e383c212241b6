<script setup lang="ts">
import { ref } from 'vue';
import type { Action, Field, Result } from '@helb/core';
import NumberChip from '../number-chip.vue';

/** A number that the sentence leaves out while it is as initially. */
defineProps<{
  field: Extract<Field, { type: 'number' }>;
  value: string;
  keep: (expression: string, naming: readonly Action[]) => Result<void>;
  /** It was begun by a key of the view and taken by Enter. */
  entered?: (() => void) | undefined;
}>();

const chip = ref<InstanceType<typeof NumberChip>>();
defineExpose({
  /** Begins to type it, or opens it as it is. */
  begin(text?: string): boolean {
    void chip.value?.begin(text);
    return chip.value !== undefined;
  },
});
</script>

<template>
  <div class="border-rule flex items-baseline justify-between gap-3 border-t py-1">
    <span class="text-muted first-letter:uppercase">{{ field.label }}</span>
    <NumberChip
      ref="chip"
      :text="value"
      :asks="field.asks"
      :label="field.label"
      :change="() => []"
      :keep="keep"
      :entered="entered"
    />
  </div>
</template>
