import { createHash, randomBytes } from 'node:crypto';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { perform, seedSieve, type Action, type LogEntry, type Project } from '@helb/core';
import { startDatabase, createSchema, type PrivateDatabase } from '@helb/scripts/private-database.ts';
import { ApiClient } from '../test/api-client.ts';
import { readConfig } from './config.ts';
import { DEMO_ACCOUNT } from './demo-account.ts';
import { startServer, type RunningServer } from './server.ts';

let folder: string;
let database: PrivateDatabase;
let server: RunningServer;
let address: string;

beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'helb-server-'));
  database = await startDatabase(folder);
  await createSchema(database, folder, 'helb');
  const { host, port, user, password } = database.address;
  const config = readConfig({
    HELB_PORT: '0',
    HELB_DB_HOST: host,
    HELB_DB_PORT: `${port}`,
    HELB_DB_USER: user,
    HELB_DB_PASSWORD: password,
    HELB_DEMO: 'yes',
    HELB_LOG: 'silent',
    HELB_TRIES: '60',
  });
  server = await startServer(config);
  address = `http://127.0.0.1:${server.port}`;
}, 60_000);

afterAll(async () => {
  await server?.stop();
  await database?.stop();
  await rm(folder, { recursive: true });
});

let people = 0;
async function person() {
  const client = new ApiClient(address);
  const answer = await client.call('POST', '/account', { name: `person ${++people}`, newPassword: 'long enough pw' });
  expect(answer.status).toBe(201);
  return client;
}

function entry(project: Project, id: string, ...actions: Action[]): { project: Project; entry: LogEntry } {
  const result = perform(project, actions);
  if (!result.ok) throw new Error(result.issue.code);
  const { label, forward, backward } = result.value.change;
  return { project: result.value.project, entry: { id, kind: 'do', label, forward, backward } };
}
const rename = (project: Project, id: string, name: string) =>
  entry(project, id, { command: 'project.rename', input: { name } });

describe('accounts', () => {
  test('sign up, who am I, sign out', async () => {
    const client = await person();
    expect((await client.call('GET', '/session')).body).toEqual({ name: `person ${people}` });
    expect((await client.call('DELETE', '/session')).status).toBe(204);
    expect((await client.call('GET', '/session')).status).toBe(401);
  });

  test('the demo account can enter; a wrong password and an unknown name get the same answer', async () => {
    const client = new ApiClient(address);
    expect((await client.call('POST', '/session', DEMO_ACCOUNT)).status).toBe(200);
    const wrong = await client.call('POST', '/session', { ...DEMO_ACCOUNT, password: 'not this one' });
    const nobody = await client.call('POST', '/session', { name: 'nobody', password: 'not this one' });
    expect([wrong.status, nobody.status]).toEqual([401, 401]);
    expect(wrong.body).toEqual(nobody.body);
  });

  test('the cookie is not for scripts, and the table holds neither password nor token', async () => {
    const client = new ApiClient(address);
    const answer = await client.call('POST', '/session', DEMO_ACCOUNT);
    const cookie = answer.headers.getSetCookie()[0]!;
    expect(cookie).toMatch(/httponly/i);
    expect(cookie).toMatch(/samesite=lax/i);
  });

  test('bad names and short passwords are told with their path; a taken name too', async () => {
    const client = new ApiClient(address);
    expect((await client.call('POST', '/account', { name: '?', newPassword: 'long enough pw' })).body.message).toMatch(
      /^name: /,
    );
    expect((await client.call('POST', '/account', { name: 'somebody', newPassword: 'short' })).body.message).toMatch(
      /password/,
    );
    expect((await client.call('POST', '/account', { name: 'Demo', newPassword: 'long enough pw' })).status).toBe(409);
  });

  test('a request from another site is refused', async () => {
    const client = await person();
    const answer = await client.call('POST', '/projects', { name: 'x' }, { origin: 'http://elsewhere.example' });
    expect(answer.status).toBe(403);
    expect((await client.call('POST', '/projects', { name: 'x' }, { origin: 'null' })).status).toBe(403);
  });
});

describe('projects', () => {
  test('new, demo and import; listed; removed', async () => {
    const client = await person();
    for (const from of [{ name: 'Mine' }, { demo: true }, { document: seedSieve() }])
      expect((await client.call('POST', '/projects', from)).status).toBe(201);
    const list = (await client.call('GET', '/projects')).body;
    expect(list.map((project: { name: string }) => project.name).sort()).toEqual(['Mine', 'Seed sieve', 'Seed sieve']);
    expect((await client.call('DELETE', `/projects/${list[0].id}`)).status).toBe(204);
    expect((await client.call('GET', '/projects')).body).toHaveLength(2);
  });

  test("somebody else's project answers 404 on every route, as one that does not exist", async () => {
    const [owner, other] = [await person(), await person()];
    const { id } = (await owner.call('POST', '/projects', { demo: true })).body;
    const save = { base: 0, changes: [rename(seedSieve(), 'c1', 'Stolen').entry] };
    const look = { findings: 0, picture: Buffer.from([0x89, 0x50, 0x4e, 0x47]).toString('base64') };
    for (const at of [id, 'zzzzzzzzzzzz', '..%2f..', "1' or '1"]) {
      const answers = [
        await other.call('GET', `/projects/${at}`),
        await other.call('DELETE', `/projects/${at}`),
        await other.call('GET', `/projects/${at}/changes?after=0`),
        await other.call('POST', `/projects/${at}/changes`, save),
        await other.call('PUT', `/projects/${at}/look`, look),
        await other.call('GET', `/projects/${at}/picture`),
      ];
      expect(answers.map(({ status }) => status)).toEqual([404, 404, 404, 404, 404, 404]);
    }
    expect((await owner.call('GET', `/projects/${id}`)).body.document.name).toBe('Seed sieve');
  });

  test('without a session every route but health and entering is 401', async () => {
    const client = new ApiClient(address);
    expect((await client.call('GET', '/health')).body).toEqual({ ok: true });
    for (const [method, path] of [
      ['GET', '/projects'],
      ['POST', '/projects'],
      ['GET', '/projects/zzzzzzzzzzzz'],
    ] as const)
      expect((await client.call(method, path, method === 'POST' ? { name: 'x' } : undefined)).status).toBe(401);
  });

  test('the picture is kept, and only a PNG is taken', async () => {
    const client = await person();
    const { id } = (await client.call('POST', '/projects', { demo: true })).body;
    const picture = Buffer.concat([Buffer.from([0x89, 0x50, 0x4e, 0x47]), Buffer.alloc(100)]).toString('base64');
    expect((await client.call('PUT', `/projects/${id}/look`, { findings: 2, picture })).status).toBe(204);
    expect((await client.call('GET', '/projects')).body[0]).toMatchObject({ findings: 2, hasPicture: true });
    expect((await client.call('GET', `/projects/${id}/picture`)).headers.get('content-type')).toBe('image/png');
    const html = Buffer.from('<script>').toString('base64');
    expect((await client.call('PUT', `/projects/${id}/look`, { findings: 0, picture: html })).status).toBe(422);
  });
});

describe('saving', () => {
  async function open() {
    const client = await person();
    const { id } = (await client.call('POST', '/projects', { demo: true })).body;
    const save = (base: number, ...changes: LogEntry[]) =>
      client.call('POST', `/projects/${id}/changes`, { base, changes });
    const load = async () => (await client.call('GET', `/projects/${id}`)).body;
    return { client, id, save, load };
  }

  test('changes come back with the document and the log for undo', async () => {
    const { save, load } = await open();
    const first = rename(seedSieve(), 'c1', 'One');
    const second = rename(first.project, 'c2', 'Two');
    expect((await save(0, first.entry, second.entry)).body).toEqual({ revision: 2 });
    const opened = await load();
    expect(opened).toMatchObject({ revision: 2, document: { name: 'Two' } });
    expect(opened.log.map((e: LogEntry) => [e.id, e.kind, e.label])).toEqual([
      ['c1', 'do', 'Rename project to One'],
      ['c2', 'do', 'Rename project to Two'],
    ]);
  });

  test('sending again what was saved is harmless, also together with something new', async () => {
    const { save, load } = await open();
    const first = rename(seedSieve(), 'c1', 'One');
    const second = rename(first.project, 'c2', 'Two');
    await save(0, first.entry);
    expect((await save(0, first.entry)).body).toEqual({ revision: 1 });
    expect((await save(0, first.entry, second.entry)).body).toEqual({ revision: 2 });
    expect((await load()).revision).toBe(2);
  });

  test('what was made on an older revision is refused with what came since; nothing is overwritten', async () => {
    const { client, id, save, load } = await open();
    const mine = rename(seedSieve(), 'mine', 'Mine');
    const theirs = entry(seedSieve(), 'theirs', { command: 'part.add', input: { id: 'p9', name: 'Lid' } });
    expect((await save(0, theirs.entry)).body).toEqual({ revision: 1 });
    const refused = await save(0, mine.entry);
    expect(refused.status).toBe(409);
    expect(refused.body.revision).toBe(1);
    const { body: since } = await client.call('GET', `/projects/${id}/changes?after=0`);
    expect([since.more, since.changes.map((e: LogEntry) => e.id)]).toEqual([false, ['theirs']]);
    // the same came with the refusal: the page need not ask
    expect(refused.body.since).toEqual(since);
    expect((await save(1, mine.entry)).body).toEqual({ revision: 2 });
    expect((await load()).document).toMatchObject({ name: 'Mine', parts: { p9: { name: 'Lid' } } });
  });

  test('two windows that save at the same time: one goes first, the other is told', async () => {
    const { save, load } = await open();
    const answers = await Promise.all(['a', 'b', 'c', 'd'].map((id) => save(0, rename(seedSieve(), id, id).entry)));
    expect(answers.map(({ status }) => status).sort()).toEqual([200, 409, 409, 409]);
    expect((await load()).revision).toBe(1);
  });

  test('a snapshot every fifty revisions: the document is the same from it and from the beginning', async () => {
    const { save, load } = await open();
    let project = seedSieve();
    const entries: LogEntry[] = [];
    for (let k = 0; k < 120; k++) {
      const next = rename(project, `c${k}`, `Name ${k}`);
      project = next.project;
      entries.push(next.entry);
    }
    await save(0, ...entries.slice(0, 30));
    await save(30, ...entries.slice(30));
    expect((await load()).document).toEqual(project);
  });

  test.each<[string, unknown, number, RegExp]>([
    [
      'a change that breaks the project',
      {
        base: 0,
        changes: [
          { id: 'x', kind: 'do', label: 'x', forward: [{ op: 'set', path: ['unit'], value: 'parsec' }], backward: [] },
        ],
      },
      422,
      /unit/,
    ],
    [
      'a path into the prototype',
      {
        base: 0,
        changes: [
          {
            id: 'x',
            kind: 'do',
            label: 'x',
            forward: [{ op: 'set', path: ['__proto__', 'a'], value: 1 }],
            backward: [],
          },
        ],
      },
      422,
      /path/,
    ],
    [
      'a change with a bad id',
      { base: 0, changes: [{ id: 'X Y', kind: 'do', label: 'x', forward: [], backward: [] }] },
      422,
      /changes\.0\.id/,
    ],
    ['no changes', { base: 0, changes: [] }, 422, /changes/],
    ['text that is no JSON', '{"base":', 400, /JSON/],
  ])('%s is refused with its reason, nothing half-saved', async (_, body, status, message) => {
    const { client, id, load } = await open();
    const answer = await client.call('POST', `/projects/${id}/changes`, body);
    expect(answer.status).toBe(status);
    expect(answer.body.message).toMatch(message);
    expect(await load()).toMatchObject({ revision: 0, document: { name: 'Seed sieve' } });
  });

  test('one bad change among good ones saves none of them', async () => {
    const { save, load } = await open();
    const good = rename(seedSieve(), 'good', 'Good');
    const bad: LogEntry = {
      id: 'bad',
      kind: 'do',
      label: '',
      forward: [{ op: 'set', path: ['schema'], value: 7 }],
      backward: [],
    };
    expect((await save(0, good.entry, bad)).status).toBe(422);
    expect((await load()).revision).toBe(0);
  });

  test('deep and large bodies are refused quickly', async () => {
    const { client, id } = await open();
    const deep = `{"base":0,"changes":[{"id":"x","kind":"do","label":"","backward":[],"forward":[{"op":"set","path":["name"],"value":${'['.repeat(5000)}${']'.repeat(5000)}}]}]}`;
    expect((await client.call('POST', `/projects/${id}/changes`, deep)).body.message).toMatch(/deep/);
    const large = JSON.stringify({ document: 'x'.repeat(25 * 1024 * 1024) });
    expect((await client.call('POST', '/projects', JSON.stringify({ document: 'x'.repeat(9e6) }))).status).toBe(422);
    expect((await client.call('POST', '/projects', large)).status).toBe(413);
  });
});

test('the document alone, as it is now, for its owner only', async () => {
  const client = await person();
  const { id } = (await client.call('POST', '/projects', { name: 'A' })).body;
  const { body: opened } = await client.call('GET', `/projects/${id}`);
  const { entry: change, project } = rename(opened.document as Project, 'e1', 'B');
  await client.call('POST', `/projects/${id}/changes`, { base: 0, changes: [change] });
  expect((await client.call('GET', `/projects/${id}/document`)).body).toEqual({ revision: 1, document: project });
  expect((await (await person()).call('GET', `/projects/${id}/document`)).status).toBe(404);
  expect((await new ApiClient(address).call('GET', `/projects/${id}/document`)).status).toBe(401);
});

// last: it uses up the tries of this address
describe('files', () => {
  const bytes = new TextEncoder().encode('ISO-10303-21; some solid');
  const hash = createHash('sha256').update(bytes).digest('hex');

  test('kept with a project by what is in them, once; read again by their owner only', async () => {
    const client = await person();
    const { id } = (await client.call('POST', '/projects', { name: 'A' })).body;
    const kept = await client.call('POST', `/projects/${id}/files`, bytes);
    expect(kept).toMatchObject({ status: 201, body: { hash, size: bytes.length } });
    expect((await client.call('POST', `/projects/${id}/files`, bytes)).body).toEqual(kept.body);
    const read = await client.call('GET', `/files/${hash}`);
    expect(read).toMatchObject({ status: 200, body: 'ISO-10303-21; some solid' });
    expect(read.headers.get('cache-control')).toContain('immutable');
    const other = await person();
    expect((await other.call('GET', `/files/${hash}`)).status).toBe(404);
    expect((await other.call('POST', `/projects/${id}/files`, bytes)).status).toBe(404);
    expect((await new ApiClient(address).call('GET', `/files/${hash}`)).status).toBe(401);
    // with the project they go too
    await client.call('DELETE', `/projects/${id}`);
    expect((await client.call('GET', `/files/${hash}`)).status).toBe(404);
  });

  test('shared with another project of the same owner: it stays when the first goes', async () => {
    const client = await person();
    const { id: first } = (await client.call('POST', '/projects', { name: 'A' })).body;
    const { id: second } = (await client.call('POST', '/projects', { name: 'B' })).body;
    await client.call('POST', `/projects/${first}/files`, bytes);
    const share = (who: ApiClient, project: string, of = hash) => who.call('PUT', `/projects/${project}/files/${of}`);
    expect((await share(client, second)).status).toBe(204);
    expect((await share(client, second)).status).toBe(204);
    await client.call('DELETE', `/projects/${first}`);
    expect((await client.call('GET', `/files/${hash}`)).status).toBe(200);
    // neither into a project of somebody else, nor what is theirs, nor what is nowhere
    const other = await person();
    const { id: theirs } = (await other.call('POST', '/projects', { name: 'C' })).body;
    expect((await share(other, second)).status).toBe(404);
    expect((await share(other, theirs)).status).toBe(404);
    expect((await share(client, second, 'f'.repeat(64))).status).toBe(404);
    expect((await share(client, second, 'nonsense')).status).toBe(404);
  });

  test('what is empty, too large, no bytes, or no hash is refused in words', async () => {
    const client = await person();
    const { id } = (await client.call('POST', '/projects', { name: 'A' })).body;
    const post = (body: unknown) => client.call('POST', `/projects/${id}/files`, body);
    expect(await post(new Uint8Array(0))).toMatchObject({ status: 422, body: { message: 'The file is empty.' } });
    expect(await post({ a: 1 })).toMatchObject({ status: 415, body: { message: 'Send the bytes of the file.' } });
    const large = await post(new Uint8Array(33 * 1024 * 1024));
    expect(large).toMatchObject({ status: 413, body: { message: 'The file is larger than 32 MB.' } });
    // what can not be packed is too large for a row
    const noise = await post(randomBytes(8 * 1024 * 1024));
    expect(noise).toMatchObject({ status: 413, body: { message: expect.stringContaining('Packed') as string } });
    expect((await post(new Uint8Array(31 * 1024 * 1024))).status).toBe(201);
    expect((await client.call('GET', '/files/nonsense')).status).toBe(404);
  });
});

test('too many tries to sign in are slowed down', async () => {
  const client = new ApiClient(address);
  const statuses: number[] = [];
  for (let k = 0; k < 80; k++)
    statuses.push((await client.call('POST', '/session', { name: 'nobody', password: 'not this one' })).status);
  expect(statuses.at(-1)).toBe(429);
});
