<script setup lang="ts">
import { useStudies } from '../stores/studies.ts';
import StudyCard from './study-card.vue';

/** Motions that are looked at all the way round. */
const studies = useStudies();
</script>

<template>
  <section data-testid="studies">
    <h2 class="heading px-4 pt-4 pb-1">Studies</h2>
    <p v-if="studies.records.length === 0" class="text-muted px-4 text-sm">
      A study drives joints over a time and shows what happens on the way: speeds, distances, what touches when.
    </p>
    <ul aria-label="Studies">
      <StudyCard v-for="[id, study] in studies.records" :id="id" :key="id" :study="study" />
    </ul>
    <button
      v-if="Object.keys(studies.coordinates).length > 0"
      class="word-link px-4 py-1.5 text-sm"
      @click="studies.add()"
    >
      + study a motion
    </button>
  </section>
</template>
