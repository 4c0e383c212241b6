import type { Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { hostsOf, type Config } from './config.ts';
import { DEMO_ACCOUNT } from './demo-account.ts';
import { openDatabase } from './db/database.ts';
import { createApp } from './http/app.ts';
import { openLogs } from './logs.ts';
import { Accounts } from './services/accounts.ts';
import { checkedDocument } from './services/checked-document.ts';
import { Files } from './services/files.ts';
import { Projects } from './services/projects.ts';
import { Quota } from './services/quota.ts';
import { RequestReader } from './services/request-reader.ts';

export interface RunningServer {
  readonly port: number;
  stop(): Promise<void>;
}

export async function startServer(config: Config): Promise<RunningServer> {
  const logs = openLogs(config);
  const database = await openDatabase(config);
  const accounts = new Accounts(database);
  const quota = new Quota(database, config.HELB_QUOTA_MB * 1024 * 1024);
  const projects = new Projects(database, quota);
  const requests = new RequestReader();
  if (config.HELB_DEMO === 'yes') await seedDemo(accounts, projects, database.models.Account);
  const healthy = () => database.sequelize.authenticate();
  const app = createApp(
    {
      ...{ accounts, projects, files: new Files(database, quota), requests, healthy },
      ...{ hosts: hostsOf(config), proxies: config.HELB_PROXIES },
      ...{ tries: config.HELB_TRIES, writes: config.HELB_WRITES, signUp: config.HELB_SIGN_UP === 'open' },
    },
    logs,
    config.HELB_WEB,
  );
  const http = await new Promise<Server>((resolve, reject) => {
    const server = app.listen(config.HELB_PORT, config.HELB_HOST, () => resolve(server));
    server.once('error', reject);
  });
  return {
    port: (http.address() as AddressInfo).port,
    async stop() {
      const closed = new Promise((resolve) => http.close(resolve));
      http.closeIdleConnections();
      setTimeout(() => http.closeAllConnections(), 3000).unref();
      await closed;
      await requests.close();
      await database.sequelize.close();
    },
  };
}

async function seedDemo(
  accounts: Accounts,
  projects: Projects,
  account: { count(query: { where: { name: string } }): Promise<number> },
) {
  if ((await account.count({ where: { name: DEMO_ACCOUNT.name } })) > 0) return;
  const { id } = await accounts.signUp(DEMO_ACCOUNT);
  await projects.create(id, checkedDocument({ demo: true }));
}
