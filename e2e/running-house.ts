import { execFile } from 'node:child_process';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { ADMINISTRATE } from '@helb/scripts/build-server.ts';
import { WEB } from '@helb/scripts/build-web.ts';
import { startDatabase, type PrivateDatabase } from '@helb/scripts/private-database.ts';
import { environmentOf, startServerProcess, type ServerProcess } from '@helb/scripts/server-process.ts';

/** The built application with a database of its own; the server can be killed and started again. */
export class House {
  private constructor(
    private readonly folder: string,
    private readonly database: PrivateDatabase,
    private server: ServerProcess,
    readonly port: number,
  ) {}

  static async build(): Promise<House> {
    const folder = await mkdtemp(join(tmpdir(), 'helb-e2e-'));
    const database = await startDatabase(folder);
    const server = await House.start(folder, database, 0);
    return new House(folder, database, server, Number(new URL(server.address).port));
  }

  private static start(folder: string, database: PrivateDatabase, port: number): Promise<ServerProcess> {
    return startServerProcess({ database, folder, port, web: WEB, demo: true, log: 'silent' });
  }

  get address(): string {
    return this.server.address;
  }

  /** kill -9 */
  async killServer(): Promise<void> {
    const ended = new Promise((resolve) => this.server.process.once('exit', resolve));
    this.server.process.kill('SIGKILL');
    await ended;
  }

  async startServer(): Promise<void> {
    this.server = await House.start(this.folder, this.database, this.port);
  }

  /** A word with which somebody comes back in, from the command line. */
  async recovery(name: string): Promise<string> {
    const env = { ...process.env, NODE_OPTIONS: '', ...(await environmentOf(this.database.address, this.folder)) };
    const { stdout } = await promisify(execFile)(process.execPath, [ADMINISTRATE, 'recover', name], { env });
    return stdout.trim().split('\n').at(-1)!;
  }

  async close(): Promise<void> {
    await this.server.stop();
    await this.database.stop();
    await rm(this.folder, { recursive: true });
  }
}
