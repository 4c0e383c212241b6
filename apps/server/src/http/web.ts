import { send } from '@koa/send';
import type { Context, Next } from 'koa';

/** The kernel's own glue makes functions from strings; only its worker may do so. */
const KERNEL_WORKER = /^\/assets\/engine\.worker-[\w-]+\.js$/;

/** The built page: hashed assets for ever, compressed as they were at build time; any other path is the page itself. */
export const serveWeb =
  (root: string) =>
  async (ctx: Context, next: Next): Promise<void> => {
    if ((ctx.method !== 'GET' && ctx.method !== 'HEAD') || ctx.path.startsWith('/api/')) {
      await next();
      return;
    }
    if (KERNEL_WORKER.test(ctx.path))
      ctx.set('Content-Security-Policy', "default-src 'self'; script-src 'self' 'wasm-unsafe-eval' 'unsafe-eval'");
    if (ctx.path.startsWith('/assets/')) {
      await send(ctx, ctx.path, { root, maxage: 365 * 24 * 3600 * 1000, immutable: true, brotli: true, gzip: true });
      return;
    }
    ctx.set('Cache-Control', 'no-cache');
    const named = /\.\w+$/.test(ctx.path);
    await send(ctx, named ? ctx.path : '/index.html', { root });
  };
