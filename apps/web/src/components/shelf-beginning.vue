<script setup lang="ts">
/** How one begins, while there is room on the shelf. */
const emit = defineEmits<{ draw: []; demo: []; tasks: [] }>();

const WAYS = [
  {
    title: 'Draw a part',
    says: 'An outline with its sizes, made solid: begun on an empty sheet, in the unit that you choose.',
    run: () => emit('draw'),
    // an outline with a size, and what it becomes
    lines: [
      'M8 44V20h18v10h14v14z',
      'M8 12h18M8 9v6M26 9v6',
      'M60 44V24l10-8h14v10h12v10l-8 8zM60 24h14l10-8M74 24v10h14l8-8M74 34v10M88 34v10',
    ],
  },
  {
    title: 'Three short tasks',
    says: 'Draw and settle, make and change, join and move: ten steps in a copy of the demo, each ticked when it is done.',
    run: () => emit('tasks'),
    // what is done and what comes next
    lines: ['M10 12l3 3l6 -7M10 28l3 3l6 -7', 'M28 12h44M28 28h34M28 44h50', 'M10 40h9v8h-9z'],
  },
  {
    title: 'Look round in the demo',
    says: 'A hand-cranked seed sieve: fifteen parts with their numbers, joints that move, sheets. A copy of your own, to take apart.',
    run: () => emit('demo'),
    // a crank that drives a tray
    lines: [
      'M20 30m-12 0a12 12 0 1 0 24 0a12 12 0 1 0-24 0M20 30m-2 0a2 2 0 1 0 4 0a2 2 0 1 0-4 0',
      'M20 30L28 21L66 30',
      'M58 24h36v12H58zM62 36v6M90 36v6M54 42h44',
    ],
  },
] as const;
</script>

<template>
  <section aria-label="Begin" class="flex flex-wrap gap-6">
    <button
      v-for="{ title, says, run, lines } in WAYS"
      :key="title"
      class="bg-sheet border-rule hover:border-ink w-[300px] border p-4 text-left"
      @click="run"
    >
      <svg
        viewBox="0 0 104 54"
        class="mb-3 h-20"
        fill="none"
        stroke="currentColor"
        stroke-linejoin="round"
        aria-hidden="true"
      >
        <path v-for="(line, k) in lines" :key="k" :d="line" :stroke-width="k === 1 ? 0.8 : 1.3" />
      </svg>
      <span class="text-link block font-semibold">{{ title }}</span>
      <span class="text-muted block text-sm">{{ says }}</span>
    </button>
  </section>
</template>
