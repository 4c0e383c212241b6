import { existsSync } from 'node:fs';
import { mkdir, rm, statfs, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { DEMO_ACCOUNT } from '@helb/server/demo-account.ts';
import { buildServer, ROOT } from './build-server.ts';
import { buildWeb, WEB } from './build-web.ts';
import { portIsFree, startLastingDatabase, type PrivateDatabase } from './private-database.ts';
import { startServerProcess, type ServerProcess } from './server-process.ts';

const DATA = join(ROOT, '.data');
const NEEDED_MB = 300;

const say = (text: string) => process.stdout.write(`${text}\n`);

/** Stops what was started, the last first; also while it is still starting. */
const running: { stop(): Promise<void> }[] = [];
let stopping: Promise<never> | undefined;

function stopAll(code: number): Promise<never> {
  return (stopping ??= (async () => {
    for (const part of running.reverse()) await part.stop();
    process.exit(code);
  })());
}

async function main(): Promise<void> {
  process.on('SIGINT', () => {
    say('\nStopping ...');
    void stopAll(0);
  });
  process.on('SIGTERM', () => void stopAll(0));

  if (process.argv.includes('--fresh')) await rm(DATA, { recursive: true, force: true });
  await prepareFolder();
  const port = Number(process.env['HELB_PORT'] ?? 7340);
  if (!(await portIsFree(port))) throw new Error(`Port ${port} is in use. Choose another: HELB_PORT=7341 ./helb demo`);
  say('Building ...');
  await Promise.all([buildServer(), buildWeb()]);
  say('Starting the private database ...');
  const database: PrivateDatabase = await startLastingDatabase(DATA, say);
  running.push(database);
  const server: ServerProcess = await startServerProcess({
    database,
    folder: DATA,
    port,
    web: WEB,
    logs: join(DATA, 'logs'),
    demo: true,
  });
  running.push(server);
  say(
    `\n  Helb is at ${server.address}\n  Enter with the name "${DEMO_ACCOUNT.name}" and the password "${DEMO_ACCOUNT.password}".\n  Ctrl+C stops everything; the data stays in .data/.\n`,
  );
  server.process.once('exit', () => {
    if (!stopping) say('The server ended by itself.');
    void stopAll(1);
  });
}

async function prepareFolder(): Promise<void> {
  try {
    if (!existsSync(DATA)) await mkdir(DATA, { recursive: true });
    const probe = join(DATA, '.probe');
    await writeFile(probe, '');
    await rm(probe);
  } catch (error) {
    throw new Error(
      `${DATA} can't be written (${(error as NodeJS.ErrnoException).code}). Run as its owner, or make it writable.`,
      { cause: error },
    );
  }
  const { bavail, bsize } = await statfs(DATA);
  const free = (bavail * bsize) / 1024 / 1024;
  if (free < NEEDED_MB)
    throw new Error(`Only ${Math.floor(free)} MB are free on the disk of ${DATA}; the demo needs ${NEEDED_MB} MB.`);
}

try {
  await main();
} catch (error) {
  process.stderr.write(`${(error as Error).message}\n`);
  await stopAll(1);
}
