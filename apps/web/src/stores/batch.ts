import { defineStore } from 'pinia';
import { computed, ref, watch } from 'vue';
import { variantOf, variantsOf, type CutOptions, type Id, type Project } from '@helb/core';
import { download, fileName } from '../download.ts';
import type { FileFormat } from '../workers/protocol.ts';
import { useDoubts } from './doubts.ts';
import { bytesOf, useModel } from './model.ts';
import { useProject } from './project.ts';

/** Solids, sheets (`pdf`) or flat faces as they are cut out (`dxf`). */
export type BatchFormat = FileFormat | 'pdf' | 'dxf';
type Made = Uint8Array | string;

/** Files of all parts, of one variant or of all, in one zip: made one after the other, and stopped at any time. */
export const useBatch = defineStore('batch', () => {
  const store = useProject();
  const model = useModel();
  const doubts = useDoubts();
  /** What is being written: "Tray, school · 3 of 24". */
  const progress = ref<string>();
  const stopped = ref(false);
  /** How flat parts are cut out: the width of the cut, and how close arcs follow other curves. */
  const cutting = ref<CutOptions>({ width: 0 });
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

  /** What is written of a project, one file after the other. */
  function filesOf(
    project: Project,
    format: BatchFormat,
  ): { name: string; part: Id | undefined; make: (of: Project) => Promise<Made> }[] {
    if (format === 'pdf')
      return (project.sheetOrder ?? []).map((sheet) => ({
        name: project.sheets![sheet]!.name,
        part: project.sheets![sheet]!.part,
        make: (of) => model.engine.sheetFile(of, [sheet], 'pdf').then(bytesOf),
      }));
    return project.partOrder.map((part) => ({
      name: project.parts[part]!.name,
      part,
      make: (of) =>
        (format === 'dxf'
          ? model.engine.cut(of, part, { ...cutting.value }, 'dxf')
          : model.engine.file(of, part, format)
        ).then(bytesOf),
    }));
  }

  /** @param all of every variant, each in a folder of its own; else of the one that is shown */
  async function run(format: BatchFormat, all: boolean): Promise<void> {
    if (!store.kept || progress.value !== undefined) return;
    const project = store.kept;
    // as they are called now, whatever happens to them meanwhile
    const variants = variantsOf(project).filter(({ id }) => all || id === store.variant);
    const tasks = variants.flatMap((variant) =>
      filesOf(project, format).map((file) => ({ ...variant, variant: variant.name, ...file })),
    );
    const files: Record<string, Uint8Array> = {};
    const missing: string[] = [];
    stopped.value = false;
    for (const [k, { id, variant, name, part, make }] of tasks.entries()) {
      const called = variants.length > 1 ? `${name}, ${variant}` : name;
      progress.value = `${called} · ${k + 1} of ${tasks.length}`;
      const of = variantOf(project, id);
      // asked about one by one: what is not as it is told does not go along with the rest
      const bytes = await doubts
        .about(of, [part])
        .then(([wrong]) => (wrong === undefined ? make(of) : `left out: ${wrong}`))
        .catch((error: unknown) => (error as Error).message);
      if (stopped.value) break;
      const folder = variants.length > 1 ? `${fileName(variant)}/` : '';
      if (typeof bytes === 'string') missing.push(`${called}: ${bytes}`);
      else files[freePath(files, `${folder}${fileName(name)}`, format)] = bytes;
    }
    progress.value = undefined;
    if (stopped.value) return;
    left.value = missing;
    if (Object.keys(files).length === 0) return;
    download(`${fileName(project.name)}-${format}.zip`, await model.engine.zip(files), 'application/zip');
  }

  const stop = () => (stopped.value = true);

  return { progress, left, names, cutting, run, stop };
});

/** Two parts of one name get a number. */
function freePath(files: object, path: string, ending: string): string {
  let free = `${path}.${ending}`;
  for (let k = 2; free in files; k++) free = `${path}-${k}.${ending}`;
  return free;
}
