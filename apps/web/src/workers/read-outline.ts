import { fail, type Result } from '@helb/core';
import type { Outline } from '@helb/core/outlines';

/** Longer than any file that can be drawn takes, s. */
const MOST_SECONDS = 10;

/** Reads an outline file in a thread of its own, which is ended when it takes too long or too much. */
export function readOutlineApart(file: File): Promise<Result<Outline>> {
  const worker = new Worker(new URL('./reading.worker.ts', import.meta.url), { type: 'module' });
  return new Promise<Result<Outline>>((resolve) => {
    const format = (file.name.split('.').at(-1) ?? '').toUpperCase();
    const unreadable = (reason: string) => resolve(fail('outline.unreadable', { format, reason }));
    setTimeout(() => unreadable(`it takes more than ${MOST_SECONDS} s`), MOST_SECONDS * 1000);
    worker.onmessage = ({ data }: MessageEvent<Result<Outline>>) => resolve(data);
    worker.onerror = () => unreadable('it asks for too much');
    worker.postMessage(file);
  }).finally(() => worker.terminate());
}
