import type { Project, Stacks } from '@helb/core';
import type { Api } from './api.ts';
import type { Clash } from './clashes.ts';
import type { UnsentChanges } from './unsent-changes.ts';

// What an open project shows, and what it needs of the world.

export type SyncState =
  | { readonly kind: 'kept'; readonly at: Date }
  | { readonly kind: 'keeping' }
  /** `safe` once what is pending was really written on this computer. */
  | { readonly kind: 'offline'; readonly safe: boolean; readonly why: string }
  | { readonly kind: 'signed-out' };

export interface SyncView {
  readonly project: Project;
  readonly stacks: Stacks;
  readonly state: SyncState;
  /** What could not be kept, in words; stays until it is read. */
  readonly lost: string | undefined;
  /** Fields that were set here and in another window; each stays until it is read. */
  readonly clashes: readonly Clash[];
}

/** What it needs of the world besides the server. */
export interface SyncWorld {
  readonly api: Pick<Api, 'open' | 'save' | 'since' | 'log'>;
  readonly drafts: UnsentChanges;
  /** This window, and the others of this browser that are open. */
  readonly window: string;
  readonly others: ReadonlySet<string>;
  /** The revision at which this window has opened the project first, also before it was loaded again. */
  firstOpened(project: string, now: number): number;
  /** Is anybody looking at this window? */
  isSeen(): boolean;
  readonly newId: () => string;
  readonly now: () => Date;
  /** Calls back after a while; returns how to cancel. */
  readonly later: (ms: number, callback: () => void) => () => void;
}
