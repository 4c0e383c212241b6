import { defineStore } from 'pinia';
import { computed, ref, shallowRef, watch } from 'vue';
import {
  add2,
  explain,
  onPaper,
  onThing,
  sameReference,
  viewManner,
  WRITTEN_MARKS,
  type Action,
  type FittingMark,
  type Handle,
  type Id,
  type Mark,
  type Reference,
  type SheetFinding,
  type View,
} from '@helb/core';
import { newId } from './ids.ts';
import { useModel } from './model.ts';
import { useProject } from './project.ts';
import { useSheets } from './sheets.ts';

/** What can be written into views: a dimension of what is picked, or words and signs at one thing. */
export const VERBS = {
  size: 'a size',
  ...(Object.fromEntries(WRITTEN_MARKS.map(({ kind, words }) => [kind, words])) as Record<Mark['kind'], string>),
} as const;
export type Verb = 'size' | Mark['kind'];

/** The dimensions and notes of the sheet that is looked at. */
export const useWriting = defineStore('writing', () => {
  const store = useProject();
  const sheets = useSheets();
  const model = useModel();
  const verb = ref<Verb>();
  /** What was picked for the next one, all in one view. */
  const picks = shallowRef<readonly Handle[]>([]);
  /** What it could say. */
  const offers = shallowRef<readonly FittingMark[]>([]);
  /** The one that is picked. */
  const chosen = ref<Id>();
  /** What a finding is about. */
  const shown = shallowRef<readonly Reference[]>([]);
  const message = ref('');

  const marks = computed(() => sheets.sheet?.marks ?? {});
  const mark = computed((): Mark | undefined => (chosen.value === undefined ? undefined : marks.value[chosen.value]));

  /** What can be picked: for a size nothing in views that show none as it is. */
  const pickable = computed(() => {
    const { views } = sheets.sheet ?? {};
    if (!verb.value || !views) return [];
    const canBeIn = (view: View | undefined) =>
      view !== undefined && (verb.value !== 'size' || !viewManner(views, view).isSlanted);
    return sheets.handles.filter(({ view }) => canBeIn(views[view]));
  });

  watch(
    () => sheets.id,
    () => leave(),
  );

  function leave(): void {
    verb.value = undefined;
    picks.value = [];
    offers.value = [];
    chosen.value = undefined;
    shown.value = [];
    message.value = '';
  }

  function act(...actions: Action[]): boolean {
    const result = store.act(actions);
    message.value = result.ok ? '' : explain(result.issue);
    return result.ok;
  }

  const adding = (made: Mark, id: Id): Action => ({
    command: 'mark.add',
    input: { sheet: sheets.id!, id, mark: made },
  });

  /** Writes it, and has it picked. */
  function add(made: Mark): void {
    const id = newId('mark');
    if (!act(adding(made, id))) return;
    leave();
    chosen.value = id;
  }
  /** Writes all that findings ask for, as one gesture. */
  function addAll(all: readonly Mark[]): void {
    if (act(...all.map((one) => adding(one, newId('mark'))))) leave();
  }

  const set = (id: Id, made: Mark) => act({ command: 'mark.set', input: { sheet: sheets.id!, id, mark: made } });
  function remove(id: Id): void {
    if (act({ command: 'mark.remove', input: { sheet: sheets.id!, id } })) leave();
  }
  /** Moves its text, mm on paper. */
  function shift(id: Id, by: readonly [number, number]): void {
    const from = sheets.composed?.marks[id]?.at;
    const record = marks.value[id];
    const view = record && sheets.composed?.views[record.view];
    if (!from || !view) return;
    const [x, y] = onThing(view, add2(onPaper(view, from), by));
    set(id, { ...record, at: [rounded(x), rounded(y)] });
  }
  const rounded = (n: number) => Math.round(n * 100) / 100;

  function begin(next: Verb): void {
    leave();
    verb.value = next;
    sheets.picked = undefined;
  }

  /** Picks a thing, or drops it; in another view picking begins anew. */
  async function pick(handle: Handle): Promise<void> {
    if (!verb.value) return;
    const before = picks.value.filter(({ view }) => view === handle.view);
    const known = before.find(({ reference }) => sameReference(reference, handle.reference));
    picks.value = known ? before.filter((one) => one !== known) : [...before, handle];
    message.value = '';
    const written = WRITTEN_MARKS.find(({ kind }) => kind === verb.value);
    if (written) add(written.begin(handle.view, [handle.reference], Object.values(marks.value)));
    else await offer();
  }

  async function offer(): Promise<void> {
    const [project, sheet, wanted] = [store.project, sheets.id, picks.value];
    const view = wanted[0]?.view;
    offers.value = [];
    if (!project || sheet === undefined || view === undefined) return;
    const found = await model.engine.fittingMarks(
      project,
      sheet,
      view,
      wanted.map(({ reference }) => reference),
    );
    if (wanted !== picks.value) return;
    offers.value = found;
    if (found.length === 0) message.value = 'Of these no size can be told in this view: pick others, or one more.';
  }

  function show(finding: Omit<SheetFinding, 'issue'>, references: readonly Reference[]): void {
    leave();
    chosen.value = finding.mark;
    sheets.picked = finding.view ?? finding.place?.view;
    shown.value = references;
  }

  return {
    ...{ verb, pickable, picks, offers, chosen, shown, message, marks, mark },
    ...{ leave, begin, pick, add, addAll, set, remove, shift, show },
  };
});
