<script setup lang="ts">
import type { Reference, Vec2 } from '@helb/core';

interface Name {
  readonly name: string;
  readonly words: string;
  readonly reference: Reference;
  readonly at: Vec2;
}

/** The names of datums in the view: each stands for what it names, and is pointed at and picked like that. */
defineProps<{
  names: readonly Name[];
  /** Are they only read? */
  idle: boolean;
}>();
defineEmits<{ point: [at: Vec2, reference: Reference]; take: [event: MouseEvent]; leave: [] }>();
</script>

<template>
  <button
    v-for="name in names"
    :key="name.name"
    class="text-link absolute text-[12px] whitespace-nowrap"
    :class="idle ? 'pointer-events-none' : 'hover:underline'"
    :style="{ left: `${name.at[0] + 4}px`, top: `${name.at[1] + 2}px` }"
    tabindex="-1"
    @pointerenter="$emit('point', name.at, name.reference)"
    @pointerleave="$emit('leave')"
    @click="$emit('take', $event)"
  >
    {{ name.words }}
  </button>
</template>
