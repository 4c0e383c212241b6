import { randomBytes } from 'node:crypto';
import type { Accounts } from '../accounts/accounts.ts';
import type { Sessions } from '../accounts/sessions.ts';
import { accountNameSchema } from '../accounts/words.ts';
import type { Database } from '../db/database.ts';
import type { Account } from '../db/models.ts';
import type { Quota } from '../services/quota.ts';
import { Refusal } from '../services/refusal.ts';
import type { Shelf } from '../services/shelf.ts';

interface Administration {
  readonly database: Database;
  readonly accounts: Accounts;
  readonly sessions: Sessions;
  readonly shelf: Shelf;
  readonly quota: Quota;
}

/** What whoever looks after a server does with one account. */
interface OnAccount {
  readonly says: string;
  /** What is told when it is done. */
  run(account: Account, on: Administration): Promise<string>;
}

const recovery = async (account: Account, { accounts }: Administration): Promise<string> =>
  `${account.name} comes in within 24 hours with this word, once, and sets a password (on the page: "I have a word to come back in"):\n${await accounts.giveRecovery(account)}`;

const ON_ACCOUNT: Readonly<Record<string, OnAccount>> = {
  recover: { says: 'a word with which NAME comes back in and sets a new password', run: recovery },
  'codes-off': {
    says: 'asks NAME for no one-time codes any more; be sure who asks you for it',
    async run(account, { accounts, sessions }) {
      await accounts.dropSecondFactor(account);
      await sessions.endAll(account);
      return `${account.name} comes in without codes now.`;
    },
  },
  'sign-out': {
    says: 'ends all sessions of NAME',
    run: async (account, { sessions }) => `${account.name} was signed out in ${await sessions.endAll(account)} places.`,
  },
  remove: {
    says: 'removes NAME and all that is kept for it, for good',
    async run(account, { shelf }) {
      await shelf.removeAll(account.id);
      await account.destroy();
      return `${account.name} is removed, with all projects.`;
    },
  },
};

const USAGE = [
  'account list                 all accounts: since when, how much they keep',
  'account make NAME            a new account, and a word to come in for the first time',
  ...Object.entries(ON_ACCOUNT).map(([name, { says }]) => `${`account ${name} NAME`.padEnd(28)} ${says}`),
].join('\n');

/** Runs one command; what it tells. @throws Refusal with words for whoever typed it */
export async function administrate(words: readonly string[], on: Administration): Promise<string> {
  const [command = '', ...rest] = words;
  const { accounts, quota } = on;
  if (command === 'list' && rest.length === 0) {
    const rows = await on.database.models.Account.findAll({ order: [['name', 'ASC']] });
    const lines: string[] = [];
    // one after the other: there may be more than the database has connections
    for (const row of rows) {
      const megabytes = ((await quota.used(row.id)) / 1024 ** 2).toFixed(1);
      lines.push(
        `${row.name}\tsince ${row.createdAt.toISOString().slice(0, 10)}\t${megabytes} MB\t${row.secondFactor ? 'with' : 'without'} codes`,
      );
    }
    return lines.join('\n') || 'There are none.';
  }
  const typed = accountNameSchema.safeParse(rest.join(' '));
  const does = Object.hasOwn(ON_ACCOUNT, command) ? ON_ACCOUNT[command] : undefined;
  if (!does && command !== 'make') throw new Refusal(400, `Known are:\n${USAGE}`);
  if (!typed.success) throw new Refusal(400, `Say whose account: ${typed.error.issues[0]!.message}.`);
  const name = typed.data;
  if (!does) {
    // nobody knows this password: the first one is set by whoever comes in
    const account = await accounts.signUp({ name, newPassword: randomBytes(32).toString('base64url') });
    return recovery(account, on);
  }
  const account = await accounts.byName(name);
  if (!account) throw new Refusal(404, `There is no account "${name}".`);
  return does.run(account, on);
}
