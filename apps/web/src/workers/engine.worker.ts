import { Mutex } from 'async-mutex';
import * as Comlink from 'comlink';
import { zipSync } from 'fflate';
import wasmUrl from 'replicad-opencascadejs/wasm?url';
import {
  inkOf,
  writeSheetDxf,
  writeSheetSvg,
  type BodyReference,
  type Id,
  type Material,
  type RigidTransform,
  type Project,
  type Result,
  type SheetPicture,
  type SolvedSketch,
} from '@helb/core';
import {
  assemblyFindings,
  Engine,
  checkedProject,
  findings,
  billOfMaterials,
  Overtaken,
  totalsOf,
  troubleFindings,
  assemblyTotals,
  type FileFormat,
  type FileSource,
  type PartModel,
  DISPLAY_QUALITY,
} from '@helb/engine';
import { OpenCascadeKernel } from '@helb/kernel';
import type {
  BuildReply,
  BuildRequest,
  EngineWorker,
  OutlineFormat,
  FileReply,
  GapReply,
  InterferenceReply,
  PlacedPart,
  ChecksReply,
  SheetFormat,
  SheetReply,
  SketchReply,
  WallsReply,
  WeightReply,
  AssemblyReply,
} from './protocol.ts';
import { ProjectReceiver, type SentProject } from './project-line.ts';

type Progress = (done: number, of: number, name: string) => void;

const fromServer: FileSource = async ({ hash }) => {
  const response = await fetch(`/api/files/${hash}`).catch(() => undefined);
  if (response?.ok) return new Uint8Array(await response.arrayBuffer());
  // not known to the server: it is to be chosen again
  return { reason: response?.status === 404 ? '' : 'the server does not answer, change something to try again' };
};

/** Who looks after steps that do not end, and those that are known. */
let watcher: (digest?: string) => void = () => undefined;
let endless: { readonly digests: readonly string[]; readonly seconds: number } = { digests: [], seconds: 0 };

/** The engine, started with the first request; a start that failed is tried again with the next. */
let starting: Promise<Engine> | undefined;
const engine = () =>
  (starting ??= OpenCascadeKernel.start({ url: wasmUrl }).then(
    (kernel) => {
      const made = new Engine(kernel, { files: fromServer, watch: (digest) => watcher(digest) });
      endless.digests.forEach((digest) => made.avoid(digest, endless.seconds));
      return made;
    },
    (error: unknown) => {
      starting = undefined;
      throw error;
    },
  ));

/** Bodies of this worker are not those of one before it that crashed: keys carry its name. */
const session = crypto.randomUUID().slice(0, 8);
const outside = (key: string) => `${session} ${key}`;
const inside = (key: string) => (key.startsWith(`${session} `) ? key.slice(session.length + 1) : '');

const outward = <T extends { readonly key: string }>(one: T): T => ({ ...one, key: outside(one.key) });

/** One request after the other: a build that gives way must not find its bodies released by another. */
const turns = new Mutex();
const inTurn = <T>(work: () => Promise<T>): Promise<T> => turns.runExclusive(work);

/** Lets waiting messages in: a newer request then overtakes this one. */
const channel = new MessageChannel();
const pause = () =>
  new Promise<void>((resolve) => {
    channel.port1.onmessage = () => resolve();
    channel.port2.postMessage(null);
  });

/** Of requests of one kind the newest ends the one before, which is then told by a kind of its own. */
class Newest<K extends string> {
  private controller = new AbortController();

  constructor(private readonly ended: K) {}

  stop(): void {
    this.controller.abort();
  }

  run<T>(work: (signal: AbortSignal) => Promise<T>): Promise<T | { readonly kind: K }> {
    this.stop();
    const { signal } = (this.controller = new AbortController());
    const said = { kind: this.ended };
    return inTurn(async () => {
      if (signal.aborted) return said;
      try {
        return await work(signal);
      } catch (error) {
        if (error instanceof Overtaken) return said;
        throw error;
      }
    });
  }
}

/** Unlike the calls from outside these are not yet in turn. */
const requests = {
  async build(
    project: Project,
    { part, known, before, sketch, upTo }: BuildRequest,
    progress: Progress,
    signal: AbortSignal,
  ) {
    const ready = await engine();
    const start = performance.now();
    const model = await ready.build(project, {
      parts: [part],
      mesh: DISPLAY_QUALITY,
      known: new Set(known.map(inside)),
      ...(before === undefined ? {} : { before }),
      ...(sketch === undefined ? {} : { sketch }),
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
      ...(built?.trouble ? { trouble: built.trouble } : {}),
      steps: built?.steps ?? [],
      sketches: Object.fromEntries([...(built?.sketches ?? [])].map(([id, sketch]) => [id, sketchReply(sketch)])),
      datums: Object.fromEntries(built?.datums ?? []),
      signs: built?.signs ?? [],
      sections: Object.fromEntries(built?.sections ?? []),
      ...(before === undefined ? {} : { before }),
      crossings: built?.crossings ?? [],
      meshes: (built?.meshes ?? []).map(outward),
      underlay: built?.underlay ?? [],
      ...(sketch === undefined ? {} : { sketch }),
      bodies: (built?.bodies ?? []).map(outward),
      earlier: (built?.earlier ?? []).map(outward),
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
  },

  async assemble(project: Project, known: readonly string[], progress: Progress, signal: AbortSignal) {
    const ready = await engine();
    const start = performance.now();
    const options = { mesh: DISPLAY_QUALITY, known: new Set(known.map(inside)), signal, pause, progress };
    const { model, assembled } = await ready.assemble(project, options);
    const reply: AssemblyReply = {
      kind: 'assembly',
      parts: Object.fromEntries(
        model.parts.map((part) => [part.id, placedPart(part, project.parts[part.id]?.material)]),
      ),
      assembled,
      billOfMaterials: billOfMaterials(project, model, assembled.members),
      findings: [...troubleFindings(model.parts), ...assemblyFindings(project, assembled)],
      took: performance.now() - start,
      memory: ready.memory(),
    };
    return reply;
  },

  async interference(
    project: Project,
    poses: readonly RigidTransform[],
    within: number,
    progress: (done: number, of: number) => void,
    signal: AbortSignal,
  ): Promise<InterferenceReply> {
    const ready = await engine();
    const { interferences } = await ready.interference(project, {
      poses,
      within,
      mesh: DISPLAY_QUALITY,
      async pause(done, of) {
        progress(done, of);
        await pause();
        if (signal.aborted) throw new Overtaken();
      },
    });
    return { kind: 'found', interferences };
  },

  async file(project: Project, part: Id | undefined, format: FileFormat): Promise<FileReply> {
    const ready = await engine();
    const bytes = await (part === undefined
      ? ready.assemblyFile(project, format)
      : ready.partFile(project, part, format));
    return fileReply(bytes);
  },

  async outline(project: Project, part: Id, sketch: Id, format: OutlineFormat): Promise<FileReply> {
    const bytes = await (await engine()).outlineFile(project, part, sketch, format);
    return fileReply(bytes);
  },

  async sheet(
    project: Project,
    id: Id,
    outward: (done: number, of: number) => void,
    signal: AbortSignal,
  ): Promise<SheetReply> {
    const drawn = await (
      await engine()
    ).sheet(project, id, async (done, of) => {
      outward(done, of);
      await pause();
      if (signal.aborted) throw new Overtaken();
    });
    if (!drawn.ok) return { kind: 'failed', issue: drawn.issue };
    // exact pieces of curves are many objects: that they become path data here spares the page both
    const { picture, handles, ...sheet } = drawn.value;
    return { kind: 'drawn', sheet: { ...sheet, ink: inkOf(picture), handles: JSON.stringify(handles) } };
  },

  async checks(project: Project, outward: (words: string) => void, signal: AbortSignal): Promise<ChecksReply> {
    const findings = await checkedProject(await engine(), project, async (words) => {
      outward(words);
      await pause();
      if (signal.aborted) throw new Overtaken();
    });
    return { kind: 'checked', findings };
  },

  async sheetFile(project: Project, ids: readonly Id[], format: SheetFormat): Promise<FileReply> {
    const pictures: SheetPicture[] = [];
    for (const id of ids) {
      const drawn = await (await engine()).sheet(project, id);
      if (!drawn.ok) return { kind: 'failed', issue: drawn.issue };
      pictures.push(drawn.value.picture);
    }
    return { kind: 'file', bytes: await SHEET_WRITERS[format](pictures, project.name) };
  },

  async crossings(project: Project, part: Id, sketch: Id) {
    return Object.fromEntries(await (await engine()).crossingsAround(project, part, sketch));
  },

  async gap(project: Project, part: Id, between: readonly [BodyReference, BodyReference]): Promise<GapReply> {
    const found = await (await engine()).gap(project, part, between);
    return found.ok ? { kind: 'gap', gap: found.value } : { kind: 'failed', issue: found.issue };
  },

  async weigh(project: Project): Promise<WeightReply> {
    const ready = await engine();
    const model = await ready.build(project, { pause });
    const totals = model.parts.map(({ id, bodies }) => ({
      id,
      ...totalsOf(
        bodies.map(({ measures }) => measures),
        project.parts[id]!.material,
      ),
    }));
    const weighed = totals.filter(({ bodies }) => bodies > 0);
    // what is placed counts as often as it is placed
    const { assembled } = await ready.assemble(project, { pause });
    const { mass_g, unknown } = assemblyTotals(project, model, assembled.members, assembled.rest);
    const once = {
      mass_g: weighed.reduce((sum, total) => sum + (total.mass_g ?? 0), 0),
      unknown: weighed.filter((total) => total.mass_g === null).length,
    };
    return {
      ...(assembled.members.length > 0 ? { mass_g, unknown } : once),
      failed: model.parts.flatMap(({ steps }) => steps).filter(({ state }) => state === 'failed').length,
      sizes: Object.fromEntries(
        weighed.map(({ id, box_mm }) => [id, [0, 1, 2].map((k) => box_mm!.high[k]! - box_mm!.low[k]!)]),
      ) as unknown as WeightReply['sizes'],
    };
  },

  async billOfMaterials(project: Project) {
    const { model, assembled } = await (await engine()).assemble(project, { pause });
    return billOfMaterials(project, model, assembled.members);
  },

  touching: async (...given: Parameters<EngineWorker['touching']>) => (await engine()).touching(...given),
  extents: async (...given: Parameters<EngineWorker['extents']>) => (await engine()).extents(...given),
  troubles: async (...given: Parameters<EngineWorker['troubles']>) => (await engine()).troubles(...given),
  cut: async (...given: Parameters<EngineWorker['cut']>) => fileReply(await (await engine()).cutFile(...given)),
  fittingMarks: async (...given: Parameters<EngineWorker['fittingMarks']>) => (await engine()).fittingMarks(...given),

  async walls(project: Project, part: Id, upTo?: Id): Promise<WallsReply> {
    const options = { mesh: DISPLAY_QUALITY, ...(upTo === undefined ? {} : { upTo }) };
    const found = await (await engine()).walls(project, part, options);
    return found.map(({ key, walls }) => ({ key: outside(key), walls }));
  },
};

/** Sheets as files; what writes PDF is loaded with the first. */
const SHEET_WRITERS: Readonly<
  Record<SheetFormat, (sheets: readonly SheetPicture[], title: string) => Promise<Uint8Array>>
> = {
  async pdf(sheets, title) {
    const [{ writePdf }, { sheetFonts }] = await Promise.all([
      import('@helb/core/sheet-files'),
      import('./sheet-fonts.ts'),
    ]);
    return writePdf(sheets, await sheetFonts(), title);
  },
  svg: ([sheet]) => Promise.resolve(new TextEncoder().encode(writeSheetSvg(sheet!))),
  dxf: ([sheet]) => Promise.resolve(new TextEncoder().encode(writeSheetDxf(sheet!))),
};

const placedPart = (part: PartModel, material: Material | undefined): PlacedPart => ({
  ...(part.trouble ? { trouble: part.trouble } : {}),
  bodies: part.bodies.map(outward),
  datums: Object.fromEntries(part.datums),
  sketches: Object.fromEntries([...part.sketches].map(([id, sketch]) => [id, sketchReply(sketch)])),
  totals: totalsOf(
    part.bodies.map(({ measures }) => measures),
    material,
  ),
});

const fileReply = (bytes: Result<Uint8Array>): FileReply =>
  bytes.ok ? { kind: 'file', bytes: bytes.value } : { kind: 'failed', issue: bytes.issue };

const sketchReply = ({ frame, solution, regions, sources }: SolvedSketch): SketchReply => ({
  frame,
  entities: solution.geometry.entities,
  state: solution.state,
  freedoms: solution.freedoms,
  regions: regions.regions,
  sources,
});

/** Requests that a newer one of their kind ends, and what the older one is told then; all others wait their turn. */
const QUEUES: Partial<Record<string, Newest<string>>> = {
  build: new Newest('overtaken'),
  assemble: new Newest('overtaken'),
  sheet: new Newest('overtaken'),
  checks: new Newest('overtaken'),
  interference: new Newest('stopped'),
};

type Work = (project: Project, ...given: unknown[]) => Promise<unknown>;
const receiver = new ProjectReceiver();
const answered = Object.fromEntries(
  Object.entries(requests as unknown as Record<string, Work>).map(([name, work]) => [
    name,
    (sent: SentProject, ...given: unknown[]) => {
      // taken as it comes, not when its turn has come: the next one builds on it
      const project = receiver.take(sent);
      const queue = QUEUES[name];
      return queue ? queue.run((signal) => work(project, ...given, signal)) : inTurn(() => work(project, ...given));
    },
  ]),
) as unknown as Pick<EngineWorker, keyof typeof requests>;

const worker: EngineWorker = {
  ...answered,
  async ready() {
    await engine();
  },
  watch(outward, digests, seconds) {
    watcher = outward;
    endless = { digests, seconds };
    return Promise.resolve();
  },
  stop: () => Promise.resolve(QUEUES['interference']!.stop()),
  // needs no engine, and waits for none
  zip: (files) => Promise.resolve(zipSync(files)),
};
Comlink.expose(worker);
