import { computed, watch, type Ref } from 'vue';
import { dot3, heightOver, planeOf, suits, type Frame } from '@helb/core';
import { useWorkbench } from '../stores/workbench.ts';
import { useModel } from '../stores/model.ts';
import { guidesOf } from './guides.ts';
import { labelPlace } from './label-place.ts';
import type { Guide } from './picks.ts';
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
    return guidesOf(part, built, {
      origin: askedField !== undefined,
      drawn: sketching !== undefined || askedField !== undefined ? 'all' : 'lines',
      points: askedField !== undefined,
      ...(bench.before === undefined ? {} : { before: bench.before }),
      ...(draft ? { without: draft.id } : {}),
    })
      .filter(({ thing }) => !askedField || suits(thing, askedField.accepts))
      .filter((guide) => !sketching || sketching.tool.name === 'borrow' || isDrawnTo(guide, sketching.solved.frame));
  });
  /** The borders of planes would lie round every drawing; of sketches seen edge-on all lies in one line. */
  function isDrawnTo({ thing, reference, lines }: Guide, frame: Frame): boolean {
    if (planeOf(thing)) return false;
    const other = reference.to === 'drawn' ? model.built!.sketches[reference.step]?.frame : undefined;
    const isEdgeOn = other !== undefined && Math.abs(dot3(other.z, frame.z)) < 1e-6;
    return !isEdgeOn || lines.every((place) => Math.abs(heightOver(frame, place)) < 1e-6);
  }

  watch([guides, viewport], ([shown, view]) => view?.setGuides(shown), { immediate: true });

  return computed(() => {
    const { toScreen } = screen.value ?? {};
    if (!toScreen) return [];
    const { size } = viewport.value!.view;
    return guides.value.flatMap(({ name, words, reference, label, lines }) => {
      const at = label && labelPlace(toScreen(label), lines.map(toScreen), size);
      return at ? [{ name, words, reference, at }] : [];
    });
  });
}
