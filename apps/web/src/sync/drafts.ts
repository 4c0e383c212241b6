import { del, get, set } from 'idb-keyval';
import type { LogEntry } from '@helb/core';

/** Changes that the server has not got yet, kept on this computer until it has. */
export interface Drafts {
  load(project: string): Promise<readonly LogEntry[]>;
  keep(project: string, pending: readonly LogEntry[]): Promise<void>;
}

const key = (project: string) => `helb-unsaved-${project}`;

export const browserDrafts: Drafts = {
  // without the browser's store there is nothing from an earlier visit
  load: async (project) => (await get<readonly LogEntry[]>(key(project)).catch(() => undefined)) ?? [],
  keep: (project, pending) => (pending.length > 0 ? set(key(project), pending) : del(key(project))),
};
