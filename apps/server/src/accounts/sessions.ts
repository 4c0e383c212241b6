import { createHash, randomBytes } from 'node:crypto';
import { col, fn, Op, QueryTypes, where } from 'sequelize';
import type { Database } from '../db/database.ts';
import type { Account } from '../db/models.ts';

const MOST_DAYS = 30;
/** When somebody was last here is written down only this often, s. */
const SEEN_STEP = 5 * 60;
const ID_LENGTH = 12;
const MOST_DEVICE = 200;
/** Of one account; the one that was unused the longest ends. */
const MOST_SESSIONS = 50;

const tokenHash = (token: string): string => createHash('sha256').update(token).digest('hex');
const before = (seconds: number): Date => new Date(Date.now() - seconds * 1000);

/** Where a session was opened. */
export interface Origin {
  readonly address: string;
  /** As the browser calls itself. */
  readonly device: string;
}

interface SessionCard extends Origin {
  /** The beginning of the token's hash: it opens nothing. */
  readonly id: string;
  readonly openedAt: Date;
  readonly seenAt: Date;
  readonly isThis: boolean;
}

/** Who is signed in where. A session ends by itself some time after its last use, and after 30 days anyway. */
export class Sessions {
  /** @param idle seconds without use after which a session ends */
  constructor(
    private readonly database: Database,
    private readonly idle: number,
  ) {}

  /** Opens a session; the token goes into the cookie and nowhere else. */
  async open(account: Account, { address, device }: Origin): Promise<{ token: string; expires: Date }> {
    const { Session } = this.database.models;
    const token = randomBytes(32).toString('base64url');
    const now = new Date();
    const expires = new Date(now.getTime() + MOST_DAYS * 24 * 3600 * 1000);
    await Session.destroy({
      where: { [Op.or]: [{ expiresAt: { [Op.lt]: now } }, { seenAt: { [Op.lt]: before(this.idle) } }] },
    });
    const others = await Session.findAll({
      where: { accountId: account.id },
      order: [['seenAt', 'DESC']],
      offset: MOST_SESSIONS - 1,
      limit: MOST_SESSIONS,
    });
    for (const other of others) await other.destroy();
    await Session.create({
      ...{ tokenHash: tokenHash(token), accountId: account.id, expiresAt: expires, openedAt: now, seenAt: now },
      ...{ address: address.slice(0, 45), device: device.slice(0, MOST_DEVICE) },
    });
    return { token, expires };
  }

  /**
   * Whose session this is; undefined if it is none or has ended.
   * @param isUse false for what a page asks by itself: that alone keeps no session open
   */
  async whose(token: string | undefined, isUse = true): Promise<Account | undefined> {
    if (!token) return undefined;
    const hash = tokenHash(token);
    const [account] = await this.database.sequelize.query(
      `SELECT accounts.id, accounts.name, accounts.password_hash AS passwordHash, accounts.created_at AS createdAt,
          accounts.second_factor AS secondFactor, sessions.seen_at AS seenAt
        FROM sessions JOIN accounts ON accounts.id = sessions.account_id
        WHERE sessions.token_hash = :hash AND sessions.expires_at > :now AND sessions.seen_at > :idle`,
      {
        type: QueryTypes.SELECT,
        replacements: { hash, now: new Date(), idle: before(this.idle) },
        model: this.database.models.Account,
        mapToModel: true,
      },
    );
    if (account && isUse && new Date(account.get('seenAt') as string | Date) < before(SEEN_STEP))
      await this.database.models.Session.update({ seenAt: new Date() }, { where: { tokenHash: hash } });
    return account;
  }

  async close(token: string): Promise<void> {
    await this.database.models.Session.destroy({ where: { tokenHash: tokenHash(token) } });
  }

  /** All that are open, the one used last first. */
  async list(account: Account, token: string | undefined): Promise<SessionCard[]> {
    const rows = await this.database.models.Session.findAll({
      where: { accountId: account.id, expiresAt: { [Op.gt]: new Date() }, seenAt: { [Op.gt]: before(this.idle) } },
      order: [['seenAt', 'DESC']],
    });
    const own = token && tokenHash(token);
    return rows.map(({ tokenHash: hash, openedAt, seenAt, address, device }) => ({
      ...{ id: hash.slice(0, ID_LENGTH), openedAt, seenAt, address, device, isThis: hash === own },
    }));
  }

  /** Ends one of theirs, by its id. */
  async end(account: Account, id: string): Promise<boolean> {
    const isIt = where(fn('LEFT', col('token_hash'), ID_LENGTH), id);
    return (await this.database.models.Session.destroy({ where: { [Op.and]: [{ accountId: account.id }, isIt] } })) > 0;
  }

  /** Ends all of theirs, but one if it is told. */
  async endAll(account: Account, butToken?: string): Promise<number> {
    return this.database.models.Session.destroy({
      where: { accountId: account.id, ...(butToken && { tokenHash: { [Op.ne]: tokenHash(butToken) } }) },
    });
  }

  /** Is one of theirs open from there? */
  async isFrom(account: Account, address: string): Promise<boolean> {
    return (await this.database.models.Session.count({ where: { accountId: account.id, address } })) > 0;
  }
}
