import { Readable } from 'node:stream';
import Router from '@koa/router';
import type { Context } from 'koa';
import { z } from 'zod';
import { MOST_FILE } from '@helb/core';
import { piecesOf } from '../services/pieces.ts';
import { notFound, Refusal } from '../services/refusal.ts';
import type { Logs } from '../logs.ts';
import type { Services } from './app.ts';
import { accountRoutes } from './account-routes.ts';
import { body, bytesOf } from './bodies.ts';
import { entrance } from './entrance.ts';

/** Bytes that cost nothing to read. */
const LITTLE = 32 * 1024;
const PNG = Buffer.from([0x89, 0x50, 0x4e, 0x47]);

export function apiRoutes(services: Services, logs: Logs): Router {
  const { projects, shelf, files, requests, healthy } = services;
  const { who, worker } = entrance(services, logs);
  const router = new Router({ prefix: '/api' });
  /** Large answers are written in pieces: between them others have their turn. */
  const answer = (ctx: Context, value: unknown) => {
    ctx.type = 'application/json';
    ctx.body = Readable.from(piecesOf(value));
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

  router.use(accountRoutes(services, logs).routes());

  router.get('/projects', async (ctx) => {
    ctx.body = await shelf.list((await who(ctx)).id);
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
  router.patch('/projects/:id', async (ctx) => {
    const { id: accountId } = await worker(ctx);
    await shelf.change(accountId, projectId(ctx), await body(ctx, requests, 'card'));
    ctx.status = 204;
  });
  router.post('/projects/:id/copies', async (ctx) => {
    const { id: accountId } = await worker(ctx);
    const id = await shelf.copy(accountId, projectId(ctx));
    logs.changes.info({ account: accountId, project: id }, 'made');
    ctx.body = { id };
    ctx.status = 201;
  });
  router.put('/projects/:id/thrown', async (ctx) => {
    const { id: accountId } = await worker(ctx);
    await shelf.throwAway(accountId, projectId(ctx));
    logs.changes.info({ account: accountId, project: projectId(ctx) }, 'thrown away');
    ctx.status = 204;
  });
  router.delete('/projects/:id/thrown', async (ctx) => {
    const { id: accountId } = await worker(ctx);
    await shelf.takeBack(accountId, projectId(ctx));
    logs.changes.info({ account: accountId, project: projectId(ctx) }, 'taken back');
    ctx.status = 204;
  });
  router.delete('/projects/:id', async (ctx) => {
    const { id: accountId } = await worker(ctx);
    await shelf.remove(accountId, projectId(ctx));
    logs.changes.info({ account: accountId, project: projectId(ctx) }, 'removed');
    ctx.status = 204;
  });
  router.get('/projects/:id/document', async (ctx) => {
    answer(ctx, await projects.document((await who(ctx)).id, projectId(ctx)));
  });
  router.get('/projects/:id/changes', async (ctx) => {
    const after = z.coerce.number().int().min(0).parse(ctx.query['after']);
    // a page asks this by itself: it keeps no session open
    answer(ctx, await projects.since((await who(ctx, false)).id, projectId(ctx), after));
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
    const { findings, picture, whole } = await body(ctx, requests, 'look');
    const bytes = Buffer.from(picture, 'base64');
    if (!bytes.subarray(0, 4).equals(PNG)) throw new Refusal(422, 'picture: not a PNG.');
    await shelf.describe(accountId, projectId(ctx), { findings, picture: bytes, whole });
    ctx.status = 204;
  });
  router.get('/projects/:id/picture', async (ctx) => {
    ctx.body = await shelf.picture((await who(ctx)).id, projectId(ctx));
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
