import { defineStore } from 'pinia';
import { computed, ref, shallowRef, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { explain, type Limits, type Project } from '@helb/core';
import { BLOCKS, type Blocks, type CheckFinding } from '@helb/engine';
import { useWorkbench } from './workbench.ts';
import { useModel } from './model.ts';
import { useProject } from './project.ts';
import { useSheets } from './sheets.ts';
import { useValues } from './values.ts';
import { useAssembly } from './assembly.ts';

/** Every finding of the project, by what it stands in the way of. */
export const useChecks = defineStore('checks', () => {
  const store = useProject();
  const model = useModel();
  const router = useRouter();
  const route = useRoute();
  const found = shallowRef<readonly CheckFinding[]>();
  /** The project as it was looked through. */
  const seen = shallowRef<Project>();
  const progress = ref('');
  const busy = ref(false);
  const message = ref('');

  watch(
    () => store.id,
    () => {
      found.value = undefined;
      seen.value = undefined;
    },
  );
  const isCurrent = computed(() => seen.value !== undefined && seen.value === store.project);
  const groups = computed(() =>
    (Object.entries(BLOCKS) as [Blocks, string][]).flatMap(([blocks, title]) => {
      const findings = (found.value ?? []).filter((one) => one.blocks === blocks);
      return findings.length > 0 ? [{ blocks, title, findings }] : [];
    }),
  );

  /** Looks through the project as it is now. */
  async function look(): Promise<void> {
    const { project } = store;
    if (!project) return;
    busy.value = true;
    message.value = '';
    try {
      const reply = await model.engine.checks(project, (words) => (progress.value = words));
      if (reply?.kind !== 'checked') return;
      found.value = reply.findings;
      seen.value = project;
    } catch (error) {
      message.value = `Not everything could be looked through: ${(error as Error).message}.`;
    }
    busy.value = false;
    progress.value = '';
  }
  function stop(): void {
    if (!busy.value) return;
    model.endDrawing();
    busy.value = false;
    progress.value = '';
    message.value = 'Stopped: what is below was found before.';
  }

  function cure({ cure: known }: CheckFinding): void {
    if (!known) return;
    const done = store.act([...known.actions]);
    message.value = done.ok ? '' : explain(done.issue);
    if (done.ok) void look();
  }
  const setLimit = (limit: keyof Limits) => (expression: string) => [
    { command: 'project.limit' as const, input: { limit, expression } },
  ];

  /** Goes to where it is. */
  async function show({ part, step, sheet, value, placements, code }: CheckFinding): Promise<void> {
    const to = (name: string) => router.push({ name, params: route.params });
    if (sheet !== undefined) {
      useSheets().show(sheet);
      return void (await to('sheets'));
    }
    if (value !== undefined || code === 'number.unnamed') {
      await to('values');
      if (part !== undefined) useValues().filter = store.kept!.parts[part]!.name;
      return void (useValues().selected = value);
    }
    if (placements) {
      await to('motion');
      return void (useAssembly().lit = [...placements]);
    }
    await to('bench');
    if (part === undefined) return;
    useWorkbench().show(part);
    useWorkbench().pointedStep = step;
  }

  return { found, groups, busy, progress, message, isCurrent, look, stop, cure, show, setLimit };
});
