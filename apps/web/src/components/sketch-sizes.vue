<script setup lang="ts">
import { computed } from 'vue';
import { explain, isSized, patternFields, relationKind, type Action, type Id } from '@helb/core';
import { useWorkbench } from '../stores/workbench.ts';
import NumberChip from './number-chip.vue';

const bench = useWorkbench();

/** All dimensions of the sketch that is being edited. */
const sizes = computed(() => {
  const { relations, solved } = bench.sketching!;
  return Object.entries(relations).flatMap(([id, relation]) => {
    if (!isSized(relation) || relation.measuring) return [];
    const { dimension, title, way } = relationKind(relation.kind);
    const issue = solved.unread.get(id);
    return [
      {
        id,
        text: relation.value,
        asks: dimension!.asks,
        prefix: dimension!.prefix ?? '',
        title: way?.(relation) ?? title.toLowerCase(),
        trouble: issue ? explain(issue) : '',
      },
    ];
  });
});

/** The counts and spacings of its patterns. */
const patterns = computed(() => {
  const { sketch, solved, step } = bench.sketching!;
  const { part } = bench.editor!;
  return Object.entries(sketch.patterns ?? {}).map(([id, pattern]) => {
    const issue = solved.unread.get(id);
    return {
      id,
      title: pattern.layout === 'line' ? 'pattern along a line' : 'pattern round a point',
      fields: patternFields(pattern).map((field) => ({
        ...field,
        change: (value: string): Action[] => [
          {
            command: 'sketch.pattern',
            input: { part, step, id, pattern: { ...pattern, [field.field]: value } },
          },
        ],
      })),
      trouble: issue ? explain(issue) : '',
    };
  });
});

const change =
  (relation: Id) =>
  (value: string): Action[] => [
    { command: 'sketch.size', input: { part: bench.editor!.part, step: bench.editor!.step, relation, value } },
  ];
</script>

<template>
  <div class="border-rule border-b px-4 py-3">
    <h2 class="heading mb-1 flex justify-between">
      In this sketch
      <span class="text-muted font-normal">{{ sizes.length === 1 ? '1 size' : `${sizes.length} sizes` }}</span>
    </h2>
    <p v-if="sizes.length === 0" class="text-muted text-sm">
      No sizes yet. Press N, click a line or circle, then type.
    </p>
    <div v-for="(size, k) in sizes" :key="size.id" class="py-0.5" @pointerenter="bench.editor?.hover(size.id)">
      <div class="flex items-baseline justify-between gap-2">
        <span class="text-muted">{{ k + 1 }} · {{ size.title }}</span>
        <NumberChip
          :text="size.text"
          :asks="size.asks"
          :prefix="size.prefix"
          :label="`${size.title} ${k + 1}`"
          :change="change(size.id)"
        />
      </div>
      <p v-if="size.trouble" class="text-clash text-sm">{{ size.trouble }}</p>
    </div>
    <div v-for="pattern in patterns" :key="pattern.id" class="py-0.5" @pointerenter="bench.editor?.hover(pattern.id)">
      <p class="text-muted flex justify-between">
        {{ pattern.title }}
        <button class="word-link" @click="bench.editor?.erase([pattern.id])">drop</button>
      </p>
      <div v-for="field in pattern.fields" :key="field.field" class="flex items-baseline justify-between gap-2 pl-3">
        <span class="text-muted">{{ field.title }}</span>
        <NumberChip :text="field.text" :asks="field.asks" :label="`pattern ${field.title}`" :change="field.change" />
      </div>
      <p v-if="pattern.trouble" class="text-clash text-sm">{{ pattern.trouble }}</p>
    </div>
  </div>
</template>
