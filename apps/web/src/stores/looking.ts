import { defineStore } from 'pinia';
import { computed, ref, watch } from 'vue';
import { placedParts, type Frame, type Id, type Reference, type Vec3 } from '@helb/core';
import type { Look } from '../view/shown-body.ts';
import { useWorkbench } from './workbench.ts';
import { newId } from './ids.ts';
import { useModel } from './model.ts';
import { useProject } from './project.ts';

/** Where it is kept over a reload whether the part is seen among the others. */
const AMONG = 'helb among';

/** How the part is looked at: nothing of this changes it. Sections are kept by name; which are open is not. */
export const useLooking = defineStore('looking', () => {
  const bench = useWorkbench();
  const model = useModel();
  const store = useProject();
  const look = ref<Look>('shaded');
  /** Is the part placed at all: are there others to see it among? */
  const isPlaced = computed(
    () => store.project !== undefined && placedParts(store.project).some((id) => id === bench.partId),
  );
  /** Is the part seen among the others that are placed? */
  const among = ref(sessionStorage.getItem(AMONG) === 'yes');
  watch(among, (is) => sessionStorage.setItem(AMONG, is ? 'yes' : 'no'));
  const open = ref<ReadonlySet<Id>>(new Set());
  /** Is what lies in front of the sketch left out while it is drawn? */
  const cutAtSketch = ref(false);

  watch(
    () => bench.partId,
    () => (open.value = new Set()),
  );

  const sections = computed(() => Object.entries(bench.part?.sections ?? {}));
  const planes = computed((): readonly Frame[] => {
    const cuts = sections.value.flatMap(([id]) => {
      const found = open.value.has(id) ? model.built?.sections[id] : undefined;
      return found?.ok ? [found.value] : [];
    });
    return cutAtSketch.value && bench.sketching ? [...cuts, bench.sketching.solved.frame] : cuts;
  });

  function toggleSection(id: Id, on = !open.value.has(id)): void {
    open.value = new Set(on ? [...open.value, id] : [...open.value].filter((other) => other !== id));
  }

  /** Cuts the part open at a plane, on the side of whoever looks at it, and keeps that by a name. */
  function cutAt(plane: Reference, normal: Vec3): void {
    const taken = new Set(sections.value.map(([, { name }]) => name));
    let k = 1;
    while (taken.has(`Section ${k}`)) k++;
    const id = newId('c');
    const section = { name: `Section ${k}`, plane, offset: '0 mm', turned: bench.view?.isBehind(normal) ?? false };
    const done = store.act([{ command: 'section.add', input: { part: bench.partId!, id, section } }]);
    if (done.ok) toggleSection(id, true);
  }

  function remove(id: Id): void {
    const done = store.act([{ command: 'section.remove', input: { part: bench.partId!, section: id } }]);
    if (done.ok) toggleSection(id, false);
  }

  return {
    look,
    among,
    isPlaced,
    open,
    cutAtSketch,
    sections,
    planes,
    cutAt,
    remove,
    toggleSection,
  };
});
