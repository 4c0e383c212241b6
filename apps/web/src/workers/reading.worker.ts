import { readOutline } from '@helb/core/outlines';

/** Reads an outline file beside the page: what a file asks for can take any time. */
onmessage = async ({ data }: MessageEvent<File>) => {
  postMessage(readOutline(data.name, await data.text()));
};
