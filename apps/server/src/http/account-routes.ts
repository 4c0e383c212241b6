import Router from '@koa/router';
import type { Context } from 'koa';
import { exportOf } from '../accounts/export.ts';
import type { Logs } from '../logs.ts';
import type { Limit } from '../services/limits.ts';
import { Refusal } from '../services/refusal.ts';
import type { Services } from './app.ts';
import { body } from './bodies.ts';
import { entrance } from './entrance.ts';

const EXPORTS: Limit = {
  ...{ name: 'exports', most: 6, seconds: 3600 },
  words: 'All of it was taken out several times within the hour. Wait a while.',
};

/** Coming in and going, and what people change about themselves. */
export function accountRoutes(services: Services, logs: Logs): Router {
  const { accounts, sessions, projects, shelf, files, quota, limits, requests, signUp } = services;
  const { tokenOf, originOf, self, limited, enter, leave } = entrance(services, logs);
  const router = new Router();

  /** What was tried and could not be is written down. */
  const watched = async <T>(ctx: Context, what: string, work: Promise<T>): Promise<T> =>
    work.catch((error: unknown) => {
      if (error instanceof Refusal) logs.signIns.warn({ address: ctx.ip, status: error.status }, what);
      throw error;
    });
  const wrote = (ctx: Context, account: number, what: string) => logs.signIns.info({ account, address: ctx.ip }, what);

  router.post('/account', async (ctx) => {
    await limited(ctx);
    if (!signUp) throw new Refusal(403, 'New accounts are made by whoever looks after this server.');
    await enter(ctx, await accounts.signUp(await body(ctx, requests, 'newAccount')));
    ctx.status = 201;
  });
  router.post('/session', async (ctx) => {
    await limited(ctx);
    const credentials = await body(ctx, requests, 'credentials');
    await enter(ctx, await watched(ctx, 'could not come in', accounts.prove(credentials, originOf(ctx))));
  });
  router.post('/session/recovery', async (ctx) => {
    await limited(ctx);
    const recovery = await body(ctx, requests, 'recovery');
    const account = await watched(ctx, 'could not come back', accounts.recover(recovery));
    wrote(ctx, account.id, 'came back with a new password');
    // codes are asked for as always: who has lost them too asks for that
    if (account.secondFactor) ctx.body = { name: account.name, wants: 'code' };
    else await enter(ctx, account);
  });
  router.get('/session', async (ctx) => {
    ctx.body = { name: (await self(ctx)).name };
  });
  router.delete('/session', async (ctx) => {
    const token = tokenOf(ctx);
    if (token) await sessions.close(token);
    logs.signIns.info({ address: ctx.ip }, 'left');
    leave(ctx);
  });

  router.get('/account', async (ctx) => {
    const account = await accounts.whole(await self(ctx));
    ctx.body = {
      ...{ name: account.name, createdAt: account.createdAt, passwordAt: account.passwordAt },
      secondFactor: account.secondFactor !== null,
      canHaveSecondFactor: accounts.canHaveSecondFactor,
      room: { used: await quota.used(account.id), most: quota.most },
      sessions: await sessions.list(account, tokenOf(ctx)),
    };
  });
  router.put('/account/password', async (ctx) => {
    const account = await self(ctx);
    await limited(ctx);
    const request = await body(ctx, requests, 'newPassword');
    await watched(ctx, 'could not change the password', accounts.changePassword(account, request, originOf(ctx)));
    // whoever knew the old one is out
    await sessions.endAll(account);
    wrote(ctx, account.id, 'changed the password');
    await enter(ctx, account);
  });
  router.post('/account/second-factor/new', async (ctx) => {
    ctx.body = accounts.offerSecondFactor(await self(ctx));
  });
  router.put('/account/second-factor', async (ctx) => {
    const account = await self(ctx);
    await limited(ctx);
    const request = await body(ctx, requests, 'secondFactor');
    await watched(ctx, 'could not set codes', accounts.setSecondFactor(account, request, originOf(ctx)));
    await sessions.endAll(account, tokenOf(ctx));
    wrote(ctx, account.id, 'asks for codes');
    ctx.status = 204;
  });
  router.delete('/account/second-factor', async (ctx) => {
    const account = await self(ctx);
    await limited(ctx);
    const credentials = await body(ctx, requests, 'credentials');
    await watched(ctx, 'could not turn codes off', accounts.confirm(account, credentials, originOf(ctx)));
    await accounts.dropSecondFactor(account);
    wrote(ctx, account.id, 'asks for no codes any more');
    ctx.status = 204;
  });
  router.delete('/account/sessions', async (ctx) => {
    const account = await self(ctx);
    await sessions.endAll(account);
    wrote(ctx, account.id, 'left everywhere');
    leave(ctx);
  });
  router.delete('/account/sessions/:id', async (ctx) => {
    const account = await self(ctx);
    if (!(await sessions.end(account, ctx.params['id'] ?? ''))) throw new Refusal(404, 'It has ended already.');
    wrote(ctx, account.id, 'ended a session');
    ctx.status = 204;
  });
  router.get('/account/export', async (ctx) => {
    const account = await self(ctx);
    await limits.count(EXPORTS, account.id);
    ctx.body = await exportOf(await accounts.whole(account), { projects, shelf, files, sessions });
    wrote(ctx, account.id, 'took everything out');
    ctx.type = 'application/zip';
    ctx.attachment('helb-account.zip');
  });
  router.delete('/account', async (ctx) => {
    const account = await self(ctx);
    await limited(ctx);
    const credentials = await body(ctx, requests, 'credentials');
    const proven = await watched(
      ctx,
      'could not remove the account',
      accounts.confirm(account, credentials, originOf(ctx)),
    );
    await shelf.removeAll(proven.id);
    await proven.destroy();
    wrote(ctx, account.id, 'removed the account');
    leave(ctx);
  });
  return router;
}
