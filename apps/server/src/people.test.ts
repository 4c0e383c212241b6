import { Secret, TOTP } from 'otpauth';
import { QueryTypes } from 'sequelize';
import { seedSieve } from '@helb/core';
import { unzipSync } from 'fflate';
import { ApiClient } from '../test/api-client.ts';
import { TestServers } from '../test/test-server.ts';
import { administrate } from './admin/commands.ts';
import { newSecret, periodOf, SecretBox } from './accounts/second-factor.ts';
import { weaknessOf } from './accounts/password-strength.ts';
import { readConfig } from './config.ts';
import { networkOf } from './services/limits.ts';
import { openServices } from './services.ts';

const OLD = 'long enough pw';
const NEW = 'a kettle on seven stairs';
const SECRET = 'x'.repeat(40);

let servers: TestServers;
let schema: string;
let address: string;

beforeAll(async () => {
  servers = await TestServers.begin();
  schema = await servers.schema();
  address = await servers.start(schema, { HELB_SECRET: SECRET });
}, 60_000);
afterAll(() => servers?.end());

let people = 0;
/** Somebody new, with a name of their own. */
async function somebody(at = address) {
  const name = `somebody ${++people}`;
  const client = new ApiClient(at);
  expect((await client.call('POST', '/account', { name, newPassword: OLD })).status).toBe(201);
  return { client, name, credentials: { name, password: OLD } };
}
/** Their other device. */
async function comesIn(credentials: object, at = address) {
  const client = new ApiClient(at);
  return { client, answer: await client.call('POST', '/session', credentials) };
}
const isIn = async (client: ApiClient) => (await client.call('GET', '/session')).status === 200;
const totp = (secret: string) =>
  new TOTP({ secret: Secret.fromBase32(secret), algorithm: 'SHA1', digits: 6, period: 30 });

const configOf = (schema: string) => {
  const { host, port, user, password } = servers.database.address;
  return readConfig({
    ...{ HELB_DB_HOST: host, HELB_DB_PORT: `${port}`, HELB_DB_NAME: schema, HELB_DB_USER: user },
    ...{ HELB_DB_PASSWORD: password, HELB_SECRET: SECRET },
  });
};
/** With the services of the database itself, as from the command line. */
async function administrator<T>(work: (on: Parameters<typeof administrate>[1]) => Promise<T>): Promise<T> {
  const { database, services } = await openServices(configOf(schema));
  try {
    return await work({ database, ...services });
  } finally {
    await database.sequelize.close();
  }
}

describe('passwords', () => {
  test.each([
    ['password1234', /guessed soon/],
    ['qwertyuiop12', /guessed soon/],
    ['1234567890', /guessed soon/],
    ['helbhelbhelb', /guessed soon/],
    ['somebody new', /guessed soon/],
    ['short', /at least 10/],
  ])('"%s" is refused, with what would do', async (newPassword, words) => {
    const answer = await new ApiClient(address).call('POST', '/account', { name: 'somebody new', newPassword });
    expect(answer).toMatchObject({ status: 422, body: { message: expect.stringMatching(words) as string } });
  });

  test.each(['long enough pw', 'seed-sieve-demo', 'ein Kessel auf der Stiege', '木の上の七匹の猫たち'])(
    '"%s" would do, and none is asked for signs of some kind',
    (password) => expect(weaknessOf(password, ['anna'])).toBeUndefined(),
  );

  test('one that is long and contrived is looked at in its beginning only', () => {
    expect(weaknessOf('4@31!0$5'.repeat(25), [])).toBeUndefined();
    expect(weaknessOf('a'.repeat(200), [])).toMatch(/guessed soon/);
  });

  test('is changed with the old one; every other session ends, this one goes on with a new token', async () => {
    const { client, name, credentials } = await somebody();
    const { client: other } = await comesIn(credentials);
    const stolen = new ApiClient(address);
    stolen.enter(client);
    const change = (password: string, newPassword = NEW, who = name) =>
      client.call('PUT', '/account/password', { name: who, password, newPassword });
    expect(await change('not this one')).toMatchObject({
      status: 403,
      body: { message: 'The password is not right.' },
    });
    expect((await change(OLD, 'password1234')).status).toBe(422);
    expect((await change(OLD, NEW, 'demo')).status).toBe(409);
    expect((await change(OLD)).status).toBe(200);
    expect([await isIn(client), await isIn(other), await isIn(stolen)]).toEqual([true, false, false]);
    expect((await comesIn(credentials)).answer.status).toBe(401);
    expect((await comesIn({ name, password: NEW })).answer.status).toBe(200);
  });

  test('a name is tried so often only, from wherever; who is in from there is not kept out', async () => {
    const at = await servers.start(schema, { HELB_PROXIES: '1', HELB_TRIES: '1000' });
    const { client, name, credentials } = await somebody(at);
    const from = (ip: string) => ({ 'x-forwarded-for': ip });
    await client.call('POST', '/session', credentials, from('10.1.1.1'));
    let last = 0;
    for (let k = 0; k < 25 && last !== 429; k++)
      last = (await new ApiClient(at).call('POST', '/session', { name, password: `try ${k}` }, from(`10.9.${k}.1`)))
        .status;
    expect(last).toBe(429);
    // who is kept out by others asks for a word, which no count stands before
    const recovery = (await administrator((on) => administrate(['recover', name], on))).split('\n').at(-1)!;
    const right = (ip: string) => new ApiClient(at).call('POST', '/session', credentials, from(ip));
    expect((await right('10.8.8.8')).status).toBe(429);
    expect((await right('10.1.1.1')).status).toBe(200);
    const back = { name, recovery, newPassword: NEW };
    expect((await new ApiClient(at).call('POST', '/session/recovery', back, from('10.7.7.7'))).status).toBe(200);
  });

  test('what is counted is counted for all servers of a database', async () => {
    const own = await servers.schema();
    const two = await Promise.all([servers.start(own, { HELB_TRIES: '6' }), servers.start(own, { HELB_TRIES: '6' })]);
    const statuses: number[] = [];
    for (let k = 0; k < 8; k++)
      statuses.push((await comesIn({ name: 'nobody', password: `try ${k}` }, two[k % 2])).answer.status);
    expect(statuses).toEqual([401, 401, 401, 401, 401, 401, 429, 429]);
  });

  test('counting up on purpose keeps nobody from working', async () => {
    const own = await servers.schema();
    await servers.start(own);
    await servers.statement(
      'SET STATEMENT max_heap_table_size = 16384 FOR ALTER TABLE counts ENGINE = MEMORY',
      {},
      own,
    );
    const { database, services } = await openServices(configOf(own));
    const limit = { name: 'x', most: 1, seconds: 3600, words: 'x' };
    for (let k = 0; k < 1500; k++) await services.limits.count(limit, k);
    await expect(services.limits.count(limit, 1499)).rejects.toThrow('x');
    const [row] = await servers.statement<{ rows: number }>('SELECT COUNT(*) AS `rows` FROM counts', {}, own);
    expect(Number(row!.rows)).toBeLessThan(1000);
    await database.sequelize.close();
  });

  test.each([
    ['10.0.0.9', '10.0.0.9'],
    ['2001:db8:1:2:3:4:5:6', '2001:db8:1:2'],
    ['2001:db8::6', '2001:db8:0:0'],
    ['::1', '0:0:0:0'],
    ['::ffff:10.0.0.9', '::ffff:10.0.0.9'],
  ])('the network of %s is %s', (ip, network) => expect(networkOf(ip)).toBe(network));
});

describe('sessions', () => {
  test('are listed, end one by one and all together', async () => {
    const { client, credentials } = await somebody();
    const { client: other } = await comesIn(credentials);
    const { client: third } = await comesIn(credentials);
    const list = async () => (await client.call('GET', '/account')).body.sessions;
    const sessions = await list();
    expect(sessions).toHaveLength(3);
    expect(sessions.filter(({ isThis }: { isThis: boolean }) => isThis)).toHaveLength(1);
    expect(JSON.stringify(sessions)).not.toMatch(/token|hash/i);
    const others = sessions.filter(({ isThis }: { isThis: boolean }) => !isThis);
    expect((await client.call('DELETE', `/account/sessions/${others[0].id}`)).status).toBe(204);
    expect((await client.call('DELETE', `/account/sessions/${others[0].id}`)).status).toBe(404);
    expect([await isIn(other), await isIn(third)].filter(Boolean)).toHaveLength(1);
    // of somebody else nothing can be ended
    const { client: stranger } = await somebody();
    expect((await stranger.call('DELETE', `/account/sessions/${others[1].id}`)).status).toBe(404);
    expect((await client.call('DELETE', '/account/sessions')).status).toBe(204);
    expect([await isIn(client), await isIn(other), await isIn(third)]).toEqual([false, false, false]);
  });

  test('who signs in again has a new one, and the one before is gone', async () => {
    const { client, credentials } = await somebody();
    const before = new ApiClient(address);
    before.enter(client);
    await client.call('POST', '/session', credentials);
    expect([await isIn(client), await isIn(before)]).toEqual([true, false]);
  });

  test('end some time after their last use; what a page asks by itself is none', async () => {
    const { client } = await somebody();
    const { id } = (await client.call('POST', '/projects', { demo: true })).body;
    const since = () => client.call('GET', `/projects/${id}/changes?after=0`);
    const goBack = (hours: number) =>
      administrator(({ database }) =>
        database.sequelize.query(
          `UPDATE sessions SET seen_at = seen_at - INTERVAL ${hours} HOUR WHERE account_id =
            (SELECT account_id FROM projects WHERE id = '${id}')`,
        ),
      );
    await goBack(100);
    expect((await since()).status).toBe(200);
    await goBack(60);
    expect((await since()).status).toBe(200);
    await goBack(10);
    expect([(await since()).status, await isIn(client)]).toEqual([401, false]);
  });
});

describe('one-time codes', () => {
  test('are set with a code, asked for at the door, good for once, and turned off with one', async () => {
    const { client, credentials } = await somebody();
    const { secret, uri } = (await client.call('POST', '/account/second-factor/new')).body;
    expect(uri).toMatch(/^otpauth:\/\/totp\/.*algorithm=SHA1.*digits=6.*period=30/);
    const set = (code: string) => client.call('PUT', '/account/second-factor', { ...credentials, secret, code });
    const wrong = totp(secret).generate({ timestamp: Date.now() - 3600_000 });
    expect((await set(wrong)).status).toBe(403);
    expect((await client.call('GET', '/account')).body.secondFactor).toBe(false);
    const first = totp(secret).generate({ timestamp: Date.now() - 30_000 });
    expect((await set(first)).status).toBe(204);
    expect((await client.call('GET', '/account')).body.secondFactor).toBe(true);

    expect((await comesIn(credentials)).answer).toMatchObject({ status: 401, body: { wants: 'code' } });
    // without the password nobody learns that there are codes
    expect((await comesIn({ ...credentials, password: 'not this one' })).answer.body.wants).toBeUndefined();
    expect((await comesIn({ ...credentials, code: first })).answer).toMatchObject({ status: 401 });
    const now = totp(secret).generate();
    expect((await comesIn({ ...credentials, code: `${now.slice(0, 3)} ${now.slice(3)}` })).answer.status).toBe(200);
    expect((await comesIn({ ...credentials, code: now })).answer.status).toBe(401);

    expect((await client.call('DELETE', '/account/second-factor', credentials)).status).toBe(403);
    const next = totp(secret).generate({ timestamp: Date.now() + 30_000 });
    expect((await client.call('DELETE', '/account/second-factor', { ...credentials, code: next })).status).toBe(204);
    expect((await comesIn(credentials)).answer.status).toBe(200);
  });

  test('few may be tried', async () => {
    const { client, credentials } = await somebody();
    const { secret } = (await client.call('POST', '/account/second-factor/new')).body;
    await client.call('PUT', '/account/second-factor', { ...credentials, secret, code: totp(secret).generate() });
    const old = totp(secret).generate({ timestamp: 0 });
    const statuses = [];
    for (let k = 0; k < 12; k++) statuses.push((await comesIn({ ...credentials, code: old })).answer.status);
    expect(statuses.slice(9)).toEqual([401, 429, 429]);
  });

  test('the secret is kept closed, and opens with the key of the server only', () => {
    const { secret } = newSecret('anna');
    expect(secret).toMatch(/^[A-Z2-7]{32}$/);
    const box = new SecretBox(SECRET).close(secret);
    expect(box.toString('latin1')).not.toContain(secret);
    expect(new SecretBox(SECRET).open(box)).toBe(secret);
    expect(() => new SecretBox('y'.repeat(40)).open(box)).toThrow();
    box[20]! ^= 1;
    expect(() => new SecretBox(SECRET).open(box)).toThrow();
  });

  test('codes are those of RFC 6238', () => {
    // its appendix B, the last six of eight digits
    const secret = new Secret({ buffer: new TextEncoder().encode('12345678901234567890').buffer }).base32;
    expect(periodOf('287082', secret, 0, 59_000)).toBe(1);
    expect(periodOf('287082', secret, 1, 59_000)).toBeUndefined();
    expect(periodOf('081804', secret, 0, 1111111109_000)).toBe(37037036);
    expect(periodOf('081804', secret, 0, 1111111109_000 + 60_000)).toBeUndefined();
  });

  test('without a key the server keeps none, and says so', async () => {
    const { client } = await somebody(await servers.start(schema));
    expect((await client.call('GET', '/account')).body.canHaveSecondFactor).toBe(false);
    expect(await client.call('POST', '/account/second-factor/new')).toMatchObject({
      status: 409,
      body: { message: expect.stringContaining('HELB_SECRET') as string },
    });
  });
});

describe('what is theirs', () => {
  test('is taken out whole, and each project can be imported again', async () => {
    const { client, name } = await somebody();
    const { id } = (await client.call('POST', '/projects', { demo: true })).body;
    await client.call('POST', '/projects', { name: 'A / second: one?' });
    const naming = { op: 'set', path: ['name'], value: 'Renamed' };
    const change = {
      id: 'c1',
      kind: 'do',
      label: 'Rename',
      forward: [naming],
      backward: [{ ...naming, value: 'Seed sieve' }],
    };
    await client.call('POST', `/projects/${id}/changes`, { base: 0, changes: [change] });
    const bytes = new TextEncoder().encode('solid of a neighbour');
    const { hash } = (await client.call('POST', `/projects/${id}/files`, bytes)).body;

    const response = await client.fetch('GET', '/account/export');
    expect(response.headers.get('content-type')).toBe('application/zip');
    const all = unzipSync(new Uint8Array(await response.arrayBuffer()));
    const names = Object.keys(all);
    // the one that was changed last is the first
    expect(names).toEqual(['account.json', '001 Renamed.zip', '002 A _ second_ one_.zip']);
    const text = (content: Uint8Array) => new TextDecoder().decode(content);
    const account = text(all['account.json']!);
    const since = expect.stringMatching(/^\d{4}-\d\d-\d\dT/) as string;
    expect(JSON.parse(account)).toMatchObject({
      name,
      oneTimeCodes: false,
      createdAt: since,
      sessions: [{ openedAt: since }],
    });
    expect(account).not.toMatch(/argon|hash"/i);
    const project = unzipSync(all['001 Renamed.zip']!);
    expect(text(project[`files/${hash}`]!)).toBe('solid of a neighbour');
    expect(
      text(project['log.jsonl']!)
        .trim()
        .split('\n')
        .map((line) => (JSON.parse(line) as { id: string }).id),
    ).toEqual(['c1']);
    const document: unknown = JSON.parse(text(project['project.json']!));
    expect(document).toMatchObject({ ...seedSieve(), name: 'Renamed' });
    expect((await client.call('POST', '/projects', { document })).status).toBe(201);
  });

  test('is removed for good, with the password', async () => {
    const { client, name, credentials } = await somebody();
    const { id } = (await client.call('POST', '/projects', { demo: true })).body;
    await client.call('POST', `/projects/${id}/files`, new Uint8Array([1, 2, 3]));
    expect((await client.call('DELETE', '/account', { name, password: 'not this one' })).status).toBe(403);
    expect((await client.call('DELETE', '/account', credentials)).status).toBe(204);
    expect(await isIn(client)).toBe(false);
    expect((await comesIn(credentials)).answer.status).toBe(401);
    const left = await administrator(async ({ database: { sequelize } }) => {
      const tables = ['projects', 'snapshots', 'changes', 'files'];
      const counts = tables.map(async (table) => {
        const column = table === 'projects' ? 'id' : 'project_id';
        const sql = `SELECT COUNT(*) AS count FROM ${table} WHERE ${column} = '${id}'`;
        const [row] = await sequelize.query<{ count: number }>(sql, { type: QueryTypes.SELECT });
        return Number(row!.count);
      });
      return Promise.all(counts);
    });
    expect(left).toEqual([0, 0, 0, 0]);
    // the name is free again
    expect((await new ApiClient(address).call('POST', '/account', { name, newPassword: OLD })).status).toBe(201);
  });

  test('how much room it takes is told', async () => {
    const { client } = await somebody();
    const room = async () => (await client.call('GET', '/account')).body.room as { used: number; most: number };
    expect((await room()).used).toBe(0);
    await client.call('POST', '/projects', { document: seedSieve() });
    const { used, most } = await room();
    expect(used).toBe(JSON.stringify(seedSieve()).length);
    expect(most).toBe(1024 ** 3);
  });
});

describe('the command line', () => {
  test('makes an account whose first password its owner sets, with a word that is good for once', async () => {
    const told = await administrator((on) => administrate(['make', 'Late', 'Comer'], on));
    const recovery = told.split('\n').at(-1)!;
    const back = (newPassword: string, word = recovery) =>
      new ApiClient(address).call('POST', '/session/recovery', { name: 'late comer', recovery: word, newPassword });
    expect((await back(NEW, 'not the word')).status).toBe(401);
    expect((await back('password1234')).status).toBe(422);
    expect((await back(NEW)).status).toBe(200);
    expect((await back('another kettle on the stairs')).status).toBe(401);
    expect((await comesIn({ name: 'late comer', password: NEW })).answer.status).toBe(200);
    await expect(administrator((on) => administrate(['make', 'late comer'], on))).rejects.toThrow(/taken/);
  });

  test('lets somebody back in; old sessions and the old password are nothing then, and codes stay', async () => {
    const { client, name, credentials } = await somebody();
    const { secret } = (await client.call('POST', '/account/second-factor/new')).body;
    await client.call('PUT', '/account/second-factor', { ...credentials, secret, code: totp(secret).generate() });
    const recovery = (await administrator((on) => administrate(['recover', name], on))).split('\n').at(-1)!;
    const answer = await new ApiClient(address).call('POST', '/session/recovery', { name, recovery, newPassword: NEW });
    expect(answer).toMatchObject({ status: 200, body: { wants: 'code' } });
    expect(await isIn(client)).toBe(false);
    expect((await comesIn(credentials)).answer.body.wants).toBeUndefined();
    expect((await comesIn({ name, password: NEW })).answer.body.wants).toBe('code');
    expect(await administrator((on) => administrate(['codes-off', name], on))).toMatch(/without codes/);
    expect((await comesIn({ name, password: NEW })).answer.status).toBe(200);
  });

  test('a word that is a day old opens nothing', async () => {
    const { name } = await somebody();
    const recovery = await administrator(async (on) => {
      const told = await administrate(['recover', name], on);
      await on.database.models.Account.update({ recoveryEndsAt: new Date(Date.now() - 1) }, { where: { name } });
      return told.split('\n').at(-1)!;
    });
    const back = { name, recovery, newPassword: NEW };
    expect((await new ApiClient(address).call('POST', '/session/recovery', back)).status).toBe(401);
  });

  test('lists, signs out, removes; says what it knows', async () => {
    const { client, name } = await somebody();
    await client.call('POST', '/projects', { demo: true });
    const list = () => administrator((on) => administrate(['list'], on));
    expect(await list()).toMatch(new RegExp(`${name}\\tsince \\d{4}-\\d\\d-\\d\\d\\t0\\.\\d MB\\twithout codes`));
    expect(await administrator((on) => administrate(['sign-out', name], on))).toMatch(/in 1 places?/);
    expect(await isIn(client)).toBe(false);
    expect(await administrator((on) => administrate(['remove', name], on))).toMatch(/removed/);
    expect(await list()).not.toContain(`${name}\t`);
    for (const words of [['what'], ['recover'], ['recover', 'nobody at all'], ['constructor', name]])
      await expect(administrator((on) => administrate(words, on))).rejects.toThrow(
        /Known are|whose account|no account/,
      );
  });
});
