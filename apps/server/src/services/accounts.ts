import { createHash, randomBytes } from 'node:crypto';
import { hash, verify } from '@node-rs/argon2';
import { Op, QueryTypes } from 'sequelize';
import { z } from 'zod';
import type { Database } from '../db/database.ts';
import type { Account } from '../db/models.ts';
import { Refusal } from './refusal.ts';

export const credentialsSchema = z.strictObject({
  name: z
    .string()
    .trim()
    .toLowerCase()
    .regex(/^[\p{L}\p{N}][\p{L}\p{N} ._-]{1,38}$/u, 'a name has 2-39 letters, digits, spaces, . _ -'),
  password: z.string().min(10, 'a password has at least 10 characters').max(200),
});
export type Credentials = z.infer<typeof credentialsSchema>;

const SESSION_DAYS = 30;
/** Verified when the name is unknown, so that the answer takes as long. */
const NOBODY = hash(randomBytes(16).toString('hex'));

const tokenHash = (token: string): string => createHash('sha256').update(token).digest('hex');

/** People and their sessions. Passwords are hashed with Argon2id. */
export class Accounts {
  constructor(private readonly database: Database) {}

  async signUp({ name, password }: Credentials): Promise<Account> {
    const passwordHash = await hash(password);
    const [account, created] = await this.database.models.Account.findOrCreate({
      where: { name },
      defaults: { name, passwordHash, createdAt: new Date() },
    });
    if (!created) throw new Refusal(409, `The name "${name}" is taken. Sign in, or choose another.`);
    return account;
  }

  async signIn({ name, password }: Credentials): Promise<Account> {
    const account = await this.database.models.Account.findOne({ where: { name } });
    const right = await verify(account?.passwordHash ?? (await NOBODY), password);
    if (!account || !right) throw new Refusal(401, 'Name and password do not fit together.');
    return account;
  }

  /** Opens a session; the token goes into the cookie and nowhere else. */
  async openSession(account: Account): Promise<{ token: string; expires: Date }> {
    const token = randomBytes(32).toString('base64url');
    const expires = new Date(Date.now() + SESSION_DAYS * 24 * 3600 * 1000);
    const { Session } = this.database.models;
    await Session.destroy({ where: { expiresAt: { [Op.lt]: new Date() } } });
    await Session.create({ tokenHash: tokenHash(token), accountId: account.id, expiresAt: expires });
    return { token, expires };
  }

  async closeSession(token: string): Promise<void> {
    await this.database.models.Session.destroy({ where: { tokenHash: tokenHash(token) } });
  }

  /** Whose session this is; undefined if it is none or has expired. */
  async bySession(token: string | undefined): Promise<Account | undefined> {
    if (!token) return undefined;
    const [account] = await this.database.sequelize.query(
      `SELECT accounts.id, accounts.name, accounts.password_hash AS passwordHash, accounts.created_at AS createdAt
        FROM sessions JOIN accounts ON accounts.id = sessions.account_id
        WHERE sessions.token_hash = :hash AND sessions.expires_at > :now`,
      {
        type: QueryTypes.SELECT,
        replacements: { hash: tokenHash(token), now: new Date() },
        model: this.database.models.Account,
        mapToModel: true,
      },
    );
    return account;
  }
}
