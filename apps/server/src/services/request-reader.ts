import { Worker } from 'node:worker_threads';
import { z } from 'zod';
import { Refusal } from './refusal.ts';
import { readRequest, REQUESTS, type RequestName, type RequestOf } from './requests.ts';
import type { Read } from './request-thread.ts';

/** Larger bodies are read in a thread: they would hold up everybody else, bytes. */
const AT_ONCE = 32 * 1024;
/** Longer than the largest body that can be kept takes to read, s. */
const MOST_SECONDS = 10;
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
const ENTRY = url.href.endsWith('.ts')
  ? `import('tsx/esm/api').then(({ register }) => { register(); return import(${JSON.stringify(url.href)}); });`
  : `import(${JSON.stringify(url.href)});`;

/** Reads requests: small and quick ones at once, others one after the other in a thread with bounds of time and memory. */
export class RequestReader {
  private worker: Worker | undefined;
  private readonly waiting: Waiting[] = [];
  private timer: NodeJS.Timeout | undefined;

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
    this.timer = setTimeout(() => this.fail(), MOST_SECONDS * 1000);
    this.started().postMessage({ name: first.name, bytes: first.bytes });
  }

  private started(): Worker {
    if (this.worker) return this.worker;
    const worker = new Worker(ENTRY, { eval: true, resourceLimits: { maxOldGenerationSizeMb: MOST_MEMORY } });
    worker.unref();
    worker.on('message', (read: Read) => worker === this.worker && this.answer(read));
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
    this.answer({ status: 422, message: 'This takes too long to read.', facts: {} });
  }
}
