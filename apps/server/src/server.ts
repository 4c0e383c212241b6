import type { Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { hostsOf, type Config } from './config.ts';
import { DEMO_ACCOUNT } from './demo-account.ts';
import { createApp } from './http/app.ts';
import { faultOf } from './http/errors.ts';
import { openLogs } from './logs.ts';
import type { Accounts } from './accounts/accounts.ts';
import { checkedDocument } from './services/checked-document.ts';
import type { Projects } from './services/projects.ts';
import { RequestReader } from './services/request-reader.ts';
import { openServices } from './services.ts';

export interface RunningServer {
  readonly port: number;
  stop(): Promise<void>;
}

export async function startServer(config: Config): Promise<RunningServer> {
  const logs = openLogs(config);
  const { database, services } = await openServices(config);
  const { accounts, projects, shelf } = services;
  const requests = new RequestReader();
  if (config.HELB_DEMO === 'yes') await seedDemo(accounts, projects, database.models.Account);
  // where it fails it is tried again: what should have gone is not shown as kept for longer
  const sweep = () =>
    shelf.sweep().catch((error: unknown) => logs.faults.error({ fault: faultOf(error) }, 'sweeping failed'));
  await sweep();
  const sweeping = setInterval(() => void sweep(), SWEEP_ms);
  const healthy = () => database.sequelize.authenticate();
  const app = createApp(
    {
      ...services,
      ...{ requests, healthy },
      ...{ hosts: hostsOf(config), proxies: config.HELB_PROXIES },
      ...{ tries: config.HELB_TRIES, writes: config.HELB_WRITES, signUp: config.HELB_SIGN_UP === 'open' },
      needsCodes: config.HELB_CODES === 'needed',
    },
    logs,
    config.HELB_WEB,
  );
  const http = await new Promise<Server>((resolve, reject) => {
    const server = app.listen(config.HELB_PORT, config.HELB_HOST, () => resolve(server));
    server.once('error', reject);
    server.keepAliveTimeout = KEEP_ALIVE_MS;
  });
  return {
    port: (http.address() as AddressInfo).port,
    async stop() {
      clearInterval(sweeping);
      const closed = new Promise((resolve) => http.close(resolve));
      http.closeIdleConnections();
      setTimeout(() => http.closeAllConnections(), 3000).unref();
      await closed;
      await requests.close();
      await database.sequelize.close();
    },
  };
}

/**
 * How long a connection that nobody uses is kept: longer than proxies and clients keep theirs (a minute, as a rule), since one
 * that is let go on this side first may just be taken for the next request, which then fails.
 */
const KEEP_ALIVE_MS = 65_000;

/** How often what was thrown away long ago is removed. */
const SWEEP_ms = 6 * 3600 * 1000;

async function seedDemo(
  accounts: Accounts,
  projects: Projects,
  account: { count(query: { where: { name: string } }): Promise<number> },
) {
  if ((await account.count({ where: { name: DEMO_ACCOUNT.name } })) > 0) return;
  const { id } = await accounts.signUp({ name: DEMO_ACCOUNT.name, newPassword: DEMO_ACCOUNT.password });
  await projects.create(id, checkedDocument({ demo: true }));
}
