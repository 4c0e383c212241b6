import { defineStore } from 'pinia';
import { computed, ref, shallowRef, watch } from 'vue';
import { ANGLE, evaluate, LENGTH, valueScope, type Dimension, type Vec3 } from '@helb/core';
import type { Painting } from '../view/painting.ts';
import type { WallsReply } from '../workers/protocol.ts';
import { useWorkbench } from './workbench.ts';
import { useLooking } from './looking.ts';
import { useModel } from './model.ts';
import { useProject } from './project.ts';

/** Directions in which a mould may open. */
const TOWARDS: Readonly<Record<string, Vec3>> = {
  'up (z)': [0, 0, 1],
  'down (−z)': [0, 0, -1],
  x: [1, 0, 0],
  '−x': [-1, 0, 0],
  y: [0, 1, 0],
  '−y': [0, -1, 0],
};
export const WAYS = Object.fromEntries(Object.keys(TOWARDS).map((name) => [name, name]));

/** Of what asks for attention, and then from little to much. */
const COLOURS = ['#d39b3a', '#c4dcd4', '#8fbab3', '#5d918d'] as const;

/** How faces are painted by their walls or by how they lean: what is looked for, and what was found. */
export const usePainting = defineStore('painting', () => {
  const bench = useWorkbench();
  const looking = useLooking();
  const model = useModel();
  const store = useProject();
  /** Walls thinner than this are looked for. */
  const thin = ref('2 mm');
  /** Faces that lean by less than this against the direction are looked for. */
  const lean = ref('3 deg');
  const way = ref('up (z)');
  const walls = shallowRef<WallsReply>([]);
  const measuring = ref(false);

  function amount(text: string, asks: Dimension, least: number, most: number): number {
    const scope = valueScope(Object.values(store.project?.values ?? {}), store.project?.unit ?? 'mm');
    const result = evaluate(text, asks, scope);
    return Math.min(most, Math.max(least, result.ok ? result.value : 0));
  }

  /** With what each band means; the hatched one by the limit that is looked for. */
  const painting = computed((): (Painting & { readonly words: readonly string[] }) | undefined => {
    const [bad, little, more, much] = COLOURS;
    if (looking.look === 'walls') {
      const limit = amount(thin.value, LENGTH, 1e-3, 1e4);
      return {
        limits: [limit, 2 * limit, 4 * limit],
        colours: [bad, little, more, much],
        words: ['thinner than', 'up to twice that', 'up to four times that', 'thicker'],
        hatched: 0,
      };
    }
    if (looking.look !== 'lean') return undefined;
    const limit = Math.sin(amount(lean.value, ANGLE, 1e-6, Math.PI / 2));
    return {
      towards: TOWARDS[way.value]!,
      limits: [-limit, limit],
      colours: [much, bad, little],
      words: ['leans the other way', 'leans by less than', 'leans that way'],
      hatched: 1,
    };
  });

  /** The thinnest place of all bodies that are shown. */
  const thinnest = computed(() => {
    const seen = new Set((model.built?.bodies ?? []).map(({ key }) => key));
    const found = walls.value.filter(({ key }) => seen.has(key)).map((body) => body.walls.thinnest);
    return found.length === 0 ? undefined : found.reduce((a, b) => (b.thickness_mm < a.thickness_mm ? b : a));
  });

  /** One after the other: what changed meanwhile is measured next. */
  async function measure(): Promise<void> {
    if (measuring.value || looking.look !== 'walls' || !store.project || !bench.partId) return;
    measuring.value = true;
    const { built } = model;
    walls.value = await model.engine.walls(store.project, bench.partId, bench.builtTo).catch(() => []);
    measuring.value = false;
    if (model.built !== built) void measure();
  }
  watch([() => looking.look, () => model.built], () => void measure());

  return { thin, lean, way, walls, measuring, painting, thinnest };
});
