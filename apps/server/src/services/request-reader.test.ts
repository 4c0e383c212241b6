import { ENTRY, RequestReader } from './request-reader.ts';

const account = new TextEncoder().encode(JSON.stringify({ name: 'ada', newPassword: 'a rather long and odd one' }));
let reader: RequestReader;
afterEach(() => reader.close());

test('a thread that is long in beginning refuses nobody: reading is timed from when it has begun', async () => {
  reader = new RequestReader({ read: 2, begin: 60 }, `setTimeout(() => { ${ENTRY} }, 2500);`);
  const read = await Promise.all([reader.read('newAccount', account), reader.read('newAccount', account)]);
  expect(read.map(({ name }) => name)).toEqual(['ada', 'ada']);
  // what is wrong is told as ever
  await expect(reader.read('newAccount', new TextEncoder().encode('{}'))).rejects.toMatchObject({
    issues: [{ path: ['name'] }],
  });
});

test('one that does not begin is given up, and whoever waits may try again', async () => {
  reader = new RequestReader({ read: 60, begin: 0.2 }, 'setInterval(() => undefined, 1000);');
  await expect(reader.read('newAccount', account)).rejects.toMatchObject({ status: 503 });
});

test('one that has begun and does not end is given up, and the request refused', async () => {
  const hung = `require('node:worker_threads').parentPort.postMessage('ready'); setInterval(() => undefined, 1000);`;
  reader = new RequestReader({ read: 0.2, begin: 60 }, hung);
  await expect(reader.read('newAccount', account)).rejects.toMatchObject({ status: 422 });
});
