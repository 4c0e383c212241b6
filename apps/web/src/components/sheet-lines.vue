<script setup lang="ts">
import { LINES, type SheetPath } from '@helb/core';

/** Lines of a sheet, each kind as wide and as broken as it is printed. */
defineProps<{ paths: readonly SheetPath[] }>();
</script>

<template>
  <path
    v-for="{ line, d } in paths"
    :key="line"
    :d="d"
    :stroke-width="LINES[line].width"
    :stroke-dasharray="LINES[line].dashes.join(' ') || undefined"
  />
</template>
