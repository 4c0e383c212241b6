import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { ProjectScript, readMesh, seedSieve, type LogEntry, type Project } from '@helb/core';
import { readOutline } from '@helb/core/outlines';
import { BOMBS, SWARM } from '@helb/core/samples';
import { buildServer } from '@helb/scripts/build-server.ts';
import { startDatabase } from '@helb/scripts/private-database.ts';
import { startServerProcess, type ServerProcess } from '@helb/scripts/server-process.ts';
import { ApiClient } from '@helb/server/test/api-client.ts';
import { median, type Figure } from './measure.ts';

/** What requests that mean no good cost the others, and what a save costs: a server and a database of our own, on loopback. */
export async function doorsFigures(): Promise<Figure[]> {
  await buildServer();
  const folder = await mkdtemp(join(tmpdir(), 'helb-doors-'));
  const database = await startDatabase(folder);
  const server = await startServerProcess({ database, folder, log: 'silent' });
  try {
    return [files(), ...(await attacks(server)), ...(await saves(server))];
  } finally {
    await server.stop();
    await database.stop();
    await rm(folder, { recursive: true });
  }
}

const figure = (name: string, value: number, unit: string, aim: string, met: boolean): Figure => ({
  ...{ name: `doors: ${name}`, value, unit, floor: null, ratio: null, aim, met },
});

let people = 0;
async function entered(address: string): Promise<ApiClient> {
  const client = new ApiClient(address);
  await client.call('POST', '/account', { name: `bench ${++people}`, newPassword: 'long enough pw' });
  return client;
}
async function made(client: ApiClient, from: object): Promise<string> {
  return ((await client.call('POST', '/projects', from)).body as { id: string }).id;
}

/** The longest that a file takes to be refused, or read, which asks for much. */
function files(): Figure {
  const all = [...BOMBS, ...SWARM];
  const times = all.map(([, made]) => {
    const { name, bytes } = made();
    const start = performance.now();
    if (/\.(3mf|stl)$/.test(name)) readMesh(name, bytes);
    else readOutline(name, new TextDecoder().decode(bytes));
    return performance.now() - start;
  });
  const longest = Math.max(...times) / 1000;
  return figure(`${all.length} files that ask for much: the longest`, longest, 's', 'at most 2', longest <= 2);
}

/** How the server is, since it was asked last. */
interface Health {
  /** The longest time that nothing else had its turn, ms. */
  readonly hold_ms: number;
  readonly memory_MB: number;
  readonly processor_ms: number;
}
const healthOf = ({ process }: ServerProcess): Promise<Health> =>
  new Promise((resolve) => {
    process.once('message', (health: Health) => resolve(health));
    process.send('how are you');
  });

/** A project of nearly 8 MB: many sketches of many points. */
function large(): Project {
  const script = new ProjectScript('Large');
  for (let part = 0; part < 190; part++) {
    const entities = Object.fromEntries(
      Array.from({ length: 560 }, (_, k) => [
        `e${k}`,
        { kind: 'point', x: Math.sin(k) * 100, y: Math.cos(k * part) * 100 },
      ]),
    );
    script.do('part.add', { id: `p${part}`, name: `Part ${part}` }).do('step.add', {
      ...{ part: `p${part}`, id: 's' },
      step: { kind: 'sketch', name: 'S', plane: 'top', entities, relations: {} } as never,
    });
  }
  return script.project;
}

const naming = (id: string, name: string, more = ''): LogEntry => ({
  ...{ id, kind: 'do', label: 'Rename' },
  forward: [{ op: 'set', path: ['name'], value: name }],
  backward: [{ op: 'set', path: ['name'], value: `x${more}` }],
});

const change = (value: unknown) => ({
  base: 0,
  changes: [{ id: 'x', kind: 'do', label: 'x', forward: [{ op: 'set', path: ['name'], value }], backward: [] }],
});

async function attacks(server: ServerProcess): Promise<Figure[]> {
  const client = await entered(server.address);
  const id = await made(client, { demo: true });
  const big = await made(client, { document: large() });
  const save = `/projects/${id}/changes`;
  const keys = Object.fromEntries(Array.from({ length: 7e5 }, (_, k) => [`k${k}`, 0]));
  const attempts: readonly (readonly [string, string, unknown])[] = [
    ['POST', save, '['.repeat(4e6)],
    ['POST', save, `${'['.repeat(2e6)}${']'.repeat(2e6)}`],
    ['POST', save, { base: 0, changes: [], ...keys }],
    ['POST', save, { base: 0, changes: Array(1e6).fill(0) }],
    ['POST', save, change('x'.repeat(8.5e6))],
    ['POST', save, change(Array(5e4).fill({ a: 1 }))],
    ['POST', save, { base: 0, changes: Array.from({ length: 100 }, (_, k) => naming(`m${k}`, `M${k}`)) }],
    ['POST', '/projects', { document: { format: 'helb-project', schema: 1, ...keys } }],
    ['POST', '/projects', { document: large() }],
    ['POST', '/session', { name: 'x', password: 'y'.repeat(1e6) }],
    ['PUT', `/projects/${id}/look`, { findings: 0, picture: 'A'.repeat(8e6) }],
    ['GET', `/projects/${big}`, undefined],
    ['GET', `/projects/${big}/document`, undefined],
    [
      'POST',
      `/projects/${big}/changes`,
      { base: 0, changes: Array.from({ length: 20 }, (_, k) => naming(`n${k}`, `N${k}`)) },
    ],
  ];
  const texts = attempts.map(
    ([method, path, value]) => [method, path, typeof value === 'object' ? JSON.stringify(value) : value] as const,
  );
  const round = async (): Promise<number> => {
    let hold = 0;
    const asked = async (method: string, path: string, text?: unknown) => {
      await healthOf(server);
      const answer = await client.call(method, path, text);
      hold = Math.max(hold, (await healthOf(server)).hold_ms);
      return answer.body as { id?: string } | undefined;
    };
    for (const [method, path, text] of texts) {
      const made = await asked(method, path, text);
      // one of 8 MB that nobody has opened yet
      if (path === '/projects' && made?.id) await asked('GET', `/projects/${made.id}`);
    }
    return hold;
  };
  // until its memory is what it needs for these: the documents that were used last are kept
  for (let k = 0; k < 10; k++) await round();
  const before = (await healthOf(server)).memory_MB;
  const holds = [await round(), await round(), await round()];
  const after = (await healthOf(server)).memory_MB;
  // what else the machine does holds it up too: the same requests are sent three times
  const hold = median(holds);
  return [
    figure(
      `${attempts.length + 1} requests that mean no good: the longest hold of the event loop`,
      hold,
      'ms',
      'at most 50',
      hold <= 50,
    ),
    figure('memory after them, against before', after / before, 'times', 'flat within 10 %', after <= 1.1 * before),
  ];
}

async function saves(server: ServerProcess): Promise<Figure[]> {
  const costs: Figure[] = [];
  for (const [name, from, most] of [
    ['the demo', { demo: true }, 5],
    ['a project of 8 MB', { document: large() }, 50],
  ] as const) {
    const client = await entered(server.address);
    const id = await made(client, from);
    const save = (k: number) =>
      client.call('POST', `/projects/${id}/changes`, { base: k, changes: [naming(`s${k}`, `N${k}`)] });
    let k = 0;
    // until what is compiled for it is compiled
    for (; k < 400; k++) await save(k);
    await healthOf(server);
    for (; k < 500; k++) await save(k);
    const cost = (await healthOf(server)).processor_ms / 100;
    costs.push(figure(`processor of a save of ${name}`, cost, 'ms', `at most ${most}`, cost <= most));
  }
  const rates: number[] = [];
  for (const count of [10, 50, 200]) {
    const who = await entered(server.address);
    const ids = [];
    for (let k = 0; k < count; k++) ids.push(await made(who, { document: seedSieve() }));
    const revisions = ids.map(() => 0);
    // open they are when somebody has opened them
    for (const id of ids) await who.call('GET', `/projects/${id}`);
    const start = performance.now();
    const total = 400;
    for (let k = 0; k < total; k++) {
      const at = k % count;
      const base = revisions[at]!;
      revisions[at] = base + 1;
      const answer = await who.call('POST', `/projects/${ids[at]!}/changes`, {
        base,
        changes: [naming(`r${k}`, `N${k}`)],
      });
      if (answer.status !== 200) throw new Error(`a save is refused: ${answer.status}`);
    }
    rates.push((1000 * total) / (performance.now() - start));
  }
  const spread = Math.max(...rates) / Math.min(...rates);
  return [
    ...costs,
    figure('saves a second with 10 open projects', rates[0]!, '/s', '', true),
    figure(
      'saves a second with 10, 50 and 200 open projects, the most against the fewest',
      spread,
      'times',
      'at most 1.3',
      spread <= 1.3,
    ),
  ];
}
