<script setup lang="ts">
import { computed } from 'vue';
import { PART_COLOURS } from '@helb/core';
import { useProject } from '../stores/project.ts';
import { useSheets } from '../stores/sheets.ts';

/** The sheets of the project, and the parts of which one can be begun. */
const store = useProject();
const sheets = useSheets();
/** The dot of a part; of the whole an open one. */
const dotOf = (part: string | undefined) =>
  part === undefined ? { border: '1px solid #111' } : { background: PART_COLOURS[store.project!.parts[part]!.colour] };
const isPlaced = computed(() => Object.keys(store.project?.assembly?.placements ?? {}).length > 0);
</script>

<template>
  <div class="border-rule bg-sheet w-80 shrink-0 overflow-y-auto border-r">
    <h1 class="heading px-4 pt-3 pb-1">
      Sheets <span class="text-muted font-normal">{{ sheets.order.length }}</span>
    </h1>
    <p v-if="sheets.order.length === 0" class="text-muted px-4 pb-2">
      Nothing is drawn yet. Choose a part below: its views are laid out at once.
    </p>
    <ul aria-label="Sheets of the project">
      <li
        v-for="id in sheets.order"
        :key="id"
        class="border-rule flex items-center gap-2 border-b border-l-3 px-4 py-1"
        :class="id === sheets.id ? 'bg-lit border-l-act' : 'border-l-transparent'"
      >
        <span class="size-3 shrink-0 rounded-full" :style="dotOf(store.project!.sheets![id]!.part)" />
        <button class="min-w-0 grow truncate text-left" :aria-current="id === sheets.id" @click="sheets.show(id)">
          {{ store.project!.sheets![id]!.name }}
        </button>
        <span class="text-muted text-sm">{{ store.project!.sheets![id]!.paper }}</span>
        <button
          class="word-link text-sm"
          :aria-label="`Remove the sheet ${store.project!.sheets![id]!.name}`"
          @click="sheets.remove(id)"
        >
          remove
        </button>
      </li>
    </ul>
    <p v-if="sheets.order.length > 1" class="px-4 pt-2">
      <button class="word-link" :disabled="sheets.busy" @click="sheets.save(sheets.order, 'pdf')">
        all in one PDF file
      </button>
    </p>
    <h2 class="heading px-4 pt-4 pb-1">Begin a sheet of</h2>
    <ul aria-label="Parts to draw">
      <li v-if="isPlaced">
        <button
          class="hover:bg-chip flex w-full items-center gap-2 px-4 py-0.5 text-left"
          aria-label="Draw the whole"
          @click="sheets.add()"
        >
          <span class="size-3 shrink-0 rounded-full" :style="dotOf(undefined)" />
          the whole, with its list of parts
        </button>
      </li>
      <li v-for="id in store.project?.partOrder" :key="id">
        <button
          class="hover:bg-chip flex w-full items-center gap-2 px-4 py-0.5 text-left"
          :aria-label="`Draw ${store.project!.parts[id]!.name}`"
          @click="sheets.add(id)"
        >
          <span class="size-3 shrink-0 rounded-full" :style="dotOf(id)" />
          {{ store.project!.parts[id]!.name }}
        </button>
      </li>
    </ul>
  </div>
</template>
