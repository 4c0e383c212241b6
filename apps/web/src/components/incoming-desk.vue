<script setup lang="ts">
import { computed, ref } from 'vue';
import { boxOfOutline } from '@helb/core/outlines';
import { useWorkbench } from '../stores/workbench.ts';

/** An outline from a file: what is in it, its unit and size, before it is drawn into the sketch. */
const bench = useWorkbench();

const UNITS = { mm: 1, cm: 10, m: 1000, in: 25.4 } as const;
type Unit = keyof typeof UNITS | 'file';

const incoming = computed(() => bench.incoming!);
const unit = ref<Unit>(incoming.value.outline.unit === undefined ? 'mm' : 'file');
const factor = computed(() => (unit.value === 'file' ? incoming.value.outline.unit! : UNITS[unit.value]));

const found = computed(() => {
  const counts: Record<string, number> = {};
  for (const { form } of incoming.value.outline.curves) counts[form] = (counts[form] ?? 0) + 1;
  return Object.entries(counts).map(
    ([form, count]) => `${count} ${form === 'bezier' ? 'spline' : form}${count > 1 ? 's' : ''}`,
  );
});
const skipped = computed(() =>
  Object.entries(incoming.value.outline.skipped).map(([name, count]) => `${count} × ${name}`),
);
const size = computed(() => {
  const { low, high } = boxOfOutline(incoming.value.outline.curves);
  return [0, 1].map((k) => ((high[k]! - low[k]!) * factor.value).toFixed(2)).join(' × ');
});
</script>

<template>
  <section class="border-rule border-b p-4" data-testid="incoming">
    <h2 class="heading mb-1">{{ incoming.file }}</h2>
    <p>{{ found.join(', ') }}.</p>
    <p v-if="skipped.length > 0" class="text-muted">Left out: {{ skipped.join(', ') }}.</p>
    <label class="my-2 flex items-baseline gap-2">
      One unit of the file is
      <select v-model="unit" class="field w-auto" aria-label="Unit of the file">
        <option v-if="incoming.outline.unit !== undefined" value="file">as the file says</option>
        <option v-for="(_, name) in UNITS" :key="name" :value="name">1 {{ name }}</option>
      </select>
    </label>
    <p>
      Size <span class="font-mono text-[13px]">{{ size }} mm</span>
    </p>
    <p class="mt-2 flex gap-4">
      <button class="verb-strong" @click="bench.drawIncoming(factor)">Draw it</button>
      <button class="word-link" @click="bench.incoming = undefined">leave it</button>
    </p>
  </section>
</template>
