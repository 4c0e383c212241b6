<script setup lang="ts">
import { computed, ref } from 'vue';
import {
  drawnPart,
  evaluate,
  explain,
  formatAmount,
  formatMeasured,
  LENGTH,
  ok,
  ORIGIN_PLANES,
  valueScope,
  type Frame,
  type Id,
  type Result,
  transformFrame,
  placementOfMember,
  frameSeenFrom,
} from '@helb/core';
import { memberPose } from '@helb/core/assembly';
import { seenFrom, type Interference } from '@helb/engine';
import { newId } from '../stores/ids.ts';
import { useJoining } from '../stores/joining.ts';
import { usePlacements } from '../stores/placements.ts';
import { useProject } from '../stores/project.ts';
import { useAssembly } from '../stores/assembly.ts';
import { useUnits } from '../stores/units.ts';
import ChoiceWord from './choice-word.vue';
import CopyFigures from './copy-figures.vue';
import DeskMessage from './desk-message.vue';
import JoiningDesk from './joining-desk.vue';
import PlacedReadings from './placed-readings.vue';
import PlacementDesk from './placement-desk.vue';
import TypedField from './typed-field.vue';

/** The whole: what is picked of it, what it is made of, what it weighs, and whether its parts are in each other's way. */
const store = useProject();
const assemblyStore = useAssembly();
const joining = useJoining();
const placements = usePlacements();
const units = useUnits();
const emit = defineEmits<{ edit: [] }>();

const billOfMaterials = computed(() => assemblyStore.built?.billOfMaterials ?? []);

/** Where the mass is seen from: the origin, or a datum frame or point of something placed. */
const from = ref('');
const ORIGIN = ORIGIN_PLANES.top;
const frames = computed((): Record<string, { words: string; frame: Frame }> => {
  const found: Record<string, { words: string; frame: Frame }> = { '': { words: 'the origin', frame: ORIGIN } };
  const [all, pose] = [assemblyStore.assembled, assemblyStore.pose];
  if (!all || !pose) return found;
  for (const member of all.members)
    for (const [step, datum] of Object.entries(assemblyStore.built!.parts[member.part]?.datums ?? {})) {
      const local = frameSeenFrom(datum);
      const name = (store.project && drawnPart(store.project, member.part)?.steps[step]?.name) ?? 'a step that is gone';
      if (local)
        found[`${member.id} ${step}`] = {
          words: `${member.name} · ${name}`,
          frame: transformFrame(local, memberPose(member, pose)),
        };
    }
  return found;
});
const options = computed(() => Object.fromEntries(Object.entries(frames.value).map(([id, { words }]) => [id, words])));
const chosen = computed(() => (frames.value[from.value] ? from.value : ''));

const figures = computed((): [string, string][] => {
  const { totals } = assemblyStore;
  if (!totals) return [];
  const seen = seenFrom(totals, frames.value[chosen.value]!.frame);
  return [
    [
      'Mass',
      `${formatMeasured(totals.mass_g, totals.off.mass_g, 1)} g${totals.unknown > 0 ? ` + ${totals.unknown} of no material` : ''}`,
    ],
    ['Volume', units.volume(totals.volume_mm3, totals.off.volume_mm3)],
    ['Size', assemblyStore.box ? units.size(assemblyStore.box) : '…'],
    ['Freedoms', String(assemblyStore.assembled?.freedoms.count ?? '…')],
    ...(seen.centre_mm ? ([['Centre', units.place(seen.centre_mm)]] as [string, string][]) : []),
  ];
});

const within = ref('0 mm');
const far = computed(() => {
  const scope = valueScope(Object.values(store.project?.values ?? {}), store.project?.unit ?? 'mm');
  return evaluate(within.value, LENGTH, scope);
});
function near(text: string): Result<void> {
  within.value = text || '0 mm';
  return ok(undefined);
}
function search() {
  if (far.value.ok) void assemblyStore.lookForInterference(Math.max(0, far.value.value));
}
function words({ overlap_mm3, distance_mm, compared }: Interference): string {
  if (!compared) return 'could not be compared: look, or move one a little';
  if (overlap_mm3 > 0) return `overlap ${units.someVolume(overlap_mm3)}`;
  return distance_mm < 1e-6 ? 'touch' : `${units.length(distance_mm)} apart`;
}
/** A pair is said of placements, whichever of their repeats meet. */
/** The pair said to press into each other, by its record. */
function pressedBy(found: Interference): Id | undefined {
  const [a, b] = [placementOfMember(found.a), placementOfMember(found.b)];
  const pairs = Object.entries(store.project?.assembly?.pressed ?? {});
  return pairs.find(([, pair]) => (pair.a === a && pair.b === b) || (pair.a === b && pair.b === a))?.[0];
}
function press(found: Interference) {
  const id = pressedBy(found);
  const pair = { a: placementOfMember(found.a), b: placementOfMember(found.b) };
  const done = store.act([{ command: 'pair.press', input: id === undefined ? { id: newId('x'), pair } : { id } }]);
  if (done.ok) assemblyStore.pointed = undefined;
}
</script>

<template>
  <aside class="bg-sheet border-rule w-[300px] shrink-0 overflow-y-auto border-l" aria-label="Desk">
    <DeskMessage />
    <JoiningDesk v-if="joining.draft" />
    <template v-else>
      <section v-if="joining.stands.length > 0" class="border-rule border-b p-4" data-testid="standing">
        <h2 class="heading mb-1">Left open</h2>
        <p v-for="one in joining.stands" :key="one.id" class="text-muted relative pl-3 leading-6">
          <span class="border-act absolute inset-y-0 left-0 border-l-3 border-dotted" />
          {{ joining.titleOf(one) }}
          <span class="block text-sm"
            ><button class="word-link" @click="joining.resume(one.id)">go on</button> ·
            <button class="word-link" @click="joining.dropStanding(one.id)">drop it</button></span
          >
        </p>
      </section>
      <PlacedReadings />
      <PlacementDesk v-if="placements.record" @edit="emit('edit')" />
      <section v-if="assemblyStore.built && assemblyStore.built.findings.length > 0" class="border-rule border-b p-4">
        <h2 class="heading mb-1">Findings</h2>
        <p v-for="finding in assemblyStore.built.findings" :key="finding.message" class="text-clash py-0.5 text-sm">
          {{ finding.message }}
        </p>
      </section>
      <section v-if="billOfMaterials.length > 0" class="border-rule border-b p-4" data-testid="whole">
        <h2 class="heading mb-1">The whole</h2>
        <div>
          <CopyFigures :figures="figures" prefix="whole" />
          <p v-if="Object.keys(options).length > 1" class="text-muted text-sm">
            Centre seen from
            <ChoiceWord :value="chosen" :options="options" label="seen from" @choose="(id) => (from = id)" />
          </p>
        </div>
        <label class="mt-2 flex items-center gap-2 text-sm">
          Drawn apart
          <input
            v-model.number="assemblyStore.exploded"
            type="range"
            min="0"
            max="1"
            step="0.01"
            class="min-w-0 grow"
            aria-label="Drawn apart"
          />
        </label>
      </section>
      <section v-if="billOfMaterials.length > 0" class="border-rule border-b p-4" data-testid="interference">
        <h2 class="heading mb-1">In each other's way</h2>
        <p v-if="assemblyStore.searching" class="text-sm" role="status">
          Looking at pair {{ assemblyStore.searching.done + 1 }} of {{ assemblyStore.searching.of || '…' }}
          <button class="word-link ml-2" @click="assemblyStore.stopLooking()">stop</button>
        </p>
        <p v-else class="text-sm">
          <button class="word-link" @click="search">Look</button> where parts overlap, or are nearer than
          <TypedField
            class="chip w-20 text-right"
            :value="within"
            label="Nearer than"
            :most="60"
            :change="near"
            @keydown.enter="search"
          />
        </p>
        <p v-if="!far.ok" class="text-clash text-sm" role="alert">{{ explain(far.issue) }}</p>
        <p v-if="assemblyStore.interferences?.length === 0" class="text-muted mt-1 text-sm" role="status">
          None, in the pose that is shown.
        </p>
        <ul v-else-if="assemblyStore.interferences" class="mt-1 text-sm" aria-label="Pairs">
          <li
            v-for="found in assemblyStore.interferences"
            :key="`${found.a} ${found.b}`"
            class="border-rule border-t py-1"
            @mouseenter="assemblyStore.pointed = found"
            @mouseleave="assemblyStore.pointed = undefined"
          >
            {{ assemblyStore.nameOf(found.a) }} and {{ assemblyStore.nameOf(found.b) }}
            <span
              class="block"
              :class="!found.compared || (found.overlap_mm3 > 0 && !found.pressed) ? 'text-clash' : 'text-muted'"
            >
              {{ words(found) }}{{ found.pressed ? ', as meant' : '' }}
              <button class="word-link ml-1" @click="assemblyStore.pointed = found">show me</button>
              <button v-if="found.overlap_mm3 > 0" class="word-link ml-1" @click="press(found)">
                {{ found.pressed ? 'not meant' : 'is meant' }}
              </button>
            </span>
          </li>
        </ul>
        <p class="text-muted mt-2 text-[12px]">
          Nothing here proves strength, or that a machine is safe: fingers, guards and loads are for a qualified person
          to judge.
        </p>
      </section>
      <section v-if="billOfMaterials.length > 0" class="p-4" data-testid="make-up">
        <h2 class="heading mb-1">Make-up</h2>
        <table class="w-full text-sm">
          <thead class="text-muted text-left">
            <tr>
              <th class="font-normal">part</th>
              <th class="text-right font-normal">count</th>
              <th class="pl-2 text-right font-normal">g each</th>
            </tr>
          </thead>
          <tbody>
            <tr
              v-for="row in billOfMaterials"
              :key="row.part"
              class="border-rule border-t align-baseline"
              :title="row.size_mm ? units.sizes(row.size_mm) : ''"
              @mouseenter="
                assemblyStore.lit = assemblyStore
                  .assembled!.members.filter(({ part }) => part === row.part)
                  .map(({ id }) => id)
              "
              @mouseleave="assemblyStore.lit = []"
            >
              <td class="py-0.5">
                {{ row.name }} <span class="text-muted block text-[12px]">{{ row.material ?? 'no material' }}</span>
              </td>
              <td class="text-right font-mono text-[13px]">{{ row.count }}</td>
              <td class="pl-2 text-right font-mono text-[13px]">
                {{ row.mass_g === null ? '?' : formatAmount(row.mass_g, 1) }}
              </td>
            </tr>
          </tbody>
        </table>
      </section>
    </template>
  </aside>
</template>
