<script setup lang="ts">
import { CAPITALS, type Lettering } from '@helb/core';

/** Words on a sheet, as they are printed. */
defineProps<{ letters: readonly Lettering[]; height: number }>();
const degrees = (angle: number) => (-angle * 180) / Math.PI;
</script>

<template>
  <text
    v-for="({ at, text, height: tall, anchor, bold, angle }, k) in letters"
    :key="k"
    :x="at[0]"
    :y="height - at[1]"
    :font-size="tall / CAPITALS"
    :text-anchor="anchor"
    :font-weight="bold ? 600 : 400"
    :transform="angle ? `rotate(${degrees(angle)} ${at[0]} ${height - at[1]})` : undefined"
  >
    {{ text }}
  </text>
</template>
