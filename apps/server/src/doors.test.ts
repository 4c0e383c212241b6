import { readFile } from 'node:fs/promises';
import { request } from 'node:http';
import { join } from 'node:path';
import { Sequelize } from 'sequelize';
import { applyChange, seedSieve, type LogEntry } from '@helb/core';
import { ApiClient } from '../test/api-client.ts';
import { TestServers } from '../test/test-server.ts';
import { readConfig } from './config.ts';
import { MIGRATIONS } from './db/migrations/index.ts';
import { faultOf } from './http/errors.ts';
import { unpacked } from './services/snapshots.ts';

// What hostile requests and unlucky people tried: no request can fill the server, stop it, or make it forget.

let servers: TestServers;
let schema: string;
let address: string;

beforeAll(async () => {
  servers = await TestServers.begin();
  schema = await servers.schema();
  address = await servers.start(schema);
}, 60_000);
afterAll(() => servers?.end());

const naming = (id: string, name: string, old = ''): LogEntry => ({
  ...{ id, kind: 'do', label: 'Rename' },
  forward: [{ op: 'set', path: ['name'], value: name }],
  backward: [{ op: 'set', path: ['name'], value: old.padEnd(1, 'x') }],
});

async function open(at = address) {
  const client = await servers.person(at);
  const made = await client.call('POST', '/projects', { demo: true });
  expect(made).toMatchObject({ status: 201 });
  const { id } = made.body as { id: string };
  const save = (base: number, ...changes: unknown[]) =>
    client.call('POST', `/projects/${id}/changes`, { base, changes });
  return { client, id, save };
}

/** Tries until it is so. */
async function soon(isSo: () => Promise<boolean>): Promise<void> {
  for (let k = 0; !(await isSo()); k++) {
    expect(k).toBeLessThan(40);
    await new Promise((resolve) => setTimeout(resolve, 500));
  }
}

describe('the log', () => {
  test('is sent in pages, the latest first; nothing is missing, nothing twice', async () => {
    const { client, id, save } = await open();
    // what was before may be large, and is kept with the change
    for (let k = 0; k < 40; k++)
      expect((await save(k, naming(`c${k}`, `Name ${k}`, 'o'.repeat(100_000)))).status).toBe(200);
    const { body: opened, bytes } = await client.call('GET', `/projects/${id}`);
    expect(opened.log.length).toBeLessThan(12);
    expect(bytes).toBeLessThan(1.2e6);
    const found: LogEntry[] = [...opened.log];
    for (let { older } = opened; older !== undefined;) {
      const { body: page } = await client.call('GET', `/projects/${id}/log?before=${older}`);
      found.unshift(...page.log);
      ({ older } = page);
    }
    expect(found.map((entry) => entry.id)).toEqual(Array.from({ length: 40 }, (_, k) => `c${k}`));
  });

  test('since a revision is sent in pages too', async () => {
    const { client, id, save } = await open();
    for (let k = 0; k < 20; k++) await save(k, naming(`c${k}`, `Name ${k}`, 'o'.repeat(100_000)));
    let document = seedSieve();
    let revision = 0;
    for (let pages = 0; ; pages++) {
      const { body: since } = await client.call('GET', `/projects/${id}/changes?after=${revision}`);
      for (const { forward } of since.changes as LogEntry[]) {
        const next = applyChange(document, forward);
        if (next.ok) document = next.value;
      }
      ({ revision } = since);
      if (since.more) continue;
      expect(pages).toBeGreaterThan(0);
      break;
    }
    expect([document.name, revision]).toEqual(['Name 19', 20]);
  });

  test('takes no change that is empty, or larger than it may be', async () => {
    const { client, id, save } = await open();
    expect((await save(0, { id: 'e', kind: 'do', label: 'x', forward: [], backward: [] })).status).toBe(422);
    const large = await save(0, naming('ok', 'A', 'old'), naming('big', 'B', 'o'.repeat(5e6)));
    expect(large).toMatchObject({
      status: 413,
      body: { change: 'big', message: expect.stringContaining('4 MB') as string },
    });
    expect((await client.call('GET', `/projects/${id}`)).body.revision).toBe(0);
  });

  test('keeps a change of an older page, without what undo does not need of it', async () => {
    const { client, id, save } = await open();
    expect((await save(0, { ...naming('old', 'A', 'B'), actions: [{ command: 'project.rename' }] })).status).toBe(200);
    expect((await client.call('GET', `/projects/${id}`)).body.log).toEqual([naming('old', 'A', 'B')]);
  });

  test('its snapshots do not pile up, and the document is the same from them', async () => {
    const { client, id, save } = await open();
    for (let k = 0; k < 20; k++) await save(k, naming(`c${k}`, `Name ${k}`, 'o'.repeat(100_000)));
    const rows = await servers.statement<{ count: number }>(
      'SELECT COUNT(*) AS count FROM snapshots WHERE project_id = :id',
      { id },
      schema,
    );
    expect(Number(rows[0]!.count)).toBeLessThanOrEqual(2);
    // another server has nothing in its memory
    const again = new ApiClient(await servers.start(schema));
    again.enter(client);
    expect((await again.call('GET', `/projects/${id}`)).body.document).toMatchObject({ name: 'Name 19' });
  });
});

test('a snapshot of before opens, and what is saved on it is kept packed', async () => {
  const { client, id, save } = await open();
  const text = JSON.stringify({ ...seedSieve(), name: 'From before' });
  await servers.statement(
    'REPLACE INTO snapshots (project_id, revision, document) VALUES (:id, 0, :text) RETURNING revision',
    {
      id,
      text,
    },
  );
  const again = new ApiClient(await servers.start(schema));
  again.enter(client);
  expect((await again.call('GET', `/projects/${id}/document`)).body.document).toMatchObject({ name: 'From before' });
  for (let k = 0; k < 7; k++) await save(k, naming(`c${k}`, `Name ${k}`, 'o'.repeat(100_000)));
  const rows = await servers.statement<{ packed: Buffer | null }>(
    'SELECT packed FROM snapshots WHERE project_id = :id ORDER BY revision DESC',
    { id },
    schema,
  );
  expect(rows.length).toBeGreaterThan(1);
  const document = await unpacked(rows[0]!.packed!);
  expect(document).toEqual({ ...seedSieve(), name: 'Name 5' });
});

describe('bodies', () => {
  test('are not looked at before it is known who sends them', async () => {
    const large = JSON.stringify({ document: { a: 'x'.repeat(8e6) } });
    const stranger = new ApiClient(address);
    for (const path of ['/projects', '/projects/zzzzzzzzzzzz/changes', '/projects/zzzzzzzzzzzz/look'])
      expect((await stranger.call(path.endsWith('look') ? 'PUT' : 'POST', path, large)).status).toBe(401);
    const { client } = await open();
    const { client: other } = await open();
    const { id } = (await client.call('POST', '/projects', { name: 'A' })).body as { id: string };
    expect((await other.call('POST', `/projects/${id}/changes`, `[no json${' '.repeat(40_000)}`)).status).toBe(404);
  });

  test('small routes take small ones', async () => {
    const answer = await new ApiClient(address).call('POST', '/session', { name: 'a', password: 'x'.repeat(10_000) });
    expect(answer).toMatchObject({ status: 413, body: { message: 'This is larger than 4 kB.' } });
  });

  test.each<[string, () => string]>([
    ['four million brackets', () => '['.repeat(4e6)],
    ['brackets that close', () => `${'['.repeat(2e6)}${']'.repeat(2e6)}`],
    [
      'seven hundred thousand keys',
      () =>
        JSON.stringify({
          base: 0,
          changes: [],
          ...Object.fromEntries(Array.from({ length: 7e5 }, (_, k) => [`k${k}`, 0])),
        }),
    ],
    ['a million changes', () => JSON.stringify({ base: 0, changes: Array(1e6).fill(0) })],
    ['no text', () => '\u0000'],
  ])('%s: refused, and others have their turn meanwhile', async (_, made) => {
    // made first: while it is, nothing else goes on here
    const text = made();
    const { client, id } = await open();
    const refused = client.call('POST', `/projects/${id}/changes`, text);
    let isDone = false;
    void refused.finally(() => (isDone = true));
    let served = 0;
    while (!isDone) {
      expect((await new ApiClient(address).call('GET', '/session')).status).toBe(401);
      served++;
    }
    expect((await refused).status).toBeGreaterThanOrEqual(400);
    expect(served).toBeGreaterThan(0);
  });
});

describe('room', () => {
  test('of an account is bounded, over documents, logs and files', async () => {
    const small = await servers.start(await servers.schema(), { HELB_QUOTA_MB: '1' });
    const { client, id, save } = await open(small);
    expect(
      (
        await client.call(
          'POST',
          `/projects/${id}/files`,
          new Uint8Array(2e6).map(() => Math.random() * 256),
        )
      ).body.message,
    ).toMatch(/1\.0 MB are allowed/);
    let refused;
    for (let k = 0; k < 12 && !refused; k++) {
      const answer = await save(k, naming(`c${k}`, `Name ${k}`, 'o'.repeat(200_000)));
      if (answer.status !== 200) refused = answer;
    }
    expect(refused).toMatchObject({
      status: 507,
      body: { message: expect.stringMatching(/Remove projects/) as string },
    });
    expect((await client.call('DELETE', `/projects/${id}`)).status).toBe(204);
    expect((await client.call('POST', '/projects', { demo: true })).status).toBe(201);
  });

  test('a document of more than 8 MB is not imported', async () => {
    const { client } = await open();
    const document = seedSieve();
    const [first] = document.partOrder;
    const part = structuredClone(document.parts[first!]!);
    const sketch = Object.entries(part.steps).find(([, step]) => step.kind === 'sketch')!;
    const text = JSON.stringify({
      ...document,
      parts: {
        ...document.parts,
        [first!]: { ...part, steps: { ...part.steps, [sketch[0]]: { ...sketch[1], name: 'x'.repeat(9e6) } } },
      },
    });
    expect((await client.call('POST', '/projects', `{"document":${text}}`)).status).toBeGreaterThanOrEqual(413);
  });

  test('accounts are made by the administrator only where that is set', async () => {
    const closed = await servers.start(await servers.schema(), { HELB_SIGN_UP: 'closed' });
    const answer = await new ApiClient(closed).call('POST', '/account', {
      name: 'somebody',
      newPassword: 'long enough pw',
    });
    expect(answer).toMatchObject({ status: 403, body: { message: expect.stringContaining('looks after') as string } });
  });

  test('names that differ are different', async () => {
    const make = (name: string) =>
      new ApiClient(address).call('POST', '/account', { name, newPassword: 'long enough pw' });
    expect((await make('café')).status).toBe(201);
    expect((await make('cafe')).status).toBe(201);
    // one letter or two signs: the same name
    expect((await make('cafe\u0301')).status).toBe(409);
  });
});

describe('the database', () => {
  test('two servers that start together bring an empty one up to date once', async () => {
    const empty = await servers.schema();
    const both = await Promise.all([servers.start(empty), servers.start(empty)]);
    for (const each of both) expect((await new ApiClient(each).call('GET', '/health')).body).toEqual({ ok: true });
  });

  test('a migration that was killed in the middle is run again: each can be run twice', async () => {
    const name = await servers.schema();
    const { host, port, user, password } = servers.database.address;
    const sequelize = new Sequelize(name, user, password, { host, port, dialect: 'mariadb', logging: false });
    for (const { up } of MIGRATIONS) {
      await up(sequelize.getQueryInterface());
      await up(sequelize.getQueryInterface());
    }
    await sequelize.close();
    const { client } = await open(await servers.start(name));
    expect((await client.call('GET', '/projects')).body).toHaveLength(1);
  });

  test('that does not answer is told, and work goes on when it does', async () => {
    const { client, id, save } = await open();
    servers.database.process.kill('SIGSTOP');
    const frozen = await save(0, naming('c0', 'A'));
    servers.database.process.kill('SIGCONT');
    expect(frozen).toMatchObject({ status: 503, body: { message: 'The database does not answer just now.' } });
    await soon(async () => (await save(0, naming('c0', 'A'))).status === 200);
    await soon(async () => (await client.call('GET', `/projects/${id}`)).body.document?.name === 'A');
  }, 90_000);

  test('lets nobody in as root over the network, nor without a name', async () => {
    const { host, port } = servers.database.address;
    for (const user of ['root', '']) {
      const sequelize = new Sequelize('mysql', user, '', { host, port, dialect: 'mariadb', logging: false });
      await expect(sequelize.authenticate()).rejects.toThrow(/Access denied/);
      await sequelize.close();
    }
  });

  test('what is logged of its faults holds nothing of what was to be written', async () => {
    const secret = 'the drawing of the sieve';
    const { host, port, user, password } = servers.database.address;
    const sequelize = new Sequelize(schema, user, password, { host, port, dialect: 'mariadb', logging: false });
    const fault = await sequelize
      .query('INSERT INTO snapshots (project_id, revision, document) VALUES (:id, 0, :secret)', {
        replacements: { id: 'nobody', secret },
      })
      .then(() => undefined, faultOf);
    await sequelize.close();
    expect(JSON.stringify(fault)).not.toContain(secret);
    expect(fault).toMatchObject({ name: 'SequelizeForeignKeyConstraintError', errno: 1452 });
  });
});

test('logs are written each for itself, and hold nothing of what was kept', async () => {
  const folder = join(servers.folder, 'logs');
  const logged = await servers.start(schema, { HELB_LOG_FOLDER: folder });
  const { client, id, save } = await open(logged);
  await save(0, naming('c0', 'A secret name', 'another secret'));
  await new ApiClient(logged).call('POST', '/session', { name: 'nobody', password: 'secret password' });
  await client.call('DELETE', `/projects/${id}`);
  await soon(async () => (await readFile(join(folder, 'changes.log'), 'utf8')).includes('removed'));
  const read = async (name: string) => {
    const text = await readFile(join(folder, `${name}.log`), 'utf8');
    expect(text).not.toMatch(/secret/);
    return text
      .trim()
      .split('\n')
      .map((line) => JSON.parse(line) as Record<string, unknown>);
  };
  expect((await read('changes')).map(({ msg, project }) => [msg, project])).toEqual([
    ['made', id],
    ['saved', id],
    ['removed', id],
  ]);
  expect((await read('sign-ins')).map(({ msg }) => msg)).toEqual(['came in', 'could not come in']);
  expect(await read('requests')).toContainEqual(
    expect.objectContaining({ method: 'POST', path: `/api/projects/${id}/changes`, status: 200 }),
  );
});

describe('names and proxies', () => {
  /** A request with headers that fetch does not let through. */
  const asked = (at: string, headers: Record<string, string>, path = '/api/health') =>
    new Promise<{ status: number; headers: NodeJS.Dict<string | string[]> }>((resolve, reject) => {
      request(at + path, { headers }, (answer) => {
        answer.resume();
        resolve({ status: answer.statusCode!, headers: answer.headers });
      })
        .on('error', reject)
        .end();
    });

  test('a name that is not ours is not answered', async () => {
    const { host } = new URL(address);
    expect((await asked(address, { host })).status).toBe(200);
    expect((await asked(address, { host: `localhost:${new URL(address).port}` })).status).toBe(200);
    for (const foreign of ['evil.example', '127.0.0.1.evil.example', 'localhost.evil.example:80'])
      expect((await asked(address, { host: foreign })).status).toBeGreaterThanOrEqual(400);
  });

  test('it does not start for other machines without names of its own', () => {
    const env = { HELB_DB_PORT: '1', HELB_DB_PASSWORD: 'x', HELB_HOST: '0.0.0.0' };
    expect(() => readConfig(env)).toThrow(/HELB_HOSTS/);
    expect(readConfig({ ...env, HELB_HOSTS: 'helb.example' }).HELB_HOST).toBe('0.0.0.0');
  });

  test('only a proxy of ours is believed, and then https is stayed with', async () => {
    const forwarded = { 'x-forwarded-proto': 'https', 'x-forwarded-for': '10.0.0.9' };
    expect((await asked(address, forwarded)).headers['strict-transport-security']).toBeUndefined();
    const behind = await servers.start(schema, { HELB_PROXIES: '1' });
    expect((await asked(behind, forwarded)).headers['strict-transport-security']).toMatch(/max-age=31536000/);
    const client = new ApiClient(behind);
    const entered = await client.call('POST', '/account', { name: 'behind', newPassword: 'long enough pw' }, forwarded);
    expect(entered.headers.getSetCookie()[0]).toMatch(/^__Host-helb_session=.*path=\/;.*secure/i);
    expect((await client.call('GET', '/session', undefined, forwarded)).headers.get('cache-control')).toBe('no-store');
  });

  test('one account can not keep the server busy alone', async () => {
    const slow = await servers.start(await servers.schema(), { HELB_WRITES: '5' });
    const { save } = await open(slow);
    const statuses = [];
    for (let k = 0; k < 6; k++) statuses.push((await save(k, naming(`c${k}`, `N${k}`))).status);
    expect(statuses).toEqual([200, 200, 200, 200, 429, 429]);
    expect((await open(slow)).id).toBeDefined();
  });
});
