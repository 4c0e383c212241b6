import { onBeforeUnmount } from 'vue';
import type { Box3 } from '@helb/core';
import { useWorkbench } from '../stores/workbench.ts';
import { useModel } from '../stores/model.ts';
import { usePlacements } from '../stores/placements.ts';
import { useProject } from '../stores/project.ts';
import { api } from '../sync/api.ts';
import type { Stage } from './stage.ts';

interface Shown {
  readonly stage: Stage;
  /** Round all that is shown. */
  readonly box: Box3 | undefined;
  /** Is everything shown that is placed? */
  readonly isWhole: boolean;
}

/** Of a picture on the shelf, pixels. */
const [WIDTH, HEIGHT] = [440, 288];

/**
 * Keeps the picture of the project on the shelf: some time after the last call, while nothing is being made.
 * A part that stands in a whole is a picture only until the whole is seen.
 */
export function usePicture(shown: () => Shown | undefined) {
  const store = useProject();
  const bench = useWorkbench();
  const model = useModel();
  const placements = usePlacements();
  let timer: ReturnType<typeof setTimeout> | undefined;
  onBeforeUnmount(() => clearTimeout(timer));
  return () => {
    clearTimeout(timer);
    timer = setTimeout(() => {
      const [id, view] = [store.id, shown()];
      if (!id || !view?.box || bench.editor || bench.draft) return;
      const picture = view.stage.picture(view.box, WIDTH, HEIGHT);
      const whole = view.isWhole || placements.records.length === 0;
      const findings = Math.min(model.findings.length, 100000);
      void api.describe(id, { findings, picture, whole }).catch(() => undefined);
    }, 1500);
  };
}
