import { computed, watch, type Ref } from 'vue';
import { suits } from '@helb/core';
import { useWorkbench } from '../stores/workbench.ts';
import { useModel } from '../stores/model.ts';
import { guidesOf } from './guides.ts';
import type { Viewport } from './viewport.ts';

/** Keeps the datums and drawn curves in the view as the bench needs them; returns the names to be written beside them. */
export function useGuides(viewport: Ref<Viewport | undefined>, viewVersion: Ref<number>) {
  const bench = useWorkbench();
  const model = useModel();

  const guides = computed(() => {
    const { part, draft, editor, askedField } = bench;
    const { built } = model;
    if (!part || !built || built.part !== bench.partId) return [];
    void bench.version;
    const borrowing = editor?.tool.name === 'borrow';
    if (editor && !borrowing) return [];
    return guidesOf(part, built, {
      origin: askedField !== undefined,
      drawn: borrowing || askedField !== undefined,
      points: askedField !== undefined,
      ...(bench.before === undefined ? {} : { before: bench.before }),
      ...(draft ? { without: draft.id } : {}),
    }).filter(({ thing }) => !askedField || suits(thing, askedField.accepts));
  });
  watch([guides, viewport], ([shown, view]) => view?.setGuides(shown), { immediate: true });

  return computed(() => {
    void viewVersion.value;
    const view = viewport.value;
    if (!view) return [];
    return guides.value.flatMap(({ name, words, label }) =>
      label ? [{ name, words, at: view.view.toScreen(label) }] : [],
    );
  });
}
