import { execFile, spawn, type ChildProcess } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { existsSync } from 'node:fs';
import { chmod, chown, mkdir, readFile, rm, writeFile } from 'node:fs/promises';
import { createServer } from 'node:net';
import { userInfo } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { uid } from './user.ts';

const run = promisify(execFile);
/** The account of whoever runs this, let in through the socket. */
const OWN = userInfo().username;

export interface PrivateDatabase {
  readonly address: { readonly host: string; readonly port: number; readonly user: string; readonly password: string };
  readonly process: ChildProcess;
  stop(): Promise<void>;
}

const env = { ...process.env, PATH: `${process.env['PATH']}:/usr/sbin:/usr/local/sbin` };

/**
 * Starts a MariaDB of our own on loopback with its data in `folder`, made new if there is none. Never touches a database
 * server of the machine: own folder, own port, no configuration files.
 */
export async function startDatabase(folder: string, port?: number): Promise<PrivateDatabase> {
  const data = join(folder, 'mariadb');
  const fresh = !existsSync(join(data, 'mysql'));
  // its temporary tables stand apart: each server that starts clears those of all others away where they share a folder
  const scratch = join(folder, 'mariadb-scratch');
  for (const own of [data, scratch]) await mkdir(own, { recursive: true, mode: 0o755 });
  const asRoot = process.getuid?.() === 0;
  if (asRoot) await giveTo(folder, data, scratch);
  if (fresh) await install(data, scratch, asRoot);
  const chosen = port ?? (await freePort());
  const server = spawn(
    'mariadbd',
    [
      '--no-defaults',
      `--datadir=${data}`,
      `--tmpdir=${scratch}`,
      `--socket=${join(data, 's')}`,
      `--port=${chosen}`,
      '--bind-address=127.0.0.1',
      `--pid-file=${join(data, 'pid')}`,
      `--log-error=${join(data, 'error.log')}`,
      '--skip-name-resolve',
      '--skip-log-bin',
      '--character-set-server=utf8mb4',
      '--max-allowed-packet=64M',
      '--transaction-isolation=READ-COMMITTED',
      ...(asRoot ? ['--user=mysql'] : []),
    ],
    // a group of its own: Ctrl+C at the terminal reaches us first, and we stop it in order
    { env, stdio: 'ignore', detached: true },
  );
  const password = await secretOf(folder, 'database-password');
  const database: PrivateDatabase = {
    address: { host: '127.0.0.1', port: chosen, user: 'helb', password },
    process: server,
    stop: () => stop(server),
  };
  try {
    await ready(server, join(data, 's'));
    await closeRoot(join(data, 's'));
    await sql(
      join(data, 's'),
      `CREATE USER IF NOT EXISTS helb@'127.0.0.1'; ALTER USER helb@'127.0.0.1' IDENTIFIED BY '${password}'; GRANT ALL ON \`helb%\`.* TO helb@'127.0.0.1';`,
    );
  } catch (error) {
    await stop(server);
    const log = await readFile(join(data, 'error.log'), 'utf8').catch(() => '');
    throw new Error(`The private database did not start: ${lastLine(log) || (error as Error).message}`, {
      cause: error,
    });
  }
  return database;
}

/** So long it waits before it starts a database again, ms. */
const PAUSE = 2000;

/**
 * A database that is started again on its port when it ends by itself: on a full disk it gives up, and goes on from where it
 * was when there is room.
 */
export async function startLastingDatabase(folder: string, tell: (words: string) => void): Promise<PrivateDatabase> {
  let now = await startDatabase(folder);
  const { address } = now;
  let isStopping = false;
  let again: Promise<void> | undefined;
  const watch = () =>
    now.process.once('exit', () => {
      again = startAgain();
    });
  async function startAgain(): Promise<void> {
    for (let tries = 0; !isStopping; tries++) {
      if (tries === 0)
        tell('The database ended by itself; is the disk full? It is started again as soon as it can be.');
      await new Promise((resolve) => setTimeout(resolve, PAUSE));
      if (isStopping) return;
      const started = await startDatabase(folder, address.port).catch(() => undefined);
      if (!started) continue;
      now = started;
      watch();
      return;
    }
  }
  watch();
  return {
    address,
    get process() {
      return now.process;
    },
    async stop() {
      isStopping = true;
      // one that is just starting is left to nobody
      await again;
      await now.stop();
    },
  };
}

export async function createSchema(database: PrivateDatabase, folder: string, name: string): Promise<void> {
  await sql(join(folder, 'mariadb', 's'), `CREATE DATABASE IF NOT EXISTS \`${name}\` CHARACTER SET utf8mb4;`);
}

async function giveTo(folder: string, ...owned: string[]): Promise<void> {
  const id = await uid('mysql');
  await chmod(folder, 0o755);
  for (const own of owned) await chown(own, id.user, id.group);
}

async function install(data: string, scratch: string, asRoot: boolean): Promise<void> {
  await rm(data, { recursive: true });
  await mkdir(data, { recursive: true, mode: 0o755 });
  await run(
    'mariadb-install-db',
    [
      '--no-defaults',
      `--datadir=${data}`,
      // whoever runs it here comes in through the socket, and nobody as root over the network
      '--auth-root-authentication-method=socket',
      `--auth-root-socket-user=${OWN}`,
      '--skip-test-db',
      ...(asRoot ? ['--user=mysql'] : []),
    ],
    { env: { ...env, TMPDIR: scratch } },
  );
}

/** The database of a folder for as long as it is needed: the one that runs, or one that is started for it. */
export async function withDatabase<T>(
  folder: string,
  work: (database: PrivateDatabase['address']) => Promise<T>,
): Promise<T> {
  const socket = join(folder, 'mariadb', 's');
  const port = await run('mariadb', ['--no-defaults', `-u${OWN}`, `--socket=${socket}`, '-Ne', 'SELECT @@port'], {
    env,
  })
    .then(({ stdout }) => Number(stdout))
    .catch(() => undefined);
  if (port !== undefined)
    return work({ host: '127.0.0.1', port, user: 'helb', password: await secretOf(folder, 'database-password') });
  const database = await startDatabase(folder);
  try {
    return await work(database.address);
  } finally {
    await database.stop();
  }
}

/** A secret that is kept in a folder of ours, made when it is asked for first. */
export async function secretOf(folder: string, name: string): Promise<string> {
  const file = join(folder, name);
  if (!existsSync(file)) await writeFile(file, randomBytes(18).toString('hex'), { mode: 0o600 });
  return (await readFile(file, 'utf8')).trim();
}

async function ready(server: ChildProcess, socket: string): Promise<void> {
  for (let tries = 0; tries < 150; tries++) {
    if (server.exitCode !== null) throw new Error('it ended at once');
    try {
      await run('mariadb-admin', ['--no-defaults', `-u${OWN}`, `--socket=${socket}`, 'ping'], { env });
      return;
    } catch {
      await new Promise((resolve) => setTimeout(resolve, 200));
    }
  }
  throw new Error('it did not answer within 30 s');
}

const sql = (socket: string, statement: string) =>
  run('mariadb', ['--no-defaults', `-u${OWN}`, `--socket=${socket}`, '-e', statement], { env });

/**
 * Root is let in by its socket only, and only as whoever runs this: a folder from before has some without a password, for
 * every account of this machine.
 */
async function closeRoot(socket: string): Promise<void> {
  const own = `\`${OWN}\`@localhost`;
  const statement = [
    `CREATE USER IF NOT EXISTS ${own} IDENTIFIED VIA unix_socket`,
    `GRANT ALL ON *.* TO ${own} WITH GRANT OPTION`,
    'ALTER USER root@localhost IDENTIFIED VIA unix_socket',
    "DELETE FROM mysql.global_priv WHERE User IN ('root', '') AND Host <> 'localhost'",
    "DELETE FROM mysql.global_priv WHERE User = ''",
    'FLUSH PRIVILEGES',
  ].join('; ');
  const as = (user: string) =>
    run('mariadb', ['--no-defaults', `-u${user}`, `--socket=${socket}`, '-e', statement], { env });
  await as(OWN).catch(() => as('root'));
}

/** Asks it to end, and waits until it has. */
async function stop(server: ChildProcess): Promise<void> {
  if (server.exitCode !== null || server.signalCode !== null) return;
  const ended = new Promise((resolve) => server.once('exit', resolve));
  server.kill('SIGTERM');
  await ended;
}

/** Could a server listen on this port of loopback? */
export const portIsFree = (port: number): Promise<boolean> =>
  listening(port).then(
    () => true,
    () => false,
  );

const freePort = (): Promise<number> => listening(0);

/** Listens for a moment; resolves to the port. */
function listening(port: number): Promise<number> {
  return new Promise((resolve, reject) => {
    const server = createServer();
    server.once('error', reject);
    server.listen(port, '127.0.0.1', () => {
      const address = server.address();
      server.close(() => resolve(typeof address === 'object' && address ? address.port : 0));
    });
  });
}

const lastLine = (log: string): string =>
  log
    .split('\n')
    .filter((line) => /ERROR/.test(line))
    .at(-1) ?? '';
