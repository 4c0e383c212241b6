<script setup lang="ts">
import { computed, ref } from 'vue';
import { explain, PART_COLOURS, type Action, type Id, type Issue, type Part } from '@helb/core';
import { newId } from '../stores/ids.ts';
import { useLooking } from '../stores/looking.ts';
import { useWorkbench } from '../stores/workbench.ts';
import { useBrought, type News } from '../stores/brought.ts';
import { useModel } from '../stores/model.ts';
import { usePlacements } from '../stores/placements.ts';
import { useProject } from '../stores/project.ts';
import { useAssembly } from '../stores/assembly.ts';
import BringPart from './bring-part.vue';
import NameField from './name-field.vue';
import PartLinks from './part-links.vue';
import PlacementsList from './placements-list.vue';

const store = useProject();
const bench = useWorkbench();
const looking = useLooking();
const placements = usePlacements();
const brought = useBrought();
const model = useModel();
const assemblyStore = useAssembly();
const emit = defineEmits<{ edit: [id: Id] }>();
const renaming = ref<Id>();
const name = ref('');

/** A new one is drawn in place among the others; the first of all is placed for that. Its name is asked at once. */
function add() {
  const { parts, partOrder } = store.kept!;
  const id = newId('part');
  const title = `Part ${partOrder.length + 1}`;
  const [first, ...more] = partOrder;
  const isAlone = placements.records.length === 0 && more.length === 0;
  const places = isAlone ? [placements.drawnInPlace(first!, parts[first!]!.name)] : [];
  const result = store.act([...places, ...adding(id, title, isAlone || isPlaced())]);
  if (!result.ok) return;
  bench.show(id);
  looking.among = true;
  [name.value, renaming.value, isNew] = [title, id, true];
}
const isPlaced = () => placements.records.length > 0;
const adding = (id: Id, title: string, inPlace: boolean): Action[] => [
  { command: 'part.add', input: { id, name: title } },
  ...(inPlace ? [placements.drawnInPlace(id, title)] : []),
];
/** Is the part that is being named new? Then it is drawn next. */
let isNew = false;

/** A ring for what is drawn elsewhere. */
const dotOf = ({ colour, from }: Part) => ({
  borderColor: PART_COLOURS[colour],
  background: from ? 'transparent' : PART_COLOURS[colour],
});
const originOf = ({ from }: Part) => (from ? `from ${from.design.name}` : '');

/** Of the part that is shown, and of those that are placed. */
const troubleOf = (id: Id): Issue | undefined =>
  model.built?.part === id ? model.built.trouble : assemblyStore.built?.parts[id]?.trouble;

/** What is told of a part that comes from another project. */
const NEWS: Record<News['kind'], string> = { 'as it is': '', newer: 'newer', missing: 'source gone' };

/** Groups as they can be placed again. */
const groups = computed(() => Object.entries(store.project?.groups ?? {}));

function edit(id: Id) {
  bench.show(id);
  emit('edit', id);
}

function rename(id: Id) {
  if (renaming.value !== id) return;
  renaming.value = undefined;
  // several names make several parts
  const names = isNew ? name.value.split(',').map((one) => one.trim()) : [name.value.trim()];
  const [next, ...more] = names.filter((one) => one !== '');
  const isOther = next !== undefined && next !== store.kept?.parts[id]?.name;
  const actions = [
    ...(isOther ? [{ command: 'part.rename' as const, input: { id, name: next } }] : []),
    ...more.flatMap((title) => adding(newId('part'), title, isPlaced())),
  ];
  if (actions.length > 0) store.act(actions);
  leaveName();
}
function leaveName() {
  if (isNew) emit('edit', bench.partId!);
  isNew = false;
  renaming.value = undefined;
}

const vFocus = { mounted: (element: HTMLInputElement) => element.select() };
</script>

<template>
  <div class="grow overflow-y-auto">
    <PlacementsList />
    <h2 class="heading px-4 pt-3 pb-1">
      Parts <span class="text-muted font-normal">{{ store.project?.partOrder.length }}</span>
    </h2>
    <ul aria-label="Parts of the project">
      <li
        v-for="id in store.project?.partOrder"
        :key="id"
        class="border-rule relative flex items-center gap-2 border-b px-4 py-1"
        :class="id === bench.partId ? 'bg-lit' : ''"
      >
        <span
          class="size-3 shrink-0 rounded-full border-2"
          :style="dotOf(store.project!.parts[id]!)"
          :title="originOf(store.project!.parts[id]!)"
        />
        <input
          v-if="renaming === id"
          v-model="name"
          v-focus
          class="field"
          aria-label="Name of the part"
          maxlength="600"
          title="Several names with commas between them make several parts."
          @keydown.enter="rename(id)"
          @keydown.esc.stop="leaveName"
          @blur="rename(id)"
        />
        <button
          v-else
          class="min-w-0 grow truncate text-left"
          :class="id === bench.partId ? 'font-semibold' : ''"
          :title="`Edit ${store.project!.parts[id]!.name}`"
          @click="edit(id)"
        >
          {{ store.project!.parts[id]!.name }}
        </button>
        <span
          v-if="troubleOf(id)"
          class="text-clash shrink-0 text-[13px]"
          :title="explain(troubleOf(id)!)"
          data-testid="part-trouble"
          >not as told</span
        >
        <span v-if="NEWS[brought.news.get(id)?.kind ?? 'as it is']" class="text-loose shrink-0 text-[13px]">{{
          NEWS[brought.news.get(id)!.kind]
        }}</span>
        <button
          class="word-link text-sm"
          :aria-label="`Place ${store.project!.parts[id]!.name}`"
          @click="placements.place({ part: id }, store.project!.parts[id]!.name)"
        >
          place
        </button>
        <button
          class="word-link text-sm"
          :aria-label="`Rename ${store.project!.parts[id]!.name}`"
          @click="((name = store.project!.parts[id]!.name), (renaming = id))"
        >
          rename
        </button>
        <button
          v-if="store.project!.partOrder.length > 1"
          class="word-link text-sm"
          :aria-label="`Remove ${store.project!.parts[id]!.name}`"
          @click="store.act([{ command: 'part.remove', input: { id } }])"
        >
          remove
        </button>
      </li>
    </ul>
    <div class="flex flex-wrap">
      <button class="word-link px-4 py-2" @click="add">+ new part</button>
      <BringPart />
    </div>
    <p v-if="brought.newer.length > 1" class="px-4 pb-2 text-sm">
      {{ brought.newer.length }} parts are newer where they come from:
      <button class="word-link" @click="brought.take(brought.newer.map(({ id }) => id))">take all</button>
    </p>
    <PartLinks @edit="edit" />
    <template v-if="groups.length > 0">
      <h2 class="heading px-4 pt-3 pb-1">Groups</h2>
      <ul aria-label="Groups of the project">
        <li v-for="[id, group] in groups" :key="id" class="border-rule flex items-baseline gap-2 border-b px-4 py-1">
          <NameField
            class="min-w-0 grow"
            :value="group.name"
            :label="`Name of ${group.name}`"
            @change="
              (next) => next.trim() && store.act([{ command: 'group.rename', input: { id, name: next.trim() } }])
            "
          />
          <button
            class="word-link text-sm"
            :aria-label="`Place ${group.name}`"
            @click="placements.place({ group: id, stiff: false }, group.name)"
          >
            place
          </button>
          <button
            class="word-link text-sm"
            :aria-label="`Remove ${group.name}`"
            @click="store.act([{ command: 'group.remove', input: { id } }])"
          >
            remove
          </button>
        </li>
      </ul>
    </template>
  </div>
</template>
