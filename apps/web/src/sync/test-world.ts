import { applyChange, seedSieve, type LogEntry } from '@helb/core';
import { ApiError, OfflineError, type Changes } from './api.ts';
import type { SyncWorld } from './sync-world.ts';

/** A server in memory, with the rules of the real one, that can be cut off or lose its answers. */
export class FakeServer {
  document = seedSieve();
  log: LogEntry[] = [];
  trouble: 'none' | 'offline' | 'answer-lost' | 'signed-out' | 'busy' = 'none';
  /** A change with this in its label is refused, without saying which it was. */
  refused = '';

  /** Does a refusal tell what came since, and how many entries go over at once? */
  telling = true;
  page = Infinity;
  /** How often it was asked what came since. */
  asked = 0;

  since(revision: number, most = Infinity): Changes {
    const changes = this.log.slice(revision, revision + most);
    const upTo = revision + changes.length;
    return { revision: upTo, changes, more: upTo < this.log.length };
  }

  save(base: number, changes: readonly LogEntry[]): { revision: number } {
    if (this.trouble === 'offline') throw new OfflineError('cut off');
    if (this.trouble === 'signed-out') throw new ApiError(401, 'Please sign in.', {});
    if (this.trouble === 'busy') throw new ApiError(429, 'Too many tries.', {});
    if (this.refused && changes.some((change) => change.label.includes(this.refused)))
      throw new ApiError(422, 'not right', {});
    const known = new Set(this.log.map((entry) => entry.id));
    const fresh = changes.filter((change) => !known.has(change.id));
    const at = Math.max(base, ...changes.map((change) => this.log.findIndex((entry) => entry.id === change.id) + 1));
    if (fresh.length > 0 && at !== this.log.length)
      throw new ApiError(409, 'changed meanwhile', this.telling ? { since: this.since(base, this.page) } : {});
    let { document } = this;
    for (const change of fresh) {
      const next = applyChange(document, change.forward);
      if (!next.ok) throw new ApiError(422, next.issue.code, { change: change.id });
      document = next.value;
    }
    this.document = document;
    this.log.push(...fresh);
    if (this.trouble === 'answer-lost') throw new OfflineError('answer lost');
    return { revision: this.log.length };
  }
}

/** Time and ids by hand; drafts that outlive a page. */
export function world(
  server: FakeServer,
  drafts = new Map<string, readonly LogEntry[]>(),
  more: Partial<SyncWorld> = {},
) {
  const timers: { at: number; callback: () => void }[] = [];
  let clock = 0;
  let ids = 0;
  const page = Math.random().toString(36).slice(2, 8);
  const made: SyncWorld = {
    api: {
      open: (id) =>
        Promise.resolve({ id, revision: server.log.length, document: server.document, log: [...server.log] }),
      save: (_, base, changes) =>
        Promise.resolve().then(() => server.save(base, structuredClone(changes) as LogEntry[])),
      since: (_, revision) => {
        server.asked++;
        return Promise.resolve(server.since(revision));
      },
      log: (_, before) => Promise.resolve({ log: server.log.slice(0, before) }),
    },
    window: page,
    others: new Set(),
    firstOpened: (_, now) => now,
    isSeen: () => true,
    drafts: {
      load: (id) => Promise.resolve(drafts.get(id) ?? []),
      keep: (id, pending) => (drafts.set(id, structuredClone(pending)), Promise.resolve()),
    },
    newId: () => `${page}${ids++}`,
    now: () => new Date(clock),
    later(ms, callback) {
      const timer = { at: clock + ms, callback };
      timers.push(timer);
      return () => timers.splice(timers.indexOf(timer), timers.includes(timer) ? 1 : 0);
    },
    ...more,
  };
  /** Lets this much time pass, with all that falls due. */
  const pass = async (ms: number) => {
    const end = clock + ms;
    for (;;) {
      for (let k = 0; k < 60; k++) await Promise.resolve();
      timers.sort((a, b) => a.at - b.at);
      if (!timers[0] || timers[0].at > end) break;
      const timer = timers.shift()!;
      clock = timer.at;
      timer.callback();
    }
    clock = end;
  };
  return { made, pass, drafts };
}

export const renaming = (name: string) => [{ command: 'project.rename' as const, input: { name } }];
export const adding = (id: string) => [{ command: 'part.add' as const, input: { id, name: id } }];
