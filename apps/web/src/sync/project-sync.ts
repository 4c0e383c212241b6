import {
  applyChange,
  explain,
  perform,
  pushed,
  rebased,
  reversal,
  stacksOf,
  type Action,
  type LogEntry,
  type Project,
  type Result,
  type Stacks,
  ok,
} from '@helb/core';
import { ApiError, OfflineError, type Api, type OpenedProject } from './api.ts';
import type { Drafts } from './drafts.ts';

export type SyncState =
  | { readonly kind: 'kept'; readonly at: Date }
  | { readonly kind: 'keeping' }
  /** `safe` once what is pending was really written on this computer. */
  | { readonly kind: 'offline'; readonly safe: boolean }
  | { readonly kind: 'signed-out' };

export interface SyncView {
  readonly project: Project;
  readonly stacks: Stacks;
  readonly state: SyncState;
  /** What could not be kept, in words; stays until it is read. */
  readonly lost: string | undefined;
}

/** What it needs of the world besides the server. */
export interface SyncWorld {
  readonly api: Pick<Api, 'open' | 'save' | 'since'>;
  readonly drafts: Drafts;
  readonly newId: () => string;
  readonly now: () => Date;
  /** Calls back after a while; returns how to cancel. */
  readonly later: (ms: number, callback: () => void) => () => void;
}

const SEND_AFTER = 150;
const RETRY_AFTER = [1000, 2000, 4000, 8000];
const MOST_SENT = 100;

/**
 * An open project: the confirmed document, and on top of it the changes that the server has not confirmed. These are kept
 * on this computer before they are sent, are sent in order one batch at a time, and are rebased when another window was
 * first. Nothing is said to be kept before the server said so.
 */
export class ProjectSync {
  private readonly listeners = new Set<() => void>();
  private confirmed: Project;
  private revision: number;
  private pending: LogEntry[] = [];
  private project: Project;
  private stacks: Stacks;
  private state: SyncState;
  private lost: string | undefined;
  private sending = false;
  private failures = 0;
  private mostSent = MOST_SENT;
  private drafted: Promise<boolean> = Promise.resolve(true);
  private cancelTimer: (() => void) | undefined;

  private constructor(
    readonly id: string,
    opened: OpenedProject,
    private readonly world: SyncWorld,
  ) {
    this.confirmed = this.project = opened.document;
    this.revision = opened.revision;
    this.stacks = stacksOf(opened.log);
    this.state = { kind: 'kept', at: world.now() };
  }

  /** Opens a project; what an earlier visit could not send is put on top of it and sent now. */
  static async open(id: string, world: SyncWorld): Promise<ProjectSync> {
    const [opened, drafted] = await Promise.all([world.api.open(id), world.drafts.load(id)]);
    const sync = new ProjectSync(id, opened, world);
    const known = new Set(opened.log.map((entry) => entry.id));
    sync.pending = drafted.filter((entry) => !known.has(entry.id));
    if (drafted.length > 0) {
      sync.putOnTop();
      sync.stacks = stacksOf([...opened.log, ...sync.pending]);
    }
    if (sync.pending.length > 0) sync.schedule(0);
    return sync;
  }

  get view(): SyncView {
    const { project, stacks, state, lost } = this;
    return { project, stacks, state, lost };
  }

  subscribe(listener: () => void): () => void {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  }

  /** Does a gesture, one undo step; refused with its reason where it is not possible. */
  act(actions: readonly Action[]): Result<void> {
    const done = perform(this.project, actions);
    if (!done.ok) return done;
    if (done.value.change.forward.length === 0) return ok(undefined);
    this.add(done.value.project, { id: this.world.newId(), kind: 'do', ...done.value.change });
    return ok(undefined);
  }

  undo = (): Result<void> => this.reverse('undo');
  redo = (): Result<void> => this.reverse('redo');

  dismissLost(): void {
    this.lost = undefined;
    this.changed();
  }

  /** Tries now what waits for a retry: the network is back, the person signed in again. */
  hurry(): void {
    if (this.pending.length > 0 && !this.sending) this.schedule(0);
  }

  close(): void {
    this.cancelTimer?.();
    this.listeners.clear();
  }

  private reverse(kind: 'undo' | 'redo'): Result<void> {
    const reversed = reversal(this.project, this.stacks, kind, this.world.newId());
    if (!reversed.ok) return reversed;
    this.add(reversed.value.project, reversed.value.entry);
    return ok(undefined);
  }

  private add(project: Project, entry: LogEntry): void {
    this.project = project;
    this.stacks = pushed(this.stacks, entry);
    this.pending.push(entry);
    if (this.state.kind === 'kept') this.state = { kind: 'keeping' };
    this.keepDrafts();
    this.changed();
    if (!this.sending && this.failures === 0) this.schedule(SEND_AFTER);
  }

  private schedule(ms: number): void {
    this.cancelTimer?.();
    this.cancelTimer = this.world.later(ms, () => void this.send());
  }

  private async send(): Promise<void> {
    if (this.sending || this.pending.length === 0) return;
    this.sending = true;
    const batch = this.pending.slice(0, this.mostSent);
    try {
      const { revision } = await this.world.api.save(this.id, this.revision, batch);
      this.confirm(batch, revision);
    } catch (error) {
      await this.recover(error, batch).catch((second: unknown) => this.wait(second));
    } finally {
      this.sending = false;
    }
    if (this.pending.length > 0 && this.failures === 0) this.schedule(0);
    this.changed();
  }

  private confirm(batch: readonly LogEntry[], revision: number): void {
    this.pending = this.pending.slice(batch.length);
    // with nothing left on top what is shown is what is confirmed: a change is not done and checked a second time
    if (this.pending.length === 0) this.confirmed = this.project;
    else for (const entry of batch) this.confirmed = applied(this.confirmed, entry);
    this.revision = revision;
    this.failures = 0;
    if (this.pending.length === 0) this.mostSent = MOST_SENT;
    this.state = this.pending.length > 0 ? { kind: 'keeping' } : { kind: 'kept', at: this.world.now() };
    this.keepDrafts();
  }

  private async recover(error: unknown, batch: readonly LogEntry[]): Promise<void> {
    if (!(error instanceof ApiError)) {
      await this.wait(error);
      return;
    }
    if (error.status === 401) {
      this.state = { kind: 'signed-out' };
      this.failures++;
      return;
    }
    if (error.status === 409) {
      await this.rebase();
      return;
    }
    // anything but "this can't be taken" is no reason to lose work: the server is busy, or the project is not there
    if (error.status !== 422 && error.status !== 413) {
      this.lost = `Nothing could be kept: ${error.message}`;
      await this.wait(error);
      return;
    }
    const named = batch.find((entry) => entry.id === error.facts['change']);
    if (!named && batch.length > 1) {
      // which of them it is shows when they are sent one by one
      this.mostSent = 1;
      return;
    }
    const refused = named ?? batch[0]!;
    this.pending = this.pending.filter((entry) => entry !== refused);
    this.lost = `"${refused.label}" could not be kept: ${error.message}`;
    this.putOnTop();
  }

  /** Another window was first: its changes go below, ours on top of them. */
  private async rebase(): Promise<void> {
    const { revision, changes } = await this.world.api.since(this.id, this.revision);
    const ours = new Set(this.pending.map((entry) => entry.id));
    for (const entry of changes) {
      this.confirmed = applied(this.confirmed, entry);
      if (!ours.has(entry.id)) this.stacks = pushed(this.stacks, entry);
    }
    const theirs = new Set(changes.map((entry) => entry.id));
    this.pending = this.pending.filter((entry) => !theirs.has(entry.id));
    this.revision = revision;
    this.failures = 0;
    this.putOnTop();
  }

  /** Makes the shown project anew from the confirmed one; changes whose records are gone are left out and told. */
  private putOnTop(): void {
    let project = this.confirmed;
    const kept: LogEntry[] = [];
    for (const pending of this.pending) {
      const entry = rebased(pending, project);
      const next = applyChange(project, entry.forward);
      if (next.ok) {
        project = next.value;
        kept.push(entry);
      } else this.lost = `"${entry.label}" could not be kept: ${explain(next.issue)}`;
    }
    const staysIn = new Set(kept.map((entry) => entry.id));
    const gone = new Set(this.pending.map((entry) => entry.id).filter((id) => !staysIn.has(id)));
    this.pending = kept;
    this.project = project;
    const staying = (entries: readonly LogEntry[]) => entries.filter((entry) => !gone.has(entry.id));
    this.stacks = { undo: staying(this.stacks.undo), redo: staying(this.stacks.redo) };
    this.state = kept.length > 0 ? { kind: 'keeping' } : { kind: 'kept', at: this.world.now() };
    this.keepDrafts();
    this.changed();
  }

  private keepDrafts(): void {
    const { drafts } = this.world;
    const writing = drafts.keep(this.id, this.pending);
    this.drafted = writing.then(
      () => true,
      () => false,
    );
  }

  /** The server can't be reached: said only when it is known whether the work is safe here. */
  private async wait(error: unknown): Promise<void> {
    if (!(error instanceof OfflineError) && !(error instanceof ApiError)) throw error;
    const ms = RETRY_AFTER[Math.min(this.failures, RETRY_AFTER.length - 1)]!;
    this.failures++;
    this.state = { kind: 'offline', safe: await this.drafted };
    this.schedule(ms);
  }

  private changed(): void {
    this.listeners.forEach((listener) => listener());
  }
}

function applied(project: Project, entry: LogEntry): Project {
  const next = applyChange(project, entry.forward);
  if (!next.ok) throw new Error(`a confirmed change does not apply: ${explain(next.issue)}`);
  return next.value;
}
