import { watch, type ShallowRef } from 'vue';
import { sameProject, type Project } from '@helb/core';
import { useWorkbench } from '../stores/workbench.ts';
import { useModel } from '../stores/model.ts';
import { useProject } from '../stores/project.ts';
import type { Viewport } from './viewport.ts';

/** Builds the part on the bench whenever something of it has changed, or something else is to be told of it. */
export function useBuilding(viewport: ShallowRef<Viewport | undefined>): void {
  const bench = useWorkbench();
  const store = useProject();
  const model = useModel();
  let last: { readonly project: Project; readonly key: string; readonly view: Viewport } | undefined;
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
      const asked = {
        part,
        ...(before === undefined ? {} : { before }),
        ...(sketch === undefined ? {} : { sketch }),
        ...(upTo === undefined ? {} : { upTo }),
      };
      // what was previewed and is kept now is built, or on its way
      const key = JSON.stringify(asked);
      const isThere = (model.busy || model.built?.part === part) && !model.trouble;
      const isKnown = isThere && last?.view === view && last.key === key && sameProject(last.project, project);
      last = { project, key, view };
      if (!isKnown) void model.build(project, { ...asked, known: view.known });
    },
    { immediate: true },
  );
}
