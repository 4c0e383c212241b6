<script setup lang="ts">
import { computed, ref } from 'vue';
import { RouterLink, useRouter } from 'vue-router';
import HelbMark from '../components/helb-mark.vue';
import VerbPicture from '../components/verb-picture.vue';
import { searched } from '../help/chapters.ts';
import { VIEW_KEYS } from '../verbs/keys.ts';
import { pictureOf } from '../verbs/pictures.ts';

/** All that can be done, in one page that is searched as one types. */
const router = useRouter();
const text = ref('');
const chapters = computed(() => searched(text.value));
const hasBack = Boolean((history.state as { back?: string | null } | null)?.back);
const vFocus = { mounted: (element: HTMLElement) => element.focus() };
const anchorOf = (title: string) => title.toLowerCase().replaceAll(' ', '-');
const goTo = (title: string) => document.querySelector(`#${anchorOf(title)}`)?.scrollIntoView();
</script>

<template>
  <div class="bg-paper flex h-full flex-col">
    <header class="bg-sheet border-rule flex h-11 shrink-0 items-center gap-5 border-b px-4">
      <RouterLink to="/" class="flex items-center gap-2 text-[17px] font-semibold" title="To the shelf"
        ><HelbMark />Helb</RouterLink
      >
      <h1 class="text-[17px]">Help</h1>
      <input
        v-model="text"
        v-focus
        class="field w-80!"
        type="search"
        placeholder="find: hinge, fillet, unit …"
        aria-label="Search the help"
      />
      <span class="grow" />
      <button v-if="hasBack" class="word-link" @click="router.back()">back to where you were</button>
    </header>
    <div class="flex room">
      <nav class="border-rule w-60 shrink-0 overflow-y-auto border-r px-4 py-5" aria-label="Chapters">
        <button
          v-for="{ title, entries } in chapters"
          :key="title"
          class="text-link block w-full py-1 text-left hover:underline"
          @click="goTo(title)"
        >
          {{ title }} <span class="text-muted text-sm">{{ entries.length }}</span>
        </button>
      </nav>
      <main class="grow overflow-y-auto px-8 py-5">
        <div class="max-w-3xl">
          <p v-if="chapters.length === 0" role="status">
            Nothing is told of that here. Another word may find it: of a hole, a drill; of a hinge, a joint.
          </p>
          <section
            v-for="{ title, entries } in chapters"
            :id="anchorOf(title)"
            :key="title"
            class="pb-7"
            :aria-label="title"
          >
            <h2 class="heading border-ink mb-1 border-b pb-1 text-lg">{{ title }}</h2>
            <div v-for="entry in entries" :key="entry.title" class="border-rule flex gap-4 border-b py-2 leading-6">
              <VerbPicture
                v-if="entry.verb && pictureOf(entry.verb)"
                class="h-12 w-18 shrink-0"
                :picture="pictureOf(entry.verb)!"
              />
              <div class="grow">
                <h3 class="font-semibold">{{ entry.title }}</h3>
                <p>{{ entry.says }}</p>
                <p v-if="entry.wants" class="text-muted text-sm">Of {{ entry.wants }}.</p>
              </div>
              <kbd v-if="entry.key" class="text-key w-8 shrink-0 text-right font-mono text-[13px]" title="its key">{{
                entry.key
              }}</kbd>
            </div>
          </section>
          <section v-if="text.trim() === ''" id="keys" aria-label="Keys in every view">
            <h2 class="heading border-ink mb-1 border-b pb-1 text-lg">Keys in every view</h2>
            <dl>
              <div v-for="[keys, says] in VIEW_KEYS" :key="keys" class="border-rule flex gap-4 border-b py-1.5">
                <dt class="text-key w-40 shrink-0 font-mono text-[13px] leading-6 whitespace-pre">{{ keys }}</dt>
                <dd>{{ says }}</dd>
              </div>
            </dl>
          </section>
        </div>
      </main>
    </div>
  </div>
</template>
