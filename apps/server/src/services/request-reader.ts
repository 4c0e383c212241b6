import { Worker } from 'node:worker_threads';
import { z } from 'zod';
import { Refusal } from './refusal.ts';
import { readRequest, REQUESTS, type RequestName, type RequestOf } from './requests.ts';
import type { Read } from './request-thread.ts';

/** Larger bodies are read in a thread: they would hold up everybody else, bytes. */
const AT_ONCE = 32 * 1024;
/** How long it may take, s. */
interface Patience {
  /** Longer than the largest body that can be kept takes to read. */
  readonly read: number;
  /** Longer than the thread takes to begin where the machine has much to do. */
  readonly begin: number;
}
/** Memory of the thread, MB. */
const MOST_MEMORY = 512;
/** Requests that wait for the thread; more are sent away. */
const MOST_WAITING = 50;

interface Waiting {
  readonly name: RequestName;
  readonly bytes: Uint8Array;
  done(read: Read): void;
}

/** Built, the thread is a file beside this one; a thread does not inherit the reader of TypeScript. */
const url = new URL(import.meta.url.endsWith('.ts') ? './request-thread.ts' : './request-thread.js', import.meta.url);
export const ENTRY = url.href.endsWith('.ts')
  ? `import('tsx/esm/api').then(({ register }) => { register(); return import(${JSON.stringify(url.href)}); });`
  : `import(${JSON.stringify(url.href)});`;

/** Reads requests: small and quick ones at once, others one after the other in a thread with bounds of time and memory. */
export class RequestReader {
  private worker: Worker | undefined;
  /** Has the thread begun? */
  private isReady = false;
  private readonly waiting: Waiting[] = [];
  private timer: NodeJS.Timeout | undefined;

  /** @param entry what the thread runs */
  constructor(
    private readonly patience: Patience = { read: 10, begin: 60 },
    private readonly entry = ENTRY,
  ) {}

  async read<N extends RequestName>(name: N, bytes: Uint8Array): Promise<RequestOf<N>> {
    if (bytes.length <= AT_ONCE && !('isSlow' in REQUESTS[name])) return readRequest(name, bytes);
    if (this.waiting.length >= MOST_WAITING) throw new Refusal(503, 'There is much to do just now. Try again soon.');
    const read = await new Promise<Read>((done) => {
      this.waiting.push({ name, bytes, done });
      if (this.waiting.length === 1) this.next();
    });
    if ('value' in read) return read.value as RequestOf<N>;
    if ('issues' in read) throw new z.ZodError(read.issues);
    throw new Refusal(read.status, read.message, read.facts);
  }

  async close(): Promise<void> {
    clearTimeout(this.timer);
    await this.worker?.terminate();
    this.worker = undefined;
  }

  private next(): void {
    const [first] = this.waiting;
    if (!first) return;
    const worker = this.started();
    this.wait();
    worker.postMessage({ name: first.name, bytes: first.bytes });
  }

  /** A request that is good must not be refused because the thread was long in beginning. */
  private wait(): void {
    clearTimeout(this.timer);
    const seconds = this.isReady ? this.patience.read : this.patience.begin;
    this.timer = setTimeout(() => this.fail(), seconds * 1000);
  }

  private started(): Worker {
    if (this.worker) return this.worker;
    const worker = new Worker(this.entry, { eval: true, resourceLimits: { maxOldGenerationSizeMb: MOST_MEMORY } });
    worker.unref();
    this.isReady = false;
    worker.on('message', (told: Read | 'ready') => {
      if (worker !== this.worker) return;
      if (told !== 'ready') return this.answer(told);
      this.isReady = true;
      if (this.waiting.length > 0) this.wait();
    });
    worker.on('error', () => worker === this.worker && this.fail());
    return (this.worker = worker);
  }

  private answer(read: Read): void {
    clearTimeout(this.timer);
    this.waiting.shift()?.done(read);
    this.next();
  }

  /** It takes too long, or all memory: the thread is given up, and the request refused. */
  private fail(): void {
    void this.worker?.terminate();
    this.worker = undefined;
    this.answer(
      this.isReady
        ? { status: 422, message: 'This takes too long to read.', facts: {} }
        : { status: 503, message: 'There is much to do just now. Try again soon.', facts: {} },
    );
  }
}
