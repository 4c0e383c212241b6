import init, { type OpenCascadeInstance } from 'replicad-opencascadejs';
import { fail, KernelHurt, ok, type Result } from '@helb/core';
import { mendDeletes } from './destructors.ts';

export type Library = OpenCascadeInstance;

/** How the WebAssembly of the kernel is found: bytes in Node, an address in the browser (then it is streamed). */
export type LibrarySource = { readonly bytes: Uint8Array } | { readonly url: string };

/** Longer than the slowest start that was seen, by far; a page that may not run the glue code never answers. */
const START_LIMIT_MS = 90_000;

/** Starts one instance of the geometry library; it prints nothing. Rejects where it can't be loaded or never answers. */
export async function startLibrary(source: LibrarySource): Promise<Library> {
  // streamed and compiled by hand: only then does the browser keep the compiled code between visits
  const module =
    'bytes' in source
      ? await WebAssembly.compile(new Uint8Array(source.bytes))
      : await WebAssembly.compileStreaming(fetch(source.url));
  let table: WebAssembly.Table | undefined;
  const starting = init({
    print() {},
    printErr() {},
    instantiateWasm(imports: WebAssembly.Imports, done: (made: WebAssembly.Instance, of: WebAssembly.Module) => void) {
      void WebAssembly.instantiate(module, imports).then((instance) => {
        table = Object.values(instance.exports).find((one) => one instanceof WebAssembly.Table);
        done(instance, module);
      });
      return {};
    },
  });
  const late = new Promise<never>((_, reject) =>
    setTimeout(() => reject(new Error('the geometry kernel did not start')), START_LIMIT_MS).unref?.(),
  );
  const library = await Promise.race([starting, late]);
  if (table) mendDeletes({ library, table });
  return library;
}

interface Deletable {
  delete(): void;
}

/** Deletes what the body of a function made in WebAssembly memory, in reverse order, however it ends. */
export class DisposalScope {
  private readonly kept: Deletable[] = [];

  keep<T extends Deletable>(object: T): T {
    this.kept.push(object);
    return object;
  }

  /** Booleans leak their inner structures unless cleared first. */
  keepCleared<T extends Deletable & { Clear(): void }>(operation: T): T {
    this.kept.push({
      delete() {
        operation.Clear();
        operation.delete();
      },
    });
    return operation;
  }

  close(): void {
    for (const object of this.kept.reverse()) object.delete();
  }
}

/** Runs a kernel operation; an exception of the library becomes a failed Result, and all temporary objects go. */
export function guarded<T>(library: Library, body: (scope: DisposalScope) => Result<T>): Result<T> {
  const scope = new DisposalScope();
  try {
    return body(scope);
  } catch (error) {
    if (!(error instanceof WebAssembly.Exception)) throw hurt(error);
    const [type, message] = library.getExceptionMessage(error);
    library.decrementExceptionRefcount(error);
    if (type === 'std::bad_alloc') throw new KernelHurt('out of memory');
    return fail('kernel.failed', { reason: message || type });
  } finally {
    closed(scope);
  }
}

/** Runs what is not expected to fail: where it does, the kernel is hurt. */
export function unfailing<T>(library: Library, body: () => T): T {
  try {
    return body();
  } catch (error) {
    if (!(error instanceof WebAssembly.Exception)) throw hurt(error);
    const [type, message] = library.getExceptionMessage(error);
    throw new KernelHurt(message || type);
  }
}

/** What breaks WebAssembly off in the middle leaves it as it is there: memory half written, locks taken. */
const hurt = (error: unknown): unknown =>
  error instanceof WebAssembly.RuntimeError || error instanceof RangeError
    ? new KernelHurt(error.message.toLowerCase())
    : error;

/** After harm was done even giving back may fail. */
function closed(scope: DisposalScope): void {
  try {
    scope.close();
  } catch (error) {
    if (!(error instanceof WebAssembly.RuntimeError)) throw error;
  }
}

export { ok, fail };
