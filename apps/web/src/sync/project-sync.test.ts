import { perform, type Project } from '@helb/core';
import { ProjectSync } from './project-sync.ts';
import { adding, FakeServer, renaming, world } from './test-world.ts';

test('a change is shown at once, called kept only when the server said so', async () => {
  const server = new FakeServer();
  const { made, pass, drafts } = world(server);
  const sync = await ProjectSync.open('p', made);
  sync.act(renaming('A'));
  expect(sync.snapshot).toMatchObject({ project: { name: 'A' }, state: { kind: 'keeping' } });
  expect(drafts.get('p')).toHaveLength(1);
  await pass(1000);
  expect(sync.snapshot.state.kind).toBe('kept');
  expect(server.document.name).toBe('A');
  expect(drafts.get('p')).toHaveLength(0);
});

test('cut off: work goes on, is kept here, and is sent in order when the server is back', async () => {
  const server = new FakeServer();
  const { made, pass, drafts } = world(server);
  const sync = await ProjectSync.open('p', made);
  server.trouble = 'offline';
  for (const name of ['A', 'B', 'C']) {
    sync.act(renaming(name));
    await pass(500);
  }
  expect(sync.snapshot).toMatchObject({ project: { name: 'C' }, state: { kind: 'offline' } });
  expect(drafts.get('p')).toHaveLength(3);
  server.trouble = 'none';
  await pass(10_000);
  expect(sync.snapshot.state.kind).toBe('kept');
  expect(server.log.map((entry) => entry.label)).toEqual(['A', 'B', 'C'].map((name) => `Rename project to ${name}`));
});

test('where this computer can keep nothing either, the work is not called safe', async () => {
  const server = new FakeServer();
  const { made, pass } = world(server);
  const sync = await ProjectSync.open('p', {
    ...made,
    drafts: { ...made.drafts, keep: () => Promise.reject(new Error('full')) },
  });
  server.trouble = 'offline';
  sync.act(renaming('A'));
  await pass(1000);
  expect(sync.snapshot.state).toEqual({ kind: 'offline', safe: false, why: 'cut off' });
  server.trouble = 'none';
  await pass(10_000);
  expect(sync.snapshot.state.kind).toBe('kept');
});

test('a page that was closed while cut off: the next visit finds and sends its work', async () => {
  const server = new FakeServer();
  const first = world(server);
  const sync = await ProjectSync.open('p', first.made);
  server.trouble = 'offline';
  sync.act(adding('lid'));
  sync.close();
  server.trouble = 'none';
  const second = world(server, first.drafts);
  const again = await ProjectSync.open('p', second.made);
  expect(again.snapshot.project.parts['lid']).toBeDefined();
  await second.pass(1000);
  expect(server.document.parts['lid']).toBeDefined();
  expect(again.undo().ok).toBe(true);
});

test('an undo that was not sent is still an undo on the next visit', async () => {
  const server = new FakeServer();
  const first = world(server);
  const sync = await ProjectSync.open('p', first.made);
  sync.act(renaming('A'));
  await first.pass(1000);
  server.trouble = 'offline';
  sync.undo();
  sync.close();
  server.trouble = 'none';
  const again = await ProjectSync.open('p', world(server, first.drafts).made);
  expect(again.snapshot.project.name).toBe('Seed sieve');
  expect(again.undo().ok).toBe(false);
  expect(again.redo().ok).toBe(true);
  expect(again.snapshot.project.name).toBe('A');
});

test('an answer that is lost after saving does not save twice', async () => {
  const server = new FakeServer();
  const { made, pass } = world(server);
  const sync = await ProjectSync.open('p', made);
  server.trouble = 'answer-lost';
  sync.act(adding('lid'));
  await pass(500);
  server.trouble = 'none';
  await pass(10_000);
  expect(server.log).toHaveLength(1);
  expect(sync.snapshot.state.kind).toBe('kept');
});

test('two windows: both changes stand, in the order in which the server got them', async () => {
  const server = new FakeServer();
  const [a, b] = [world(server), world(server)];
  const [one, two] = [await ProjectSync.open('p', a.made), await ProjectSync.open('p', b.made)];
  one.act(adding('lid'));
  two.act(renaming('Two'));
  await a.pass(1000);
  await b.pass(1000);
  expect(two.snapshot.project).toMatchObject({ name: 'Two', parts: { lid: { name: 'lid' } } });
  expect(server.document).toEqual(two.snapshot.project);
});

test('two windows that each add a part keep both', async () => {
  const server = new FakeServer();
  const [a, b] = [world(server), world(server)];
  const [one, two] = [await ProjectSync.open('p', a.made), await ProjectSync.open('p', b.made)];
  one.act(adding('lid'));
  two.act(adding('base'));
  await a.pass(1000);
  await b.pass(1000);
  expect(two.snapshot.lost).toBeUndefined();
  expect(server.document.partOrder.slice(-2).toSorted()).toEqual(['base', 'lid']);
  expect(two.snapshot.project).toEqual(server.document);
});

test.each([
  ['the refusal tells what came since: nothing is asked', true, Infinity, 0],
  ['it tells the first of it: the rest is asked', true, 1, 1],
  ['it tells nothing: all is asked', false, Infinity, 1],
])('another window was first, %s', async (_, telling, page, asked) => {
  const server = Object.assign(new FakeServer(), { telling, page });
  const [a, b] = [world(server), world(server)];
  const [one, two] = [await ProjectSync.open('p', a.made), await ProjectSync.open('p', b.made)];
  for (const name of ['lid', 'base', 'foot']) one.act(adding(name));
  two.act(adding('own'));
  await a.pass(1000);
  const before = server.asked;
  await b.pass(1000);
  expect(server.asked - before).toBe(asked);
  expect(server.document.partOrder.slice(-4).toSorted()).toEqual(['base', 'foot', 'lid', 'own']);
  expect(two.snapshot.project).toEqual(server.document);
});

test('a change of what another window has removed is left out and told', async () => {
  const server = new FakeServer();
  const [a, b] = [world(server), world(server)];
  const seed = await ProjectSync.open('p', a.made);
  seed.act(adding('lid'));
  await a.pass(1000);
  const two = await ProjectSync.open('p', b.made);
  seed.act([{ command: 'part.remove', input: { id: 'lid' } }]);
  await a.pass(1000);
  two.act([{ command: 'part.rename', input: { id: 'lid', name: 'Cover' } }]);
  await b.pass(1000);
  expect(two.snapshot.lost).toMatch(/Rename part to Cover.*not there any more/);
  expect(two.snapshot.project).toEqual(server.document);
});

test('signed out: nothing is lost, and it goes on after entering again', async () => {
  const server = new FakeServer();
  const { made, pass } = world(server);
  const sync = await ProjectSync.open('p', made);
  server.trouble = 'signed-out';
  sync.act(renaming('A'));
  await pass(1000);
  expect(sync.snapshot.state.kind).toBe('signed-out');
  server.trouble = 'none';
  sync.hurry();
  await pass(1000);
  expect(server.document.name).toBe('A');
});

test('a refusal that is not about the changes loses none of them', async () => {
  const server = new FakeServer();
  const { made, pass } = world(server);
  const sync = await ProjectSync.open('p', made);
  server.trouble = 'busy';
  sync.act(renaming('A'));
  sync.act(adding('lid'));
  await pass(3000);
  expect(sync.snapshot).toMatchObject({
    state: { kind: 'offline', safe: true },
    lost: expect.stringContaining('Too many'),
  });
  server.trouble = 'none';
  await pass(20_000);
  expect(server.document).toMatchObject({ name: 'A', parts: { lid: {} } });
});

test('of several changes only the one that is refused is left out, though the server does not say which', async () => {
  const server = new FakeServer();
  const { made, pass } = world(server);
  const sync = await ProjectSync.open('p', made);
  server.refused = 'bad';
  for (const id of ['one', 'bad', 'two']) sync.act(adding(id));
  await pass(20_000);
  expect(server.document.partOrder.slice(-2)).toEqual(['one', 'two']);
  expect(sync.snapshot).toMatchObject({ state: { kind: 'kept' }, lost: expect.stringContaining('Add part bad') });
  expect(sync.snapshot.project).toEqual(server.document);
});

test('undo and redo are saved like everything else and survive a reload', async () => {
  const server = new FakeServer();
  const first = world(server);
  const sync = await ProjectSync.open('p', first.made);
  sync.act(renaming('A'));
  sync.act(renaming('B'));
  sync.undo();
  await first.pass(1000);
  const again = await ProjectSync.open('p', world(server).made);
  expect(again.snapshot.project.name).toBe('A');
  expect(again.redo().ok).toBe(true);
  expect(again.snapshot.project.name).toBe('B');
  again.undo();
  again.undo();
  expect(again.snapshot.project.name).toBe('Seed sieve');
  expect(again.undo().ok).toBe(false);
});

test('what is not possible is refused, and nothing is sent', async () => {
  const server = new FakeServer();
  const { made, pass } = world(server);
  const sync = await ProjectSync.open('p', made);
  const result = sync.act([{ command: 'part.rename', input: { id: 'nobody', name: 'x' } }]);
  expect(!result.ok && result.issue.code).toBe('part.unknown');
  await pass(1000);
  expect(server.log).toEqual([]);
});

test('windows that work at random all come to the same document', async () => {
  const server = new FakeServer();
  const worlds = [world(server), world(server), world(server)];
  const windows = await Promise.all(worlds.map(({ made }) => ProjectSync.open('p', made)));
  const possible = (project: Project, id: string) => perform(project, adding(id)).ok;
  for (let k = 0; k < 40; k++) {
    const sync = windows[(k * 7) % 3]!;
    const id = `n${k % 5}`;
    if (k % 4 === 3) sync.undo();
    else
      sync.act(
        possible(sync.snapshot.project, id)
          ? adding(id)
          : [{ command: 'part.rename', input: { id, name: `name ${k}` } }],
      );
    server.trouble = k % 6 === 2 ? 'offline' : k % 6 === 4 ? 'answer-lost' : 'none';
    await worlds[(k * 5) % 3]!.pass(700);
  }
  server.trouble = 'none';
  for (let round = 0; round < 6; round++) for (const { pass } of worlds) await pass(20_000);
  for (const [k, sync] of windows.entries()) {
    sync.act(renaming(`end ${k}`));
    for (let round = 0; round < 4; round++) await worlds[k]!.pass(20_000);
    expect(sync.snapshot.project).toEqual(server.document);
  }
});
