<script setup lang="ts">
import { computed, ref } from 'vue';
import { DETAIL_TIMES, explain, fail, ok, type Id, type Result, type View } from '@helb/core';
import { useSheets } from '../stores/sheets.ts';
import { typedNumber } from '../stores/typed-amount.ts';
import ChoiceWord from './choice-word.vue';
import TypedField from './typed-field.vue';

/** How much a detail shows, and how large. */
const props = defineProps<{ id: Id }>();
const sheets = useSheets();

type Detail = Extract<View, { kind: 'detail' }>;
const view = computed(() => sheets.sheet!.views[props.id] as Detail);
const times = Object.fromEntries(DETAIL_TIMES.map((n) => [`${n}`, `${n} times as large`]));

const message = ref('');
function setRadius(text: string): Result<void> {
  const radius = typedNumber(text);
  const refused = radius >= 0.01 && radius <= 1e5 ? undefined : fail('detail.radius');
  message.value = refused ? explain(refused.issue) : '';
  if (refused) return refused;
  sheets.setView(props.id, { radius });
  return ok(undefined);
}
</script>

<template>
  <p class="flex items-center gap-1.5 text-sm whitespace-nowrap">
    <span class="text-muted">within</span>
    <TypedField
      class="field w-14"
      :value="`${view.radius}`"
      label="How far round its middle it reaches, mm"
      :most="10"
      :change="setRadius"
    />
    <span class="text-muted">mm,</span>
    <ChoiceWord
      :value="`${view.times}`"
      :options="times"
      label="how large"
      @choose="(n) => sheets.setView(id, { times: Number(n) as Detail['times'] })"
    />
  </p>
  <p v-if="message" class="text-clash text-sm" role="alert">{{ message }}</p>
</template>
