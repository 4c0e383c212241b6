<script setup lang="ts">
import { pictureOf } from '../verbs/pictures.ts';
import type { Verb } from '../verbs/verb.ts';
import VerbPicture from './verb-picture.vue';

/** What a verb does: drawn, in a sentence, and what it lacks. */
defineProps<{ verb: Pick<Verb, 'id' | 'title' | 'says' | 'lacks'> }>();
</script>

<template>
  <div class="w-60 p-3 text-sm whitespace-normal" data-testid="verb-card">
    <VerbPicture v-if="pictureOf(verb.id)" class="mb-2 h-16 w-24" :picture="pictureOf(verb.id)!" />
    <p>{{ verb.says }}</p>
    <p v-if="verb.lacks !== undefined" class="text-loose mt-1">{{ verb.lacks }}</p>
  </div>
</template>
