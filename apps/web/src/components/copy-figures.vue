<script setup lang="ts">
/** Figures with what they are; a click copies one. */
defineProps<{ figures: readonly (readonly [title: string, text: string])[]; prefix: string }>();
const copy = (text: string) => void navigator.clipboard?.writeText(text);
</script>

<template>
  <dl>
    <div v-for="[title, text] in figures" :key="title" class="flex items-baseline justify-between gap-3 py-0.5">
      <dt class="text-muted first-letter:uppercase">{{ title }}</dt>
      <dd>
        <button
          class="hover:bg-chip text-right font-mono text-[13px] whitespace-pre"
          :title="`Copy ${title.toLowerCase()}`"
          :data-testid="`${prefix}-${title}`"
          @click="copy(text)"
        >
          {{ text }}
        </button>
      </dd>
    </div>
  </dl>
</template>
