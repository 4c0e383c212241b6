import { defineStore } from 'pinia';
import { computed, ref, watch } from 'vue';
import type { Frame, Id, Reference, Vec3 } from '@helb/core';
import type { Look } from '../view/shown-body.ts';
import { useBench } from './bench.ts';
import { newId } from './ids.ts';
import { useModel } from './model.ts';
import { useProject } from './project.ts';

/** How the part is looked at: nothing of this changes it. Sections are kept by name; which are open is not. */
export const useLooking = defineStore('looking', () => {
  const bench = useBench();
  const model = useModel();
  const store = useProject();
  const look = ref<Look>('shaded');
  const open = ref<ReadonlySet<Id>>(new Set());
  /** Is what lies in front of the sketch left out while it is drawn? */
  const cutAtSketch = ref(false);

  watch(
    () => bench.partId,
    () => {
      open.value = new Set();
      bench.hiddenBodies = new Set();
    },
  );

  const sections = computed(() => Object.entries(bench.part?.sections ?? {}));
  const planes = computed((): readonly Frame[] => {
    void bench.version;
    const cuts = sections.value.flatMap(([id]) => {
      const found = open.value.has(id) ? model.built?.sections[id] : undefined;
      return found?.ok ? [found.value] : [];
    });
    const frame = bench.editor && cutAtSketch.value ? bench.editor.solved.frame : undefined;
    return frame ? [...cuts, frame] : cuts;
  });

  const without = <T>(set: ReadonlySet<T>, item: T): ReadonlySet<T> =>
    new Set([...set].filter((other) => other !== item));
  const toggled = <T>(set: ReadonlySet<T>, item: T): ReadonlySet<T> =>
    set.has(item) ? without(set, item) : new Set([...set, item]);

  /** Cuts the part open at a plane, on the side of whoever looks at it, and keeps that by a name. */
  function cutAt(plane: Reference, normal: Vec3): void {
    const taken = new Set(sections.value.map(([, { name }]) => name));
    let k = 1;
    while (taken.has(`Section ${k}`)) k++;
    const id = newId('c');
    const section = { name: `Section ${k}`, plane, offset: '0 mm', turned: bench.view?.isBehind(normal) ?? false };
    const done = store.act([{ command: 'section.add', input: { part: bench.partId!, id, section } }]);
    if (done.ok) open.value = new Set([...open.value, id]);
  }

  function remove(id: Id): void {
    const done = store.act([{ command: 'section.remove', input: { part: bench.partId!, section: id } }]);
    if (done.ok) open.value = without(open.value, id);
  }

  return {
    look,
    open,
    cutAtSketch,
    sections,
    planes,
    cutAt,
    remove,
    toggleSection: (id: Id) => (open.value = toggled(open.value, id)),
    toggleBody: (name: string) => (bench.hiddenBodies = toggled(bench.hiddenBodies, name)),
  };
});
