import * as Comlink from 'comlink';
import type { Id, Project } from '@helb/core';
import type { BuildReply, BuildRequest, EngineWorker, FileFormat, FileReply } from './protocol.ts';

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
  private worker: ReturnType<Starter['start']>;
  private newest = 0;
  private crash: ((reason: Error) => void) | undefined;

  constructor(private readonly starter: Starter = browserWorker) {
    this.worker = this.started();
  }

  /** Undefined where something newer was asked for meanwhile. */
  async build(request: BuildRequest, progress: Progress): Promise<Extract<BuildReply, { kind: 'built' }> | undefined> {
    const mine = ++this.newest;
    const ask = (known: readonly string[]) =>
      this.surviving(() =>
        this.worker.api.build(
          { ...request, known },
          Comlink.proxy((...args) => void (mine === this.newest && progress(...args))),
        ),
      );
    const reply = await ask(request.known).catch((error: unknown) => {
      if (!(error instanceof CrashError) || mine !== this.newest) throw error;
      return ask(request.known);
    });
    return mine === this.newest && reply.kind === 'built' ? reply : undefined;
  }

  file(project: Project, part: Id, format: FileFormat): Promise<FileReply> {
    return this.surviving(() => this.worker.api.file(project, part, format));
  }

  end(): void {
    this.worker.end();
  }

  /** Runs a call; rejects with CrashError if the worker dies under it. */
  private surviving<T>(call: () => Promise<T>): Promise<T> {
    const crashed = new Promise<never>((_, reject) => (this.crash = reject));
    return Promise.race([call(), crashed]);
  }

  private started() {
    return this.starter.start((reason) => {
      this.worker.end();
      this.worker = this.started();
      this.crash?.(new CrashError(reason));
    });
  }
}

export class CrashError extends Error {}

const browserWorker: Starter = {
  start(onCrash) {
    const worker = new Worker(new URL('./engine.worker.ts', import.meta.url), { type: 'module' });
    worker.onerror = (event) => onCrash(event.message);
    return { api: Comlink.wrap<EngineWorker>(worker), end: () => worker.terminate() };
  },
};
