import { jest } from '@jest/globals';
import { emptyProject } from '@helb/core';
import { CrashError, EndlessSteps, EngineClient, type Starter } from './engine-client.ts';
import type { BuildReply, EngineWorker, AssemblyReply } from './protocol.ts';

/** Workers whose builds are finished, or which crash, by hand. */
function fakes() {
  const started: {
    finish: (took: number, memory?: number) => void;
    together: (took: number) => void;
    crash: (reason: string) => void;
    builds: number;
    ended: boolean;
    told?: (digest?: string) => void;
    endless?: readonly string[];
  }[] = [];
  const starter: Starter = {
    start(crash) {
      const open: ((reply: BuildReply) => void)[] = [];
      const wholes: ((reply: AssemblyReply) => void)[] = [];
      const fake = {
        builds: 0,
        ended: false,
        crash,
        together: (took: number) => wholes.shift()!({ kind: 'assembly', took, memory: 0 } as AssemblyReply),
        finish: (took: number, memory = 0) => open.shift()!({ kind: 'built', took, memory } as BuildReply),
      };
      started.push(fake);
      const api: EngineWorker = {
        ready: () => Promise.resolve(),
        watch: (told, endless) => {
          Object.assign(fake, { told, endless });
          return Promise.resolve();
        },
        build: () => new Promise((resolve) => (fake.builds++, open.push(resolve))),
        file: () => Promise.resolve({ kind: 'file', bytes: new Uint8Array(3) }),
        crossings: () => Promise.resolve({}),
        outline: () => Promise.resolve({ kind: 'file', bytes: new Uint8Array(2) }),
        sheet: () => new Promise(() => undefined),
        cut: () => Promise.resolve({ kind: 'file', bytes: new Uint8Array(4) }),
        checks: () => new Promise(() => undefined),
        fittingMarks: () => Promise.resolve([]),
        sheetFile: () => Promise.resolve({ kind: 'file', bytes: new Uint8Array(1) }),
        zip: () => Promise.resolve(new Uint8Array(0)),
        weigh: () => Promise.resolve({ mass_g: 0, unknown: 0, failed: 0, sizes: {} }),
        walls: () => Promise.resolve([]),
        billOfMaterials: () => Promise.resolve([]),
        assemble: () => new Promise((resolve) => wholes.push(resolve)),
        touching: () => Promise.resolve([]),
        extents: () => Promise.resolve(undefined),
        troubles: () => Promise.resolve([]),
        interference: () => Promise.resolve({ kind: 'stopped' }),
        stop: () => Promise.resolve(),
        gap: () => Promise.resolve({ kind: 'gap', gap: { distance_mm: 1, from: [0, 0, 0], to: [1, 0, 0] } }),
      };
      return { api, end: () => (fake.ended = true) };
    },
  };
  return { starter, started };
}

const project = emptyProject('x');
const request = { part: 'p', known: [] };
const none = () => undefined;

test('of several builds only the newest answers', async () => {
  const { starter, started } = fakes();
  const client = new EngineClient(starter);
  const [first, second] = [client.engine.build(project, request, none), client.engine.build(project, request, none)];
  started[0]!.finish(1);
  started[0]!.finish(2);
  expect(await first).toBeUndefined();
  expect((await second)?.took).toBe(2);
});

test('a crashed worker is started anew and the build made again', async () => {
  const { starter, started } = fakes();
  const client = new EngineClient(starter);
  const build = client.engine.build(project, request, none);
  started[0]!.crash('out of memory');
  await Promise.resolve();
  await new Promise((resolve) => setTimeout(resolve));
  expect(started).toHaveLength(2);
  expect(started[0]!.ended).toBe(true);
  started[1]!.finish(7);
  expect((await build)?.took).toBe(7);
});

test('a worker in which a step does not end goes, and the next one leaves that step alone, also after a reload', async () => {
  jest.useFakeTimers();
  const kept = new Map<string, string>();
  const store = {
    getItem: (key: string) => kept.get(key) ?? null,
    setItem: (k: string, v: string) => void kept.set(k, v),
  };
  const { starter, started } = fakes();
  const client = new EngineClient(starter, new EndlessSteps(store));
  const build = client.engine.build(project, request, none);
  started[0]!.told!('quick');
  started[0]!.told!();
  await jest.advanceTimersByTimeAsync(200_000);
  expect(started).toHaveLength(1);
  started[0]!.told!('slow');
  await jest.advanceTimersByTimeAsync(119_000);
  expect(started).toHaveLength(1);
  await jest.advanceTimersByTimeAsync(2_000);
  expect(started[0]!.ended).toBe(true);
  expect(started[1]!.endless).toEqual(['slow']);
  started[1]!.finish(5);
  expect((await build)?.took).toBe(5);
  const later = new EngineClient(starter, new EndlessSteps(store));
  void later.engine.build(project, request, none);
  expect(started[2]!.endless).toEqual(['slow']);
  jest.useRealTimers();
});

test('a build that crashes every worker fails once, and the client goes on with the next', async () => {
  const { starter, started } = fakes();
  const client = new EngineClient(starter);
  const build = client.engine.build(project, request, none);
  started[0]!.crash('first');
  await new Promise((resolve) => setTimeout(resolve));
  started[1]!.crash('second');
  await expect(build).rejects.toThrow(CrashError);
  const next = client.engine.build(project, request, none);
  started[2]!.finish(5);
  expect((await next)?.took).toBe(5);
});

test('a worker that has grown large makes room for a fresh one, but not while it works', async () => {
  const { starter, started } = fakes();
  const client = new EngineClient(starter);
  const [first, second] = [client.engine.build(project, request, none), client.engine.build(project, request, none)];
  started[0]!.finish(1, 2e9);
  await first;
  expect(started[0]!.ended).toBe(false);
  started[0]!.finish(2, 2e9);
  expect((await second)?.took).toBe(2);
  expect(started[0]!.ended).toBe(true);
  const third = client.engine.build(project, request, none);
  started[1]!.finish(3);
  expect((await third)?.took).toBe(3);
});

test('builds and what brings all parts together do not overtake each other; of each kind the newest counts', async () => {
  const { starter, started } = fakes();
  const client = new EngineClient(starter);
  const build = client.engine.build(project, request, none);
  const [first, second] = [client.engine.assemble(project, [], none), client.engine.assemble(project, [], none)];
  started[0]!.together(1);
  started[0]!.together(2);
  started[0]!.finish(3);
  expect(await first).toBeUndefined();
  expect((await second)?.took).toBe(2);
  expect((await build)?.took).toBe(3);
});

test('what brings all parts together is asked again of a fresh worker where one crashed', async () => {
  const { starter, started } = fakes();
  const client = new EngineClient(starter);
  const whole = client.engine.assemble(project, [], none);
  started[0]!.crash('out of memory');
  await new Promise((resolve) => setTimeout(resolve));
  started[1]!.together(4);
  expect((await whole)?.took).toBe(4);
});

test('a drawing that is ended goes with its worker; what waited behind it is asked again of a fresh one', async () => {
  const { starter, started } = fakes();
  const client = new EngineClient(starter);
  const drawing = client.engine.sheet(project, 's', none);
  const build = client.engine.build(project, request, none);
  client.endDrawing();
  await expect(drawing).rejects.toThrow('stopped');
  expect(started[0]!.ended).toBe(true);
  await new Promise((resolve) => setTimeout(resolve));
  started[1]!.finish(6);
  expect((await build)?.took).toBe(6);
});
