import { defineStore } from 'pinia';
import { computed, ref, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import {
  evaluate,
  explain,
  formatQuantity,
  namesUsed,
  outside,
  unnamedNumbers,
  usersOf,
  valueScope,
  variantOf,
  variantsOf,
  type Action,
  type Id,
  type PlacedExpression,
  type Project,
  type Value,
} from '@helb/core';
import { useWorkbench } from './workbench.ts';
import { useProject } from './project.ts';
import { useAssembly } from './assembly.ts';

/** A column of the table: the project itself, or one of its variants. */
export interface Column {
  readonly id: Id | undefined;
  readonly name: string;
}

export interface ValueRow extends Value {
  readonly id: Id;
  /** What it comes to in the variant that is shown; what is wrong with it there. */
  readonly result: string;
  readonly trouble: string;
  readonly users: readonly PlacedExpression[];
  /** Names of the values that it reads. */
  readonly reads: readonly string[];
}

/** A number that has no name: a size of a sketch, a number of a step. */
interface NumberRow extends PlacedExpression {
  readonly key: string;
  readonly result: string;
}

/** Puts another expression where one stands. */
export const replacing =
  ({ path }: PlacedExpression) =>
  (expression: string): Action[] => [{ command: 'expression.set', input: { path: [...path], expression } }];

const scopeOf = ({ values, unit }: Project) => valueScope(Object.values(values), unit);

/** All numbers of the project as the Values screen tells them. */
export const useValues = defineStore('values', () => {
  const store = useProject();
  const bench = useWorkbench();
  const assemblyStore = useAssembly();
  const route = useRoute();
  const router = useRouter();
  const filter = ref('');
  /** The value, or the number by its key, that the desk tells of. */
  const selected = ref<string>();

  watch(
    () => store.id,
    () => {
      filter.value = '';
      selected.value = undefined;
    },
  );

  const columns = computed((): Column[] => (store.kept ? variantsOf(store.kept) : []));
  const fits = (text: string) => text.toLowerCase().includes(filter.value.trim().toLowerCase());

  const rows = computed((): ValueRow[] => {
    const { project, kept } = store;
    if (!project || !kept) return [];
    const scope = scopeOf(project);
    return kept.valueOrder.map((id) => {
      const value = kept.values[id]!;
      const result = scope.lookup(value.name);
      const beyond = outside(project.values[id]!, scope);
      return {
        id,
        ...value,
        result: result.ok ? formatQuantity(result.value, project.unit, 4) : '',
        trouble: result.ok ? (beyond ? explain(beyond) : '') : explain(result.issue),
        users: usersOf(kept, value.name).filter(({ path }) => path[2] !== 'allowed'),
        reads: namesUsed(project.values[id]!.expression),
      };
    });
  });
  const shown = computed(() =>
    rows.value.filter(({ name, expression, note = '', group = '' }) => fits(`${name} ${expression} ${note} ${group}`)),
  );
  /** In the order of their first values; those without a group first. */
  const groups = computed(() => {
    const names = [...new Set(shown.value.map(({ group = '' }) => group))].sort(
      (a, b) => Number(a !== '') - Number(b !== ''),
    );
    return names.map((name) => ({ name, rows: shown.value.filter(({ group = '' }) => group === name) }));
  });

  /** Numbers without a name in them, as they are stored: what is as usual is no number of anybody's. */
  const numbers = computed((): NumberRow[] => {
    const { project, kept } = store;
    if (!project || !kept) return [];
    const scope = scopeOf(project);
    return unnamedNumbers(kept).flatMap((place) => {
      const { asks } = place;
      if (!asks) return [];
      const result = evaluate(place.text, asks, scope);
      return {
        ...place,
        key: place.path.join('/'),
        result: result.ok
          ? formatQuantity({ amount: result.value, dimension: asks }, project.unit, 4)
          : explain(result.issue),
      };
    });
  });
  const shownNumbers = computed(() => numbers.value.filter(({ label, text }) => fits(`${label} ${text}`)));

  const selectedRow = computed(() => rows.value.find(({ id }) => id === selected.value));
  const selectedNumber = computed(() => numbers.value.find(({ key }) => key === selected.value));

  /** The expression of a value in a column, as it was typed; empty where a variant has none of its own. */
  const expressionIn = (row: ValueRow, { id }: Column): string =>
    id === undefined ? row.expression : (store.kept!.variants![id]!.values[row.id] ?? '');

  /** What a value comes to in a column. */
  const scopes = computed(() => columns.value.map(({ id }) => scopeOf(variantOf(store.kept!, id))));
  function comesTo(row: ValueRow, column: number): string {
    const result = scopes.value[column]!.lookup(row.name);
    return result.ok ? `comes to ${formatQuantity(result.value, store.kept!.unit, 4)}` : explain(result.issue);
  }

  /** The placements that a number of the assembly speaks of. */
  function placementsAt([root, kind, id]: readonly string[]): string[] {
    const { assembly } = store.kept!;
    if (root !== 'assembly' || !assembly || id === undefined) return [];
    if (kind === 'placements') return [id];
    const record = kind === 'joints' ? assembly.joints[id] : kind === 'relations' ? assembly.relations[id] : undefined;
    return record ? [record.a.placement, record.b.placement] : [];
  }

  /** Goes to the bench and lights up the step that a number belongs to; of a joint to where it is seen moving. */
  async function show({ part, step, path }: PlacedExpression): Promise<void> {
    if (path[0] === 'assembly' || path[0] === 'groups') {
      await router.push({ name: 'motion', params: route.params });
      assemblyStore.lit = placementsAt(path);
    }
    if (part === undefined) return;
    await router.push({ name: 'bench', params: route.params });
    bench.show(part);
    bench.pointedStep = step;
  }

  return {
    filter,
    selected,
    columns,
    rows,
    groups,
    numbers,
    shownNumbers,
    selectedRow,
    selectedNumber,
    expressionIn,
    comesTo,
    show,
  };
});
