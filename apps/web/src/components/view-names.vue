<script setup lang="ts">
/** The sides from which something can be looked at, the present one marked. */
defineProps<{ names: readonly string[]; current: string }>();
const emit = defineEmits<{ look: [name: string] }>();
</script>

<template>
  <button
    v-for="name in names"
    :key="name"
    class="border-b"
    :class="current === name ? 'border-ink text-ink font-semibold' : 'text-muted hover:text-ink border-transparent'"
    @click="emit('look', name)"
  >
    {{ name }}
  </button>
</template>
