import { defineStore } from 'pinia';
import { computed, ref, shallowRef, watch } from 'vue';
import { formatAmount, variantOf, type Id } from '@helb/core';
import type { WeightReply } from '../workers/protocol.ts';
import { useWorkbench } from './workbench.ts';
import { useModel } from './model.ts';
import { useProject } from './project.ts';
import { useUnits } from './units.ts';
import { useValues } from './values.ts';

/** Mass and size of the project in each of its variants: building them all takes a while, so it is done when asked for. */
export const useWeights = defineStore('weights', () => {
  const store = useProject();
  const bench = useWorkbench();
  const model = useModel();
  const values = useValues();
  const units = useUnits();
  /** By the id of the variant, empty for the project itself; each with the project that it was measured of. */
  const found = shallowRef<ReadonlyMap<Id | '', { readonly of: unknown; readonly weight: WeightReply }>>(new Map());
  /** The variant that is being built. */
  const busy = ref<string>();

  // what was measured of one project says nothing of another
  watch(
    () => store.id,
    () => (found.value = new Map()),
  );

  async function weigh(): Promise<void> {
    const { kept, id: project } = store;
    if (!kept || busy.value !== undefined) return;
    for (const { id, name } of values.columns) {
      busy.value = name;
      const weight = await model.engine.weigh(variantOf(kept, id)).catch(() => undefined);
      if (store.id !== project) break;
      if (weight) found.value = new Map([...found.value, [id ?? '', { of: kept, weight }]]);
    }
    busy.value = undefined;
  }

  const lines = computed(
    (): readonly {
      readonly title: string;
      readonly texts: readonly string[];
      readonly stale: readonly boolean[];
    }[] => {
      const entries = values.columns.map(({ id }) => found.value.get(id ?? ''));
      const known = entries.map((entry) => entry?.weight);
      if (known.every((weight) => !weight)) return [];
      const part = bench.part;
      const size = (weight: WeightReply): string => {
        const box = bench.partId === undefined ? undefined : weight.sizes[bench.partId];
        return box ? units.sizes(box) : '';
      };
      const line = (title: string, text: (weight: WeightReply) => string) => ({
        title,
        texts: known.map((weight) => (weight ? text(weight) : '')),
        stale: entries.map((entry) => entry?.of !== store.kept),
      });
      return [
        line(
          'mass of the whole',
          ({ mass_g, unknown }) => `${formatAmount(mass_g)} g${unknown > 0 ? ` + ${unknown} ?` : ''}`,
        ),
        line(`size of ${part?.name ?? 'the part'}`, size),
        line('steps that fail', ({ failed }) => `${failed}`),
      ];
    },
  );

  return { busy, weigh, lines };
});
