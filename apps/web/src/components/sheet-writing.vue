<script setup lang="ts">
import { markTitle, markWay } from '@helb/core';
import { useWriting, VERBS, type Verb } from '../stores/writing.ts';

/** Writing into views: what is written, what is picked for it, and what that could say. */
const writing = useWriting();
const verbs = Object.entries(VERBS) as [Verb, string][];
</script>

<template>
  <section class="border-rule border-b p-4" aria-label="Write into a view">
    <h2 class="heading mb-1">Write into a view</h2>
    <p v-if="!writing.verb">
      <button v-for="[verb, words] in verbs" :key="verb" class="word-link mr-3" @click="writing.begin(verb)">
        {{ words }}
      </button>
    </p>
    <template v-else>
      <p>
        {{
          writing.verb === 'size'
            ? 'Pick in one view: one edge or circle, two things for what is between them, or several in a row.'
            : 'Pick the edge or circle that it points to.'
        }}
        <button class="word-link ml-1" @click="writing.leave()">leave</button>
      </p>
      <p v-if="writing.picks.length > 0" class="text-muted pt-1 text-sm">
        {{ writing.picks.length }} picked; picked again it is dropped
      </p>
      <ul aria-label="What it could say">
        <li v-for="({ mark, words }, k) in writing.offers" :key="k">
          <button
            class="hover:bg-chip flex w-full items-baseline gap-2 px-1 py-0.5 text-left"
            @click="writing.add(mark)"
          >
            <span class="text-muted w-28 shrink-0 text-sm">{{
              [markTitle(mark), markWay(mark)].filter(Boolean).join(', ')
            }}</span><span class="font-mono">{{ words }}</span>
          </button>
        </li>
      </ul>
    </template>
    <p v-if="writing.message" class="text-clash pt-1" role="alert">{{ writing.message }}</p>
  </section>
</template>
