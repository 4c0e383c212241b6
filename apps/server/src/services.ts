import { Accounts } from './accounts/accounts.ts';
import { Sessions } from './accounts/sessions.ts';
import type { Config } from './config.ts';
import { openDatabase } from './db/database.ts';
import { Files } from './services/files.ts';
import { Limits } from './services/limits.ts';
import { Projects } from './services/projects.ts';
import { Quota } from './services/quota.ts';
import { Shelf } from './services/shelf.ts';

/** Connects to the database and puts together what works on it. */
export async function openServices(config: Config) {
  const database = await openDatabase(config);
  const limits = new Limits(database);
  const sessions = new Sessions(database, config.HELB_IDLE_HOURS * 3600);
  const quota = new Quota(database, config.HELB_QUOTA_MB * 1024 * 1024);
  const projects = new Projects(database, quota);
  const files = new Files(database, quota);
  return {
    database,
    services: {
      ...{ limits, sessions, quota, projects, files },
      accounts: new Accounts(database, limits, sessions, config.HELB_SECRET),
      shelf: new Shelf(database, projects, files),
    },
  };
}
