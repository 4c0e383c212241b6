import type { Context, Next } from 'koa';
import { Refusal } from '../services/refusal.ts';

/** Changing requests come from our own page only: the browser tells where a request was made. */
export async function sameOrigin(ctx: Context, next: Next): Promise<void> {
  const changing = ctx.method !== 'GET' && ctx.method !== 'HEAD';
  const origin = ctx.get('Origin');
  if (changing && origin && !(URL.canParse(origin) && new URL(origin).host === ctx.host))
    throw new Refusal(403, 'This request came from another site.');
  await next();
}
