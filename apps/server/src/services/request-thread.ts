import { parentPort } from 'node:worker_threads';
import { ZodError } from 'zod';
import { Refusal } from './refusal.ts';
import { readRequest, type RequestName } from './requests.ts';

/** What came of reading a request. */
export type Read =
  | { readonly value: unknown }
  | { readonly issues: ZodError['issues'] }
  | { readonly status: number; readonly message: string; readonly facts: Readonly<Record<string, unknown>> };

parentPort!.on('message', ({ name, bytes }: { name: RequestName; bytes: Uint8Array }) => {
  parentPort!.postMessage(read(name, bytes));
});

function read(name: RequestName, bytes: Uint8Array): Read {
  try {
    return { value: readRequest(name, bytes) };
  } catch (error) {
    if (error instanceof Refusal) return { status: error.status, message: error.message, facts: error.facts };
    if (error instanceof ZodError) {
      const [wrong] = error.issues;
      return { issues: [{ code: 'custom', path: wrong!.path, message: wrong!.message, input: undefined }] };
    }
    throw error;
  }
}

// what comes from now on is timed
parentPort!.postMessage('ready');
