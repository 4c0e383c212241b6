import { createStore, getMany, keys, promisifyRequest } from 'idb-keyval';
import type { LogEntry } from '@helb/core';

/** Changes that the server has not got yet, kept on this computer until it has. */
export interface UnsentChanges {
  /** What this window, and windows that are closed, could not send. Rejects where the store can not be read. */
  load(project: string): Promise<readonly LogEntry[]>;
  /** Keeps what is pending; what was joined from closed windows is theirs no longer. */
  keep(project: string, pending: readonly LogEntry[]): Promise<void>;
}

/** A store of values by their keys. */
export interface Store {
  keys(): Promise<readonly string[]>;
  getMany(keys: readonly string[]): Promise<readonly unknown[]>;
  set(key: string, value: unknown): Promise<void>;
  delMany(keys: readonly string[]): Promise<void>;
}

/** Where these have always been: the first store of the package. */
const inBrowser = createStore('keyval-store', 'keyval');

/**
 * Writes are committed at once. A transaction that waits until the page has heard of its success is given up where the page
 * goes away before that: what was done just before a reload would be lost without a word.
 */
const writing = (write: (store: IDBObjectStore) => void): Promise<void> =>
  inBrowser('readwrite', (store) => {
    write(store);
    store.transaction.commit();
    return promisifyRequest(store.transaction);
  });

const browserStore: Store = {
  keys: async () => (await keys(inBrowser)).map(String),
  getMany: (wanted) => getMany([...wanted], inBrowser),
  set: (key, value) => writing((store) => void store.put(value, key)),
  delMany: (gone) => writing((store) => gone.forEach((key) => store.delete(key))),
};

/**
 * Drafts in the browser's store: by account, project and window, so that no window writes over what another has not sent.
 * @param isOpen windows whose drafts are their own business
 */
export function draftsOf(
  account: string,
  window: string,
  isOpen: (window: string) => boolean,
  store: Store = browserStore,
): UnsentChanges {
  /** Drafts of other windows that are kept with ours once these are written. */
  let joined: readonly string[] = [];
  let own = window;
  const folder = (project: string) => `helb-unsent/${account}/${project}/`;
  return {
    async load(project) {
      try {
        const mine = folder(project) + own;
        const all = (await store.keys()).filter((key) => key.startsWith(folder(project)));
        const left = all.filter((key) => key !== mine && !isOpen(key.slice(folder(project).length)));
        const found = [...left, mine, `helb-unsaved-${project}`];
        const drafts = await store.getMany(found);
        joined = found.filter((key, k) => key !== mine && drafts[k] !== undefined);
        return drafts.flatMap((entries) => (entries ?? []) as readonly LogEntry[]);
      } catch (error) {
        // what could not be read may be there all the same: it is not written over
        own = `${window}-${Date.now()}`;
        throw error;
      }
    },
    async keep(project, pending) {
      const mine = folder(project) + own;
      if (pending.length > 0) await store.set(mine, pending);
      const gone = pending.length > 0 ? joined : [...joined, mine];
      joined = [];
      if (gone.length > 0) await store.delMany(gone);
    },
  };
}
