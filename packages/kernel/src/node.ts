import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { OpenCascadeKernel } from './kernel.ts';

/** Starts a kernel in Node, with the WebAssembly file of the installed package. */
export async function startKernelInNode(): Promise<OpenCascadeKernel> {
  const file = createRequire(import.meta.url).resolve('replicad-opencascadejs/wasm');
  return OpenCascadeKernel.start({ bytes: await readFile(file) });
}
