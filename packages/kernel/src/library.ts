import init, { type OpenCascadeInstance } from 'replicad-opencascadejs';
import { fail, ok, type Result } from '@helb/core';
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
export class Scope {
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
export function guarded<T>(library: Library, body: (scope: Scope) => Result<T>): Result<T> {
  const scope = new Scope();
  try {
    return body(scope);
  } catch (error) {
    if (!(error instanceof WebAssembly.Exception)) throw error;
    const [type, message] = library.getExceptionMessage(error);
    library.decrementExceptionRefcount(error);
    return fail('kernel.failed', { reason: message || type });
  } finally {
    scope.close();
  }
}

export { ok, fail };
