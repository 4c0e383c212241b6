import { defineStore } from 'pinia';
import { computed, ref, shallowRef, watch } from 'vue';
import { factsOf, type Facts } from '../tasks/facts.ts';
import { advanced, begun, type Progress } from '../tasks/tasks.ts';
import { useAssembly } from './assembly.ts';
import { useModel } from './model.ts';
import { useProject } from './project.ts';

const keyOf = (project: string) => `helb tasks ${project}`;

/** The short tasks of the first hour: how far they are in this project, on this computer. */
export const useFirstTasks = defineStore('first-tasks', () => {
  const store = useProject();
  const model = useModel();
  const assemblyStore = useAssembly();
  const progress = shallowRef<Progress>();
  const isShown = ref(false);

  const facts = computed((): Facts | undefined => {
    const [project, built] = [store.kept, model.built];
    if (!project || !isShown.value) return undefined;
    return factsOf(
      project,
      (part, step) => {
        const sketch = built?.part === part ? built.sketches[step] : undefined;
        return sketch && { encloses: sketch.regions.length > 0, isSettled: sketch.state === 'settled' };
      },
      assemblyStore.moved !== undefined,
    );
  });

  // what was done goes on by itself
  watch(facts, (now) => {
    if (now && progress.value) put(advanced(progress.value, now));
  });
  watch(
    () => store.id,
    (id) => {
      progress.value = id === undefined ? undefined : kept(id);
      isShown.value = progress.value !== undefined && !isLeft(id!);
    },
    { immediate: true },
  );

  function put(next: Progress): void {
    if (next === progress.value) return;
    progress.value = next;
    write();
  }
  function write(): void {
    localStorage.setItem(keyOf(store.id!), JSON.stringify({ progress: progress.value, isLeft: !isShown.value }));
  }

  /** Begins one of them, or takes up what was left. */
  function begin(task?: number): void {
    isShown.value = true;
    if (task !== undefined || !progress.value) progress.value = begun(task ?? 0, facts.value!, progress.value?.done);
    write();
  }
  function leave(): void {
    isShown.value = false;
    write();
  }

  return { progress, isShown, begin, leave };
});

interface Kept {
  readonly progress?: Progress;
  readonly isLeft: boolean;
}
/** What was written by this page before; nothing where that can not be read. */
function read(project: string): Kept {
  try {
    const kept = JSON.parse(localStorage.getItem(keyOf(project)) ?? '') as Kept;
    return isProgress(kept.progress) ? kept : { isLeft: true };
  } catch {
    return { isLeft: true };
  }
}
const isProgress = (one: Progress | undefined): one is Progress =>
  [one?.task, one?.line].every((at) => typeof at === 'number') &&
  [one?.done, one?.before.parts, one?.before.placements, one?.before.joins].every(Array.isArray) &&
  typeof one?.before.steps === 'object';
const kept = (project: string) => read(project).progress;
const isLeft = (project: string) => read(project).isLeft;
