import { LRUCache } from 'lru-cache';
import {
  buildsAfter,
  issue,
  KernelHurt,
  stepKind,
  type BodyHandle,
  type Id,
  type Issue,
  type Kernel,
  type LaidFile,
  type Part,
  type Result,
  type Scope,
  type Step,
  withItsName,
  withoutNumber,
} from '@helb/core';
import type { BodyCache } from './body-cache.ts';
import { Overtaken, type BuildOptions } from './build-options.ts';
import { digestOf } from './digest.ts';
import type { PartModel, StepResult } from './model.ts';
import type { LaidMesh, ProjectFiles } from './project-files.ts';
import type { BuildContext } from './build-context.ts';
import { SketchCache } from './sketch-cache.ts';
import type { BodyQueries } from './body-queries.ts';
import { lastThat } from './last-that.ts';

export interface Built {
  readonly model: PartModel;
  /** Of all that is kept in the cache for it. */
  readonly keys: readonly string[];
}

/** Thrown where a step hurt the kernel: it is known now, and fails without being tried when all is built again. */
export class StepHurt extends Error {}

/** What is between two steps. */
interface State {
  readonly id: number;
  readonly bodies: readonly BodyHandle[];
  readonly digest: string;
}
/** Between a step and the next. */
interface Place {
  readonly after: Id;
  readonly state: State;
}

const NOTHING: State = { id: 0, bodies: [], digest: '' };

const MOST_FAILURES = 300;

/**
 * Builds parts step by step. A step that fails leaves the bodies as they were; later steps go on from these. What fails is
 * kept like what is built: it is not tried again as long as all that goes into it is the same.
 */
export class PartBuilder {
  private readonly sketches = new SketchCache();
  /** By the digest of a step and all before it. */
  private readonly failures = new LRUCache<string, Issue>({ max: MOST_FAILURES });

  constructor(
    private readonly kernel: Kernel,
    private readonly queries: BodyQueries,
    private readonly cache: BodyCache,
    private readonly files: ProjectFiles,
    private readonly watch: (digest?: string) => void = () => undefined,
  ) {}

  /** From now on a step fails without being tried. */
  avoid(digest: string, why: Issue): void {
    this.failures.set(digest, why);
  }

  private async laid(step: Id, file: Result<LaidFile>, { pause, signal }: BuildOptions) {
    await pause?.();
    const laid = file.ok ? await this.files.lay(step, file.value) : file;
    if (signal?.aborted) throw new Overtaken();
    return laid;
  }

  async build(id: Id, part: Part, scope: Scope, buildContext: BuildContext, options: BuildOptions): Promise<Built> {
    const steps: StepResult[] = [];
    const keys: string[] = [];
    let state = NOTHING;
    const behind: Place[] = [];
    // what is asked of bodies that are there is a matter of the step that made them
    const sure = <T>(work: () => T): T => this.unhurt(state.digest, work);
    let before: readonly BodyHandle[] | undefined;
    const last = options.upTo === undefined ? -1 : part.stepOrder.indexOf(options.upTo);
    for (const [at, stepId] of part.stepOrder.entries()) {
      const step = part.steps[stepId]!;
      if (last >= 0 && at > last) {
        steps.push({ id: stepId, state: 'later' });
        continue;
      }
      if (stepId === options.before) before = state.bodies;
      if (step.suppressed) {
        steps.push({ id: stepId, state: 'suppressed' });
        continue;
      }
      buildContext.bodies = state.bodies;
      const context = buildContext.contextFor(stepId);
      const kind = stepKind(step.kind);
      const references = sure(() => buildContext.unsure(step));
      const add = (issue?: Issue, detours: readonly Issue[] = []) =>
        steps.push({
          id: stepId,
          ...(issue
            ? { state: 'failed', issue: withItsName(issue, (after) => part.steps[after]!.name) }
            : { state: 'built' }),
          ...(detours.length > 0 ? { detours } : {}),
          ...(references.length > 0 ? { references } : {}),
        });
      if (kind.draw) {
        const solved = sure(() => this.sketches.solved(step, scope, kind.sources!(step, context)));
        buildContext.sketches.set(stepId, solved);
        add(solved.issue);
        continue;
      }
      if (kind.datum) {
        const datum = sure(() => kind.datum!(step, context));
        if (datum.ok) buildContext.datums.set(stepId, datum.value);
        add(datum.ok ? undefined : datum.issue);
        continue;
      }
      if (kind.lay) {
        const laid = await this.laid(stepId, kind.lay(step, context), options);
        if (laid.ok) buildContext.meshes.push(laid.value);
        add(laid.ok ? undefined : laid.issue);
        continue;
      }
      const inputs = sure(() => kind.resolve!(step, context));
      if (!inputs.ok) {
        add(inputs.issue);
        continue;
      }
      const on = (kind.touches?.(inputs.value) ?? []).map((k) => withoutNumber(this.kernel.bodyName(state.bodies[k]!)));
      const recipe = `${step.kind} ${JSON.stringify(inputs.value)}`;
      const key = `${state.id} ${recipe}`;
      let entry = this.cache.get(key);
      if (!entry) {
        const digest = digestOf(`${state.digest} ${recipe}`);
        const failure = this.failures.get(digest);
        if (failure) {
          add(failure);
          continue;
        }
        options.progress?.(at, part.stepOrder.length, step.name);
        await options.pause?.();
        const missing = await this.files.fetch(kind.files?.(step) ?? []);
        if (options.signal?.aborted) throw new Overtaken();
        if (missing) {
          add(missing);
          continue;
        }
        this.kernel.takeDetours();
        const bodies = this.watched(digest, () => kind.build!(inputs.value, state.bodies, this.kernel));
        if (!bodies.ok) {
          // known before more is tried, which may break the kernel
          this.avoid(digest, bodies.issue);
          const failed = kind.yields?.(bodies.issue)
            ? this.withPlaceFurtherUp(bodies.issue, stepId, step, behind.slice(0, -1), buildContext)
            : bodies.issue;
          this.avoid(digest, failed);
          add(failed);
          continue;
        }
        entry = this.cache.put(key, digest, bodies.value, this.kernel.takeDetours());
      }
      const edges = sure(() =>
        kind.edges?.(inputs.value).flatMap(({ body, name }) => {
          const edge = buildContext.bodies[body]!.edges.find((one) => one.name === name);
          return edge ? [edge] : [];
        }),
      );
      state = entry;
      behind.push({ after: stepId, state });
      buildContext.sources.set(stepId, { kind: step.kind, inputs: inputs.value, on, ...(edges ? { edges } : {}) });
      kind.signs?.(inputs.value).forEach((sign) => buildContext.signs.push({ ...sign, step: stepId }));
      keys.push(key);
      add(undefined, entry.detours);
    }
    const bodies = sure(() => state.bodies.map((body) => this.queries.describe(body, options)));
    const earlier = sure(() => (before ?? []).map((body) => this.queries.describe(body, options)));
    buildContext.bodies = state.bodies;
    const sections = sure(() => sectionsOf(part.sections, buildContext));
    const { sketches, datums, signs } = buildContext;
    const planeOf = (sketch: Id | undefined) => (sketch === undefined ? undefined : sketches.get(sketch)?.frame);
    const plane = planeOf(options.before);
    const over = planeOf(options.sketch);
    const crossings = sure(() => (plane && before ? before.flatMap((body) => this.queries.crossing(body, plane)) : []));
    const underlay = over ? buildContext.meshes.flatMap((laid) => this.files.crossed(laid, over)) : [];
    const meshes = buildContext.meshes.map((laid) => withoutKnown(laid, options.known));
    return {
      model: { id, steps, sketches, datums, sections, signs, bodies, earlier, crossings, meshes, underlay },
      keys,
    };
  }

  /**
   * Why a step failed, with the last place further up where it builds as it is told; without, where it does not build at the
   * first that has all it refers to.
   */
  private withPlaceFurtherUp(
    why: Issue,
    id: Id,
    step: Step,
    places: readonly Place[],
    buildContext: BuildContext,
  ): Issue {
    const kind = stepKind(step.kind);
    const fit = places.flatMap(({ state, ...place }) => {
      buildContext.bodies = state.bodies;
      const inputs =
        buildContext.unsure(step).length > 0 ? undefined : kind.resolve!(step, buildContext.contextFor(id));
      return inputs?.ok ? [{ ...place, state, inputs: inputs.value }] : [];
    });
    const builds = ({ state, inputs }: (typeof fit)[number]): boolean => {
      const digest = digestOf(`${state.digest} ${step.kind} ${JSON.stringify(inputs)}`);
      if (this.failures.has(digest)) return false;
      const made = this.watched(digest, () => kind.build!(inputs, state.bodies, this.kernel));
      if (!made.ok) this.avoid(digest, made.issue);
      else made.value.filter((body) => !state.bodies.includes(body)).forEach((body) => this.kernel.release(body));
      return made.ok;
    };
    const last = lastThat(fit, builds);
    return last ? buildsAfter(why, last.after) : why;
  }

  /** However it ends, whoever watches is told. */
  private watched<T>(digest: string, work: () => T): T {
    this.watch(digest);
    try {
      return this.unhurt(digest, work);
    } finally {
      this.watch();
    }
  }

  private unhurt<T>(digest: string, work: () => T): T {
    try {
      return work();
    } catch (error) {
      if (!(error instanceof KernelHurt) || digest === '') throw error;
      this.avoid(digest, issue('kernel.hurt', { reason: error.message }));
      throw new StepHurt(error.message);
    }
  }
}

/** The planes of the sections of a part, or why one is not there. */
export const sectionsOf = (sections: Part['sections'], buildContext: BuildContext): PartModel['sections'] =>
  new Map(Object.entries(sections ?? {}).map(([id, record]) => [id, buildContext.section(record)]));

const withoutKnown = ({ mesh, ...rest }: Required<LaidMesh>, known?: ReadonlySet<string>): LaidMesh =>
  known?.has(rest.key) ? rest : { ...rest, mesh };
