import { defineStore } from 'pinia';
import { computed, ref, shallowRef } from 'vue';
import { explain, fail, perform, type Action, type Project, type Result } from '@helb/core';
import { api } from '../sync/api.ts';
import { browserDrafts } from '../sync/drafts.ts';
import { ProjectSync, type SyncView } from '../sync/project-sync.ts';
import { newId } from './ids.ts';

/** The open project: a thin adapter of ProjectSync, with a gesture that is shown but not done yet. */
export const useProject = defineStore('project', () => {
  const sync = shallowRef<ProjectSync>();
  const view = shallowRef<SyncView>();
  const tentative = shallowRef<Project>();
  const message = ref('');

  const id = computed(() => sync.value?.id);
  /** The project as it is. */
  const kept = computed(() => view.value?.project);
  /** The project as it would be after the gesture that is being made. */
  const project = computed(() => tentative.value ?? kept.value);

  async function open(projectId: string): Promise<void> {
    close();
    const opened = await ProjectSync.open(projectId, {
      api,
      drafts: browserDrafts,
      newId: () => newId('e'),
      now: () => new Date(),
      later(ms, callback) {
        const timer = setTimeout(callback, ms);
        return () => clearTimeout(timer);
      },
    });
    sync.value = opened;
    view.value = opened.view;
    opened.subscribe(() => (view.value = opened.view));
    addEventListener('online', hurry);
  }

  function close(): void {
    sync.value?.close();
    sync.value = view.value = tentative.value = undefined;
    message.value = '';
    removeEventListener('online', hurry);
  }

  const hurry = () => sync.value?.hurry();

  /** Does a gesture; a refusal is told in words and returned. */
  function act(actions: readonly Action[]): Result<void> {
    tentative.value = undefined;
    return told(sync.value?.act(actions));
  }

  /** Shows a gesture without doing it; undefined ends that. What is not possible is not shown. */
  function preview(actions: readonly Action[] | undefined): Result<void> {
    const done = actions && kept.value ? perform(kept.value, actions) : undefined;
    tentative.value = done?.ok ? done.value.project : undefined;
    return done && !done.ok ? done : { ok: true, value: undefined };
  }

  const undo = () => told(sync.value?.undo());
  const redo = () => told(sync.value?.redo());

  function told(result: Result<void> | undefined): Result<void> {
    message.value = result && !result.ok ? explain(result.issue) : '';
    return result ?? fail('part.unknown', { id: '' });
  }

  const dismissLost = () => sync.value?.dismissLost();

  return { id, view, kept, project, message, open, close, act, preview, undo, redo, hurry, dismissLost };
});
