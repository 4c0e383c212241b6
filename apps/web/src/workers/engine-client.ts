import * as Comlink from 'comlink';
import type { Project } from '@helb/core';
import { ProjectSender } from './project-line.ts';
import type { EngineWorker } from './protocol.ts';

/** Calls of which only the newest of their kind counts, each with what is told of its progress as its last argument. */
const NEWEST = ['build', 'assemble', 'sheet', 'checks'] as const;
type Newest = (typeof NEWEST)[number];
/** What the page does not call itself. */
type Own = 'ready' | 'watch' | 'stop';

type Reply<N extends keyof EngineWorker> = Awaited<ReturnType<EngineWorker[N]>>;
/** The calls of the worker as the page makes them. Of those of which the newest counts an older one gives undefined. */
type Engine = {
  readonly [N in Exclude<keyof EngineWorker, Own>]: N extends Newest
    ? (...given: Parameters<EngineWorker[N]>) => Promise<Exclude<Reply<N>, { readonly kind: 'overtaken' }> | undefined>
    : EngineWorker[N];
};

/** What a client needs to know of a worker; tests give a fake. */
export interface Starter {
  start(onCrash: (reason: string) => void): { readonly api: EngineWorker; end(): void };
}

/** A worker that was started, and what it knows of the project. */
interface Living extends ReturnType<Starter['start']> {
  readonly sender: ProjectSender;
}

/**
 * The page's side of the engine's worker. Single flight, latest wins: of builds asked for while one runs only the newest
 * is made. A worker that crashed is started anew, and the build that it had is made again once.
 */
export class EngineClient {
  private worker: Living | undefined;
  private readonly newest: Record<string, number> = {};
  /** How to tell the calls that are under way that their worker died. */
  private readonly underWay = new Set<(reason: Error) => void>();

  private timer: ReturnType<typeof setTimeout> | undefined;

  constructor(
    private readonly starter: Starter = browserWorker,
    private readonly endless: EndlessSteps = new EndlessSteps(),
  ) {}

  /** All calls of the worker, each under its own name: one that dies under a call is started anew with the next. */
  readonly engine = new Proxy({} as Engine, {
    get: (_, name: Exclude<keyof EngineWorker, Own>) =>
      (NEWEST as readonly string[]).includes(name)
        ? (...given: unknown[]) => this.latest(name, given)
        : (...given: unknown[]) => this.call(name, given),
  });

  /** Ends a search that is under way. */
  async stop(): Promise<void> {
    await this.worker?.api.stop();
  }

  /** Ends a drawing. It may take minutes inside the kernel, where no message reaches it: its worker goes with it. */
  endDrawing(): void {
    for (const name of ['sheet', 'checks']) this.newest[name] = (this.newest[name] ?? 0) + 1;
    this.died('stopped');
  }

  private call(name: keyof EngineWorker, given: readonly unknown[]): Promise<unknown> {
    // what is told on the way crosses as a port
    const sent = given.map((one) => (typeof one === 'function' ? Comlink.proxy(one as () => void) : one));
    return this.surviving(({ api, sender }) => {
      const [first, ...rest] = sent;
      const call = api[name] as (...args: unknown[]) => Promise<unknown>;
      return call(name === 'zip' ? first : sender.next(first as Project), ...rest);
    });
  }

  /** Of calls of one kind only the newest counts, and it alone tells its progress. It is made again once after a crash. */
  private async latest(name: keyof EngineWorker, given: readonly unknown[]): Promise<unknown> {
    const mine = (this.newest[name] = (this.newest[name] ?? 0) + 1);
    const isNewest = () => mine === this.newest[name];
    const heard = given.map((one) =>
      typeof one === 'function'
        ? (...report: unknown[]) => void (isNewest() && (one as (...report: unknown[]) => void)(...report))
        : one,
    );
    const reply = (await this.call(name, heard).catch((error: unknown) => {
      if (!(error instanceof CrashError) || !isNewest()) throw error;
      return this.call(name, heard);
    })) as { readonly kind: string; readonly memory?: number };
    if (reply.kind === 'overtaken') return undefined;
    if ((reply.memory ?? 0) > TIRED) this.retire();
    return isNewest() ? reply : undefined;
  }

  /** Runs a call on a living worker; rejects with CrashError if that dies under it. */
  private async surviving<T>(call: (worker: Living) => Promise<T>): Promise<T> {
    this.worker ??= this.started();
    let tell: (reason: Error) => void = () => undefined;
    const crashed = new Promise<never>((_, reject) => this.underWay.add((tell = reject)));
    try {
      return await Promise.race([call(this.worker), crashed]);
    } finally {
      this.underWay.delete(tell);
    }
  }

  private started(): Living {
    const worker = { ...this.starter.start((reason) => this.died(reason)), sender: new ProjectSender() };
    const report = (digest?: string) => {
      clearTimeout(this.timer);
      if (digest !== undefined && worker === this.worker)
        this.timer = setTimeout(() => {
          this.endless.add(digest);
          this.died('a step did not end');
        }, STEP_LIMIT_S * 1000);
    };
    void worker.api.watch(Comlink.proxy(report), this.endless.all, STEP_LIMIT_S);
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
