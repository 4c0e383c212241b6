import { Readable } from 'node:stream';
import Router from '@koa/router';
import type { Context } from 'koa';
import { RateLimiterMemory } from 'rate-limiter-flexible';
import { z } from 'zod';
import { MOST_FILE } from '@helb/core';
import type { Account } from '../db/models.ts';
import { piecesOf } from '../services/pieces.ts';
import { notFound, Refusal } from '../services/refusal.ts';
import type { Logs } from '../logs.ts';
import type { Services } from './app.ts';
import { body, bytesOf } from './bodies.ts';

/** Over https only the server itself can have set it, for this host alone. */
const cookieOf = (ctx: Context) => (ctx.secure ? '__Host-helb_session' : 'helb_session');
/** Bytes that cost nothing to read. */
const LITTLE = 32 * 1024;
const PNG = Buffer.from([0x89, 0x50, 0x4e, 0x47]);

export function apiRoutes(
  { accounts, projects, files, requests, tries, writes, signUp, healthy }: Services,
  logs: Logs,
): Router {
  const router = new Router({ prefix: '/api' });
  const attempts = new RateLimiterMemory({ points: tries, duration: 60 });
  const work = new RateLimiterMemory({ points: writes, duration: 60 });

  const who = async (ctx: Context): Promise<Account> => {
    const account = await accounts.bySession(ctx.cookies.get(cookieOf(ctx)));
    if (!account) throw new Refusal(401, 'Please sign in.');
    (ctx.state as { account?: number }).account = account.id;
    return account;
  };
  /** Who changes something: no account can keep the server busy alone. */
  const worker = async (ctx: Context): Promise<Account> => {
    const account = await who(ctx);
    await work.consume(account.id).catch(() => {
      throw new Refusal(429, 'That is a lot within a minute. It goes on by itself in a moment.');
    });
    return account;
  };
  /** Large answers are written in pieces: between them others have their turn. */
  const answer = (ctx: Context, value: unknown) => {
    ctx.type = 'application/json';
    ctx.body = Readable.from(piecesOf(value));
  };
  const enter = async (ctx: Context, account: Account) => {
    const { token, expires } = await accounts.openSession(account);
    logs.signIns.info({ account: account.id, address: ctx.ip }, 'came in');
    ctx.cookies.set(cookieOf(ctx), token, { httpOnly: true, sameSite: 'lax', expires, secure: ctx.secure });
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
    if (!signUp) throw new Refusal(403, 'New accounts are made by whoever looks after this server.');
    await enter(ctx, await accounts.signUp(await body(ctx, requests, 'credentials')));
    ctx.status = 201;
  });
  router.post('/session', async (ctx) => {
    await limited(ctx);
    const credentials = await body(ctx, requests, 'credentials');
    const account = await accounts.signIn(credentials).catch((error: unknown) => {
      if (error instanceof Refusal) logs.signIns.warn({ address: ctx.ip }, 'could not come in');
      throw error;
    });
    await enter(ctx, account);
  });
  router.get('/session', async (ctx) => {
    ctx.body = { name: (await who(ctx)).name };
  });
  router.delete('/session', async (ctx) => {
    const token = ctx.cookies.get(cookieOf(ctx));
    if (token) await accounts.closeSession(token);
    logs.signIns.info({ address: ctx.ip }, 'left');
    ctx.cookies.set(cookieOf(ctx), null);
    ctx.status = 204;
  });

  router.get('/projects', async (ctx) => {
    ctx.body = await projects.list((await who(ctx)).id);
  });
  router.post('/projects', async (ctx) => {
    const { id: accountId } = await worker(ctx);
    const id = await projects.create(accountId, await body(ctx, requests, 'project'));
    logs.changes.info({ account: accountId, project: id }, 'made');
    ctx.body = { id };
    ctx.status = 201;
  });
  router.get('/projects/:id', async (ctx) => {
    answer(ctx, await projects.open((await who(ctx)).id, projectId(ctx)));
  });
  router.delete('/projects/:id', async (ctx) => {
    const { id: accountId } = await worker(ctx);
    await projects.remove(accountId, projectId(ctx));
    logs.changes.info({ account: accountId, project: projectId(ctx) }, 'removed');
    ctx.status = 204;
  });
  router.get('/projects/:id/document', async (ctx) => {
    answer(ctx, await projects.document((await who(ctx)).id, projectId(ctx)));
  });
  router.get('/projects/:id/changes', async (ctx) => {
    const after = z.coerce.number().int().min(0).parse(ctx.query['after']);
    answer(ctx, await projects.since((await who(ctx)).id, projectId(ctx), after));
  });
  router.get('/projects/:id/log', async (ctx) => {
    const before = z.coerce.number().int().min(0).parse(ctx.query['before']);
    answer(ctx, await projects.log((await who(ctx)).id, projectId(ctx), before));
  });
  router.post('/projects/:id/changes', async (ctx) => {
    const { id: accountId } = await worker(ctx);
    const id = projectId(ctx);
    // saving looks at it anyway: before that nothing large of what is sent
    if ((ctx.request.length ?? Infinity) > LITTLE) await projects.owned(accountId, id);
    const saved = await projects.save(accountId, id, await body(ctx, requests, 'save'));
    logs.changes.info({ account: accountId, project: id, revision: saved.revision }, 'saved');
    ctx.body = saved;
  });
  router.put('/projects/:id/look', async (ctx) => {
    const { id: accountId } = await worker(ctx);
    const { findings, picture } = await body(ctx, requests, 'look');
    const bytes = Buffer.from(picture, 'base64');
    if (!bytes.subarray(0, 4).equals(PNG)) throw new Refusal(422, 'picture: not a PNG.');
    await projects.describe(accountId, projectId(ctx), { findings, picture: bytes });
    ctx.status = 204;
  });
  router.get('/projects/:id/picture', async (ctx) => {
    ctx.body = await projects.picture((await who(ctx)).id, projectId(ctx));
    ctx.type = 'image/png';
    ctx.set('Cache-Control', 'private, max-age=60');
  });
  router.post('/projects/:id/files', async (ctx) => {
    const { id: accountId } = await worker(ctx);
    const id = projectId(ctx);
    await projects.owned(accountId, id);
    if (!ctx.is('application/octet-stream')) throw new Refusal(415, 'Send the bytes of the file.');
    const bytes = await bytesOf(ctx, MOST_FILE, `The file is larger than ${MOST_FILE / 1024 ** 2} MB.`);
    ctx.body = await files.keep(accountId, id, bytes);
    ctx.status = 201;
  });
  router.put('/projects/:id/files/:hash', async (ctx) => {
    await files.share((await worker(ctx)).id, projectId(ctx), fileHash(ctx));
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
