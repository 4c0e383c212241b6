import type { LogEntry } from '@helb/core';
import { clashWords } from './clashes.ts';
import { draftsOf, type Store } from './unsent-changes.ts';
import { ProjectSync } from './project-sync.ts';
import { adding, FakeServer, renaming, world } from './test-world.ts';

// Several windows with one project: nothing that is done in one of them is lost by another.

/** The browser's store in memory; it can refuse to be read. */
function store(): Store & { readonly kept: Map<string, unknown>; isBroken: boolean } {
  const kept = new Map<string, unknown>();
  const made = {
    kept,
    isBroken: false,
    keys: () => (made.isBroken ? Promise.reject(new Error('the disk is gone')) : Promise.resolve([...kept.keys()])),
    getMany: (keys: readonly string[]) => Promise.resolve(keys.map((key) => kept.get(key))),
    set: (key: string, value: unknown) => Promise.resolve(void kept.set(key, structuredClone(value))),
    delMany: (keys: readonly string[]) => Promise.resolve(keys.forEach((key) => kept.delete(key))),
  };
  return made;
}
const entry = (id: string): LogEntry => ({ id, kind: 'do', label: id, forward: [], backward: [] });
const ids = (entries: readonly LogEntry[]) => entries.map(({ id }) => id);
const noneOpen = () => false;

describe('drafts', () => {
  test('are kept by account, project and window, and found again after a reload', async () => {
    const local = store();
    const drafts = (account: string, window: string) => draftsOf(account, window, (other) => other !== window, local);
    await drafts('ada', 'w1').keep('p', [entry('a')]);
    await drafts('ada', 'w2').keep('p', [entry('b')]);
    await drafts('ada', 'w1').keep('q', [entry('c')]);
    await drafts('bo', 'w1').keep('p', [entry('d')]);
    expect(ids(await drafts('ada', 'w1').load('p'))).toEqual(['a']);
    expect(ids(await drafts('ada', 'w2').load('p'))).toEqual(['b']);
    expect(ids(await drafts('bo', 'w1').load('p'))).toEqual(['d']);
  });

  test('of closed windows are joined, and are theirs until they are kept here', async () => {
    const local = store();
    await draftsOf('ada', 'w1', noneOpen, local).keep('p', [entry('a')]);
    await draftsOf('ada', 'w2', noneOpen, local).keep('p', [entry('b')]);
    const third = draftsOf('ada', 'w3', (window) => window === 'w2', local);
    expect(ids(await third.load('p'))).toEqual(['a']);
    // a window that is closed again before it has kept anything takes nothing with it
    expect(ids(await draftsOf('ada', 'w4', noneOpen, local).load('p')).toSorted()).toEqual(['a', 'b']);
    await third.keep('p', [entry('a'), entry('c')]);
    expect([...local.kept.keys()].toSorted()).toEqual(['helb-unsent/ada/p/w2', 'helb-unsent/ada/p/w3']);
    await third.keep('p', []);
    expect([...local.kept.keys()]).toEqual(['helb-unsent/ada/p/w2']);
  });

  test('a store that can not be read is told, and nothing in it is written over', async () => {
    const local = store();
    await draftsOf('ada', 'w1', noneOpen, local).keep('p', [entry('a')]);
    local.isBroken = true;
    const server = new FakeServer();
    const { made, pass } = world(server, undefined, { drafts: draftsOf('ada', 'w1', noneOpen, local) });
    const sync = await ProjectSync.open('p', made);
    expect(sync.snapshot.lost).toMatch(/could not be read, and was left as it is \(the disk is gone\)/);
    server.trouble = 'offline';
    sync.act(renaming('A'));
    await pass(1000);
    local.isBroken = false;
    const found = await draftsOf('ada', 'w5', noneOpen, local).load('p');
    expect(found.map(({ label }) => label).toSorted()).toEqual(['Rename project to A', 'a']);
  });

  test('two windows work cut off and are closed: the next one has the work of both', async () => {
    const server = new FakeServer();
    const local = store();
    const window = (name: string, isOpen: (other: string) => boolean) =>
      world(server, undefined, { window: name, drafts: draftsOf('ada', name, isOpen, local) });
    const [a, b] = [window('w1', (other) => other === 'w2'), window('w2', (other) => other === 'w1')];
    const [one, two] = [await ProjectSync.open('p', a.made), await ProjectSync.open('p', b.made)];
    server.trouble = 'offline';
    one.act(adding('lid'));
    two.act(adding('base'));
    await a.pass(1000);
    await b.pass(1000);
    expect([one, two].map(({ snapshot }) => snapshot.state)).toEqual(
      Array(2).fill({ kind: 'offline', safe: true, why: 'cut off' }),
    );
    one.close();
    two.close();
    server.trouble = 'none';
    const c = window('w3', noneOpen);
    const third = await ProjectSync.open('p', c.made);
    expect(third.snapshot.project.partOrder.slice(-2).toSorted()).toEqual(['base', 'lid']);
    await c.pass(1000);
    expect(server.document.partOrder.slice(-2).toSorted()).toEqual(['base', 'lid']);
    expect([...local.kept.keys()]).toEqual([]);
    // what it has joined is its own to undo
    expect(third.undo().ok).toBe(true);
  });
});

describe('a field that is set in two windows', () => {
  test('at once: both are told, the one that came later stands, and the other can be taken', async () => {
    const server = new FakeServer();
    const [a, b] = [world(server), world(server)];
    const [one, two] = [await ProjectSync.open('p', a.made), await ProjectSync.open('p', b.made)];
    one.act(renaming('A'));
    two.act(renaming('B'));
    await a.pass(1000);
    await b.pass(1000);
    expect(server.document.name).toBe('B');
    const [clash] = two.snapshot.clashes;
    expect(clashWords(clash!)).toEqual({
      told: 'The name of the project was set in two windows: B here, A in another window. Yours stands.',
      take: 'take A',
    });
    await a.pass(10_000);
    expect(one.snapshot.project.name).toBe('B');
    expect(one.snapshot.clashes.map((each) => clashWords(each).told)).toEqual([
      'The name of the project was set in two windows: A here, B in another window. Theirs stands.',
    ]);
    expect(one.settle(one.snapshot.clashes[0]!, 'take').ok).toBe(true);
    await a.pass(1000);
    expect([server.document.name, one.snapshot.clashes]).toEqual(['A', []]);
    expect(one.undo().ok).toBe(true);
    expect(one.snapshot.project.name).toBe('B');
  });

  test('to the same value, or lists that are merged: nothing is to be told', async () => {
    const server = new FakeServer();
    const [a, b] = [world(server), world(server)];
    const [one, two] = [await ProjectSync.open('p', a.made), await ProjectSync.open('p', b.made)];
    one.act(renaming('A'));
    one.act(adding('lid'));
    two.act(renaming('A'));
    two.act(adding('base'));
    await a.pass(1000);
    await b.pass(1000);
    await a.pass(10_000);
    expect([one.snapshot.clashes, two.snapshot.clashes]).toEqual([[], []]);
    expect(one.snapshot.project).toEqual(two.snapshot.project);
  });
});

test('an idle window has what another did within seconds; one that nobody sees does not ask', async () => {
  const server = new FakeServer();
  let isSeen = true;
  const [a, b] = [world(server), world(server, undefined, { isSeen: () => isSeen })];
  const [one, two] = [await ProjectSync.open('p', a.made), await ProjectSync.open('p', b.made)];
  one.act(renaming('A'));
  await a.pass(1000);
  await b.pass(5000);
  expect(two.snapshot).toMatchObject({ project: { name: 'A' }, state: { kind: 'kept' }, clashes: [] });
  isSeen = false;
  one.act(renaming('B'));
  await a.pass(1000);
  await b.pass(20_000);
  expect(two.snapshot.project.name).toBe('A');
  await two.look();
  expect(two.snapshot.project.name).toBe('B');
});

describe('undo', () => {
  test("takes back a window's own steps", async () => {
    const server = new FakeServer();
    const [a, b] = [world(server), world(server)];
    const [one, two] = [await ProjectSync.open('p', a.made), await ProjectSync.open('p', b.made)];
    one.act(adding('lid'));
    await a.pass(1000);
    await b.pass(5000);
    two.act(adding('base'));
    await b.pass(1000);
    await a.pass(5000);
    expect(one.undo().ok).toBe(true);
    await a.pass(1000);
    expect(server.document.partOrder.at(-1)).toBe('base');
    expect(one.undo().ok).toBe(false);
  });

  test('after a reload too; what was there before a window is history, but for that of windows beside it', async () => {
    const server = new FakeServer();
    const a = world(server, undefined, { window: 'w1' });
    const one = await ProjectSync.open('p', a.made);
    one.act(adding('lid'));
    await a.pass(1000);
    const beside = { window: 'w2', others: new Set(['w1']), firstOpened: () => 1 };
    const b = world(server, undefined, beside);
    const two = await ProjectSync.open('p', b.made);
    expect(two.undo().ok).toBe(false);
    two.act(adding('base'));
    await b.pass(1000);
    one.act(adding('rim'));
    await a.pass(5000);
    two.close();
    // loaded again, it knows at which revision it was opened first
    const again = await ProjectSync.open('p', world(server, undefined, beside).made);
    expect(again.undo().ok).toBe(true);
    expect(again.snapshot.project.partOrder.slice(-2)).toEqual(['lid', 'rim']);
    expect(again.undo().ok).toBe(false);
    const later = await ProjectSync.open('p', world(server).made);
    for (let k = 0; k < 3; k++) expect(later.undo().ok).toBe(true);
    expect(later.undo().ok).toBe(false);
  });

  test('goes back further than the log that is sent at once', async () => {
    const server = new FakeServer();
    const a = world(server);
    const one = await ProjectSync.open('p', a.made);
    for (let k = 0; k < 30; k++) one.act(renaming(`n${k}`));
    await a.pass(1000);
    const page = (before: number) => {
      const from = Math.max(0, before - 8);
      return { log: server.log.slice(from, before), ...(from > 0 && { older: from }) };
    };
    const b = world(server);
    const { open } = b.made.api;
    const api = {
      ...b.made.api,
      open: async (id: string) => ({ ...(await open(id)), ...page(server.log.length) }),
      log: (_: string, before: number) => Promise.resolve(page(before)),
    };
    const two = await ProjectSync.open('p', { ...b.made, api });
    for (let k = 29; k > 0; k--) {
      await b.pass(1);
      expect(two.undo().ok).toBe(true);
      expect(two.snapshot.project.name).toBe(`n${k - 1}`);
    }
  });
});

test('a project that is removed in another window is told once', async () => {
  const server = new FakeServer();
  const { made, pass } = world(server);
  const { ApiError } = await import('./api.ts');
  const since = () => Promise.reject(new ApiError(404, 'There is no such project.', {}));
  const sync = await ProjectSync.open('p', { ...made, api: { ...made.api, since } });
  await pass(5000);
  expect(sync.snapshot.lost).toMatch(/was removed in another window/);
});
