<script setup lang="ts">
import { computed, ref } from 'vue';
import { download, fileName } from '../download.ts';
import { OUTLINES } from '../outline-files.ts';
import { useBatch } from '../stores/batch.ts';
import { useWorkbench } from '../stores/workbench.ts';
import { bytesOf, useModel } from '../stores/model.ts';
import { useProject } from '../stores/project.ts';

/** The flat face that is picked, as it is cut out. */
const bench = useWorkbench();
const model = useModel();
const store = useProject();
const batch = useBatch();
const message = ref('');

const face = computed(() => {
  const [pick, ...more] = bench.picked;
  return pick?.thing.to === 'face' && pick.thing.face.surface.form === 'plane' && more.length === 0
    ? pick.reference
    : undefined;
});
async function save({ format, type }: (typeof OUTLINES)[number]) {
  const bytes = await model.engine
    .cut(store.project!, bench.partId!, { ...batch.cutting, face: face.value! }, format)
    .then(bytesOf, (error: unknown) => (error as Error).message);
  message.value = typeof bytes === 'string' ? bytes : '';
  if (typeof bytes !== 'string')
    download(`${fileName(bench.part!.name)}-face.${format}`, bytes as Uint8Array<ArrayBuffer>, type);
}
</script>

<template>
  <p v-if="face" class="mt-1 text-sm" title="With the width of the cut that is set at Output">
    <span class="text-muted">As it is cut out, {{ batch.cutting.width }} mm wide:</span>
    <button v-for="outline in OUTLINES" :key="outline.format" class="word-link ml-2" @click="save(outline)">
      {{ outline.title }}
    </button>
  </p>
  <p v-if="message" class="text-clash text-sm" role="alert">{{ message }}</p>
</template>
