import * as Comlink from 'comlink';
import type { BodyReference, Box3, EdgeFacts, Id, Issue, RigidTransform, Project } from '@helb/core';
import type { BillRow } from '@helb/engine';
import type {
  BuildReply,
  BuildRequest,
  EngineWorker,
  FileFormat,
  OutlineFormat,
  FileReply,
  GapReply,
  InterferenceReply,
  ChecksReply,
  SheetFormat,
  SheetReply,
  WallsReply,
  WeightReply,
  AssemblyReply,
  AssemblyRequest,
} from './protocol.ts';

export type Progress = (done: number, of: number, name: string) => void;

/** What a client needs to know of a worker; tests give a fake. */
export interface Starter {
  start(onCrash: (reason: string) => void): { readonly api: EngineWorker; end(): void };
}

/**
 * The page's side of the engine's worker. Single flight, latest wins: of builds asked for while one runs only the newest
 * is made. A worker that crashed is started anew, and the build that it had is made again once.
 */
export class EngineClient {
  private worker: ReturnType<Starter['start']> | undefined;
  private readonly newest = { build: 0, assemble: 0, sheet: 0, checks: 0 };
  /** How to tell the calls that are under way that their worker died. */
  private readonly underWay = new Set<(reason: Error) => void>();

  private timer: ReturnType<typeof setTimeout> | undefined;

  constructor(
    private readonly starter: Starter = browserWorker,
    private readonly endless: EndlessSteps = new EndlessSteps(),
  ) {}

  /** Undefined where something newer was asked for meanwhile. */
  build(request: BuildRequest, progress: Progress): Promise<Extract<BuildReply, { kind: 'built' }> | undefined> {
    return this.latest('build', progress, request.known, (worker, known, told) =>
      worker.build({ ...request, known }, told),
    ) as Promise<Extract<BuildReply, { kind: 'built' }> | undefined>;
  }

  /** Undefined where something newer was asked for meanwhile. */
  assemble(
    request: AssemblyRequest,
    progress: Progress,
  ): Promise<Extract<AssemblyReply, { kind: 'assembly' }> | undefined> {
    return this.latest('assemble', progress, request.known, (worker, known, told) =>
      worker.assemble({ ...request, known }, told),
    ) as Promise<Extract<AssemblyReply, { kind: 'assembly' }> | undefined>;
  }

  interference(
    project: Project,
    poses: readonly RigidTransform[],
    within: number,
    progress: (done: number, of: number) => void,
  ): Promise<InterferenceReply> {
    return this.surviving((worker) => worker.interference(project, poses, within, Comlink.proxy(progress)));
  }

  extents(project: Project, poses: readonly RigidTransform[]): Promise<Box3 | undefined> {
    return this.surviving((worker) => worker.extents(project, poses));
  }

  troubles(project: Project, part: Id | undefined): Promise<readonly Issue[]> {
    return this.surviving((worker) => worker.troubles(project, part));
  }

  async stop(): Promise<void> {
    await this.worker?.api.stop();
  }

  /**
   * Of calls of one kind only the newest counts. What the page shows already is in the worker that made it: a fresh one is
   * asked for all of it again.
   */
  private async latest<R extends BuildReply | AssemblyReply | SheetReply | ChecksReply>(
    kind: 'build' | 'assemble' | 'sheet' | 'checks',
    progress: Progress,
    known: readonly string[],
    call: (worker: EngineWorker, known: readonly string[], told: Progress) => Promise<R>,
  ): Promise<R | undefined> {
    const mine = ++this.newest[kind];
    const isNewest = () => mine === this.newest[kind];
    const ask = () =>
      this.surviving((worker) =>
        call(
          worker,
          known,
          Comlink.proxy((...args) => void (isNewest() && progress(...args))),
        ),
      );
    const reply = await ask().catch((error: unknown) => {
      if (!(error instanceof CrashError) || !isNewest()) throw error;
      return ask();
    });
    if (reply.kind === 'overtaken') return undefined;
    if ((reply as { memory: number }).memory > TIRED) this.retire();
    return isNewest() ? reply : undefined;
  }

  sheet(project: Project, id: Id, progress: Progress): Promise<SheetReply | undefined> {
    return this.latest('sheet', progress, [], (worker, _, told) =>
      worker.sheet(project, id, told as (done: number, of: number) => void),
    );
  }

  checks(project: Project, progress: (words: string) => void): Promise<ChecksReply | undefined> {
    return this.latest(
      'checks',
      (_, __, words) => progress(words),
      [],
      (worker, _, told) =>
        worker.checks(
          project,
          Comlink.proxy((words: string) => told(0, 0, words)),
        ),
    );
  }

  /** Ends a drawing. It may take minutes inside the kernel, where no message reaches it: its worker goes with it. */
  endDrawing(): void {
    this.newest.sheet++;
    this.newest.checks++;
    this.died('stopped');
  }

  cut(...args: Parameters<EngineWorker['cut']>): Promise<FileReply> {
    return this.surviving((worker) => worker.cut(...args));
  }

  fittingMarks(...args: Parameters<EngineWorker['fittingMarks']>): ReturnType<EngineWorker['fittingMarks']> {
    return this.surviving((worker) => worker.fittingMarks(...args));
  }

  sheetFile(project: Project, ids: readonly Id[], format: SheetFormat): Promise<FileReply> {
    return this.surviving((worker) => worker.sheetFile(project, ids, format));
  }

  crossings(project: Project, part: Id, sketch: Id): Promise<Readonly<Record<string, readonly EdgeFacts[]>>> {
    return this.surviving((worker) => worker.crossings(project, part, sketch));
  }

  gap(project: Project, part: Id, between: readonly [BodyReference, BodyReference]): Promise<GapReply> {
    return this.surviving((worker) => worker.gap(project, part, between));
  }

  zip(files: Readonly<Record<string, Uint8Array>>): Promise<Uint8Array<ArrayBuffer>> {
    return this.surviving((worker) => worker.zip(files));
  }

  weigh(project: Project): Promise<WeightReply> {
    return this.surviving((worker) => worker.weigh(project));
  }

  billOfMaterials(project: Project): Promise<readonly BillRow[]> {
    return this.surviving((worker) => worker.billOfMaterials(project));
  }

  walls(project: Project, part: Id, upTo?: Id): Promise<WallsReply> {
    return this.surviving((worker) => worker.walls(project, part, upTo));
  }

  file(project: Project, part: Id | undefined, format: FileFormat): Promise<FileReply> {
    return this.surviving((worker) => worker.file(project, part, format));
  }

  outline(project: Project, part: Id, sketch: Id, format: OutlineFormat): Promise<FileReply> {
    return this.surviving((worker) => worker.outline(project, part, sketch, format));
  }

  /** Runs a call on a living worker; rejects with CrashError if that dies under it. */
  private async surviving<T>(call: (worker: EngineWorker) => Promise<T>): Promise<T> {
    this.worker ??= this.started();
    let tell: (reason: Error) => void = () => undefined;
    const crashed = new Promise<never>((_, reject) => this.underWay.add((tell = reject)));
    try {
      return await Promise.race([call(this.worker.api), crashed]);
    } finally {
      this.underWay.delete(tell);
    }
  }

  private started(): ReturnType<Starter['start']> {
    const worker = this.starter.start((reason) => this.died(reason));
    const told = (digest?: string) => {
      clearTimeout(this.timer);
      if (digest !== undefined && worker === this.worker)
        this.timer = setTimeout(() => {
          this.endless.add(digest);
          this.died('a step did not end');
        }, STEP_LIMIT_S * 1000);
    };
    void worker.api.watch(Comlink.proxy(told), this.endless.all, STEP_LIMIT_S);
    return worker;
  }

  /** The next call starts a fresh one, unless this one has something to do still. */
  private retire(): void {
    if (this.underWay.size > 0) return;
    this.worker?.end();
    this.worker = undefined;
  }

  /** The next call starts a new worker: one that can't be loaded must not be started again and again. */
  private died(reason: string): void {
    clearTimeout(this.timer);
    this.worker?.end();
    this.worker = undefined;
    for (const tell of this.underWay) tell(new CrashError(reason));
  }
}

/** Longer than any step that is known to end. */
const STEP_LIMIT_S = 120;
const MOST_ENDLESS = 50;
const KEPT_AS = 'helb.endless-steps';

/** Steps that were given up because they did not end, kept in this browser: after a reload they are not waited for again. */
export class EndlessSteps {
  constructor(private readonly store: Pick<Storage, 'getItem' | 'setItem'> | undefined = globalThis.localStorage) {}

  get all(): readonly string[] {
    try {
      const kept: unknown = JSON.parse(this.store?.getItem(KEPT_AS) ?? '[]');
      return Array.isArray(kept) ? kept.filter((one) => typeof one === 'string') : [];
    } catch {
      return [];
    }
  }

  add(digest: string): void {
    const all = [...this.all.filter((other) => other !== digest), digest].slice(-MOST_ENDLESS);
    try {
      this.store?.setItem(KEPT_AS, JSON.stringify(all));
    } catch {
      // without room it is only waited for once more
    }
  }
}

/** Memory of WebAssembly never shrinks: with more than this, bytes, a worker makes room for a fresh one. */
const TIRED = 1.5e9;

export class CrashError extends Error {}

const browserWorker: Starter = {
  start(onCrash) {
    const worker = new Worker(new URL('./engine.worker.ts', import.meta.url), { type: 'module' });
    worker.onerror = (event) => onCrash(event.message);
    return { api: Comlink.wrap<EngineWorker>(worker), end: () => worker.terminate() };
  },
};
