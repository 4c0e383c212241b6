import { seedSieve } from '@helb/core';
import type { ApiClient } from '../../test/api-client.ts';
import { TestServers } from '../../test/test-server.ts';
import { nextName } from './shelf.ts';

let servers: TestServers;
let schema: string;
let address: string;

beforeAll(async () => {
  servers = await TestServers.begin();
  schema = await servers.schema();
  address = await servers.start(schema, { HELB_QUOTA_MB: '3' });
}, 60_000);
afterAll(() => servers?.end());

interface Card {
  readonly id: string;
  readonly name: string;
  readonly folder: string | null;
  readonly goesAt: string | null;
}
const cardsOf = async (client: ApiClient) => (await client.call('GET', '/projects')).body as Card[];
async function owner(from: object = { name: 'Press' }) {
  const client = await servers.person(address);
  const { id } = (await client.call('POST', '/projects', from)).body as { id: string };
  return { client, id, card: async () => (await cardsOf(client)).find((card) => card.id === id) };
}

test('a project is called otherwise without being opened: a change like any other, that can be undone', async () => {
  const { client, id, card } = await owner();
  expect((await client.call('PATCH', `/projects/${id}`, { name: '  Flower press ' })).status).toBe(204);
  expect(await card()).toMatchObject({ name: 'Flower press' });
  const { body } = await client.call('GET', `/projects/${id}`);
  expect(body).toMatchObject({ revision: 1, document: { name: 'Flower press' } });
  expect(body.log).toMatchObject([
    { label: 'Rename project to Flower press', backward: [{ op: 'set', path: ['name'], value: 'Press' }] },
  ]);
  // the same name again is no change
  await client.call('PATCH', `/projects/${id}`, { name: 'Flower press' });
  expect((await client.call('GET', `/projects/${id}`)).body.revision).toBe(1);
  for (const wrong of [{ name: '' }, { name: 'x'.repeat(61) }, { folder: 7 }, { findings: 3 }])
    expect((await client.call('PATCH', `/projects/${id}`, wrong)).status).toBe(422);
});

test('a picture of the whole is not given up for one of a part', async () => {
  const { client, id, card } = await owner();
  const shows = async () =>
    new Uint8Array(await (await client.fetch('GET', `/projects/${id}/picture`)).arrayBuffer()).at(-1);
  const seen = (last: number, whole?: boolean) =>
    client.call('PUT', `/projects/${id}/look`, {
      findings: last,
      picture: Buffer.from([0x89, 0x50, 0x4e, 0x47, last]).toString('base64'),
      ...(whole !== undefined && { whole }),
    });
  for (const [last, whole, shown] of [
    [1, undefined, 1],
    [2, false, 2],
    [3, true, 3],
    [4, false, 3],
    [5, true, 5],
  ] as const) {
    expect((await seen(last, whole)).status).toBe(204);
    expect(await shows()).toBe(shown);
    expect(await card()).toMatchObject({ findings: last });
  }
});

test('two who rename at once both come through, one after the other', async () => {
  const { client, id, card } = await owner();
  const names = ['A', 'B', 'C'];
  const answers = await Promise.all(names.map((name) => client.call('PATCH', `/projects/${id}`, { name })));
  expect(answers.map(({ status }) => status)).toEqual([204, 204, 204]);
  expect(names).toContain((await card())?.name);
  expect((await client.call('GET', `/projects/${id}`)).body.revision).toBe(3);
});

test('it is put into a folder and out of it; that is no change of it', async () => {
  const { client, id, card } = await owner();
  await client.call('PATCH', `/projects/${id}`, { folder: 'Press' });
  expect(await card()).toMatchObject({ folder: 'Press', name: 'Press' });
  await client.call('PATCH', `/projects/${id}`, { folder: null });
  expect(await card()).toMatchObject({ folder: null });
  expect((await client.call('GET', `/projects/${id}`)).body.revision).toBe(0);
});

test('a copy has all that the project has now, its files too, and goes its own way', async () => {
  const { client, id } = await owner({ demo: true });
  const bytes = Uint8Array.from({ length: 2000 }, (_, k) => (k * 37) % 251);
  const { hash } = (await client.call('POST', `/projects/${id}/files`, bytes)).body as { hash: string };
  await client.call('PATCH', `/projects/${id}`, { folder: 'Sieves' });
  const copy = (await client.call('POST', `/projects/${id}/copies`)).body as { id: string };
  expect((await cardsOf(client)).find((card) => card.id === copy.id)).toMatchObject({
    ...{ name: `${seedSieve().name}, copy`, folder: 'Sieves' },
  });
  const opened = (await client.call('GET', `/projects/${copy.id}`)).body;
  expect(opened).toMatchObject({ revision: 0, log: [] });
  expect(opened.document).toEqual({ ...seedSieve(), name: `${seedSieve().name}, copy` });
  // the first one goes for good: the file stays with the copy
  await client.call('DELETE', `/projects/${id}`);
  expect((await client.call('GET', `/files/${hash}`)).status).toBe(200);
});

test('a copy that does not fit leaves nothing behind', async () => {
  const { client, id } = await owner();
  // noise, which does not pack: the second time it is too much
  const bytes = new Uint8Array(1_800_000);
  for (let k = 0, x = 1; k < bytes.length; k++) bytes[k] = (x = (x * 48271) % 2147483647) >> 8;
  expect((await client.call('POST', `/projects/${id}/files`, bytes)).status).toBe(201);
  const refused = await client.call('POST', `/projects/${id}/copies`);
  expect(refused).toMatchObject({
    status: 409,
    body: { message: expect.stringMatching(/MB are allowed/) as string },
  });
  expect(await cardsOf(client)).toHaveLength(1);
});

test('what is thrown away is not opened nor changed, and comes back as it was', async () => {
  const { client, id, card } = await owner();
  expect((await client.call('PUT', `/projects/${id}/thrown`)).status).toBe(204);
  const days = (Date.parse((await card())!.goesAt!) - Date.now()) / 86_400_000;
  expect(days).toBeGreaterThan(29.9);
  expect(days).toBeLessThanOrEqual(30);
  const change = {
    ...{ id: 'c1', kind: 'do', label: 'x', backward: [] },
    forward: [{ op: 'set', path: ['name'], value: 'Y' }],
  };
  for (const refused of [
    client.call('GET', `/projects/${id}`),
    client.call('POST', `/projects/${id}/changes`, { base: 0, changes: [change] }),
    client.call('PATCH', `/projects/${id}`, { name: 'Y' }),
  ])
    expect(await refused).toMatchObject({
      status: 410,
      body: { message: '"Press" was thrown away. Take it back from the shelf to go on with it.' },
    });
  expect((await client.call('DELETE', `/projects/${id}/thrown`)).status).toBe(204);
  expect(await card()).toMatchObject({ name: 'Press', goesAt: null });
  expect((await client.call('GET', `/projects/${id}`)).body).toMatchObject({
    revision: 0,
    document: { name: 'Press' },
  });
});

test('after 30 days it goes, and only it', async () => {
  const { client, id } = await owner();
  const { id: other } = (await client.call('POST', '/projects', { name: 'Young' })).body as { id: string };
  for (const each of [id, other]) await client.call('PUT', `/projects/${each}/thrown`);
  const age = 'UPDATE projects SET thrown_at = NOW() - INTERVAL :days DAY WHERE id = :id';
  await servers.statement(age, { id, days: 31 }, schema);
  await servers.statement(age, { id: other, days: 29 }, schema);
  // each server looks when it starts, and again from time to time
  await servers.start(schema);
  expect((await cardsOf(client)).map((card) => card.id)).toEqual([other]);
});

test('nobody does anything with projects of others', async () => {
  const { id, card } = await owner();
  const stranger = await servers.person(address);
  for (const [method, path, body] of [
    ['PATCH', `/projects/${id}`, { name: 'Mine' }],
    ['PATCH', `/projects/${id}`, { folder: 'Mine' }],
    ['POST', `/projects/${id}/copies`],
    ['PUT', `/projects/${id}/thrown`],
    ['DELETE', `/projects/${id}/thrown`],
    ['DELETE', `/projects/${id}`],
  ] as const)
    expect((await stranger.call(method, path, body)).status).toBe(404);
  expect(await card()).toMatchObject({ name: 'Press', folder: null, goesAt: null });
});

test('copies are numbered, and their names stay as short as names are', () => {
  expect(nextName('Press', [])).toBe('Press, copy');
  expect(nextName('Press, copy', ['Press, copy'])).toBe('Press, copy 2');
  expect(nextName('Press', ['Press, copy', 'Press, copy 2'])).toBe('Press, copy 3');
  expect(nextName('x'.repeat(60), [])).toBe(`${'x'.repeat(54)}, copy`);
});
