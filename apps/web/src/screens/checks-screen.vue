<script setup lang="ts">
import { onBeforeUnmount, watch } from 'vue';
import { drawnPart, LENGTH, NUMBER, PART_COLOURS, USUAL_LIMITS, type Id } from '@helb/core';
import NumberChip from '../components/number-chip.vue';
import { useChecks } from '../stores/checks.ts';
import { useProject } from '../stores/project.ts';

/** Every finding of the project, by what it stands in the way of, each shown where it is and mended where that can be. */
const store = useProject();
const checks = useChecks();

watch(
  () => store.id,
  () => checks.isCurrent || void checks.look(),
  { immediate: true },
);
onBeforeUnmount(() => checks.stop());

const colourOf = (part: Id) => PART_COLOURS[store.project!.parts[part]?.colour ?? 0];
function nameOf({ part, step, sheet }: { part?: Id; step?: Id; sheet?: Id }): string {
  if (sheet !== undefined) return `Sheet “${store.project!.sheets?.[sheet]?.name ?? '?'}”`;
  if (part === undefined) return '';
  const { name = '?' } = store.project!.parts[part] ?? {};
  const stepName = step === undefined ? undefined : drawnPart(store.project!, part)?.steps[step]?.name;
  return stepName ? `${name} · ${stepName}` : name;
}
</script>

<template>
  <main class="room overflow-y-auto">
    <div class="mx-auto max-w-4xl px-6 py-5">
      <header class="border-ink flex items-baseline gap-4 border-b pb-2">
        <h1 class="heading text-lg">
          Checks
          <span v-if="checks.found" class="text-muted font-normal">{{ checks.found.length }}</span>
        </h1>
        <p class="text-muted grow" role="status">
          <template v-if="checks.busy"
            >looking at {{ checks.progress || 'the model' }} …
            <button class="word-link ml-1.5" @click="checks.stop()">stop</button></template
          >
          <template v-else-if="checks.found && !checks.isCurrent"
            >The project has changed since.
            <button class="word-link ml-1.5" @click="checks.look()">look through it again</button></template
          >
        </p>
        <p class="text-muted text-sm">
          walls at least
          <NumberChip
            :text="store.project?.limits?.wall ?? USUAL_LIMITS.wall"
            :asks="LENGTH"
            label="thinnest wall"
            :change="checks.setLimit('wall')"
          />
          beside holes at least
          <NumberChip
            :text="store.project?.limits?.web ?? USUAL_LIMITS.web"
            :asks="NUMBER"
            label="left beside holes, in diameters"
            :change="checks.setLimit('web')"
          />
          × ⌀
        </p>
      </header>
      <p v-if="checks.message" class="text-clash pt-2" role="alert">{{ checks.message }}</p>
      <p v-if="checks.found?.length === 0" class="pt-4">
        Nothing found. Have somebody else look at it too: nothing here proves strength.
      </p>
      <section v-for="{ blocks, title, findings } in checks.groups" :key="blocks" class="pt-5" :aria-label="title">
        <h2 class="heading border-rule border-b pb-1">
          {{ title }} <span class="text-muted font-normal">{{ findings.length }}</span>
        </h2>
        <ul>
          <li
            v-for="(finding, k) in findings"
            :key="k"
            class="border-rule flex items-baseline gap-3 border-b py-1.5 leading-5"
          >
            <span
              class="size-2.5 shrink-0 self-center rounded-full"
              :class="finding.part === undefined ? 'border-muted border' : ''"
              :style="finding.part === undefined ? {} : { background: colourOf(finding.part) }"
            />
            <span class="w-64 shrink-0 truncate font-semibold" :title="nameOf(finding)">{{ nameOf(finding) }}</span>
            <span class="grow">{{ finding.words }}</span>
            <button
              v-if="finding.cure"
              class="word-link shrink-0"
              :disabled="!checks.isCurrent || checks.busy"
              @click="checks.cure(finding)"
            >
              {{ finding.cure.label }}
            </button>
            <button class="word-link shrink-0" @click="checks.show(finding)">show me</button>
          </li>
        </ul>
      </section>
    </div>
  </main>
</template>
