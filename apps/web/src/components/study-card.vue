<script setup lang="ts">
import { computed, ref } from 'vue';
import {
  ANGLE,
  coordinateKey,
  explain,
  findUnit,
  isTurn,
  LENGTH,
  NUMBER,
  type CoordinateKey,
  type Id,
} from '@helb/core';
import { LAWS, overlapWords, stopWords, tableFrom, type LawName, type Study, type StudyEnd } from '@helb/core/study';
import { useProject } from '../stores/project.ts';
import { useTouching } from '../stores/touching.ts';
import { endOfKey, useStudies } from '../stores/studies.ts';
import ChoiceWord from './choice-word.vue';
import CoordinateWords from './coordinate-words.vue';
import NumberChip from './number-chip.vue';
import TypedField from './typed-field.vue';

/** A study as a sentence: what is driven, from where to where, over which time, by which law; and what came of it. */
const props = defineProps<{ id: Id; study: Study }>();
const store = useProject();
const studies = useStudies();
const touching = useTouching();

type Fields = Partial<Omit<Study, 'charts'>>;
const setting = (fields: Fields) => [{ command: 'study.set' as const, input: { id: props.id, fields } }];
const set = (fields: Fields) => store.act(setting(fields));

const asks = ({ coordinate }: StudyEnd) => (isTurn(coordinate) ? ANGLE : LENGTH);
const withDrive = (k: number, change: Partial<Study['drives'][number]>): Fields => ({
  drives: props.study.drives.map((drive, n) => (n === k ? { ...drive, ...change } : drive)),
});
/** Another joint moves by degrees where this one moved by lengths: its ends are told anew. */
function drive(k: number, end: StudyEnd) {
  const before = props.study.drives[k]!;
  const isAlike = isTurn(before.coordinate) === isTurn(end.coordinate);
  // what a table tells in degrees says nothing of lengths
  set(isAlike ? withDrive(k, end) : { ...withDrive(k, { ...end, ...usual(end) }), table: [] });
}
const usual = ({ coordinate }: StudyEnd) =>
  isTurn(coordinate)
    ? { from: '0 deg', to: '360 deg' }
    : { from: `0 ${store.kept!.unit}`, to: `10 ${store.kept!.unit}` };
const others = computed(() =>
  Object.keys(studies.coordinates).filter(
    (key) => !props.study.drives.some(({ joint, coordinate }) => coordinateKey(joint, coordinate) === key),
  ),
);
function addDrive() {
  const end = endOfKey(others.value[0] as CoordinateKey);
  set({ drives: [...props.study.drives, { ...end, ...usual(end) }] });
}

const laws = computed(() => Object.fromEntries(Object.entries(LAWS).map(([name, { title }]) => [name, title])));
const touches = { yes: 'it obeys what touches', no: 'parts pass through each other' };
const isTable = computed(() => props.study.law === 'table');

const wrongFile = ref('');
async function readTable(event: Event) {
  const input = event.target as HTMLInputElement;
  const [file] = input.files ?? [];
  wrongFile.value = '';
  if (!file) return;
  const table = tableFrom(await file.text(), tableUnit.value.size);
  if (table.ok) set({ table: table.value, law: 'table' });
  else wrongFile.value = `${file.name}: ${explain(table.issue)}`;
  input.value = '';
}
const tableWords = computed(() => {
  const { table = [] } = props.study;
  const rows = `${table.length} rows, ${table[0]?.[0]} to ${table.at(-1)?.[0]} s`;
  return `${table.length === 0 ? 'no table yet' : rows}: of s and ${tableUnit.value.symbol}`;
});

const running = computed(() => (studies.running?.id === props.id ? studies.running : undefined));
const outcome = computed(() => studies.outcomes.get(props.id));
const isShown = computed(() => studies.shown === props.id);
/** The unit of the places in a table, and how large it is, deg or mm. */
const tableUnit = computed(() => {
  const { coordinate } = props.study.drives[0]!;
  const symbol = isTurn(coordinate) ? 'deg' : store.project!.unit;
  return { symbol, size: isTurn(coordinate) ? 1 : findUnit(symbol)!.size };
});
</script>

<template>
  <li class="border-rule border-b px-4 py-1.5 text-sm" :data-testid="`study-${study.name}`">
    <div class="flex items-baseline justify-between gap-2">
      <TypedField
        class="min-w-0 grow bg-transparent font-semibold"
        :value="study.name"
        :label="`Name of ${study.name}`"
        :most="60"
        :change="(name) => set({ name })"
      />
      <button
        class="word-link"
        :aria-label="`Remove ${study.name}`"
        @click="store.act([{ command: 'study.remove', input: { id } }])"
      >
        remove
      </button>
    </div>
    <p v-for="(one, k) in study.drives" :key="k">
      {{ k === 0 ? 'Drive' : 'and' }}
      <CoordinateWords :end="one" :label="`What ${study.name} drives`" @choose="(end) => drive(k, end)" />
      <template v-if="!isTable">
        from
        <NumberChip
          :text="one.from"
          :asks="asks(one)"
          :label="`Beginning of ${study.name}`"
          :change="(from) => setting(withDrive(k, { from }))"
        />
        to
        <NumberChip
          :text="one.to"
          :asks="asks(one)"
          :label="`End of ${study.name}`"
          :change="(to) => setting(withDrive(k, { to }))"
        />
      </template>
      <button
        v-if="study.drives.length > 1"
        class="word-link ml-1"
        :aria-label="`Do not drive it in ${study.name}`"
        @click="set({ drives: study.drives.filter((_, n) => n !== k) })"
      >
        remove
      </button>
    </p>
    <button v-if="!isTable && others.length > 0 && study.drives.length < 6" class="word-link" @click="addDrive">
      + another at the same time
    </button>
    <p>
      <ChoiceWord
        :value="study.law"
        :options="laws"
        :label="`Law of ${study.name}`"
        @choose="(law) => set({ law: law as LawName })"
      />
      <template v-if="!isTable">
        in
        <NumberChip
          :text="study.seconds"
          :asks="NUMBER"
          :label="`Seconds of ${study.name}`"
          :change="(seconds) => setting({ seconds })"
        />
        s</template
      >
      <template v-else>
        ({{ tableWords }})
        <label class="word-link cursor-pointer"
          >choose a CSV file<input
            type="file"
            accept=".csv,text/csv"
            class="sr-only"
            :aria-label="`Table of ${study.name}`"
            @change="readTable"
        /></label> </template
      >, in
      <NumberChip
        :text="study.steps"
        :asks="NUMBER"
        :label="`Steps of ${study.name}`"
        :change="(steps) => setting({ steps })"
      />
      steps;
      <ChoiceWord
        :value="study.touching ? 'yes' : 'no'"
        :options="touches"
        :label="`What touches in ${study.name}`"
        @choose="(answer) => set({ touching: answer === 'yes' })"
      /><template v-if="study.touching && touching.records.length === 0">: nothing is told to touch yet</template>.
    </p>
    <p v-if="wrongFile" class="text-clash" role="alert">{{ wrongFile }}</p>
    <p v-if="studies.trouble?.id === id" class="text-clash" role="alert">{{ studies.trouble.words }}</p>
    <p class="flex items-baseline gap-3">
      <template v-if="running">
        <span role="status">{{ running.of === 0 ? 'made ready …' : `${running.done} of ${running.of} poses` }}</span>
        <button class="word-link" @click="studies.stop()">stop</button>
      </template>
      <button v-else class="word-link" :aria-label="`Run ${study.name}`" @click="studies.run(id)">
        {{ outcome ? 'run again' : 'run it' }}
      </button>
      <button v-if="outcome && !isShown" class="word-link" :aria-label="`Show ${study.name}`" @click="studies.show(id)">
        show
      </button>
      <span v-if="isShown && studies.isOld" class="text-loose" role="status">out of date</span>
    </p>
    <p v-if="outcome?.stop" class="text-loose" role="status">{{ stopWords(outcome.stop, studies.nameAt) }}</p>
    <p v-for="pair in outcome?.overlaps" :key="pair.join(' ')" class="text-clash" role="alert">
      {{ overlapWords(pair, studies.nameAt) }}
    </p>
    <p v-for="words in outcome?.untold" :key="words" class="text-loose">{{ words }}</p>
  </li>
</template>
