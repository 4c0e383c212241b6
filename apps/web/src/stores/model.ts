import { defineStore } from 'pinia';
import { computed, ref, shallowRef } from 'vue';
import { explain, type BodyReference, type EdgeFacts, type Gap, type Id, type Project } from '@helb/core';
import type { BillRow } from '@helb/engine';
import { EngineClient } from '../workers/engine-client.ts';
import type {
  BuildReply,
  BuildRequest,
  FileFormat,
  FileReply,
  OutlineFormat,
  SheetFormat,
  ShownSheet,
  WallsReply,
  WeightReply,
  AssemblyReply,
} from '../workers/protocol.ts';

export type Built = Extract<BuildReply, { kind: 'built' }>;
export type BuiltAssembly = Extract<AssemblyReply, { kind: 'assembly' }>;

/** What the document comes to: the engine's last reply for the part that is shown. */
export const useModel = defineStore('model', () => {
  let client: EngineClient | undefined;
  const built = shallowRef<Built>();
  const busy = ref(false);
  const progress = ref('');
  const trouble = ref('');
  /** Counts the builds that arrived: for benches and tests. */
  const arrivals = ref(0);

  const engine = () => (client ??= new EngineClient());
  const findings = computed(() => built.value?.findings ?? []);

  async function build(request: BuildRequest): Promise<void> {
    busy.value = true;
    try {
      const reply = await engine().build(
        request,
        (done, of, name) => (progress.value = `${name} · ${done + 1} of ${of}`),
      );
      if (!reply) return;
      built.value = reply;
      arrivals.value++;
      trouble.value = '';
    } catch (error) {
      trouble.value = `The model could not be built: ${(error as Error).message}. Change something to try again.`;
    }
    busy.value = false;
    progress.value = '';
  }

  /** All parts that are placed, brought together; undefined where something newer was asked for, or where it failed. */
  async function assemble(project: Project, known: readonly string[]): Promise<BuiltAssembly | undefined> {
    busy.value = true;
    try {
      const reply = await engine().assemble(
        { project, known },
        (done, of, name) => (progress.value = `${name} · ${done + 1} of ${of}`),
      );
      if (!reply) return undefined;
      trouble.value = '';
      return reply;
    } catch (error) {
      trouble.value = `The parts could not be brought together: ${(error as Error).message}. Change something to try again.`;
      return undefined;
    } finally {
      busy.value = false;
      progress.value = '';
    }
  }

  const extents = (...args: Parameters<EngineClient['extents']>) => engine().extents(...args);
  const troubles = (...args: Parameters<EngineClient['troubles']>) => engine().troubles(...args);
  const interference = (...args: Parameters<EngineClient['interference']>) => engine().interference(...args);
  const stop = () => engine().stop();

  /** The bytes of a file, or the reason in words why there is none. */
  async function file(project: Project, part: Id | undefined, format: FileFormat): Promise<Uint8Array | string> {
    return bytesOf(await engine().file(project, part, format));
  }
  async function outline(project: Project, part: Id, sketch: Id, format: OutlineFormat): Promise<Uint8Array | string> {
    return bytesOf(await engine().outline(project, part, sketch, format));
  }
  const endDrawing = () => client?.endDrawing();
  async function sheetFile(project: Project, ids: readonly Id[], format: SheetFormat): Promise<Uint8Array | string> {
    return bytesOf(await engine().sheetFile(project, ids, format));
  }
  const checks = (...args: Parameters<EngineClient['checks']>) => engine().checks(...args);
  const cut = async (...args: Parameters<EngineClient['cut']>) => bytesOf(await engine().cut(...args));
  const fittingMarks = (...args: Parameters<EngineClient['fittingMarks']>) => engine().fittingMarks(...args);
  const bytesOf = (reply: FileReply) => (reply.kind === 'file' ? reply.bytes : explain(reply.issue));

  /** A sheet as it is printed, or why there is none; undefined where a newer request overtook it. */
  async function sheet(project: Project, id: Id): Promise<ShownSheet | string | undefined> {
    const told = (done: number, of: number) => (progress.value = `view ${done + 1} of ${of}`);
    try {
      const reply = await engine().sheet(project, id, told);
      if (reply?.kind === 'drawn') return reply.sheet;
      return reply?.kind === 'failed' ? explain(reply.issue) : undefined;
    } catch (error) {
      return `The sheet could not be drawn: ${(error as Error).message}. Change something to try again.`;
    } finally {
      progress.value = '';
    }
  }

  /** Where the plane of a sketch crosses what stands round its part, by placements; nothing where that fails. */
  const crossings = (project: Project, part: Id, sketch: Id): Promise<Readonly<Record<string, readonly EdgeFacts[]>>> =>
    engine()
      .crossings(project, part, sketch)
      .catch(() => ({}));

  /** The smallest gap between two things of a part; undefined where one of them is not there. */
  async function gap(
    project: Project,
    part: Id,
    between: readonly [BodyReference, BodyReference],
  ): Promise<Gap | undefined> {
    // a worker that died on it is no trouble of the model: the next build starts another
    const reply = await engine()
      .gap(project, part, between)
      .catch(() => undefined);
    return reply?.kind === 'gap' ? reply.gap : undefined;
  }

  const zip = (files: Readonly<Record<string, Uint8Array>>) => engine().zip(files);

  /** A project built whole; undefined where the worker died on it. */
  const weigh = (project: Project): Promise<WeightReply | undefined> =>
    engine()
      .weigh(project)
      .catch(() => undefined);

  /** What all that is placed is made of; undefined where the worker died on it. */
  const billOfMaterials = (project: Project): Promise<readonly BillRow[] | undefined> =>
    engine()
      .billOfMaterials(project)
      .catch(() => undefined);

  /** The walls of a part's bodies; undefined where they could not be measured. */
  const walls = (project: Project, part: Id, upTo?: Id): Promise<WallsReply | undefined> =>
    engine()
      .walls(project, part, upTo)
      .catch(() => undefined);

  /** Forgets what was built; the worker stays warm for the next project. */
  function close(): void {
    built.value = undefined;
  }

  return {
    built,
    busy,
    progress,
    trouble,
    arrivals,
    findings,
    build,
    assemble,
    extents,
    troubles,
    interference,
    stop,
    file,
    outline,
    sheet,
    sheetFile,
    fittingMarks,
    cut,
    checks,
    endDrawing,
    crossings,
    gap,
    billOfMaterials,
    walls,
    zip,
    weigh,
    close,
  };
});
