import { defineStore } from 'pinia';
import { computed, ref, watch } from 'vue';
import { variantOf, variantsOf, type Id, type Project } from '@helb/core';
import { download, fileName } from '../download.ts';
import type { FileFormat } from '../workers/protocol.ts';
import { useModel } from './model.ts';
import { useProject } from './project.ts';

/** Files of all parts, of one variant or of all, in one zip: made one after the other, and stopped at any time. */
export const useBatch = defineStore('batch', () => {
  const store = useProject();
  const model = useModel();
  /** What is being written: "Tray, school · 3 of 24". */
  const progress = ref<string>();
  const stopped = ref(false);
  /** Parts that gave no file, with the reason. */
  const left = ref<readonly string[]>([]);

  /** What the project can be shown as, by the ids of its variants. */
  const names = computed(
    (): ReadonlyMap<Id | undefined, string> =>
      new Map((store.kept ? variantsOf(store.kept) : []).map(({ id, name }) => [id, name])),
  );

  watch(
    () => store.id,
    () => {
      stopped.value = true;
      left.value = [];
    },
  );

  /** @param all of every variant, each in a folder of its own; else of the one that is shown */
  async function run(format: FileFormat, all: boolean): Promise<void> {
    if (!store.kept || progress.value !== undefined) return;
    const project = store.kept;
    // as they are called now, whatever happens to them meanwhile
    const variants = variantsOf(project).filter(({ id }) => all || id === store.variant);
    const tasks = variants.flatMap((variant) => project.partOrder.map((part) => ({ ...variant, part })));
    const files: Record<string, Uint8Array> = {};
    const missing: string[] = [];
    stopped.value = false;
    for (const [k, { id, name: variant, part }] of tasks.entries()) {
      const { name } = project.parts[part]!;
      const called = variants.length > 1 ? `${name}, ${variant}` : name;
      progress.value = `${called} · ${k + 1} of ${tasks.length}`;
      const bytes = await made(variantOf(project, id), part, format);
      if (stopped.value) break;
      const folder = variants.length > 1 ? `${fileName(variant)}/` : '';
      if (typeof bytes === 'string') missing.push(`${called}: ${bytes}`);
      else files[freePath(files, `${folder}${fileName(name)}`, format)] = bytes;
    }
    progress.value = undefined;
    if (stopped.value) return;
    left.value = missing;
    if (Object.keys(files).length === 0) return;
    download(`${fileName(project.name)}-${format}.zip`, await model.zip(files), 'application/zip');
  }

  const made = (project: Project, part: Id, format: FileFormat): Promise<Uint8Array | string> =>
    model.file(project, part, format).catch((error: unknown) => (error as Error).message);

  const stop = () => (stopped.value = true);

  return { progress, left, names, run, stop };
});

/** Two parts of one name get a number. */
function freePath(files: object, path: string, ending: string): string {
  let free = `${path}.${ending}`;
  for (let k = 2; free in files; k++) free = `${path}-${k}.${ending}`;
  return free;
}
