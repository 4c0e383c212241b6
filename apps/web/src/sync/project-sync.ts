import {
  applyChange,
  explain,
  passed,
  perform,
  pushed,
  rebased,
  reversal,
  stacksOf,
  type Action,
  type FieldChange,
  type LogEntry,
  type Project,
  type Result,
  type Stacks,
  ok,
} from '@helb/core';
import { ApiError, OfflineError, type Changes, type OpenedProject } from './api.ts';
import { clashesOf, fieldKey, fieldsOf, taking, type Clash } from './clashes.ts';
import { Snapshots } from '../snapshots/snapshots.ts';
import type { SyncState, SyncView, SyncWorld } from './sync-world.ts';

const SEND_AFTER = 150;
const RETRY_AFTER = [1000, 2000, 4000, 8000];
const MOST_SENT = 100;
/** So often a window that is seen asks what others have done, ms. */
const ASK_EVERY = 4000;
/** With fewer steps to undo than this, older ones are fetched. */
const FEW = 20;

/**
 * An open project: the confirmed document, and on top of it the changes that the server has not confirmed. These are kept
 * on this computer before they are sent, are sent in order one batch at a time, and are rebased when another window was
 * first. Nothing is said to be kept before the server said so.
 */
export class ProjectSync extends Snapshots<SyncView> {
  private confirmed: Project;
  private revision: number;
  /** The log as far as it is known, without what is pending, and what of it this window can undo. */
  private log: readonly LogEntry[];
  private older: number | undefined;
  private readonly first: number;
  /** What this window has set since it was opened. */
  private readonly own = new Map<string, FieldChange>();
  private clashes: readonly Clash[] = [];
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
  private cancelAsking: (() => void) | undefined;
  private isClosed = false;

  private constructor(
    readonly id: string,
    opened: OpenedProject,
    private readonly world: SyncWorld,
  ) {
    super();
    this.confirmed = this.project = opened.document;
    this.revision = opened.revision;
    this.log = opened.log;
    this.older = opened.older;
    this.first = world.firstOpened(id, opened.revision);
    this.stacks = this.stacksNow();
    this.state = { kind: 'kept', at: world.now() };
  }

  /** Opens a project; what this window, or one that is closed, could not send is put on top of it and sent now. */
  static async open(id: string, world: SyncWorld): Promise<ProjectSync> {
    let unread: string | undefined;
    const [opened, drafted] = await Promise.all([
      world.api.open(id),
      world.drafts.load(id).catch((error: unknown) => {
        unread = error instanceof Error ? error.message : String(error);
        return [] as readonly LogEntry[];
      }),
    ]);
    const sync = new ProjectSync(id, opened, world);
    const known = new Set(opened.log.map((entry) => entry.id));
    sync.pending = drafted.filter((entry) => !known.has(entry.id)).map((entry) => ({ ...entry, by: world.window }));
    if (drafted.length > 0) {
      sync.putOnTop();
      sync.stacks = sync.stacksNow();
    }
    // it may hold work: nothing of it is written over
    if (unread !== undefined)
      sync.lost = `What this browser has kept unsent could not be read, and was left as it is (${unread}). Load the page again to try once more.`;
    if (sync.pending.length > 0) sync.schedule(0);
    sync.ask();
    void sync.fetchOlder();
    return sync;
  }

  protected present(): SyncView {
    const { project, stacks, state, lost, clashes } = this;
    return { project, stacks, state, lost, clashes };
  }

  /** Does a gesture, one undo step; refused with its reason where it is not possible. */
  act(actions: readonly Action[]): Result<void> {
    const done = perform(this.project, actions);
    if (!done.ok) return done;
    if (done.value.change.forward.length === 0) return ok(undefined);
    const { label, forward, backward } = done.value.change;
    this.add(done.value.project, { id: this.world.newId(), kind: 'do', label, forward, backward });
    return ok(undefined);
  }

  undo(): Result<void> {
    const undone = this.reverse('undo');
    void this.fetchOlder();
    return undone;
  }
  redo = (): Result<void> => this.reverse('redo');

  /** Takes the other value of a clash, or leaves it as it stands. */
  settle(clash: Clash, how: 'take' | 'leave'): Result<void> {
    this.clashes = this.clashes.filter((other) => other !== clash);
    if (how === 'take') {
      const entry = taking(this.project, clash, this.world.newId());
      const next = applyChange(this.project, entry.forward);
      if (!next.ok) return next;
      this.add(next.value, entry);
    }
    this.publish();
    return ok(undefined);
  }

  dismissLost(): void {
    this.lost = undefined;
    this.publish();
  }

  /** Tries now what waits for a retry: the network is back, the person signed in again. */
  hurry(): void {
    if (this.pending.length > 0 && !this.sending) this.schedule(0);
  }

  /** Asks now what others have done. */
  async look(): Promise<void> {
    if (this.sending || this.pending.length > 0 || this.isClosed) return;
    this.sending = true;
    try {
      await this.catchUp();
    } catch (error) {
      if (error instanceof ApiError && error.status === 404) {
        this.lost =
          'This project was removed in another window. What you see can still be written to a file on Output.';
        this.cancelAsking?.();
      }
      // that the server is away, or asks who this is, shows when there is something to keep
      if (!(error instanceof OfflineError) && !(error instanceof ApiError)) throw error;
    } finally {
      this.sending = false;
    }
    // what was done meanwhile has waited
    if (this.pending.length > 0 && !this.isClosed) this.schedule(0);
    this.publish();
  }

  private ask(): void {
    this.cancelAsking = this.world.later(ASK_EVERY, () => {
      this.ask();
      if (this.world.isSeen()) void this.look();
    });
  }

  close(): void {
    this.isClosed = true;
    this.cancelTimer?.();
    this.cancelAsking?.();
  }

  private reverse(kind: 'undo' | 'redo'): Result<void> {
    const reversed = reversal(this.project, this.stacks, kind, this.world.newId());
    if (!reversed.ok) return reversed;
    this.add(reversed.value.project, reversed.value.entry);
    return ok(undefined);
  }

  private add(project: Project, made: LogEntry): void {
    const entry = { ...made, by: this.world.window };
    this.project = project;
    this.stacks = pushed(this.stacks, entry);
    this.pending.push(entry);
    for (const change of entry.forward) this.own.set(fieldKey(change.path), change);
    if (this.state.kind === 'kept') this.state = { kind: 'keeping' };
    this.keepDrafts();
    this.publish();
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
    this.publish();
  }

  private confirm(batch: readonly LogEntry[], revision: number): void {
    this.pending = this.pending.slice(batch.length);
    // with nothing left on top what is shown is what is confirmed: a change is not done and checked a second time
    if (this.pending.length === 0) this.confirmed = this.project;
    else for (const entry of batch) this.confirmed = applied(this.confirmed, entry);
    this.log = [...this.log, ...batch];
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
      await this.rebase(error.facts['since'] as Changes | undefined);
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

  /** Another window was first: its changes go below, ours on top of them. Fields that both have set are told. */
  private async rebase(since: Changes | undefined): Promise<void> {
    const own = fieldsOf(this.pending);
    const theirs = await this.fetchNewer(since);
    this.failures = 0;
    this.putOnTop();
    this.meet(clashesOf(this.project, own, theirs, 'ours'));
  }

  /** With nothing of our own on the way: what others have done since. */
  private async catchUp(): Promise<void> {
    const theirs = await this.fetchNewer();
    if (theirs.length === 0) return;
    // what was done here while the server was asked goes on top
    if (this.pending.length > 0) this.putOnTop();
    else this.project = this.confirmed;
    this.meet(clashesOf(this.project, this.own, theirs, 'theirs'));
    for (const { path } of theirs) this.own.delete(fieldKey(path));
  }

  private meet(found: readonly Clash[]): void {
    const fresh = new Set(found.map(({ path }) => fieldKey(path)));
    this.clashes = [...this.clashes.filter(({ path }) => !fresh.has(fieldKey(path))), ...found];
  }

  /** Puts all that came since on the confirmed project; the fields that others have set. @param given the first of it */
  private async fetchNewer(given?: Changes): Promise<FieldChange[]> {
    const theirs: FieldChange[] = [];
    for (let page = given; ; page = undefined) {
      const { revision, changes, more } = page ?? (await this.world.api.since(this.id, this.revision));
      const ours = new Set(this.pending.map((entry) => entry.id));
      for (const entry of changes) {
        this.confirmed = applied(this.confirmed, entry);
        if (ours.has(entry.id)) continue;
        theirs.push(...entry.forward);
        this.stacks = passed(this.stacks, entry);
      }
      const sent = new Set(changes.map((entry) => entry.id));
      this.pending = this.pending.filter((entry) => !sent.has(entry.id));
      this.log = [...this.log, ...changes];
      this.revision = revision;
      if (!more) return theirs;
    }
  }

  /** Fetches more of the log where little is left to undo. */
  private async fetchOlder(): Promise<void> {
    while (this.older !== undefined && this.stacks.undo.length < FEW && !this.isClosed) {
      const before = this.older;
      const page = await this.world.api.log(this.id, before).catch(() => undefined);
      // asked for twice: one answer is enough
      if (!page || this.older !== before) return;
      this.log = [...page.log, ...this.log];
      this.older = page.older;
      this.stacks = this.stacksNow();
      this.publish();
    }
  }

  /**
   * What this window can undo: all that was there when it was opened first, but for steps of windows that are open beside
   * it, and its own steps since.
   */
  private stacksNow(): Stacks {
    const { window, others } = this.world;
    const from = this.revision - this.log.length;
    const history = new Set(this.log.slice(0, Math.max(0, this.first - from)));
    return stacksOf(
      [...this.log, ...this.pending],
      (entry) => entry.by === window || (history.has(entry) && !(entry.by !== undefined && others.has(entry.by))),
    );
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
    this.publish();
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
    this.state = { kind: 'offline', safe: await this.drafted, why: error.message };
    this.schedule(ms);
  }
}

function applied(project: Project, entry: LogEntry): Project {
  const next = applyChange(project, entry.forward);
  if (!next.ok) throw new Error(`a confirmed change does not apply: ${explain(next.issue)}`);
  return next.value;
}
