<script setup lang="ts">
import { ref } from 'vue';
import { MOST_FILE, type Field, type FileRecord } from '@helb/core';
import { api } from '../../sync/api.ts';
import { useProject } from '../../stores/project.ts';

/** A file of the project: kept by the server before anything refers to it. */
const { field } = defineProps<{
  field: Extract<Field, { type: 'file' }>;
  value: FileRecord | undefined;
}>();
const emit = defineEmits<{ choose: [file: FileRecord] }>();

const store = useProject();
const state = ref<'' | 'sending'>('');
const wrong = ref('');

async function take(event: Event) {
  const input = event.target as HTMLInputElement;
  const file = input.files?.[0];
  input.value = '';
  if (!file) return;
  wrong.value = refusal(file);
  if (wrong.value) return;
  state.value = 'sending';
  try {
    const kept = await api.keepFile(store.id!, file);
    emit('choose', { ...kept, name: file.name.slice(-120) });
  } catch (error) {
    wrong.value = `${file.name} was not kept: ${(error as Error).message}`;
  }
  state.value = '';
}

function refusal({ name, size }: File): string {
  if (!field.endings.some((ending) => name.toLowerCase().endsWith(ending)))
    return `${name} does not end in ${field.endings.join(' or ')}.`;
  return size > MOST_FILE ? `${name} is larger than ${MOST_FILE / 1024 ** 2} MB.` : '';
}
</script>

<template>
  <div class="border-rule border-t py-1.5">
    <label class="flex items-baseline justify-between gap-3">
      <span class="text-muted first-letter:uppercase">{{ field.label }}</span>
      <span v-if="state === 'sending'" class="text-muted" role="status">sending …</span>
      <span v-else class="word-link cursor-pointer text-right break-all has-focus-visible:outline-2">
        {{ value ? value.name : 'choose a file' }}
        <input type="file" class="sr-only" :accept="field.endings.join(',')" :aria-label="field.label" @change="take" />
      </span>
    </label>
    <p v-if="wrong" class="text-clash text-sm" role="alert">{{ wrong }}</p>
  </div>
</template>
