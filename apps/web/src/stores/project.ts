import { defineStore } from 'pinia';
import { computed, ref, shallowRef, watch } from 'vue';
import { explain, fail, ok, perform, variantOf, type Action, type Id, type Project, type Result } from '@helb/core';
import { api } from '../sync/api.ts';
import type { Clash } from '../sync/clashes.ts';
import { draftsOf } from '../sync/unsent-changes.ts';
import { ProjectSync } from '../sync/project-sync.ts';
import { openWindows, thisWindow } from '../sync/windows.ts';
import { useSnapshot } from '../snapshots/use-snapshot.ts';
import { newId } from './ids.ts';
import { useSession } from './session.ts';

/** The open project: a thin adapter of ProjectSync, with a gesture that is shown but not done yet. */
export const useProject = defineStore('project', () => {
  const sync = shallowRef<ProjectSync>();
  const view = useSnapshot(() => sync.value);
  /** What is in the making, and what is shown on top of it. */
  const drafted = shallowRef<readonly Action[]>([]);
  const shown = shallowRef<readonly Action[]>([]);
  const message = ref('');

  const id = computed(() => sync.value?.id);
  /** The project as it is. */
  const kept = computed(() => view.value?.project);
  /** Which variant is shown; the project itself without one. For this person only. */
  const chosen = ref<Id>();
  const variant = computed(() => (chosen.value && kept.value?.variants?.[chosen.value] ? chosen.value : undefined));
  /** The project as it would be after the gestures that are being made, in the variant that is shown. */
  const project = computed(() => {
    if (!kept.value) return undefined;
    const made = [drafted.value, shown.value].reduce(
      (current, actions) => (actions.length > 0 ? after(current, actions) : current),
      kept.value,
    );
    return variantOf(made, variant.value);
  });

  function showVariant(next: Id | undefined): void {
    chosen.value = next;
    const key = `helb variant ${id.value}`;
    if (next === undefined) localStorage.removeItem(key);
    else localStorage.setItem(key, next);
  }

  async function open(projectId: string): Promise<void> {
    close();
    const [window, account] = [await thisWindow(), await useSession().look()];
    const others = new Set([...(await openWindows())].filter((other) => other !== window));
    const opened = await ProjectSync.open(projectId, {
      api,
      drafts: draftsOf(account ?? '', window, (other) => others.has(other)),
      ...{ window, others, firstOpened },
      isSeen: () => document.visibilityState === 'visible',
      newId: () => newId('e'),
      now: () => new Date(),
      later(ms, callback) {
        const timer = setTimeout(callback, ms);
        return () => clearTimeout(timer);
      },
    });
    sync.value = opened;
    chosen.value = localStorage.getItem(`helb variant ${projectId}`) ?? undefined;
    nudges = new BroadcastChannel('helb kept');
    nudges.onmessage = ({ data }) => data === id.value && void sync.value?.look();
    addEventListener('online', hurry);
    document.addEventListener('visibilitychange', look);
  }

  function close(): void {
    sync.value?.close();
    nudges?.close();
    sync.value = undefined;
    drafted.value = shown.value = [];
    message.value = '';
    removeEventListener('online', hurry);
    document.removeEventListener('visibilitychange', look);
  }

  // other windows of this browser look at once
  watch(
    () => view.value?.state.kind,
    (state, before) => {
      if (state === 'kept' && before !== undefined) nudges?.postMessage(id.value);
    },
    { flush: 'sync' },
  );

  const hurry = () => sync.value?.hurry();
  const look = () => void (document.visibilityState === 'visible' && sync.value?.look());
  /** Between the windows of one browser. */
  let nudges: BroadcastChannel | undefined;
  const settle = (clash: Clash, how: 'take' | 'leave') => told(sync.value?.settle(clash, how));

  /** Does a gesture; a refusal is told in words and returned. */
  function act(actions: readonly Action[]): Result<void> {
    preview([]);
    return told(sync.value?.act(actions));
  }

  /** Shows a gesture without doing it, at most one with each frame; none ends that. What is not possible is not shown. */
  let frame = 0;
  function preview(actions: readonly Action[]): void {
    cancelAnimationFrame(frame);
    if (actions.length === 0) shown.value = actions;
    else frame = requestAnimationFrame(() => (shown.value = actions));
  }

  /** Shows what is in the making, whatever is done and previewed besides; none ends that. Tells what is not possible. */
  function draft(actions: readonly Action[]): Result<void> {
    drafted.value = actions;
    const done = kept.value && perform(kept.value, actions);
    return done && !done.ok ? done : ok(undefined);
  }

  const undo = () => told(sync.value?.undo());
  const redo = () => told(sync.value?.redo());

  function told(result: Result<void> | undefined): Result<void> {
    message.value = result && !result.ok ? explain(result.issue) : '';
    return result ?? fail('part.unknown', { id: '' });
  }

  const dismissLost = () => sync.value?.dismissLost();

  return {
    id,
    view,
    kept,
    project,
    variant,
    showVariant,
    message,
    open,
    close,
    act,
    preview,
    draft,
    undo,
    redo,
    hurry,
    dismissLost,
    settle,
  };
});

/** A project with some actions done, as it is where they are not possible. */
function after(project: Project, actions: readonly Action[]): Project {
  const done = perform(project, actions);
  return done.ok ? done.value.project : project;
}

/** The revision at which this window has opened a project first; kept for as long as the window is there. */
function firstOpened(project: string, now: number): number {
  const key = `helb opened ${project}`;
  const before = sessionStorage.getItem(key);
  if (before === null) sessionStorage.setItem(key, `${now}`);
  return before === null ? now : Number(before);
}
