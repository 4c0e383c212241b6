<script setup lang="ts">
import { computed } from 'vue';
import { PART_COLOURS, type Id } from '@helb/core';
import { freedomWords } from '@helb/core/assembly';
import { usePlacements } from '../stores/placements.ts';
import { useProject } from '../stores/project.ts';
import { useAssembly } from '../stores/assembly.ts';

/** Everything that is placed: shown or not, what it is, and how much it can still move. */
const store = useProject();
const assemblyStore = useAssembly();
const placements = usePlacements();

interface Row {
  readonly id: Id;
  readonly name: string;
  readonly colour: string | undefined;
  readonly count: number;
  readonly held: boolean;
  readonly members: readonly string[];
  readonly freedoms: number | undefined;
  readonly moves: string;
}

const rows = computed(() =>
  placements.records.map(([id, { name, of, held }]): Row => {
    const members = placements.membersOf(id);
    const part = 'part' in of ? store.project?.parts[of.part] : undefined;
    const bodies = [...new Set(members.map(({ body }) => body))];
    const ways = bodies.map((body) => assemblyStore.assembled?.freedoms.bodies[body]);
    const [only] = ways.length === 1 ? ways : [];
    return {
      id,
      name,
      colour: part && PART_COLOURS[part.colour],
      count: members.length,
      held,
      members: members.map((member) => member.id),
      freedoms: only?.count,
      moves: only ? freedomWords(only) : ways.length > 1 ? `a group of ${ways.length} that move` : '',
    };
  }),
);
const isHidden = ({ members }: Row) => members.length > 0 && members.every((id) => assemblyStore.hidden.has(id));

function choose({ id, members }: Row, event: MouseEvent) {
  const add = event.shiftKey || event.ctrlKey;
  const chosen = placements.chosen.includes(id);
  const others = add ? assemblyStore.picked.filter(({ member }) => !members.includes(member)) : [];
  assemblyStore.choose(chosen && add ? others : [...others, ...members]);
}
</script>

<template>
  <section v-if="rows.length > 0">
    <h2 class="heading px-4 pt-3 pb-1">
      Placed <span class="text-muted font-normal">{{ assemblyStore.assembled?.members.length ?? rows.length }}</span>
    </h2>
    <ul aria-label="Placements">
      <li
        v-for="row in rows"
        :key="row.id"
        class="border-rule relative flex items-center gap-2 border-b px-4 py-1"
        :class="placements.chosen.includes(row.id) ? 'bg-lit' : ''"
        @mouseenter="assemblyStore.lit = row.members"
        @mouseleave="assemblyStore.lit = []"
      >
        <span v-if="placements.chosen.includes(row.id)" class="bg-act absolute inset-y-0 left-0 w-[3px]" />
        <input
          type="checkbox"
          :checked="!isHidden(row)"
          :aria-label="`Show ${row.name}`"
          @change="assemblyStore.toggleHidden(row.members, !isHidden(row))"
        />
        <span
          class="size-3 shrink-0"
          :class="row.colour ? 'rounded-full' : 'border-ink border'"
          :style="{ background: row.colour }"
        />
        <button class="min-w-0 grow truncate text-left" @click="choose(row, $event)">
          {{ row.name }}<span v-if="row.count > 1" class="text-muted"> × {{ row.count }}</span>
        </button>
        <span v-if="row.held" class="text-muted text-sm">held</span>
        <span
          v-else-if="row.freedoms !== undefined"
          class="font-mono text-[13px]"
          :class="row.freedoms > 0 ? 'text-loose' : 'text-muted'"
          :title="row.moves"
          :aria-label="row.moves"
          >{{ row.freedoms }}</span
        >
      </li>
    </ul>
  </section>
</template>
