import { mkdir, mkdtemp, rm, writeFile } from 'node:fs/promises';
import { request } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Secret, TOTP } from 'otpauth';
import { ApiClient } from '../../test/api-client.ts';
import { TestServers } from '../../test/test-server.ts';
import { readConfig } from '../config.ts';

// What every answer says of itself, and what a server does not start with.

let servers: TestServers;
let web: string;
let address: string;

beforeAll(async () => {
  web = await mkdtemp(join(tmpdir(), 'helb-web-'));
  await mkdir(join(web, 'assets'));
  await writeFile(join(web, 'index.html'), '<!doctype html><title>Helb</title>');
  await writeFile(join(web, 'assets', 'a-123.js'), '');
  await writeFile(join(web, '.secret'), 'nobody');
  servers = await TestServers.begin();
  address = await servers.start(await servers.schema(), { HELB_WEB: web });
}, 60_000);
afterAll(async () => {
  await servers?.end();
  await rm(web, { recursive: true });
});

const page = (path: string) => fetch(address + path, { redirect: 'manual' });
/** A path as it is sent, not made sensible before. */
const raw = (method: string, path: string) =>
  new Promise<{ status: number; text: string }>((resolve, reject) => {
    const { hostname, port } = new URL(address);
    request({ hostname, port, method, path }, (answer) => {
      let text = '';
      answer.on('data', (piece: Buffer) => (text += piece.toString()));
      answer.on('end', () => resolve({ status: answer.statusCode!, text }));
    })
      .on('error', reject)
      .end();
  });

test.each(['/', '/project/abc', '/api/health', '/assets/a-123.js'])('%s is answered with its guards', async (path) => {
  const { headers } = await page(path);
  const policy = headers.get('content-security-policy')!;
  for (const rule of [
    "default-src 'self'",
    "script-src 'self' 'wasm-unsafe-eval'",
    "frame-ancestors 'none'",
    "object-src 'none'",
  ])
    expect(policy).toContain(rule);
  expect(policy).not.toMatch(/script-src[^;]*unsafe-inline|script-src[^;]*'unsafe-eval'/);
  expect(headers.get('x-content-type-options')).toBe('nosniff');
  expect(headers.get('referrer-policy')).toBe('no-referrer');
  expect(headers.get('access-control-allow-origin')).toBeNull();
  expect(headers.get('x-powered-by')).toBeNull();
});

test.each(['/assets/', '/assets/../.secret', '/.secret', '/..%2f..%2fetc/passwd', '/assets/%2e%2e/%2e%2e/etc/passwd'])(
  '%s gives nothing away',
  async (path) => {
    const { text } = await raw('GET', path);
    expect(text).not.toMatch(/nobody|root:|a-123/);
  },
);

test.each(['TRACE', 'PATCH', 'OPTIONS'])('%s changes nothing and echoes nothing', async (method) => {
  const { status, text } = await raw(method, '/api/session');
  if (method !== 'OPTIONS') expect(status).toBeGreaterThanOrEqual(405);
  expect(text).not.toContain('host');
});

test('of one account never more projects are made than are allowed, however many are asked for at once', async () => {
  const client = await servers.person(address);
  const one = (await client.call('POST', '/projects', { name: 'One' })).body as { id: string };
  await servers.statement(
    `INSERT INTO projects (id, account_id, name, revision, created_at, changed_at)
      SELECT CONCAT('x', LPAD(seq, 11, '0')), account_id, 'Many', 0, created_at, changed_at
      FROM projects JOIN seq_1_to_497 WHERE id = :id`,
    one,
  );
  const answers = await Promise.all([1, 2, 3, 4, 5].map(() => client.call('POST', '/projects', { name: 'More' })));
  expect(answers.filter(({ status }) => status === 201)).toHaveLength(2);
  expect(answers.filter(({ status }) => status === 409)).toHaveLength(3);
});

test('where everybody needs codes nothing else is to be had before they are set', async () => {
  const strict = await servers.start(await servers.schema(), { HELB_CODES: 'needed', HELB_SECRET: 'x'.repeat(40) });
  const client = await servers.person(strict);
  expect(await client.call('GET', '/projects')).toMatchObject({
    status: 403,
    body: { message: expect.stringContaining('Set them in your account') as string },
  });
  expect((await client.call('POST', '/projects', { demo: true })).status).toBe(403);
  const { name } = (await client.call('GET', '/account')).body as { name: string };
  const { secret } = (await client.call('POST', '/account/second-factor/new')).body as { secret: string };
  const code = new TOTP({ secret: Secret.fromBase32(secret), digits: 6, period: 30 }).generate();
  const set = { name, password: 'long enough pw', secret, code };
  expect((await client.call('PUT', '/account/second-factor', set)).status).toBe(204);
  expect((await client.call('GET', '/projects')).status).toBe(200);
});

test('it does not start without what its settings need', async () => {
  const env = { HELB_DB_PORT: '1', HELB_DB_PASSWORD: 'x' };
  expect(() => readConfig({ ...env, HELB_CODES: 'needed' })).toThrow(/HELB_SECRET/);
  expect(() => readConfig({ ...env, HELB_SECRET: 'short' })).toThrow(/HELB_SECRET/);
  expect(() => readConfig({ ...env, HELB_IDLE_HOURS: '0' })).toThrow(/HELB_IDLE_HOURS/);
  // this database speaks no TLS: it is not spoken to in the clear instead
  await expect(servers.start(await servers.schema(), { HELB_DB_TLS: 'yes' })).rejects.toThrow(/SSL|TLS|secure/i);
});

test('one field twice: the last one counts, and is checked', async () => {
  const client = new ApiClient(address);
  const twice = '{"name":"fine name","name":"?","newPassword":"long enough pw"}';
  expect(await client.call('POST', '/account', twice)).toMatchObject({ status: 422, body: { path: 'name' } });
});
