import Koa, { type Context, type Next } from 'koa';
import helmet from 'koa-helmet';
import type { Logs } from '../logs.ts';
import type { Accounts } from '../accounts/accounts.ts';
import type { Sessions } from '../accounts/sessions.ts';
import type { Files } from '../services/files.ts';
import type { Limits } from '../services/limits.ts';
import type { Projects } from '../services/projects.ts';
import type { Quota } from '../services/quota.ts';
import type { Shelf } from '../services/shelf.ts';
import type { RequestReader } from '../services/request-reader.ts';
import { answerErrors, faultOf } from './errors.ts';
import { apiRoutes } from './routes.ts';
import { ownHosts } from './same-origin.ts';
import { serveWeb } from './web.ts';

export interface Services {
  readonly accounts: Accounts;
  readonly sessions: Sessions;
  readonly limits: Limits;
  readonly quota: Quota;
  readonly projects: Projects;
  readonly files: Files;
  readonly shelf: Shelf;
  readonly requests: RequestReader;
  /** Host names that are answered, and how many proxies before it are believed. */
  readonly hosts: readonly string[];
  readonly proxies: number;
  /** How often one address may try to enter in a minute, and one account change something. */
  readonly tries: number;
  readonly writes: number;
  /** Does everybody have to set one-time codes before anything else? */
  readonly needsCodes: boolean;
  /** May anybody make an account? */
  readonly signUp: boolean;
  readonly healthy: () => Promise<void>;
}

/** The whole HTTP application: API under /api, the built page elsewhere. */
export function createApp(services: Services, logs: Logs, webFolder?: string): Koa {
  const app = new Koa({ proxy: services.proxies > 0, maxIpsCount: services.proxies });
  // a browser that goes away in the middle of a download is no trouble of ours
  app.on('error', (error: NodeJS.ErrnoException) => {
    if (!['ECONNRESET', 'EPIPE', 'ERR_STREAM_PREMATURE_CLOSE'].includes(error.code ?? ''))
      logs.faults.error({ fault: faultOf(error) }, 'answer failed');
  });
  app.use(writtenDown(logs));
  app.use(answerErrors(logs.faults));
  app.use(
    helmet({
      contentSecurityPolicy: {
        directives: {
          defaultSrc: ["'self'"],
          scriptSrc: ["'self'", "'wasm-unsafe-eval'"],
          styleSrc: ["'self'", "'unsafe-inline'"],
          imgSrc: ["'self'", 'data:', 'blob:'],
          workerSrc: ["'self'"],
          objectSrc: ["'none'"],
          frameAncestors: ["'none'"],
          upgradeInsecureRequests: null,
        },
      },
      strictTransportSecurity: false,
    }),
  );
  app.use(ownHosts(services.hosts));
  app.use(secured);
  const api = apiRoutes(services, logs);
  app.use(api.routes()).use(api.allowedMethods());
  if (webFolder) app.use(serveWeb(webFolder));
  return app;
}

/** Every request of the API, with who asked and how it ended. */
const writtenDown =
  ({ requests }: Logs) =>
  async (ctx: Context, next: Next): Promise<void> => {
    const start = performance.now();
    await next();
    if (!ctx.path.startsWith('/api/')) return;
    const { account } = ctx.state as { account?: number };
    const took = Math.round(performance.now() - start);
    requests.info({ method: ctx.method, path: ctx.path, status: ctx.status, ms: took, account, address: ctx.ip });
  };

/** Over https the browser is told to stay there; what the API answers is nobody's to keep. */
async function secured(ctx: Context, next: Next): Promise<void> {
  if (ctx.secure) ctx.set('Strict-Transport-Security', 'max-age=31536000; includeSubDomains');
  if (ctx.path.startsWith('/api/')) ctx.set('Cache-Control', 'no-store');
  await next();
}
