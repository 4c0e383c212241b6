import type { Context } from 'koa';
import rawBody from 'raw-body';
import { REQUESTS, type RequestName, type RequestOf } from '../services/requests.ts';
import { Refusal } from '../services/refusal.ts';
import type { RequestReader } from '../services/request-reader.ts';

/** The bytes of a body, no more than so many. */
export async function bytesOf(ctx: Context, most: number, words: string): Promise<Buffer> {
  try {
    return await rawBody(ctx.req, { limit: most });
  } catch (error) {
    // the rest is let in and dropped: who still sends would never read the answer
    ctx.req.resume();
    if ((error as { type?: string }).type === 'entity.too.large') throw new Refusal(413, words);
    throw new Refusal(400, 'The request ended before it was complete.');
  }
}

/** What a request carries. To be called when it is known who asks. */
export async function body<N extends RequestName>(ctx: Context, reader: RequestReader, name: N): Promise<RequestOf<N>> {
  if (!ctx.is('json')) throw new Refusal(415, 'Send JSON.');
  const { most } = REQUESTS[name];
  return reader.read(name, await bytesOf(ctx, most, `This is larger than ${words(most)}.`));
}

const words = (bytes: number): string =>
  bytes >= 1024 * 1024 ? `${bytes / 1024 / 1024} MB` : `${Math.round(bytes / 1024)} kB`;
