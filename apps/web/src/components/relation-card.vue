<script setup lang="ts">
import { computed } from 'vue';
import type { Action, Id } from '@helb/core';
import { ASSEMBLY_RELATIONS, FACINGS, type FacingName, type RelationRecord } from '@helb/core/assembly';
import { useAssembly } from '../stores/assembly.ts';
import { useProject } from '../stores/project.ts';
import ChoiceWord from './choice-word.vue';
import NumberChip from './number-chip.vue';

/** A relation of two parts: what it says, its number, how the two look. */
const props = defineProps<{ id: Id; record: RelationRecord }>();
const store = useProject();
const assemblyStore = useAssembly();

const kind = computed(() => ASSEMBLY_RELATIONS[props.record.kind]);
const wrong = computed(() => assemblyStore.troubleOf(props.id));
const setting = (fields: Partial<RelationRecord>): Action[] => [
  { command: 'assembly-relation.set', input: { id: props.id, fields } },
];
</script>

<template>
  <li class="border-rule border-b px-4 py-1.5 text-sm" :aria-label="record.name">
    <div class="flex items-baseline justify-between gap-2">
      <span>
        {{ assemblyStore.nameOf(record.a.placement) }} and {{ assemblyStore.nameOf(record.b.placement) }}
        {{ kind.title }}
        <NumberChip
          v-if="record.amount !== undefined && kind.asks"
          :text="record.amount"
          :asks="kind.asks"
          :label="`Amount of ${record.name}`"
          :change="(amount) => setting({ amount })"
        />
        <template v-if="record.facing">
          ·
          <ChoiceWord
            :value="record.facing"
            :options="FACINGS"
            :label="`facing of ${record.name}`"
            @choose="(facing) => store.act(setting({ facing: facing as FacingName }))"
          />
        </template>
      </span>
      <button
        class="word-link"
        :aria-label="`Remove ${record.name}`"
        @click="store.act([{ command: 'assembly-relation.remove', input: { ids: [id] } }])"
      >
        remove
      </button>
    </div>
    <p v-if="wrong" class="text-clash" role="alert">{{ wrong }}</p>
  </li>
</template>
