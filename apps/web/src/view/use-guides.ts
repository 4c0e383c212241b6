import { computed, watch, type Ref } from 'vue';
import { planeOf, suits } from '@helb/core';
import { useWorkbench } from '../stores/workbench.ts';
import { useModel } from '../stores/model.ts';
import { guidesOf } from './guides.ts';
import type { Screen } from './nearness.ts';
import type { Viewport } from './viewport.ts';

/** Keeps the datums and drawn curves in the view as the bench needs them; returns the names to be written beside them. */
export function useGuides(viewport: Ref<Viewport | undefined>, screen: Ref<Screen | undefined>) {
  const bench = useWorkbench();
  const model = useModel();

  const guides = computed(() => {
    const { part, draft, sketching, askedField } = bench;
    const { built } = model;
    if (!part || !built || built.part !== bench.partId) return [];
    return (
      guidesOf(part, built, {
        origin: askedField !== undefined,
        drawn: sketching !== undefined || askedField !== undefined,
        points: askedField !== undefined,
        ...(bench.before === undefined ? {} : { before: bench.before }),
        ...(draft ? { without: draft.id } : {}),
      })
        .filter(({ thing }) => !askedField || suits(thing, askedField.accepts))
        // the borders of planes would lie round every drawing
        .filter(({ thing }) => !sketching || sketching.tool.name === 'borrow' || planeOf(thing) === undefined)
    );
  });
  watch([guides, viewport], ([shown, view]) => view?.setGuides(shown), { immediate: true });

  return computed(() => {
    const { toScreen } = screen.value ?? {};
    if (!toScreen) return [];
    return guides.value.flatMap(({ name, words, reference, label }) =>
      label ? [{ name, words, reference, at: toScreen(label) }] : [],
    );
  });
}
