import { randomBytes } from 'node:crypto';
import { hash, verify } from '@node-rs/argon2';
import type { Database } from '../db/database.ts';
import type { Account } from '../db/models.ts';
import { Limits, type Limit } from '../services/limits.ts';
import { Refusal } from '../services/refusal.ts';
import type { Credentials, NewAccount, NewPasswordRequest, RecoveryRequest, SecondFactorRequest } from './requests.ts';
import { newSecret, periodOf, SecretBox, type NewSecret } from './second-factor.ts';
import type { Origin, Sessions } from './sessions.ts';

/** Verified when the name is unknown, so that the answer takes as long. */
const NOBODY = hash(randomBytes(16).toString('hex'));
const RECOVERY_HOURS = 24;

const HOUR = 3600;
/** Tries of one name, wherever they come from; where one of its sessions is open it is not bound by them. */
const NAME_TRIES: Limit = {
  ...{ name: 'tries of a name', most: 20, seconds: HOUR },
  words: 'Too many tries for this name. Wait an hour, or ask whoever looks after this server for a way back in.',
};
/** Codes are six digits: of these only few may be tried, from anywhere. */
const CODE_TRIES: Limit = {
  ...{ name: 'tries of codes', most: 10, seconds: HOUR },
  words: 'Too many codes were wrong. Wait an hour.',
};

const WRONG_PASSWORD = 'Name and password do not fit together.';

/** People: how they prove who they are. Passwords are hashed with Argon2id. */
export class Accounts {
  private readonly box: SecretBox | undefined;

  /** @param secret for what is kept closed in the database; without one there is no second factor */
  constructor(
    private readonly database: Database,
    private readonly limits: Limits,
    private readonly sessions: Sessions,
    secret?: string,
  ) {
    this.box = secret === undefined ? undefined : new SecretBox(secret);
  }

  async signUp({ name, newPassword }: NewAccount): Promise<Account> {
    const passwordHash = await hash(newPassword);
    const now = new Date();
    const [account, created] = await this.database.models.Account.findOrCreate({
      where: { name },
      defaults: { name, passwordHash, createdAt: now, passwordAt: now },
    });
    if (!created) throw new Refusal(409, `The name "${name}" is taken. Sign in, or choose another.`);
    return account;
  }

  /**
   * Who somebody is by name, password and, where one is set, a code.
   * @throws Refusal 401 where it does not fit; with `wants: 'code'` where only that is missing or wrong
   */
  async prove({ name, password, code }: Credentials, { address }: Pick<Origin, 'address'>): Promise<Account> {
    const account = await this.byName(name);
    const isWithin = await this.limits.isWithin(NAME_TRIES, name);
    if (!isWithin && !(account && (await this.sessions.isFrom(account, address))))
      throw new Refusal(429, NAME_TRIES.words);
    const isRight = await verify(account?.passwordHash ?? (await NOBODY), password);
    if (!account || !isRight) throw new Refusal(401, WRONG_PASSWORD);
    await this.checkCode(account, code);
    await this.limits.forget(NAME_TRIES, name);
    return account;
  }

  /** Who is signed in shows once more who they are. @throws Refusal 409 where the page shows somebody else */
  async confirm(account: Account, credentials: Credentials, origin: Pick<Origin, 'address'>): Promise<Account> {
    checkSame(account, credentials);
    return this.prove(credentials, origin).catch((error: unknown) => {
      // 401 would mean that the session has ended
      if (error instanceof Refusal && error.status === 401)
        throw new Refusal(
          403,
          error.message === WRONG_PASSWORD ? 'The password is not right.' : error.message,
          error.facts,
        );
      throw error;
    });
  }

  async changePassword(account: Account, request: NewPasswordRequest, origin: Pick<Origin, 'address'>): Promise<void> {
    const proven = await this.confirm(account, request, origin);
    await this.setPassword(proven, request.newPassword);
  }

  /** A word with which somebody comes in once and sets a new password; what was known before opens nothing any more. */
  async giveRecovery(account: Account): Promise<string> {
    const recovery = randomBytes(15).toString('base64url');
    await account.update({
      recoveryHash: await hash(recovery),
      recoveryEndsAt: new Date(Date.now() + RECOVERY_HOURS * HOUR * 1000),
    });
    return recovery;
  }

  /** Tries of it are not counted by name: it can not be guessed, and whoever is kept out by others comes back in this way. */
  async recover({ name, recovery, newPassword }: RecoveryRequest): Promise<Account> {
    const account = await this.byName(name);
    const isRight = await verify(account?.recoveryHash ?? (await NOBODY), recovery);
    const isInTime = (account?.recoveryEndsAt ?? new Date(0)) > new Date();
    if (!account || !isRight || !isInTime)
      throw new Refusal(401, 'Name and word do not fit together, or the word was used already or is too old.');
    await this.setPassword(account, newPassword);
    await this.sessions.endAll(account);
    await this.limits.forget(NAME_TRIES, name);
    return account;
  }

  async byName(name: string): Promise<Account | null> {
    return this.database.models.Account.findOne({ where: { name } });
  }

  /** For an application that shows codes; kept only when a code of it came back. */
  offerSecondFactor(account: Account): NewSecret {
    this.secrets();
    return newSecret(account.name);
  }

  async setSecondFactor(
    account: Account,
    request: SecondFactorRequest,
    origin: Pick<Origin, 'address'>,
  ): Promise<void> {
    const secrets = this.secrets();
    const { secret, code, ...credentials } = request;
    const { secondFactor } = await this.whole(account);
    if (secondFactor) throw new Refusal(409, 'Codes are asked for already. Turn that off first.');
    const proven = await this.confirm(account, credentials, origin);
    const period = periodOf(code, secret, 0);
    if (period === undefined)
      throw new Refusal(403, 'This is not the code of now. Is the clock of the device right?', { wants: 'code' });
    await proven.update({ secondFactor: secrets.close(secret), secondFactorUsed: period });
  }

  /** Codes are not asked for any more. */
  async dropSecondFactor(account: Account): Promise<void> {
    await this.database.models.Account.update({ secondFactor: null }, { where: { id: account.id } });
  }

  /** With all that the session's account does not carry along. */
  async whole(account: Account): Promise<Account> {
    return this.database.models.Account.findByPk(account.id, { rejectOnEmpty: true });
  }

  get canHaveSecondFactor(): boolean {
    return this.box !== undefined;
  }

  private async setPassword(account: Account, password: string): Promise<void> {
    await account.update({
      ...{ passwordHash: await hash(password), passwordAt: new Date() },
      ...{ recoveryHash: null, recoveryEndsAt: null },
    });
  }

  private async checkCode(account: Account, code: string | undefined): Promise<void> {
    if (!account.secondFactor) return;
    if (code === undefined)
      throw new Refusal(401, 'Enter the code that your application for codes shows now.', { wants: 'code' });
    await this.limits.count(CODE_TRIES, account.id);
    const secret = this.secretOf(account.secondFactor);
    const period = periodOf(code, secret, account.secondFactorUsed);
    // two at once with one code: the first has it
    const [taken] =
      period === undefined
        ? [0]
        : await this.database.models.Account.update(
            { secondFactorUsed: period },
            { where: { id: account.id, secondFactorUsed: account.secondFactorUsed } },
          );
    if (taken === 0)
      throw new Refusal(401, 'This is not the code of now, or it was used already. Wait for the next one.', {
        wants: 'code',
      });
    await this.limits.forget(CODE_TRIES, account.id);
  }

  private secretOf(closed: Buffer): string {
    try {
      return this.secrets().open(closed);
    } catch (error) {
      if (error instanceof Refusal) throw error;
      throw new Refusal(409, 'The key of this server has changed: whoever looks after it has to turn your codes off.');
    }
  }

  private secrets(): SecretBox {
    if (!this.box)
      throw new Refusal(409, 'This server has no key to keep such secrets. Whoever looks after it sets HELB_SECRET.');
    return this.box;
  }
}

function checkSame(account: Account, { name }: { readonly name: string }): void {
  if (account.name !== name)
    throw new Refusal(409, `Meanwhile ${account.name} has signed in here. Load the page anew.`);
}
