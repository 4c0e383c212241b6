import { defineStore } from 'pinia';
import { computed, markRaw, ref, shallowRef } from 'vue';
import { explain, sameReference, type Id, type Project, type Reference } from '@helb/core';
import { EngineClient } from '../workers/engine-client.ts';
import type { BuildReply, BuildRequest, FileReply, ShownSheet, AssemblyReply } from '../workers/protocol.ts';

export type Built = Extract<BuildReply, { kind: 'built' }>;
export type BuiltAssembly = Extract<AssemblyReply, { kind: 'assembly' }>;

/** The bytes of a file, or the reason in words why there is none. */
export const bytesOf = (reply: FileReply): Uint8Array | string =>
  'bytes' in reply ? reply.bytes : explain(reply.issue);

/** What the document comes to: the engine's last reply for the part that is shown. */
export const useModel = defineStore('model', () => {
  const client = new EngineClient();
  const engine = markRaw(client.engine);
  const built = shallowRef<Built>();
  const busy = ref(false);
  const progress = ref('');
  const trouble = ref('');
  /** Counts the builds that arrived: for benches and tests. */
  const arrivals = ref(0);

  const findings = computed(() => built.value?.findings ?? []);

  /** Runs something that is shown as under way; undefined where it was overtaken, or failed: that is told in words. */
  async function underWay<R>(
    failed: string,
    work: (report: (done: number, of: number, name: string) => void) => Promise<R | undefined>,
  ): Promise<R | undefined> {
    busy.value = true;
    try {
      const reply = await work((done, of, name) => (progress.value = `${name} · ${done + 1} of ${of}`));
      // a newer one goes on being under way
      if (!reply) return undefined;
      trouble.value = '';
      [busy.value, progress.value] = [false, ''];
      return reply;
    } catch (error) {
      trouble.value = `${failed}: ${(error as Error).message}. Change something to try again.`;
      [busy.value, progress.value] = [false, ''];
      return undefined;
    }
  }

  async function build(project: Project, request: BuildRequest): Promise<void> {
    const reply = await underWay('The model could not be built', (report) => engine.build(project, request, report));
    if (!reply) return;
    built.value = reply;
    arrivals.value++;
  }

  /** All parts that are placed, brought together; undefined where something newer was asked for, or where it failed. */
  const assemble = (project: Project, known: readonly string[]): Promise<BuiltAssembly | undefined> =>
    underWay('The parts could not be brought together', (report) => engine.assemble(project, known, report));

  /** A sheet as it is printed, or why there is none; undefined where a newer request overtook it. */
  async function sheet(project: Project, id: Id): Promise<ShownSheet | string | undefined> {
    const report = (done: number, of: number) => (progress.value = `view ${done + 1} of ${of}`);
    try {
      const reply = await engine.sheet(project, id, report);
      return reply && ('sheet' in reply ? reply.sheet : explain(reply.issue));
    } catch (error) {
      return `The sheet could not be drawn: ${(error as Error).message}. Change something to try again.`;
    } finally {
      progress.value = '';
    }
  }

  /** Is it gone from what a step is built on? */
  const isGone = (step: Id, reference: Reference): boolean =>
    built.value?.steps
      .find(({ id }) => id === step)
      ?.references?.some((one) => one.fate === 'gone' && sameReference(one.reference, reference)) ?? false;

  /** Forgets what was built; the worker stays warm for the next project. */
  function close(): void {
    built.value = undefined;
  }

  return {
    /** Every call of the engine, by its name: see the protocol. It may fail where the worker dies on it. */
    engine,
    ...{ built, busy, progress, trouble, arrivals, findings, build, assemble, sheet, isGone, close },
    stop: () => client.stop(),
    endDrawing: () => client.endDrawing(),
  };
});
