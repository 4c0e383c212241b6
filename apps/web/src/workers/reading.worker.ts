import { fail } from '@helb/core';
import { readOutline } from '@helb/core/outlines';

/** Reads an outline file beside the page: what a file asks for can take any time. */
onmessage = async ({ data }: MessageEvent<File>) => {
  try {
    postMessage(readOutline(data.name, await data.text()));
  } catch (error) {
    postMessage(fail('outline.unreadable', { format: data.name.split('.').at(-1)!, reason: (error as Error).message }));
  }
};
