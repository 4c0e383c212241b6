import { defineStore } from 'pinia';
import { shallowRef, watch } from 'vue';
import { explain, type Id, type Project } from '@helb/core';
import { useModel } from './model.ts';
import { useProject } from './project.ts';

/** What is not as it is told is written to a file only when somebody says so. */
export const useDoubts = defineStore('doubts', () => {
  const store = useProject();
  const model = useModel();
  const asked = shallowRef<{ readonly words: readonly string[]; readonly goOn: () => void }>();

  watch(
    () => store.project,
    () => (asked.value = undefined),
  );

  /** Why parts, or with `undefined` what is placed, are not as they are told. */
  async function about(project: Project, parts: readonly (Id | undefined)[]): Promise<string[]> {
    const found: string[] = [];
    for (const part of new Set(parts))
      found.push(...(await model.engine.troubles(project, part)).map((way) => explain(way)));
    return [...new Set(found)];
  }

  /** Goes on where all is as it is told; else asks, and goes on when told to. */
  async function clear(parts: readonly (Id | undefined)[], goOn: () => Promise<void>): Promise<void> {
    asked.value = undefined;
    const words = await about(store.project!, parts).catch((error: unknown) => [(error as Error).message]);
    if (words.length === 0) return goOn();
    asked.value = {
      words,
      goOn() {
        asked.value = undefined;
        void goOn();
      },
    };
  }

  return { asked, about, clear };
});
