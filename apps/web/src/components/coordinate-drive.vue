<script setup lang="ts">
import { computed, ref } from 'vue';
import {
  ANGLE,
  evaluate,
  explain,
  formatAmount,
  LENGTH,
  ok,
  valueScope,
  type Result,
  type CoordinateKey,
  isAngle,
} from '@helb/core';
import { useProject } from '../stores/project.ts';
import { useAssembly } from '../stores/assembly.ts';
import TypedField from './typed-field.vue';

/** One coordinate of a joint: read, drawn along, driven to a number, or let run. */
const props = defineProps<{ path: CoordinateKey; name: string; label: string }>();
const assemblyStore = useAssembly();
const store = useProject();

const DEGREES = 180 / Math.PI;
const angular = computed(() => isAngle(props.path));
const scale = computed(() => (angular.value ? DEGREES : 1));
const unit = computed(() => (angular.value ? '°' : 'mm'));
const value = computed(() => assemblyStore.pose?.coordinates.get(props.path) ?? 0);
/** Between its limits; a turn without them once round, a way as far as the mechanism is large. */
const range = computed((): readonly [number, number] => {
  const [least, most] = assemblyStore.assembled?.mechanism.limits.get(props.path) ?? [-Infinity, Infinity];
  const reach = angular.value ? Math.PI : 2 * (assemblyStore.assembled?.mechanism.size ?? 50);
  return [
    Number.isFinite(least) ? least : Number.isFinite(most) ? most - 2 * reach : -reach,
    Number.isFinite(most) ? most : Number.isFinite(least) ? least + 2 * reach : reach,
  ];
});
/** A turn that has gone round more than once stands where it would within one. */
const wrapped = computed(() => {
  const [least, most] = range.value;
  if (!angular.value || (value.value >= least && value.value <= most)) return value.value;
  return value.value - 2 * Math.PI * Math.round((value.value - (least + most) / 2) / (2 * Math.PI));
});

function slide(event: Event) {
  assemblyStore.stop();
  const wanted = Number((event.target as HTMLInputElement).value) / scale.value;
  assemblyStore.driveTo(new Map([[props.path, wanted + value.value - wrapped.value]]));
}

const wrong = ref('');
function type(text: string): Result<void> {
  wrong.value = '';
  const scope = valueScope(Object.values(store.project?.values ?? {}), store.project?.unit ?? 'mm');
  const read = evaluate(text, angular.value ? ANGLE : LENGTH, scope);
  if (!read.ok) {
    wrong.value = explain(read.issue);
    return read;
  }
  assemblyStore.stop();
  assemblyStore.driveTo(new Map([[props.path, read.value]]));
  return ok(undefined);
}
const running = computed(() => assemblyStore.running === props.path);
</script>

<template>
  <div class="py-0.5">
    <div class="flex items-center gap-2 text-sm">
      <span class="text-muted w-14 shrink-0">{{ name }}</span>
      <input
        type="range"
        class="min-w-0 grow"
        :min="range[0] * scale"
        :max="range[1] * scale"
        step="any"
        :value="wrapped * scale"
        :aria-label="`Drive ${label}`"
        :aria-valuetext="`${formatAmount(value * scale, 1)} ${unit}`"
        @input="slide"
      />
      <TypedField
        class="chip focus:border-act w-24 text-right outline-none"
        :value="assemblyStore.reading(path, 2)"
        :label="`Drive ${label} to`"
        :most="60"
        :change="type"
      />
      <button
        class="word-link w-10 text-left text-sm"
        :aria-label="`${running ? 'Stop' : 'Run'} ${label}`"
        :aria-pressed="running"
        @click="running ? assemblyStore.stop() : assemblyStore.animate(path)"
      >
        {{ running ? 'stop' : 'run' }}
      </button>
    </div>
    <p v-if="wrong" class="text-clash text-sm" role="alert">{{ wrong }}</p>
  </div>
</template>
