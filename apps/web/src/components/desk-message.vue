<script setup lang="ts">
import { useProject } from '../stores/project.ts';

/** What could not be done, in words, until it is read. */
const store = useProject();
</script>

<template>
  <p
    v-if="store.message"
    class="border-rule text-clash flex items-start justify-between gap-2 border-b px-4 py-2"
    role="alert"
  >
    {{ store.message }}
    <button class="word-link shrink-0 text-sm" @click="store.message = ''">close</button>
  </p>
</template>
