<script setup lang="ts">
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/vue';

/** What else can be done with one of a list. */
defineProps<{ of: string; verbs: readonly { readonly title: string; readonly run: () => void }[] }>();
</script>

<template>
  <Menu as="div" class="relative shrink-0">
    <MenuButton class="text-muted hover:text-ink px-1 leading-6" :aria-label="`More for ${of}`">⋮</MenuButton>
    <MenuItems class="bg-lit border-ink absolute right-0 z-30 min-w-32 border outline-none">
      <MenuItem v-for="verb in verbs" :key="verb.title" v-slot="{ active }">
        <button
          class="block w-full px-3 py-1 text-left whitespace-nowrap"
          :class="active ? 'bg-ink text-sheet' : ''"
          @click="verb.run"
        >
          {{ verb.title }}
        </button>
      </MenuItem>
    </MenuItems>
  </Menu>
</template>
