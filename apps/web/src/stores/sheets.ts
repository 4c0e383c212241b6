import { defineStore } from 'pinia';
import { computed, ref, shallowRef, watch } from 'vue';
import {
  add2,
  explain,
  onPaper,
  onThing,
  partAt,
  sectionNamesFor,
  defaultSheet,
  defaultAssemblySheet,
  USUAL_BLOCK,
  type Action,
  type CellAt,
  type Handle,
  type Id,
  type Part,
  type SectionName,
  type Sheet,
  type SheetSign,
  type TitleBlock,
  type View,
} from '@helb/core';
import { download, fileName } from '../download.ts';
import type { SheetFormat, ShownSheet } from '../workers/protocol.ts';
import { newId } from './ids.ts';
import { useDoubts } from './doubts.ts';
import { bytesOf, useModel } from './model.ts';
import { useProject } from './project.ts';

const TYPES: Readonly<Record<SheetFormat, string>> = {
  pdf: 'application/pdf',
  svg: 'image/svg+xml',
  dxf: 'image/vnd.dxf',
};

/** What a detail shows at first: so far round its middle, mm on paper. */
const DETAIL = 12;

/** What a view can be set to; undefined is as usual again. */
type ViewFields = { readonly [K in keyof Settable]?: Settable[K] | undefined };
type ViewOf<K extends View['kind']> = Extract<View, { kind: K }>;
type Settable = Pick<
  ViewOf<'section'>,
  'hidden' | 'smooth' | 'shift' | 'apart' | 'numbered' | 'numbers' | 'steps' | 'broken' | 'uncut'
> &
  Pick<ViewOf<'detail'>, 'at' | 'radius' | 'times'>;

type Place = [number, number];

const STOPPED = 'Stopped: it is drawn again when something changes.';

/** The sheets of the project, and the one that is looked at as it is printed. */
export const useSheets = defineStore('sheets', () => {
  const store = useProject();
  const model = useModel();
  const doubts = useDoubts();
  const wanted = ref<Id>();
  const composed = shallowRef<ShownSheet>();
  /** What can be picked on it. */
  const handles = computed(() => JSON.parse(composed.value?.handles ?? '[]') as readonly Handle[]);
  const message = ref('');
  const busy = ref(false);
  /** The view that is picked. */
  const picked = ref<Id>();

  let stopped = false;

  const order = computed(() => store.project?.sheetOrder ?? []);
  /** The one that was asked for, else the first. */
  const id = computed(() => order.value.find((one) => one === wanted.value) ?? order.value[0]);
  const sheet = computed((): Sheet | undefined => (id.value ? store.project!.sheets![id.value] : undefined));
  /** The part that is drawn; none where it is the whole. */
  const part = computed(() => {
    const of = sheet.value?.part;
    return of === undefined ? undefined : store.project!.parts[of];
  });
  const sectionName: SectionName = (section, at) => sectionNamesFor(store.project!, sheet.value?.part)(section, at);

  /** The part of which a section is: the one that is drawn, or one that is placed. */
  function cutPart(at: string | undefined): Part | undefined {
    const { assembly, parts } = store.project!;
    const placed = at !== undefined && assembly ? partAt(store.project!, assembly, at) : undefined;
    return placed === undefined ? part.value : parts[placed];
  }

  const show = (next: Id): void => void (wanted.value = next);
  // what was drawn is of another sheet now, or of another project
  watch(
    [() => store.id, id],
    () => {
      composed.value = undefined;
      picked.value = undefined;
      enlarging.value = undefined;
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

  /** A new sheet of a part, or of the whole, as the last one was set up. */
  function add(partId?: Id): void {
    const before = order.value.length > 0 ? store.project!.sheets![order.value.at(-1)!]! : undefined;
    const { paper = 'A4', projection = 'first' } = before ?? {};
    const record =
      partId === undefined
        ? defaultAssemblySheet({ paper: paper === 'A4' ? 'A3' : paper, projection })
        : defaultSheet({ id: partId, name: store.project!.parts[partId]!.name }, { paper, projection });
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
  const setView = (view: Id, fields: ViewFields) =>
    act({ command: 'view.set', input: { sheet: id.value!, view, fields } });
  /** Moves the number of a part, or the circle of a detail, mm on paper. */
  function shiftSign(key: string, by: readonly [number, number]): void {
    const sign = composed.value?.signs[key];
    const placing = sign && composed.value!.views[sign.view];
    if (!sign || !placing) return;
    const at = onThing(placing, add2(onPaper(placing, sign.at), by)).map((n) => Number(n.toFixed(2))) as Place;
    const { numbers } = sheet.value!.views[sign.of]!;
    setView(sign.of, sign.part === undefined ? { at } : { numbers: { ...numbers, [sign.part]: at } });
  }
  /** Puts a number where there is room; with its circle a detail goes. */
  function dropSign({ of, part: numbered }: SheetSign): void {
    if (numbered === undefined) return void removeView(of);
    const { [numbered]: _, ...numbers } = sheet.value!.views[of]!.numbers ?? {};
    setView(of, { numbers: Object.keys(numbers).length > 0 ? numbers : undefined });
  }
  const removeView = (view: Id) => act({ command: 'view.remove', input: { sheet: id.value!, view } });

  /** How title blocks are laid out. */
  const block = computed((): TitleBlock => store.project?.titleBlock ?? USUAL_BLOCK);
  const isOwnBlock = computed(() => store.project?.titleBlock !== undefined);
  /** Lays the title blocks of all sheets out; as usual without a block. */
  const layOut = (next: TitleBlock | undefined) => act({ command: 'sheet.block', input: { block: next } });
  /** Is the title block being laid out? And the field that is picked. */
  const layingOut = ref(false);
  const cell = shallowRef<CellAt>();

  /** The view of which a detail is to be shown: the next press in it says where. */
  const enlarging = ref<Id>();
  /** Shows what lies round a place of a view larger. @param place mm on paper */
  function enlarge(of: Id, place: readonly [number, number]): void {
    enlarging.value = undefined;
    const view = composed.value!.views[of]!;
    const [x, y] = onThing(view, place);
    const rounded = (n: number) => Number(n.toPrecision(3));
    const detail = {
      at: [rounded(x), rounded(y)] as [number, number],
      radius: rounded(DETAIL / view.factor),
      times: 2 as const,
    };
    addView({ kind: 'detail', of, ...detail });
  }

  /** Writes sheets as a file of one of the kinds; of what is not as it is told only when that is said. */
  const save = (ids: readonly Id[], format: SheetFormat): Promise<void> =>
    doubts.clear(
      ids.map((one) => store.project!.sheets![one]!.part),
      () => written(ids, format),
    );

  async function written(ids: readonly Id[], format: SheetFormat): Promise<void> {
    const project = store.project!;
    message.value = '';
    busy.value = true;
    const bytes = await model.engine
      .sheetFile(project, ids, format)
      .then(bytesOf, (error: unknown) => (error as Error).message);
    busy.value = false;
    const name = ids.length > 1 ? `${project.name} sheets` : project.sheets![ids[0]!]!.name;
    if (typeof bytes === 'string') message.value = bytes;
    else download(`${fileName(name)}.${format}`, bytes as Uint8Array<ArrayBuffer>, TYPES[format]);
  }

  return {
    ...{ id, order, sheet, part, sectionName, cutPart, composed, handles, message, busy, picked, enlarging },
    ...{ block, isOwnBlock, layingOut, cell, layOut },
    ...{ show, draw, stop, add, set, write, remove, addView, setView, shiftSign, dropSign, removeView },
    ...{ enlarge, save },
  };
});
