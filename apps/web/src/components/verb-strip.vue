<script setup lang="ts">
import { computed, nextTick, onBeforeUnmount, ref, shallowRef, watch, watchEffect } from 'vue';
import { here } from '../verbs/here.ts';
import { sought, type Verb } from '../verbs/verb.ts';
import VerbCard from './verb-card.vue';

/** What can be done with what is selected now, most likely first; Space and typing searches all verbs of the place. */
const props = defineProps<{ place: string; verbs: readonly Verb[] }>();
const searching = ref(false);
const text = ref('');
const chosen = ref(0);
const input = ref<HTMLInputElement>();
const list = ref<HTMLElement>();

/** More than these are never seen at once. */
const MOST = 40;
const possible = computed(() => props.verbs.filter(({ lacks }) => lacks === undefined));
const found = computed(() => sought(props.verbs, text.value));

watchEffect(() => (here.value = props));
onBeforeUnmount(() => {
  if (here.value === props) here.value = undefined;
});

async function search() {
  searching.value = true;
  note.value = undefined;
  text.value = '';
  chosen.value = 0;
  await nextTick();
  input.value?.focus();
}

/** What can not be done yet stays looked at: what it lacks is told beside it. */
function run(verb: Verb | undefined) {
  if (!verb || verb.lacks !== undefined) return;
  searching.value = false;
  verb.run();
}

/**
 * Runs the verb of a key, or says what it lacks; tells whether there was one. Of a letter that is no key here that is said.
 * @param asNumber how the name of a number is typed here, where one is asked for
 */
function press(key: string, asNumber = ''): boolean {
  const called = props.verbs.filter((candidate) => candidate.key.toLowerCase() === key.toLowerCase());
  const verb = called.find(({ lacks }) => lacks === undefined) ?? called[0];
  if (verb) note.value = verb.lacks === undefined ? undefined : { title: verb.title, says: verb.lacks };
  else note.value = LETTER.test(key) ? { title: key.toUpperCase(), says: `is no key here. ${asNumber}` } : undefined;
  run(verb);
  return verb !== undefined;
}
const LETTER = /^\p{L}$/u;
/** What came of a key that did nothing: until something else is done. */
const note = shallowRef<{ readonly title: string; readonly says: string }>();
watch(
  () => [props.place, possible.value.length],
  () => (note.value = undefined),
);

async function choose(k: number) {
  chosen.value = k;
  await nextTick();
  list.value?.querySelector('[aria-selected=true]')?.scrollIntoView({ block: 'nearest' });
}
const step = (by: number) => choose((chosen.value + by + found.value.length) % Math.max(1, found.value.length));

defineExpose({ search, press });
</script>

<template>
  <div class="absolute bottom-3 left-1/2 z-10 w-max max-w-[calc(100%-12px)] -translate-x-1/2">
    <p
      v-if="note && !searching"
      class="bg-lit border-ink mx-auto mb-1 w-max max-w-full border px-3 py-1 text-sm"
      role="status"
    >
      <strong class="font-semibold">{{ note.title }}</strong> {{ note.says }}
    </p>
    <div v-if="searching" class="bg-lit border-ink mb-1 flex border">
      <ul ref="list" class="max-h-64 min-w-64 grow overflow-y-auto" role="listbox" aria-label="Verbs">
        <li
          v-for="(verb, k) in found"
          :id="`found-${k}`"
          :key="verb.id"
          role="option"
          :aria-selected="k === chosen"
          :aria-disabled="verb.lacks !== undefined"
          class="flex cursor-pointer justify-between gap-8 px-3 py-1"
          :class="k === chosen ? 'bg-ink text-sheet' : verb.lacks === undefined ? '' : 'text-muted'"
          @pointermove="chosen = k"
          @pointerdown.prevent="run(verb)"
        >
          {{ verb.title }} <span class="font-mono text-[12px]">{{ verb.lacks === undefined ? verb.key : '' }}</span>
        </li>
        <li v-if="found.length === 0" class="text-muted px-3 py-1">Nothing here is called that.</li>
      </ul>
      <VerbCard v-if="found[chosen]" :verb="found[chosen]!" class="border-rule border-l" />
    </div>
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
        role="combobox"
        aria-expanded="true"
        aria-autocomplete="list"
        :aria-activedescendant="`found-${chosen}`"
        @input="choose(0)"
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
            v-for="verb in possible.slice(0, MOST)"
            :key="verb.id"
            class="border-rule hover:bg-chip flex h-8 items-center gap-2 border-r px-2.5"
            :title="verb.says"
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
