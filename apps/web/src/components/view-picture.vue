<script setup lang="ts">
import { ref } from 'vue';
import { download, fileName } from '../download.ts';

/** What the view shows as a picture in a file. */
const { name, take } = defineProps<{ name: string; take: () => Promise<Blob> | undefined }>();
const wrong = ref(false);
async function save() {
  const blob = await Promise.resolve(take()).catch(() => undefined);
  wrong.value = blob === undefined;
  if (blob) download(`${fileName(name)}.png`, blob, 'image/png');
}
</script>

<template>
  <button
    class="text-muted hover:text-ink"
    :title="wrong ? 'There is no picture yet: try again' : 'What is seen here as a PNG file'"
    @click="save"
  >
    Picture
  </button>
</template>
