import { onBeforeUnmount, type Ref } from 'vue';
import { useWorkbench } from '../stores/workbench.ts';
import { useModel } from '../stores/model.ts';
import { useProject } from '../stores/project.ts';
import { api } from '../sync/api.ts';
import type { Viewport } from './viewport.ts';

/** Keeps the picture of the project on the shelf: some time after the last call, while nothing is being made. */
export function usePicture(viewport: Ref<Viewport | undefined>): () => void {
  const store = useProject();
  const bench = useWorkbench();
  const model = useModel();
  let timer: ReturnType<typeof setTimeout> | undefined;
  onBeforeUnmount(() => clearTimeout(timer));
  return () => {
    clearTimeout(timer);
    timer = setTimeout(() => {
      const [id, view] = [store.id, viewport.value];
      if (!id || !view || bench.editor || bench.draft) return;
      void api
        .describe(id, { findings: Math.min(model.findings.length, 100000), picture: view.picture(440, 288) })
        .catch(() => undefined);
    }, 1500);
  };
}
