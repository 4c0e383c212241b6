import { computed, type Ref } from 'vue';
import {
  boxRound,
  dot3,
  evaluate,
  LENGTH,
  middle3,
  ORIGIN_DATUMS,
  polyline,
  stepKind,
  toSpace,
  valueScope,
  type Box3,
  type Reference,
  type SeenAround,
  type Thing,
} from '@helb/core';
import { useModel } from '../stores/model.ts';
import { useProject } from '../stores/project.ts';
import { useWorkbench } from '../stores/workbench.ts';
import { isTypedLength, type ShownPull } from './pulls.ts';
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

  function datumThing(reference: Reference): Thing | undefined {
    if (reference.to === 'origin') return { to: 'datum', datum: ORIGIN_DATUMS[reference.name] };
    const datum = reference.to === 'datum' ? model.built?.datums[reference.step] : undefined;
    return datum && { to: 'datum', datum };
  }

  return computed((): readonly ShownPull[] => {
    const [step, view, project] = [bench.draft?.step, viewport.value, store.project];
    if (!step || !view || !project || model.built?.part !== bench.partId) return [];
    const { pulls, fields, turned, expressions } = stepKind(step.kind);
    const places = new Map(expressions(step).map((place) => [place.path.join('.'), place]));
    const textOf = (field: string) => places.get(field)?.text ?? '';
    const scope = valueScope(Object.values(project.values), project.unit);
    const number = (field: string): number => {
      const read = evaluate(textOf(field), LENGTH, scope);
      return read.ok ? read.value : 0;
    };
    const box = shownBox();
    const seen: SeenAround = {
      sketch: middleOfSketch,
      // datums are in the view only while they can be picked
      find: (reference) => view.find(reference)[0]?.thing ?? datumThing(reference),
      number,
      middle: box && middle3(box.low, box.high),
    };
    const other = turned?.(step);
    const turnedRound = other ? (pulls?.({ ...step, ...other }, seen) ?? []) : [];
    return (pulls?.(step, seen) ?? [])
      .filter(({ field }) => isTypedLength(textOf(field)))
      .map((pull): ShownPull => {
        const { field, along } = pull;
        const spec = fields?.[field];
        const opposite = turnedRound.find((one) => one.field === field);
        return {
          ...pull,
          value: number(field),
          // named after its step in lists of many
          label: places.get(field)!.label.split(' · ').at(-1)!,
          min: spec?.type === 'number' ? spec.min : -Infinity,
          turns: other !== undefined,
          opposes: opposite !== undefined && dot3(opposite.along, along) < 0,
        };
      });
  });
}
