<script setup lang="ts">
import { ref } from 'vue';

/** A name, changed where it stands; what is being typed stays even if the page is drawn anew meanwhile. */
defineProps<{ value: string; label: string }>();
const emit = defineEmits<{ change: [name: string] }>();
const typed = ref<string>();

function done() {
  const name = typed.value;
  typed.value = undefined;
  if (name !== undefined) emit('change', name);
}
</script>

<template>
  <input
    class="hover:bg-chip w-full bg-transparent font-semibold"
    :value="typed ?? value"
    :aria-label="label"
    maxlength="60"
    @input="typed = ($event.target as HTMLInputElement).value"
    @change="done"
    @keydown.enter.stop="($event.target as HTMLInputElement).blur()"
  />
</template>
