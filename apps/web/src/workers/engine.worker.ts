import * as Comlink from 'comlink';
import { zipSync } from 'fflate';
import wasmUrl from 'replicad-opencascadejs/wasm?url';
import type { SolvedSketch } from '@helb/core';
import { Engine, findings, Overtaken, totalsOf, type BodyModel, type FileSource } from '@helb/engine';
import { OpenCascadeKernel } from '@helb/kernel';
import type { BuildReply, EngineWorker, SketchReply, WeightReply } from './protocol.ts';

/** Fine enough that a rim looks round at the size of the screen. */
const SHOWN = { deflection: 0.08, angle: 0.25 };

const fromServer: FileSource = async ({ hash }) => {
  const response = await fetch(`/api/files/${hash}`).catch(() => undefined);
  if (response?.ok) return new Uint8Array(await response.arrayBuffer());
  // not known to the server: it is to be chosen again
  return { reason: response?.status === 404 ? '' : 'the server does not answer, change something to try again' };
};

/** The engine, started with the first request; a start that failed is tried again with the next. */
let starting: Promise<Engine> | undefined;
const engine = () =>
  (starting ??= OpenCascadeKernel.start({ url: wasmUrl }).then(
    (kernel) => new Engine(kernel, { files: fromServer }),
    (error: unknown) => {
      starting = undefined;
      throw error;
    },
  ));
let running = new AbortController();

/** Bodies of this worker are not those of one before it that crashed: keys carry its name. */
const session = crypto.randomUUID().slice(0, 8);
const outside = (key: string) => `${session} ${key}`;
const inside = (key: string) => (key.startsWith(`${session} `) ? key.slice(session.length + 1) : '');

const told = (body: BodyModel): BodyModel => ({ ...body, key: outside(body.key) });

/** One request after the other: a build that gives way must not find its bodies released by another. */
let turn: Promise<unknown> = Promise.resolve();
function inTurn<T>(work: () => Promise<T>): Promise<T> {
  const mine = turn.then(work, work);
  turn = mine;
  return mine;
}

/** Lets waiting messages in: a newer request then overtakes this one. */
const channel = new MessageChannel();
const pause = () =>
  new Promise<void>((resolve) => {
    channel.port1.onmessage = () => resolve();
    channel.port2.postMessage(null);
  });

/** Unlike the calls from outside these are not yet in turn. */
const requests: EngineWorker = {
  async ready() {
    await engine();
  },

  async build({ project, part, known, before, upTo }, progress) {
    const { signal } = running;
    const ready = await engine();
    const start = performance.now();
    try {
      const model = await ready.build(project, {
        parts: [part],
        mesh: SHOWN,
        known: new Set(known.map(inside)),
        ...(before === undefined ? {} : { before }),
        ...(upTo === undefined ? {} : { upTo }),
        signal,
        pause,
        progress,
      });
      const built = model.parts[0];
      // meshes stay in the engine's cache: they are copied, not transferred, and sent once only
      const reply: BuildReply = {
        kind: 'built',
        part,
        steps: built?.steps ?? [],
        sketches: Object.fromEntries([...(built?.sketches ?? [])].map(([id, sketch]) => [id, sketchReply(sketch)])),
        datums: Object.fromEntries(built?.datums ?? []),
        signs: built?.signs ?? [],
        sections: Object.fromEntries(built?.sections ?? []),
        ...(before === undefined ? {} : { before }),
        crossings: built?.crossings ?? [],
        bodies: (built?.bodies ?? []).map(told),
        earlier: (built?.earlier ?? []).map(told),
        totals: totalsOf(
          (built?.bodies ?? []).map((body) => body.measures),
          project.parts[part]?.material,
        ),
        values: model.values,
        findings: findings(project, model),
        took: performance.now() - start,
        memory: ready.memory(),
      };
      return reply;
    } catch (error) {
      if (error instanceof Overtaken) return { kind: 'overtaken' };
      throw error;
    }
  },

  async file(project, part, format) {
    const ready = await engine();
    const bytes = await (format === 'step' ? ready.stepFile(project, part) : ready.stlFile(project, part));
    return bytes.ok ? { kind: 'file', bytes: bytes.value } : { kind: 'failed', issue: bytes.issue };
  },

  async gap(project, part, between) {
    const found = await (await engine()).gap(project, part, between);
    return found.ok ? { kind: 'gap', gap: found.value } : { kind: 'failed', issue: found.issue };
  },

  zip: (files) => Promise.resolve(zipSync(files)),

  async weigh(project) {
    const { parts } = await (await engine()).build(project, { pause });
    const totals = parts.map(({ id, bodies }) => ({
      id,
      ...totalsOf(
        bodies.map(({ measures }) => measures),
        project.parts[id]!.material,
      ),
    }));
    const weighed = totals.filter(({ bodies }) => bodies > 0);
    return {
      mass_g: weighed.reduce((sum, { mass_g }) => sum + (mass_g ?? 0), 0),
      unknown: weighed.filter(({ mass_g }) => mass_g === null).length,
      failed: parts.flatMap(({ steps }) => steps).filter(({ state }) => state === 'failed').length,
      sizes: Object.fromEntries(
        weighed.map(({ id, box_mm }) => [id, [0, 1, 2].map((k) => box_mm!.high[k]! - box_mm!.low[k]!)]),
      ) as unknown as WeightReply['sizes'],
    };
  },

  async walls(project, part, upTo) {
    const options = { mesh: SHOWN, ...(upTo === undefined ? {} : { upTo }) };
    const found = await (await engine()).walls(project, part, options);
    return found.map(({ key, walls }) => ({ key: outside(key), walls }));
  },
};

const sketchReply = ({ frame, solution, regions, sources }: SolvedSketch): SketchReply => ({
  frame,
  entities: solution.geometry.entities,
  state: solution.state,
  freedoms: solution.freedoms,
  regions: regions.regions,
  sources,
});

const worker: EngineWorker = {
  ready: requests.ready,
  build(request, progress) {
    running.abort();
    const mine = (running = new AbortController());
    return inTurn(() =>
      mine.signal.aborted ? Promise.resolve({ kind: 'overtaken' }) : requests.build(request, progress),
    );
  },
  file: (...args) => inTurn(() => requests.file(...args)),
  gap: (...args) => inTurn(() => requests.gap(...args)),
  zip: requests.zip,
  weigh: (...args) => inTurn(() => requests.weigh(...args)),
  walls: (...args) => inTurn(() => requests.walls(...args)),
};
Comlink.expose(worker);
