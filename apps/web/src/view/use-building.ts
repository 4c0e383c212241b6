import { watch, type ShallowRef } from 'vue';
import { useWorkbench } from '../stores/workbench.ts';
import { useModel } from '../stores/model.ts';
import { useProject } from '../stores/project.ts';
import type { Viewport } from './viewport.ts';

/** Builds the part on the bench whenever something of it has changed, or something else is to be told of it. */
export function useBuilding(viewport: ShallowRef<Viewport | undefined>): void {
  const bench = useWorkbench();
  const store = useProject();
  const model = useModel();
  watch(
    [
      () => store.project,
      () => bench.partId,
      viewport,
      () => bench.before,
      () => bench.builtTo,
      () => bench.editor?.step,
    ] as const,
    ([project, part, view, before, upTo, sketch]) => {
      if (!project || part === undefined || !view) return;
      void model.build({
        ...{ project, part, known: view.known },
        ...(before === undefined ? {} : { before }),
        ...(sketch === undefined ? {} : { sketch }),
        ...(upTo === undefined ? {} : { upTo }),
      });
    },
    { immediate: true },
  );
}
