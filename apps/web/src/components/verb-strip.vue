<script setup lang="ts">
import { computed, nextTick, ref } from 'vue';
import type { Verb } from '../stores/verbs.ts';

/** What can be done with what is selected now, most likely first; Space and typing searches all verbs of the place. */
const props = defineProps<{ place: string; verbs: readonly Verb[] }>();
const searching = ref(false);
const text = ref('');
const chosen = ref(0);
const input = ref<HTMLInputElement>();

/** What is called exactly so comes first, then what begins so, then a word that does. */
const found = computed(() => {
  const sought = text.value.trim().toLowerCase();
  const rank = ({ title }: Verb): number => {
    const called = title.toLowerCase();
    if (called === sought) return 0;
    return called.startsWith(sought) ? 1 : called.includes(` ${sought}`) ? 2 : 3;
  };
  const verbs = props.verbs.filter(({ title }) => title.toLowerCase().includes(sought));
  return sought === '' ? verbs : verbs.toSorted((a, b) => rank(a) - rank(b));
});

async function search() {
  searching.value = true;
  text.value = '';
  chosen.value = 0;
  await nextTick();
  input.value?.focus();
}

function run(verb: Verb | undefined) {
  if (!verb) return;
  searching.value = false;
  verb.run();
}

/** Runs the verb of a key; tells whether there was one. */
function press(key: string): boolean {
  const verb = props.verbs.find((candidate) => candidate.key.toLowerCase() === key.toLowerCase());
  run(verb);
  return verb !== undefined;
}

const step = (by: number) =>
  (chosen.value = (chosen.value + by + found.value.length) % Math.max(1, found.value.length));

defineExpose({ search, press });
</script>

<template>
  <div class="absolute bottom-3 left-1/2 z-10 w-max max-w-[calc(100%-12px)] -translate-x-1/2">
    <ul
      v-if="searching"
      class="bg-lit border-ink mb-1 max-h-64 overflow-y-auto border"
      role="listbox"
      aria-label="Verbs"
    >
      <li
        v-for="(verb, k) in found"
        :key="verb.id"
        role="option"
        :aria-selected="k === chosen"
        class="flex cursor-pointer justify-between gap-8 px-3 py-1"
        :class="k === chosen ? 'bg-ink text-sheet' : ''"
        @pointerdown.prevent="run(verb)"
      >
        {{ verb.title }} <span class="font-mono text-[12px]">{{ verb.key }}</span>
      </li>
      <li v-if="found.length === 0" class="text-muted px-3 py-1">Nothing here is called that.</li>
    </ul>
    <div
      class="border-ink bg-sheet flex h-[34px] items-stretch border whitespace-nowrap"
      role="toolbar"
      aria-label="What can be done"
    >
      <span class="bg-ink text-sheet flex shrink-0 items-center px-3 text-sm">{{ place }}</span>
      <input
        v-if="searching"
        ref="input"
        v-model="text"
        class="w-56 px-3 outline-none"
        placeholder="type a verb"
        aria-label="Search verbs"
        @input="chosen = 0"
        @keydown.enter.prevent.stop="run(found[chosen])"
        @keydown.esc.stop="searching = false"
        @keydown.up.prevent="step(-1)"
        @keydown.down.prevent="step(1)"
        @blur="searching = false"
      />
      <template v-else>
        <!-- what does not fit wraps onto a line that is not shown: the first verbs are the most likely ones -->
        <span class="flex flex-wrap overflow-hidden">
          <button
            v-for="verb in verbs"
            :key="verb.id"
            class="border-rule hover:bg-chip flex h-8 items-center gap-2 border-r px-2.5"
            :data-testid="`verb-${verb.id}`"
            @click="run(verb)"
          >
            <span class="text-key font-mono text-[12px]">{{ verb.key }}</span>{{ verb.title }}
          </button>
        </span>
        <button class="text-muted hover:bg-chip shrink-0 px-2.5" @click="search">
          more… <span class="text-key font-mono text-[12px]">Space</span>
        </button>
      </template>
    </div>
  </div>
</template>
