<script setup lang="ts">
import { computed } from 'vue';
import { basisOf, designScope, explain, formatQuantity, stepKind, valueScope, type Action, type Id } from '@helb/core';
import { useWorkbench } from '../stores/workbench.ts';
import { useBrought } from '../stores/brought.ts';
import { useModel } from '../stores/model.ts';
import { useProject } from '../stores/project.ts';
import { useUnits } from '../stores/units.ts';
import NumberChip from './number-chip.vue';

/** A part from another project: where it comes from, what is new there, what it is given here, how it is built. */
const bench = useWorkbench();
const store = useProject();
const model = useModel();
const brought = useBrought();
const { explained } = useUnits();

const MISSING = {
  project: 'This project is not on your shelf any more.',
  part: 'This project has no such part any more.',
  variant: 'This project has no such variant any more.',
} as const;

const from = computed(() => bench.part!.from!);
const news = computed(() => brought.news.get(bench.partId!));

/** Its numbers in the project that it comes from, and what they are here. */
const values = computed(() => {
  const { design, given = {} } = from.value;
  const { project } = store;
  if (!project) return [];
  const there = valueScope(Object.values(design.values), design.unit);
  const here = designScope(from.value, valueScope(Object.values(project.values), project.unit));
  return design.valueOrder.flatMap((id) => {
    const { name, note } = design.values[id]!;
    const [own, now] = [there.lookup(name), here.lookup(name)];
    if (!own.ok) return [];
    const words = formatQuantity(own.value, design.unit, 4);
    return [
      {
        ...{ id, name, note, there: words, asks: own.value.dimension },
        given: given[id],
        text: given[id] ?? (now.ok ? formatQuantity(now.value, design.unit, 4) : words),
        trouble: now.ok ? '' : explain(now.issue),
      },
    ];
  });
});
const giving =
  (value: Id) =>
  (expression: string): Action[] => [{ command: 'part.give', input: { id: bench.partId!, value, expression } }];

const steps = computed(() => {
  const { part, partId } = bench;
  const results = new Map(model.built?.part === partId ? model.built?.steps.map((step) => [step.id, step]) : []);
  return part!.stepOrder.map((id) => {
    const step = part!.steps[id]!;
    const { issue, references = [] } = results.get(id) ?? {};
    return {
      id,
      name: step.name,
      kind: stepKind(step.kind).title,
      suppressed: step.suppressed === true,
      trouble: issue && !step.suppressed ? explained(issue) : '',
      unsure: references.length,
    };
  });
});
</script>

<template>
  <div class="grow overflow-y-auto" aria-label="A part from another project">
    <section class="border-rule border-b px-4 py-3">
      <h2 class="heading">{{ bench.part!.name }}</h2>
      <p>
        is drawn in
        <RouterLink
          v-if="from.project && news?.kind !== 'missing'"
          class="word-link"
          :to="{ name: 'bench', params: { id: from.project } }"
          >{{ from.design.name }}</RouterLink><strong v-else class="font-semibold">{{ from.design.name }}</strong
        ><template v-if="from.variant !== undefined">
          as <strong class="font-semibold">{{ basisOf(from.design) }}</strong></template
        ><template v-if="from.project"
          >, here as in revision <span class="font-mono text-[13px]">{{ from.revision }}</span></template
        ><template v-else>, brought from its file</template>. Its steps are changed there.
      </p>
      <p v-if="news?.kind === 'missing'" class="text-loose mt-2" role="status">
        {{ MISSING[news.what] }}
        The part stays here as it was.
      </p>
      <div v-else-if="news?.kind === 'newer'" class="bg-lit border-loose mt-2 border-l-3 px-3 py-2" role="status">
        <p>Revision {{ news.origin.revision }} is newer:</p>
        <ul class="my-1 list-disc pl-5 text-sm">
          <li v-for="change in news.changes" :key="change">{{ change }}</li>
        </ul>
        <button class="verb" @click="brought.take([bench.partId!])">Take revision {{ news.origin.revision }}</button>
      </div>
      <p v-else-if="news" class="text-muted mt-1 text-sm">Nothing is newer there.</p>
      <p v-if="brought.message" class="text-clash mt-1 text-sm" role="alert">{{ brought.message }}</p>
    </section>
    <section v-if="values.length > 0" class="border-rule border-b px-4 py-3" aria-label="Its values">
      <h2 class="heading mb-1">Its values</h2>
      <p class="text-muted mb-1 text-sm">Type a number or an expression of this project to give it another.</p>
      <div v-for="value in values" :key="value.id" class="border-rule border-t py-1">
        <p class="flex items-baseline justify-between gap-3" :title="value.note ?? ''">
          <span class="min-w-0 grow truncate">{{ value.name }}</span>
          <NumberChip
            :text="value.text"
            :asks="value.asks"
            :label="value.name"
            :change="giving(value.id)"
            :class="value.given === undefined ? 'text-muted' : ''"
          />
        </p>
        <p v-if="value.given !== undefined" class="text-muted flex justify-between text-sm">
          <span>{{ value.there }} there</span>
          <button
            class="word-link"
            :aria-label="`Leave ${value.name} as it is there`"
            @click="store.act([{ command: 'part.give', input: { id: bench.partId!, value: value.id } }])"
          >
            as there
          </button>
        </p>
        <p v-if="value.trouble" class="text-clash text-sm" role="alert">{{ value.trouble }}</p>
      </div>
    </section>
    <ol class="px-4 py-3" aria-label="Steps of the part">
      <li
        v-for="(step, k) in steps"
        :key="step.id"
        class="flex gap-3 leading-6"
        :class="step.suppressed ? 'text-muted line-through' : ''"
        @pointerenter="bench.pointedStep = step.id"
        @pointerleave="bench.pointedStep = undefined"
      >
        <span class="text-muted w-4 shrink-0 font-mono text-[13px]">{{ k + 1 }}</span>
        <span class="min-w-0">
          {{ step.name }} <span class="text-muted text-sm">{{ step.kind.toLowerCase() }}</span>
          <span v-if="step.trouble" class="text-clash block text-sm" role="alert">{{ step.trouble }}</span>
          <span v-else-if="step.unsure > 0" class="text-loose block text-sm">
            {{ step.unsure === 1 ? '1 reference is' : `${step.unsure} references are` }} not found by name
          </span>
        </span>
      </li>
    </ol>
  </div>
</template>
