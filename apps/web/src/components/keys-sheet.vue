<script setup lang="ts">
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/vue';
import { computed, onBeforeUnmount } from 'vue';
import { RouterLink } from 'vue-router';
import { here, keysShown as isOpen } from '../verbs/here.ts';
import { VIEW_KEYS } from '../verbs/keys.ts';
import { pictureOf } from '../verbs/pictures.ts';
import VerbPicture from './verb-picture.vue';

/** The keys of this place, opened by the question mark. */
const keyed = computed(() => here.value?.verbs.filter(({ key, lacks }) => key !== '' && lacks === undefined) ?? []);

function onKey(event: KeyboardEvent) {
  const isTyping = (event.target as HTMLElement).closest(
    'input:not([type=checkbox]):not([type=range]), textarea, select',
  );
  if (event.key !== '?' || isTyping || event.ctrlKey || event.metaKey || event.altKey) return;
  event.preventDefault();
  isOpen.value = !isOpen.value;
}
addEventListener('keydown', onKey);
onBeforeUnmount(() => removeEventListener('keydown', onKey));
</script>

<template>
  <Dialog :open="isOpen" class="relative z-40" @close="isOpen = false">
    <div class="bg-ink/20 fixed inset-0" aria-hidden="true" />
    <div class="fixed inset-0 flex items-center justify-center p-6">
      <DialogPanel class="bg-sheet border-ink flex max-h-full w-[880px] max-w-full flex-col border">
        <header class="border-rule flex items-baseline gap-4 border-b px-5 py-3">
          <DialogTitle class="heading text-lg">Keys</DialogTitle>
          <RouterLink class="word-link" to="/help" @click="isOpen = false"
            >all that can be done, in the help</RouterLink
          >
          <span class="grow" />
          <button class="word-link" @click="isOpen = false">close</button>
        </header>
        <div class="flex gap-8 overflow-y-auto px-5 py-4">
          <section v-if="keyed.length > 0" class="grow" aria-label="Keys of this place">
            <h3 class="heading mb-1">{{ here!.place }}</h3>
            <ul class="grid grid-cols-2 gap-x-6">
              <li v-for="verb in keyed" :key="verb.id" class="flex h-9 items-center gap-2" :title="verb.says">
                <kbd class="text-key w-11 shrink-0 font-mono text-[13px]">{{ verb.key }}</kbd>
                <VerbPicture v-if="pictureOf(verb.id)" class="h-8 w-12 shrink-0" :picture="pictureOf(verb.id)!" />
                <span v-else class="w-12 shrink-0" />
                {{ verb.title }}
              </li>
            </ul>
          </section>
          <section class="w-80 shrink-0" aria-label="Keys everywhere">
            <h3 class="heading mb-1">In every view</h3>
            <dl class="grid grid-cols-[6.5rem_1fr] gap-x-3 gap-y-1 text-sm leading-5">
              <template v-for="[keys, says] in VIEW_KEYS" :key="keys">
                <dt class="text-key font-mono text-[13px] whitespace-pre">{{ keys }}</dt>
                <dd>{{ says }}</dd>
              </template>
            </dl>
          </section>
        </div>
      </DialogPanel>
    </div>
  </Dialog>
</template>
