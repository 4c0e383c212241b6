import { computed } from 'vue';
import { AREA, explain, LENGTH, measuredWords, VOLUME, type Box3, type Issue, type Vec3 } from '@helb/core';
import { useProject } from './project.ts';

/** Measures in the unit of the project: what is measured is given in mm, mm² and mm³. */
export function useUnits() {
  const store = useProject();
  const unit = computed(() => store.project?.unit ?? 'mm');
  const words =
    (dimension: typeof LENGTH, digits: number, between = ' × ') =>
    (amounts: number | readonly number[], off = 0): string =>
      measuredWords(
        { amounts: typeof amounts === 'number' ? [amounts] : amounts, dimension, off },
        unit.value,
        digits,
        between,
      );
  const lengths = words(LENGTH, 2);
  return {
    unit,
    /** Why something is not as told, with its lengths in that unit. */
    explained: (wrong: Issue): string => explain(wrong, unit.value),
    length: words(LENGTH, 3),
    area: words(AREA, 1),
    volume: words(VOLUME, 1),
    /** A volume that there is, however small: never told as 0. */
    someVolume: (mm3: number): string => words(VOLUME, Math.max(1, Math.ceil(1 - Math.log10(mm3))))(mm3),
    size: ({ low, high }: Box3): string => lengths(high.map((to, k) => to - low[k]!)),
    sizes: lengths,
    place: (at: Vec3, off = 0): string => words(LENGTH, 2, '  ')(at, off),
    /** To a thousandth, as what is picked is read. */
    placeToRead: (at: Vec3): string => words(LENGTH, 3, '  ')(at, 0),
  };
}
