<script setup lang="ts">
import { encode } from 'uqr';
import { computed } from 'vue';

/** A text as squares that a camera reads. */
const props = defineProps<{ readonly text: string }>();
const squares = computed(() => encode(props.text, { border: 3 }));
const path = computed(() =>
  squares.value.data.flatMap((row, y) => row.flatMap((isDark, x) => (isDark ? [`M${x} ${y}h1v1h-1z`] : []))).join(''),
);
</script>

<template>
  <svg :viewBox="`0 0 ${squares.size} ${squares.size}`" role="img" aria-label="The same as squares for a camera">
    <rect width="100%" height="100%" fill="#fff" />
    <path :d="path" fill="#000" shape-rendering="crispEdges" />
  </svg>
</template>
