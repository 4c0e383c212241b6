<script setup lang="ts">
import { useDoubts } from '../stores/doubts.ts';

/** Asks before something is written that is not as it is told. */
const doubts = useDoubts();
</script>

<template>
  <div v-if="doubts.asked" class="border-clash bg-sheet mb-3 border-l-3 p-3" role="alert">
    <p v-for="words in doubts.asked.words" :key="words">{{ words }}</p>
    <p class="mt-1">
      <button class="word-link" @click="doubts.asked.goOn()">write the last that was good all the same</button>
      <button class="word-link ml-4" @click="doubts.asked = undefined">leave it</button>
    </p>
  </div>
</template>
