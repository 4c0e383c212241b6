import { spawn, type ChildProcess } from 'node:child_process';
import { createSchema, secretOf, type PrivateDatabase } from './private-database.ts';
import { SERVER_MAIN } from './build-server.ts';

export interface ServerProcess {
  readonly process: ChildProcess;
  readonly address: string;
  stop(): Promise<void>;
}

export interface ServerOptions {
  readonly database: PrivateDatabase;
  readonly folder: string;
  readonly schema?: string;
  readonly port?: number;
  readonly web?: string;
  readonly demo?: boolean;
  readonly log?: string;
  /** Folder of the logs; without one they go to the output. */
  readonly logs?: string;
}

/** What a server, or its command line, is told of a private database. */
export async function environmentOf(
  { host, port, user, password }: PrivateDatabase['address'],
  folder: string,
  schema = 'helb',
): Promise<Record<string, string>> {
  return {
    ...{ HELB_DB_HOST: host, HELB_DB_PORT: `${port}`, HELB_DB_NAME: schema },
    ...{ HELB_DB_USER: user, HELB_DB_PASSWORD: password },
    HELB_SECRET: await secretOf(folder, 'server-secret'),
  };
}

/** Starts the built server as a process of its own; resolves when it listens, rejects with its last words. */
export async function startServerProcess(options: ServerOptions): Promise<ServerProcess> {
  const { database, folder, schema = 'helb', port = 0 } = options;
  await createSchema(database, folder, schema);
  const server = spawn(process.execPath, ['--enable-source-maps', SERVER_MAIN], {
    env: {
      ...process.env,
      NODE_OPTIONS: '',
      HELB_PORT: `${port}`,
      ...(await environmentOf(database.address, folder, schema)),
      HELB_DEMO: options.demo ? 'yes' : 'no',
      HELB_LOG: options.log ?? 'error',
      ...(options.logs ? { HELB_LOG_FOLDER: options.logs } : {}),
      ...(options.web ? { HELB_WEB: options.web } : {}),
    },
    stdio: ['ignore', 'inherit', 'pipe', 'ipc'],
    detached: true,
  });
  let words = '';
  server.stderr!.on('data', (chunk: Buffer) => (words += chunk.toString()));
  const listening = await new Promise<number>((resolve, reject) => {
    server.once('message', (message: { port: number }) => resolve(message.port));
    server.once('exit', () => reject(new Error(words.trim().split('\n').at(-1) || 'The server ended at once.')));
  });
  server.stderr!.pipe(process.stderr);
  return {
    process: server,
    address: `http://127.0.0.1:${listening}`,
    async stop() {
      if (server.exitCode !== null || server.signalCode !== null) return;
      const ended = new Promise((resolve) => server.once('exit', resolve));
      server.kill('SIGTERM');
      await ended;
    },
  };
}
