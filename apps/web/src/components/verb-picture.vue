<script setup lang="ts">
import type { VerbDrawing } from '../verbs/pictures.ts';

/** A small drawing of what a verb does: what was there thin, what it makes strong, construction as axes are drawn. */
defineProps<{ picture: VerbDrawing }>();
</script>

<template>
  <svg viewBox="0 0 48 32" fill="none" stroke-linecap="round" stroke-linejoin="round" aria-hidden="true">
    <path v-if="picture.filled" :d="picture.filled" class="fill-chip" />
    <path v-if="picture.given" :d="picture.given" class="stroke-muted" stroke-width="1" />
    <path
      v-if="picture.axis"
      :d="picture.axis"
      class="stroke-muted"
      stroke-width="0.7"
      stroke-dasharray="5 1.5 1 1.5"
    />
    <path v-if="picture.made" :d="picture.made" class="stroke-ink" stroke-width="1.8" />
    <path v-if="picture.act" :d="picture.act" class="stroke-act" stroke-width="1.4" />
    <circle v-for="[x, y] in picture.points ?? []" :key="`${x} ${y}`" :cx="x" :cy="y" r="1.8" class="fill-act" />
  </svg>
</template>
