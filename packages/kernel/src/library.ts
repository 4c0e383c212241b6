import init, { type OpenCascadeInstance } from 'replicad-opencascadejs';
import { fail, ok, type Result } from '@helb/core';

export type Library = OpenCascadeInstance;

/** How the WebAssembly of the kernel is found: bytes in Node, an address in the browser (then it is streamed). */
export type LibrarySource = { readonly bytes: Uint8Array } | { readonly url: string };

/** Starts one instance of the geometry library; it prints nothing. */
export function startLibrary(source: LibrarySource): Promise<Library> {
  const silent = { print() {}, printErr() {} };
  if ('bytes' in source) return init({ ...silent, wasmBinary: source.bytes });
  return init({
    ...silent,
    // streamed and compiled by hand: only then does the browser keep the compiled code between visits
    instantiateWasm(
      imports: WebAssembly.Imports,
      done: (instance: WebAssembly.Instance, module: WebAssembly.Module) => void,
    ) {
      void WebAssembly.compileStreaming(fetch(source.url)).then(async (module) =>
        done(await WebAssembly.instantiate(module, imports), module),
      );
      return {};
    },
  });
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
