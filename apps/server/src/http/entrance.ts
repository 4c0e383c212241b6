import type { Context } from 'koa';
import type { Account } from '../db/models.ts';
import type { Logs } from '../logs.ts';
import { networkOf, type Limit } from '../services/limits.ts';
import { Refusal } from '../services/refusal.ts';
import type { Services } from './app.ts';

/** Over https only the server itself can have set it, for this host alone. */
const cookieOf = (ctx: Context) => (ctx.secure ? '__Host-helb_session' : 'helb_session');

/** Who asks, and how often they may. */
export function entrance({ sessions, limits, tries, writes, needsCodes }: Services, logs: Logs) {
  const minute = { seconds: 60 };
  const ENTERING: Limit = { ...minute, name: 'entering', most: tries, words: 'Too many tries. Wait a minute.' };
  const WORK: Limit = {
    ...{ ...minute, name: 'work', most: writes },
    words: 'That is a lot within a minute. It goes on by itself in a moment.',
  };

  const tokenOf = (ctx: Context) => ctx.cookies.get(cookieOf(ctx));
  const originOf = (ctx: Context) => ({ address: ctx.ip, device: ctx.get('User-Agent') });

  /** Who asks about themselves. */
  const self = (ctx: Context): Promise<Account> => signedIn(ctx, true);
  /**
   * Who asks for anything else.
   * @param isUse false for what a page asks by itself
   */
  async function who(ctx: Context, isUse = true): Promise<Account> {
    const account = await signedIn(ctx, isUse);
    if (needsCodes && !account.secondFactor)
      throw new Refusal(403, 'This server asks everybody for one-time codes. Set them in your account first.', {
        wants: 'codes',
      });
    return account;
  }
  async function signedIn(ctx: Context, isUse: boolean): Promise<Account> {
    const account = await sessions.whose(tokenOf(ctx), isUse);
    if (!account) throw new Refusal(401, 'Please sign in.');
    (ctx.state as { account?: number }).account = account.id;
    return account;
  }
  /** Who changes something: no account can keep the server busy alone. */
  async function worker(ctx: Context): Promise<Account> {
    const account = await who(ctx);
    await limits.count(WORK, account.id);
    return account;
  }
  /** Before anything that tries passwords. */
  const limited = (ctx: Context) => limits.count(ENTERING, networkOf(ctx.ip));

  /** A new session, in place of the one that this browser had. */
  async function enter(ctx: Context, account: Account): Promise<void> {
    const before = tokenOf(ctx);
    if (before) await sessions.close(before);
    const { token, expires } = await sessions.open(account, originOf(ctx));
    logs.signIns.info({ account: account.id, address: ctx.ip }, 'came in');
    ctx.cookies.set(cookieOf(ctx), token, { httpOnly: true, sameSite: 'lax', expires, secure: ctx.secure });
    ctx.body = { name: account.name };
  }
  function leave(ctx: Context): void {
    ctx.cookies.set(cookieOf(ctx), null);
    // what the page keeps of its own is unsent work, and stays; what the browser keeps of answers goes
    ctx.set('Clear-Site-Data', '"cache"');
    ctx.status = 204;
  }
  return { tokenOf, originOf, self, who, worker, limited, enter, leave };
}
