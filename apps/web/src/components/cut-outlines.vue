<script setup lang="ts">
import { computed, ref } from 'vue';
import { ok, PART_COLOURS, type Id } from '@helb/core';
import { download, fileName } from '../download.ts';
import { OUTLINES } from '../outline-files.ts';
import { useBatch } from '../stores/batch.ts';
import { useDoubts } from '../stores/doubts.ts';
import { bytesOf, useModel } from '../stores/model.ts';
import { useProject } from '../stores/project.ts';
import { typedNumber } from '../stores/typed-amount.ts';
import TypedField from './typed-field.vue';

/** The largest flat face of each part as it is cut out, with or without the width of the cut. */
const store = useProject();
const model = useModel();
const batch = useBatch();
const doubts = useDoubts();
const message = ref('');
const busy = ref<string>();

const parts = computed(() => (store.kept?.partOrder ?? []).map((id) => ({ id, ...store.kept!.parts[id]! })));

/** Takes numbers of mm within what a cut can be; anything else is put back. */
const number = (text: string, most: number): number | undefined => {
  const value = typedNumber(text.replace(/mm$/, ''));
  return value >= 0 && value <= most ? value : undefined;
};
function setWidth(text: string) {
  const width = number(text, 100);
  message.value = width === undefined ? 'The width of a cut is a number of millimetres, 0 to 100.' : '';
  if (width !== undefined) batch.cutting = { ...batch.cutting, width };
  return ok(undefined);
}
function setArcs(text: string) {
  const arcs = text === '' ? undefined : number(text, 10);
  message.value = text !== '' && !arcs ? 'Arcs may be off by a number of millimetres, over 0 to 10.' : '';
  if (text === '' || arcs) batch.cutting = { width: batch.cutting.width, ...(arcs ? { arcs } : {}) };
  return ok(undefined);
}

const save = (id: Id, name: string, outline: (typeof OUTLINES)[number]) =>
  doubts.clear([id], () => write(id, name, outline));

async function write(id: Id, name: string, { format, type }: (typeof OUTLINES)[number]) {
  busy.value = `${id} ${format}`;
  const bytes = await model.engine
    .cut(store.project!, id, { ...batch.cutting }, format)
    .then(bytesOf, (error: unknown) => (error as Error).message);
  busy.value = undefined;
  message.value = typeof bytes === 'string' ? `${name}: ${bytes}` : '';
  if (typeof bytes !== 'string')
    download(`${fileName(name)}-outline.${format}`, bytes as Uint8Array<ArrayBuffer>, type);
}
</script>

<template>
  <section class="mb-6" aria-label="Flat faces as they are cut out">
    <table class="w-full border-collapse">
      <thead>
        <tr class="text-muted border-ink border-b text-left text-sm">
          <th class="py-1 font-normal">largest flat face, as it is cut out</th>
          <th class="font-normal" :colspan="OUTLINES.length">openings first, material to the left</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="{ id, name, colour } in parts" :key="id" class="border-rule border-b">
          <td class="py-1.5">
            <span class="mr-2 inline-block size-3 rounded-full" :style="{ background: PART_COLOURS[colour] }" />{{
              name
            }}
          </td>
          <td v-for="format in OUTLINES" :key="format.format">
            <button
              class="word-link"
              :disabled="busy !== undefined"
              :aria-label="`Download ${format.title} of the flat face of ${name}`"
              @click="save(id, name, format)"
            >
              {{ busy === `${id} ${format.format}` ? 'writing…' : format.title }}
            </button>
          </td>
        </tr>
      </tbody>
    </table>
    <p class="text-muted mt-2 flex flex-wrap items-center gap-x-2 gap-y-1 text-sm">
      width of the cut
      <TypedField
        class="field w-16"
        label="Width of the cut, mm"
        :value="`${batch.cutting.width}`"
        :change="setWidth"
      />
      mm (0: the outline itself); other curves as arcs within
      <TypedField
        class="field w-16"
        label="How far arcs may be off, mm"
        placeholder="as is"
        :value="batch.cutting.arcs === undefined ? '' : `${batch.cutting.arcs}`"
        :change="setArcs"
      />
      mm
    </p>
    <p v-if="message" class="text-clash mt-1" role="alert">{{ message }}</p>
  </section>
</template>
