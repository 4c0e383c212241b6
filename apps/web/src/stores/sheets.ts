import { defineStore } from 'pinia';
import { computed, ref, shallowRef, watch } from 'vue';
import { explain, usualSheet, type Action, type ComposedSheet, type Id, type Sheet, type View } from '@helb/core';
import { download, fileName } from '../download.ts';
import type { SheetFormat } from '../workers/protocol.ts';
import { newId } from './ids.ts';
import { useModel } from './model.ts';
import { useProject } from './project.ts';

const TYPES: Readonly<Record<SheetFormat, string>> = {
  pdf: 'application/pdf',
  svg: 'image/svg+xml',
  dxf: 'image/vnd.dxf',
};

const STOPPED =
  'Stopped. Threads that are cut in full take long to be seen from every side: as a sign they are drawn at once.';

/** The sheets of the project, and the one that is looked at as it is printed. */
export const useSheets = defineStore('sheets', () => {
  const store = useProject();
  const model = useModel();
  const wanted = ref<Id>();
  const composed = shallowRef<ComposedSheet>();
  const message = ref('');
  const busy = ref(false);
  /** The view that is picked. */
  const picked = ref<Id>();

  let stopped = false;

  const order = computed(() => store.project?.sheetOrder ?? []);
  /** The one that was asked for, else the first. */
  const id = computed(() => order.value.find((one) => one === wanted.value) ?? order.value[0]);
  const sheet = computed((): Sheet | undefined => (id.value ? store.project!.sheets![id.value] : undefined));
  const part = computed(() => (sheet.value ? store.project!.parts[sheet.value.part] : undefined));
  const sectionName = (section: Id): string => part.value?.sections?.[section]?.name ?? '?';

  const show = (next: Id): void => void (wanted.value = next);
  // what was drawn is of another sheet now, or of another project
  watch(
    [() => store.id, id],
    () => {
      composed.value = undefined;
      picked.value = undefined;
    },
    { flush: 'sync' },
  );

  /** Draws what is looked at; what was drawn before stays where that fails. */
  async function draw(): Promise<void> {
    const [project, drawn] = [store.project, id.value];
    message.value = '';
    if (!project || drawn === undefined) return void (composed.value = undefined);
    busy.value = true;
    stopped = false;
    const result = await model.sheet(project, drawn);
    if (result === undefined) return;
    busy.value = false;
    if (stopped) message.value = STOPPED;
    else if (typeof result === 'string') message.value = result;
    else if (drawn === id.value) composed.value = result;
  }

  /** Ends a drawing that takes too long. */
  function stop(): void {
    if (!busy.value) return;
    stopped = true;
    model.endDrawing();
  }

  function act(...actions: Action[]): boolean {
    const result = store.act(actions);
    if (!result.ok) message.value = explain(result.issue);
    return result.ok;
  }

  /** A new sheet of a part, as the last one was set up. */
  function add(partId: Id): void {
    const before = order.value.length > 0 ? store.project!.sheets![order.value.at(-1)!]! : undefined;
    const { paper = 'A4', projection = 'first' } = before ?? {};
    const { name } = store.project!.parts[partId]!;
    const record = usualSheet({ id: partId, name }, { paper, projection });
    // it has not gone out yet
    const { revision: _, ...title } = before?.title ?? {};
    const made = newId('sheet');
    if (act({ command: 'sheet.add', input: { id: made, record: { ...record, title } } })) show(made);
  }

  const set = (fields: Partial<Sheet>) => act({ command: 'sheet.set', input: { sheet: id.value!, fields } });
  const write = (fields: Sheet['title']) => act({ command: 'sheet.title', input: { sheet: id.value!, fields } });
  const remove = (one: Id) => act({ command: 'sheet.remove', input: { sheet: one } });

  function addView(view: View): void {
    const made = newId('view');
    if (act({ command: 'view.add', input: { sheet: id.value!, id: made, view } })) picked.value = made;
  }
  const setView = (view: Id, fields: { hidden?: boolean; smooth?: boolean; shift?: [number, number] }) =>
    act({ command: 'view.set', input: { sheet: id.value!, view, fields } });
  const removeView = (view: Id) => act({ command: 'view.remove', input: { sheet: id.value!, view } });

  /** Writes sheets as a file of one of the kinds. */
  async function save(ids: readonly Id[], format: SheetFormat): Promise<void> {
    const project = store.project!;
    message.value = '';
    busy.value = true;
    const bytes = await model.sheetFile(project, ids, format).catch((error: unknown) => (error as Error).message);
    busy.value = false;
    const name = ids.length > 1 ? `${project.name} sheets` : project.sheets![ids[0]!]!.name;
    if (typeof bytes === 'string') message.value = bytes;
    else download(`${fileName(name)}.${format}`, bytes as Uint8Array<ArrayBuffer>, TYPES[format]);
  }

  return {
    ...{ id, order, sheet, part, sectionName, composed, message, busy, picked },
    ...{ show, draw, stop, add, set, write, remove, addView, setView, removeView, save },
  };
});
