<script setup lang="ts">
import { computed, ref } from 'vue';
import { drawnPart, filesUsed, isSketch, PART_COLOURS, writeProject, type Id } from '@helb/core';
import { FILE_FORMATS, type FileFormat } from '@helb/engine';
import CutOutlines from '../components/cut-outlines.vue';
import DoubtNote from '../components/doubt-note.vue';
import StockLists from '../components/stock-lists.vue';
import { download, fileName } from '../download.ts';
import { OUTLINES } from '../outline-files.ts';
import { packedProject, ZIP_TYPE } from '../project-file.ts';
import { useBatch, type BatchFormat } from '../stores/batch.ts';
import { useDoubts } from '../stores/doubts.ts';
import { bytesOf, useModel } from '../stores/model.ts';
import { useProject } from '../stores/project.ts';
import { usePlacements } from '../stores/placements.ts';
import { api } from '../sync/api.ts';

const store = useProject();
const model = useModel();
const placements = usePlacements();
const batch = useBatch();
const doubts = useDoubts();
const busy = ref<string>();
/** Of what a zip can be made: of the variant that is shown, and of all where there are several. */
const extents = computed(() =>
  batch.names.size > 1
    ? [
        { all: false, words: ` as ${batch.names.get(store.variant)}` },
        { all: true, words: ' of all variants' },
      ]
    : [{ all: false, words: '' }],
);
/** What a file is called: with the variant where that is not the project itself. */
const fileOf = (name: string) =>
  fileName(store.variant === undefined ? name : `${name} ${batch.names.get(store.variant)}`);
const message = ref('');

const FORMATS = Object.entries(FILE_FORMATS).map(([format, told]) => ({ format: format as FileFormat, ...told }));
type Format = (typeof FORMATS)[number];
/** What a zip can hold of every part; of every sheet. */
const BATCHES: readonly { format: BatchFormat; title: string }[] = [
  ...FORMATS,
  { format: 'dxf', title: 'flat faces' },
  { format: 'pdf', title: 'sheets' },
];

/** The rows: all that is placed where anything is, then each part. */
const rows = computed((): { id?: Id; name: string; colour?: string }[] => [
  ...(placements.records.length > 0 ? [{ name: 'All parts, as they are placed' }] : []),
  ...(store.kept?.partOrder ?? []).map((id) => {
    const { name, colour } = store.kept!.parts[id]!;
    return { id, name, colour: PART_COLOURS[colour]! };
  }),
]);
const write = ({ id, name }: { id?: Id; name: string }, { format, type }: Format) =>
  doubts.clear([id], () =>
    save(`${id ?? ''} ${format}`, id === undefined ? store.kept!.name : name, format, type, () =>
      model.engine.file(store.project!, id, format).then(bytesOf),
    ),
  );

/** Asks for the bytes of a file, and saves them or tells why there are none. */
async function save(
  key: string,
  name: string,
  ending: string,
  type: string,
  bytes: () => Promise<Uint8Array | string>,
) {
  busy.value = key;
  message.value = '';
  const result = await bytes().catch((error: unknown) => (error as Error).message);
  if (typeof result === 'string') message.value = `${name}: ${result}`;
  else download(`${fileOf(name)}.${ending}`, result as Uint8Array<ArrayBuffer>, type);
  busy.value = undefined;
}

const sketches = computed(() =>
  (store.kept?.partOrder ?? []).flatMap((partId) => {
    const { name, steps, stepOrder } = drawnPart(store.kept!, partId)!;
    return stepOrder
      .filter((id) => isSketch(steps[id]))
      .map((id) => ({ id, partId, part: name, name: steps[id]!.name }));
  }),
);
const outline = ({ id, partId, name }: (typeof sketches.value)[number], { format, type }: (typeof OUTLINES)[number]) =>
  doubts.clear([partId], () =>
    save(`${partId} ${id} ${format}`, name, format, type, () =>
      model.engine.outline(store.project!, partId, id, format).then(bytesOf),
    ),
  );

/** The project with the files that it brings in, as one zip. */
async function projectZip() {
  busy.value = 'project';
  message.value = '';
  const hashes = [...new Set(filesUsed(store.kept!).map(({ hash }) => hash))];
  try {
    const files = new Map<string, Uint8Array>();
    for (const hash of hashes) files.set(hash, await api.file(hash));
    download(
      `${fileName(store.kept!.name)}.helb.zip`,
      (await packedProject(writeProject(store.kept!), files)) as Uint8Array<ArrayBuffer>,
      ZIP_TYPE,
    );
  } catch (error) {
    message.value = `The project could not be packed: ${(error as Error).message}`;
  }
  busy.value = undefined;
}
const project = () =>
  download(`${fileName(store.kept!.name)}.helb.json`, writeProject(store.kept!), 'application/json');
</script>

<template>
  <main class="bg-paper room overflow-y-auto p-6">
    <h1 class="mb-4 text-lg font-semibold">Output</h1>
    <p v-if="message" class="text-clash mb-3" role="alert">{{ message }}</p>
    <DoubtNote />
    <div class="grid grid-cols-[minmax(0,3fr)_minmax(0,2fr)] gap-10">
      <div>
        <table class="mb-2 w-full border-collapse">
          <thead>
            <tr class="text-muted border-ink border-b text-left text-sm">
              <th class="py-1 font-normal">part</th>
              <th v-for="{ format, title, words } in FORMATS" :key="format" class="font-normal" :title="words">
                {{ title }}
              </th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="row in rows" :key="row.id ?? ''" class="border-rule border-b">
              <td class="py-1.5">
                <span
                  v-if="row.colour"
                  class="mr-2 inline-block size-3 rounded-full"
                  :style="{ background: row.colour }"
                />{{ row.name }}
              </td>
              <td v-for="format in FORMATS" :key="format.format">
                <button
                  class="word-link"
                  :disabled="busy !== undefined"
                  :aria-label="`Download ${format.title} of ${row.name}`"
                  :title="format.words"
                  @click="write(row, format)"
                >
                  {{ busy === `${row.id ?? ''} ${format.format}` ? 'writing…' : format.title }}
                </button>
              </td>
            </tr>
          </tbody>
        </table>
        <p class="text-muted mb-5 text-sm">
          STEP: exact solids with names and colours. STL, 3MF, OBJ: triangles within 0.05 mm, all in millimetres; 3MF
          with names and colours. glTF: to look at, in metres as that format has it.
        </p>
        <p class="mb-6 flex flex-wrap gap-x-5 gap-y-1" data-testid="batch">
          <span class="text-muted">All in one zip</span>
          <template v-if="batch.progress === undefined">
            <template v-for="{ all, words } in extents" :key="words">
              <button
                v-for="{ format, title } in BATCHES"
                :key="format"
                class="word-link"
                @click="batch.run(format, all)"
              >
                {{ title }}{{ words }}
              </button>
            </template>
          </template>
          <template v-else>
            <span role="status">{{ batch.progress }}</span>
            <button class="word-link" @click="batch.stop()">stop</button>
          </template>
        </p>
        <p v-for="reason in batch.left" :key="reason" class="text-clash text-sm">{{ reason }}</p>
        <CutOutlines />
        <table v-if="sketches.length > 0" class="mb-6 w-full border-collapse">
          <thead>
            <tr class="text-muted border-ink border-b text-left text-sm">
              <th class="py-1 font-normal">sketch</th>
              <th class="font-normal" :colspan="OUTLINES.length">its outline in mm, construction left out</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="sketch in sketches" :key="`${sketch.partId} ${sketch.id}`" class="border-rule border-b">
              <td class="py-2">
                {{ sketch.name }} <span class="text-muted text-sm">{{ sketch.part }}</span>
              </td>
              <td v-for="format in OUTLINES" :key="format.format">
                <button
                  class="word-link"
                  :disabled="busy !== undefined"
                  :aria-label="`Download ${format.title} of ${sketch.name}`"
                  @click="outline(sketch, format)"
                >
                  Download {{ format.title }}
                </button>
              </td>
            </tr>
          </tbody>
        </table>
      </div>
      <div>
        <StockLists />
        <p class="mb-6">
          The whole project as a file that Helb reads:
          <button class="word-link" @click="project">download project file</button>, or with the files that it brings
          in,
          <button class="word-link" :disabled="busy !== undefined" @click="projectZip">as a zip</button>
        </p>
        <div class="border-loose border-l-3 bg-sheet p-4" role="note">
          <strong>Before it is cut, turned or printed:</strong> check sizes and units in the machine's own program.
          Guards on, eyes and ears protected, work clamped, fumes led away, unplug before reaching in. The machine's
          manual, local rules and a qualified person come before anything here. Nothing in Helb proves strength: where a
          part may carry load or people, have it checked.
        </div>
      </div>
    </div>
  </main>
</template>
