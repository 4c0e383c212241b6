import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { QueryTypes, Sequelize } from 'sequelize';
import { createSchema, startDatabase, type PrivateDatabase } from '@helb/scripts/private-database.ts';
import { readConfig } from '../src/config.ts';
import { startServer, type RunningServer } from '../src/server.ts';
import { ApiClient } from './api-client.ts';

/** A database of its own with servers on it, for tests. */
export class TestServers {
  private readonly servers: RunningServer[] = [];
  private schemas = 0;
  private people = 0;

  private constructor(
    readonly folder: string,
    readonly database: PrivateDatabase,
  ) {}

  /** @param start how its database is started, in which folder */
  static async begin(start = startDatabase, parent = tmpdir()): Promise<TestServers> {
    const folder = await mkdtemp(join(parent, 'helb-server-'));
    return new TestServers(folder, await start(folder));
  }

  async end(): Promise<void> {
    for (const server of this.servers) await server.stop();
    await this.database.stop();
    await rm(this.folder, { recursive: true });
  }

  /** Runs a statement on a schema; its rows. */
  async statement<T extends object>(
    sql: string,
    replacements: Record<string, unknown> = {},
    schema = `helb_${this.schemas}`,
  ): Promise<T[]> {
    const { host, port, user, password } = this.database.address;
    const sequelize = new Sequelize(schema, user, password, { host, port, dialect: 'mariadb', logging: false });
    const type = /^SELECT|RETURNING/i.test(sql.trim()) ? QueryTypes.SELECT : QueryTypes.RAW;
    try {
      return (await sequelize.query(sql, { type, replacements })) as unknown as T[];
    } finally {
      await sequelize.close();
    }
  }

  /** A schema that is empty. */
  async schema(): Promise<string> {
    const name = `helb_${++this.schemas}`;
    await createSchema(this.database, this.folder, name);
    return name;
  }

  /** Starts a server; its address. */
  async start(schema: string, more: Record<string, string> = {}): Promise<string> {
    const { host, port, user, password } = this.database.address;
    const server = await startServer(
      readConfig({
        ...{ HELB_PORT: '0', HELB_DB_HOST: host, HELB_DB_PORT: `${port}`, HELB_DB_NAME: schema },
        ...{ HELB_DB_USER: user, HELB_DB_PASSWORD: password, HELB_LOG: 'silent', HELB_TRIES: '100' },
        ...more,
      }),
    );
    this.servers.push(server);
    return `http://127.0.0.1:${server.port}`;
  }

  /** Somebody with an account. */
  async person(address: string): Promise<ApiClient> {
    const client = new ApiClient(address);
    const answer = await client.call('POST', '/account', {
      name: `person ${++this.people}`,
      newPassword: 'long enough pw',
    });
    expect(answer.status).toBe(201);
    return client;
  }
}
