import { computed, type Ref } from 'vue';
import {
  boxRound,
  evaluate,
  filledIn,
  LENGTH,
  middle3,
  polyline,
  stepKind,
  toSpace,
  valueScope,
  type Box3,
  type SeenAround,
} from '@helb/core';
import { useModel } from '../stores/model.ts';
import { useProject } from '../stores/project.ts';
import { useWorkbench } from '../stores/workbench.ts';
import { isPlainNumber, type ShownPull } from './pulls.ts';
import type { Viewport } from './viewport.ts';

/** The lengths of the step in the making as arrows in the view; none for those that are told by names. */
export function usePulls(viewport: Ref<Viewport | undefined>, shownBox: () => Box3 | undefined) {
  const bench = useWorkbench();
  const model = useModel();
  const store = useProject();

  const middleOfSketch: SeenAround['sketch'] = (step, areas) => {
    const drawn = model.built?.sketches[step];
    if (!drawn) return undefined;
    const chosen = drawn.regions.filter(({ key }) => areas === 'outline' || areas.includes(key));
    const places = chosen.flatMap(({ outer }) => outer.flatMap(polyline)).map((place) => toSpace(drawn.frame, place));
    const box = boxRound(places.map((place) => ({ low: place, high: place })));
    return box && { frame: drawn.frame, middle: middle3(box.low, box.high) };
  };

  return computed((): readonly ShownPull[] => {
    const [step, view, project] = [bench.draft?.step, viewport.value, store.project];
    if (!step || !view || !project || model.built?.part !== bench.partId) return [];
    const { pulls, fields, turned } = stepKind(step.kind);
    const filled = (fields ? filledIn(fields, step) : step) as Readonly<Record<string, unknown>>;
    const textOf = (field: string) => filled[field] as string | undefined;
    const scope = valueScope(Object.values(project.values), project.unit);
    const number = (field: string): number => {
      const read = evaluate(textOf(field) ?? '', LENGTH, scope);
      return read.ok ? read.value : 0;
    };
    const box = shownBox();
    const seen: SeenAround = {
      sketch: middleOfSketch,
      find: (reference) => view.find(reference)[0]?.thing,
      number,
      middle: box && middle3(box.low, box.high),
    };
    return (pulls?.(step, seen) ?? [])
      .filter(({ field }) => isPlainNumber(textOf(field) ?? ''))
      .map((pull) => ({ ...pull, value: number(pull.field), turns: turned?.(step) !== undefined }));
  });
}
