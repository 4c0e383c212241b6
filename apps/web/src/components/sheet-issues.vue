<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import { changesSince, changeWords, explain, issuedNow, nextRevision } from '@helb/core';
import { useProject } from '../stores/project.ts';
import { useSheets } from '../stores/sheets.ts';
import { useWriting } from '../stores/writing.ts';

/** The sheet as it went out: what has changed since, and letting it go out anew. */
const store = useProject();
const sheets = useSheets();
const writing = useWriting();

const last = computed(() => sheets.sheet?.issued?.at(-1));
const changes = computed(() =>
  last.value && sheets.sheet && sheets.composed ? changesSince(last.value, sheets.sheet, sheets.composed) : [],
);
const revision = ref('');
const words = ref('');
const wrong = ref('');
watch(
  [() => sheets.id, last],
  () => {
    revision.value = nextRevision(last.value?.revision);
    words.value = '';
    wrong.value = '';
  },
  { immediate: true },
);
const today = () => new Date().toLocaleDateString('sv-SE');

function send() {
  const issued = issuedNow(sheets.composed!, {
    ...{ revision: revision.value.trim(), words: words.value.trim(), date: today() },
  });
  const done = store.act([{ command: 'sheet.issue', input: { sheet: sheets.id!, issued } }]);
  wrong.value = done.ok ? '' : explain(done.issue);
}
</script>

<template>
  <section class="border-rule space-y-1.5 border-b p-4" aria-label="Revisions">
    <h2 class="heading">Revisions</h2>
    <p v-if="!last" class="text-muted">It has not gone out yet.</p>
    <template v-else>
      <p>
        Went out as <strong>{{ last.revision }}</strong>{{ last.date ? `, ${last.date}` : ''
        }}{{ last.words ? `: ${last.words}` : '' }}
      </p>
      <p v-if="changes.length === 0" class="text-muted">Nothing has changed since.</p>
      <ul v-else aria-label="Changed since" class="max-h-40 overflow-y-auto">
        <li v-for="(change, k) in changes" :key="k" class="flex gap-2 leading-5">
          <span class="border-loose mt-1.5 size-2 shrink-0 rounded-full border" />
          <span
            >{{ changeWords(change, sheets.sheet!, sheets.sectionName) }}
            <button
              v-if="change.mark ?? change.view"
              class="word-link ml-1"
              @click="
                writing.show(
                  { ...(change.mark ? { mark: change.mark } : {}), ...(change.view ? { view: change.view } : {}) },
                  [],
                )
              "
            >
              show me
            </button></span
          >
        </li>
      </ul>
    </template>
    <p v-if="sheets.composed" class="flex items-center gap-2">
      <input v-model="revision" class="field w-12" aria-label="Next revision" maxlength="10" />
      <input
        v-model="words"
        class="field min-w-0 grow"
        aria-label="What is new in it"
        placeholder="what is new"
        maxlength="120"
      />
      <button class="word-link shrink-0" :disabled="!revision.trim() || sheets.busy" @click="send">goes out</button>
    </p>
    <p v-if="wrong" class="text-clash" role="alert">{{ wrong }}</p>
  </section>
</template>
