<script setup lang="ts">
import { Listbox, ListboxButton, ListboxOption, ListboxOptions } from '@headlessui/vue';

/** One of a few words in a sentence, changed where it stands. */
defineProps<{ value: string; options: Readonly<Record<string, string>>; label: string }>();
const emit = defineEmits<{ choose: [value: string] }>();

/** Chosen by the pointer the keys go back to the bench; chosen by keys the focus stays on the word. */
let byPointer = false;
function giveBack(event: FocusEvent) {
  if (byPointer) (event.target as HTMLElement).blur();
  byPointer = false;
}
</script>

<template>
  <Listbox
    :model-value="value"
    as="span"
    class="relative inline-block"
    @update:model-value="(next: string) => emit('choose', next)"
  >
    <ListboxButton
      class="decoration-muted hover:bg-chip text-left underline decoration-dotted underline-offset-3"
      :aria-label="`${label}: ${options[value]}`"
      @focus="giveBack"
      @keydown="byPointer = false"
      >{{ options[value] }}</ListboxButton
    >
    <ListboxOptions class="bg-lit border-ink absolute left-0 z-20 mt-1 min-w-32 border outline-none">
      <ListboxOption
        v-for="(title, key) in options"
        :key="key"
        v-slot="{ active, selected }"
        :value="key"
        as="template"
      >
        <li
          class="cursor-pointer px-2 py-1 whitespace-nowrap"
          :class="[active ? 'bg-ink text-sheet' : '', selected ? 'font-semibold' : '']"
          @pointerdown="byPointer = true"
        >
          {{ title }}
        </li>
      </ListboxOption>
    </ListboxOptions>
  </Listbox>
</template>
