import type { Context, Next } from 'koa';
import { Refusal } from '../services/refusal.ts';

/**
 * Only requests to our own names are answered: a page of somebody else can make its name lead here. Changing requests come
 * from our own page only: the browser tells where a request was made.
 * @param hosts names without ports
 */
export const ownHosts =
  (hosts: readonly string[]) =>
  async (ctx: Context, next: Next): Promise<void> => {
    const name = ctx.host.replace(/:\d+$/, '').toLowerCase();
    if (!hosts.includes(name)) throw new Refusal(421, 'This server does not go by that name.');
    const changing = ctx.method !== 'GET' && ctx.method !== 'HEAD';
    const origin = ctx.get('Origin');
    const isForeign = origin !== '' && !(URL.canParse(origin) && new URL(origin).host === ctx.host);
    const site = ctx.get('Sec-Fetch-Site');
    if (changing && (isForeign || (site !== '' && site !== 'same-origin')))
      throw new Refusal(403, 'This request came from another site.');
    await next();
  };
