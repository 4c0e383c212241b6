import Router from '@koa/router';
import type { Context } from 'koa';
import rawBody from 'raw-body';
import { RateLimiterMemory } from 'rate-limiter-flexible';
import { z } from 'zod';
import { deeperThan, LIMITS, MOST_FILE, nameSchema } from '@helb/core';
import type { Account } from '../db/models.ts';
import { credentialsSchema } from '../services/accounts.ts';
import { saveSchema } from '../services/projects.ts';
import { notFound, Refusal } from '../services/refusal.ts';
import type { Services } from './app.ts';

const COOKIE = 'helb_session';
const PICTURE = { most: 300 * 1024, magic: Buffer.from([0x89, 0x50, 0x4e, 0x47]) };

const newProjectSchema = z.union([
  z.strictObject({ name: nameSchema }),
  z.strictObject({ demo: z.literal(true) }),
  z.strictObject({ document: z.unknown() }),
]);
const lookSchema = z.strictObject({
  findings: z.int().min(0).max(100000),
  /** PNG, base64. */
  picture: z.base64().max((PICTURE.most * 4) / 3 + 4),
});

/** The body by its schema; deep input is refused before a schema walks it. */
function body<T>(ctx: Context, schema: z.ZodType<T>): T {
  const raw: unknown = ctx.request.body;
  if (deeperThan(raw, LIMITS.depth + 8))
    throw new Refusal(422, `The request is nested more than ${LIMITS.depth + 8} deep.`);
  return schema.parse(raw);
}

export function apiRoutes({ accounts, projects, files, tries, healthy }: Services): Router {
  const router = new Router({ prefix: '/api' });
  const attempts = new RateLimiterMemory({ points: tries, duration: 60 });

  const who = async (ctx: Context): Promise<Account> => {
    const account = await accounts.bySession(ctx.cookies.get(COOKIE));
    if (!account) throw new Refusal(401, 'Please sign in.');
    return account;
  };
  const enter = async (ctx: Context, account: Account) => {
    const { token, expires } = await accounts.openSession(account);
    ctx.cookies.set(COOKIE, token, { httpOnly: true, sameSite: 'lax', expires, secure: ctx.secure });
    ctx.body = { name: account.name };
  };
  const limited = async (ctx: Context) => {
    await attempts.consume(ctx.ip).catch(() => {
      throw new Refusal(429, 'Too many tries. Wait a minute.');
    });
  };
  const projectId = (ctx: Context & { params: Record<string, string> }): string => {
    const id = ctx.params['id'] ?? '';
    if (!/^[0-9a-z]{12}$/.test(id)) throw notFound();
    return id;
  };

  const fileHash = (ctx: Context & { params: Record<string, string> }): string => {
    const hash = ctx.params['hash'] ?? '';
    if (!/^[0-9a-f]{64}$/.test(hash)) throw new Refusal(404, 'There is no such file.');
    return hash;
  };

  router.get('/health', async (ctx) => {
    await healthy();
    ctx.body = { ok: true };
  });

  router.post('/account', async (ctx) => {
    await limited(ctx);
    await enter(ctx, await accounts.signUp(body(ctx, credentialsSchema)));
    ctx.status = 201;
  });
  router.post('/session', async (ctx) => {
    await limited(ctx);
    await enter(ctx, await accounts.signIn(body(ctx, credentialsSchema)));
  });
  router.get('/session', async (ctx) => {
    ctx.body = { name: (await who(ctx)).name };
  });
  router.delete('/session', async (ctx) => {
    const token = ctx.cookies.get(COOKIE);
    if (token) await accounts.closeSession(token);
    ctx.cookies.set(COOKIE, null);
    ctx.status = 204;
  });

  router.get('/projects', async (ctx) => {
    ctx.body = await projects.list((await who(ctx)).id);
  });
  router.post('/projects', async (ctx) => {
    const { id: accountId } = await who(ctx);
    ctx.body = { id: await projects.create(accountId, body(ctx, newProjectSchema)) };
    ctx.status = 201;
  });
  router.get('/projects/:id', async (ctx) => {
    ctx.body = await projects.open((await who(ctx)).id, projectId(ctx));
  });
  router.delete('/projects/:id', async (ctx) => {
    await projects.remove((await who(ctx)).id, projectId(ctx));
    ctx.status = 204;
  });
  router.get('/projects/:id/document', async (ctx) => {
    ctx.body = await projects.document((await who(ctx)).id, projectId(ctx));
  });
  router.get('/projects/:id/changes', async (ctx) => {
    const after = z.coerce.number().int().min(0).parse(ctx.query['after']);
    ctx.body = await projects.since((await who(ctx)).id, projectId(ctx), after);
  });
  router.post('/projects/:id/changes', async (ctx) => {
    ctx.body = await projects.save((await who(ctx)).id, projectId(ctx), body(ctx, saveSchema));
  });
  router.put('/projects/:id/look', async (ctx) => {
    const { id: accountId } = await who(ctx);
    const { findings, picture } = body(ctx, lookSchema);
    const bytes = Buffer.from(picture, 'base64');
    if (!bytes.subarray(0, 4).equals(PICTURE.magic)) throw new Refusal(422, 'picture: not a PNG.');
    await projects.describe(accountId, projectId(ctx), { findings, picture: bytes });
    ctx.status = 204;
  });
  router.get('/projects/:id/picture', async (ctx) => {
    ctx.body = await projects.picture((await who(ctx)).id, projectId(ctx));
    ctx.type = 'image/png';
    ctx.set('Cache-Control', 'private, max-age=60');
  });
  router.post('/projects/:id/files', async (ctx) => {
    const { id: accountId } = await who(ctx);
    if (!ctx.is('application/octet-stream')) throw new Refusal(415, 'Send the bytes of the file.');
    const bytes = await rawBody(ctx.req, { limit: MOST_FILE }).catch((error: { type?: string }) => {
      // the rest is let in and dropped: who still sends would never read the answer
      ctx.req.resume();
      if (error.type === 'entity.too.large')
        throw new Refusal(413, `The file is larger than ${MOST_FILE / 1024 ** 2} MB.`);
      throw error;
    });
    ctx.body = await files.keep(accountId, projectId(ctx), bytes);
    ctx.status = 201;
  });
  router.put('/projects/:id/files/:hash', async (ctx) => {
    await files.share((await who(ctx)).id, projectId(ctx), fileHash(ctx));
    ctx.status = 204;
  });
  router.get('/files/:hash', async (ctx) => {
    ctx.body = await files.read((await who(ctx)).id, fileHash(ctx));
    ctx.type = 'application/octet-stream';
    ctx.set('Content-Disposition', 'attachment');
    ctx.set('Cache-Control', 'private, max-age=31536000, immutable');
  });
  return router;
}
