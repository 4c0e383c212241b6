import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { perform, seedSieve, type LogEntry, type Project } from '@helb/core';
import { buildServer } from '@helb/scripts/build-server.ts';
import { startDatabase, type PrivateDatabase } from '@helb/scripts/private-database.ts';
import { startServerProcess, type ServerProcess } from '@helb/scripts/server-process.ts';
import { ApiClient } from '../test/api-client.ts';

let folder: string;
let database: PrivateDatabase;
let server: ServerProcess;
let port: number;

beforeAll(async () => {
  await buildServer();
  folder = await mkdtemp(join(tmpdir(), 'helb-kill-'));
  database = await startDatabase(folder);
  server = await startServerProcess({ database, folder, demo: true, log: 'silent' });
  port = Number(new URL(server.address).port);
}, 60_000);

afterAll(async () => {
  await server?.stop();
  await database?.stop();
  await rm(folder, { recursive: true });
});

const killed = (process: { kill(signal: 'SIGKILL'): boolean; once(event: 'exit', done: () => void): unknown }) =>
  new Promise<void>((resolve) => {
    process.once('exit', () => resolve());
    process.kill('SIGKILL');
  });

/** Saves renamings one after the other until told to stop; remembers which were acknowledged. */
function saver(client: ApiClient, id: string, from: { project: Project; revision: number }, name: string) {
  const acknowledged: string[] = [];
  let stopped = false;
  const done = (async () => {
    let { project, revision } = from;
    for (let k = 0; !stopped; k++) {
      const changeId = `${name}${k}`;
      const result = perform(project, [{ command: 'project.rename', input: { name: changeId } }]);
      if (!result.ok) throw new Error(result.issue.code);
      const { label, forward, backward } = result.value.change;
      const change: LogEntry = { id: changeId, kind: 'do', label, forward, backward };
      try {
        const answer = await client.call('POST', `/projects/${id}/changes`, { base: revision, changes: [change] });
        if (answer.status !== 200) return;
        ({ revision } = answer.body as { revision: number });
        ({ project } = result.value);
        acknowledged.push(changeId);
      } catch {
        return;
      }
    }
  })();
  /** Resolves once several were acknowledged, however slow the machine is. */
  const some = async () => {
    while (acknowledged.length < 8) await pause(20);
  };
  return { acknowledged, done, some, stop: () => (stopped = true) };
}

const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

async function afterwards(client: ApiClient, id: string) {
  for (let tries = 0; tries < 50; tries++) {
    const answer = await client.call('GET', `/projects/${id}`).catch(() => undefined);
    if (answer?.status === 200) return answer.body as { revision: number; document: Project; log: LogEntry[] };
    await pause(200);
  }
  throw new Error('the server did not come back');
}

/** Everything acknowledged is there, in order; at most the one change in flight is there beyond it; nothing is half there. */
function expectNothingLost(opened: { revision: number; document: Project; log: LogEntry[] }, acknowledged: string[]) {
  const ids = opened.log.map((entry) => entry.id);
  expect(acknowledged.length).toBeGreaterThan(3);
  expect(ids.slice(0, acknowledged.length)).toEqual(acknowledged);
  expect(ids.length - acknowledged.length).toBeLessThanOrEqual(1);
  expect(opened.revision).toBe(ids.length);
  expect(opened.document.name).toBe(ids.at(-1));
}

test('kill -9 of the server while saving loses nothing that was acknowledged', async () => {
  const client = new ApiClient(server.address);
  await client.call('POST', '/account', { name: 'first', newPassword: 'long enough pw' });
  const { id } = (await client.call('POST', '/projects', { demo: true })).body as { id: string };
  const saving = saver(client, id, { project: seedSieve(), revision: 0 }, 'a');
  await saving.some();
  await killed(server.process);
  await saving.done;
  server = await startServerProcess({ database, folder, port, log: 'silent' });
  expectNothingLost(await afterwards(client, id), saving.acknowledged);
}, 60_000);

test('kill -9 of the database while saving loses nothing that was acknowledged; the server goes on by itself', async () => {
  const client = new ApiClient(server.address);
  await client.call('POST', '/account', { name: 'second', newPassword: 'long enough pw' });
  const { id } = (await client.call('POST', '/projects', { demo: true })).body as { id: string };
  const saving = saver(client, id, { project: seedSieve(), revision: 0 }, 'b');
  await saving.some();
  await killed(database.process);
  await saving.done;
  expect((await client.call('GET', '/health')).status).toBe(503);
  database = await startDatabase(folder, database.address.port);
  expectNothingLost(await afterwards(client, id), saving.acknowledged);
}, 60_000);
