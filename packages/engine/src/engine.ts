import {
  ACCEPT_WORDS,
  boxRound,
  buildOrder,
  designScope,
  fail,
  compose,
  issue,
  locate,
  ok,
  placedParts,
  inverse,
  valueScope,
  type BodyReference,
  type Box3,
  type ComposedSheet,
  type EdgeFacts,
  type FittingMark,
  type TessellationQuality,
  type Gap,
  type Id,
  type Issue,
  type Kernel,
  type RigidTransform,
  type Origin,
  type Part,
  type PlaceOnBody,
  type Project,
  type Reference,
  type Result,
  type Scope,
  isRepeat,
} from '@helb/core';
import { emptyAssembly, memberPose, pressing, type Assembled, type TouchingBody } from '@helb/core/assembly';
import { Assembling, type AssembledModel } from './assembled.ts';
import { BodyCache } from './body-cache.ts';
import type { BuildOptions, InterferenceOptions } from './build-options.ts';
import { SheetDrawing } from './sheet-drawing.ts';
import { Exporting, type FileFormat } from './exporting.ts';
import { interferences, type Interference, type PlacedBody } from './interference.ts';
import { CONTACT_QUALITY } from './tessellation.ts';
import { valuesOf, type Model, type PartModel } from './model.ts';
import { Neighbours } from './neighbours.ts';
import { faceOutline, sketchOutline, type FaceOutlineOptions, type OutlineFormat } from './outlines.ts';
import { crossingsThere, placeOnBody, BuildContext } from './build-context.ts';
import { PartBuilder, sectionsOf, StepHurt, type Built } from './part-builder.ts';
import { NO_FILES, ProjectFiles, type FileSource } from './project-files.ts';
import { partSubject, assemblySubject, type Subject } from './subject.ts';
import { BodyQueries } from './body-queries.ts';
import { troubles } from './trouble.ts';
import type { Walls } from './walls.ts';

/** Enough to tell which bodies may meet: the exact ones tell whether they do. */
const COARSE: TessellationQuality = { deflection: 0.2, angle: 0.5 };

interface Constructed {
  readonly built: ReadonlyMap<Id, Built>;
  readonly contexts: ReadonlyMap<Id, BuildContext>;
  readonly models: readonly PartModel[];
}

interface EngineOptions {
  readonly cache?: BodyCache;
  /** Where the files of projects come from; without it a step that needs one fails. */
  readonly files?: FileSource;
  /** Told the digest of each step before it is computed, and nothing after it: who sees no end to it may end all. */
  readonly watch?: (digest?: string) => void;
}

/** Of parts that are built for others nothing is shown. */
const forOthers = ({ signal, progress, pause }: BuildOptions): BuildOptions => ({
  ...(signal ? { signal } : {}),
  ...(progress ? { progress } : {}),
  ...(pause ? { pause } : {}),
});

/**
 * Rebuilds documents into models. Pull-based: a step is looked up by its resolved inputs and the bodies before it, and
 * computed only if these are new. Where a step hurts the kernel, that is started anew, and all but that step built again.
 */
export class Engine {
  private readonly queries: BodyQueries;
  private readonly assembling = new Assembling();
  private readonly drafting: SheetDrawing;
  private readonly exporting: Exporting;
  private readonly cache: BodyCache;
  private readonly builder: PartBuilder;

  constructor(
    private readonly kernel: Kernel,
    { cache = new BodyCache(kernel), files = NO_FILES, watch }: EngineOptions = {},
  ) {
    this.queries = new BodyQueries(kernel);
    this.drafting = new SheetDrawing(kernel, this.queries);
    this.exporting = new Exporting(kernel, this.queries);
    this.cache = cache;
    this.builder = new PartBuilder(kernel, this.queries, cache, new ProjectFiles(files, kernel), watch);
  }

  async build(project: Project, options: BuildOptions = {}): Promise<Model> {
    return (await this.builtWith(project, options)).model;
  }

  /** The parts that are placed, brought together as the design puts them. */
  async assemble(project: Project, options: BuildOptions = {}): Promise<AssembledModel> {
    const placed = placedParts(project);
    const { model, contexts, scope } = await this.builtWith(project, { parts: placed, ...options });
    return { model, assembled: this.assembling.assembled(project, contexts, scope) };
  }

  /** The box round everything that is placed, in poses of the mechanism or at rest; undefined where nothing is. */
  async extents(project: Project, poses?: readonly RigidTransform[]): Promise<Box3 | undefined> {
    const { contexts, scope } = await this.builtWith(project, { parts: placedParts(project) });
    const { members, rest } = this.assembling.assembled(project, contexts, scope);
    const pose = { poses: poses ?? rest.poses };
    return boxRound(
      members.flatMap((member) =>
        (contexts.get(member.part)?.handles ?? []).map((body) => this.queries.box(body, memberPose(member, pose))),
      ),
    );
  }

  /** Every two placements that overlap in a pose, or come nearer than so many mm. */
  async interference(
    project: Project,
    { poses, within = 0, mesh = COARSE, pause }: InterferenceOptions = {},
  ): Promise<{ readonly assembled: Assembled; readonly interferences: readonly Interference[] }> {
    const { contexts, scope } = await this.builtWith(project, { parts: placedParts(project) });
    const assembled = this.assembling.assembled(project, contexts, scope);
    const pose = { poses: poses ?? assembled.rest.poses };
    const bodies = assembled.members.flatMap((member) =>
      (contexts.get(member.part)?.handles ?? []).map((body): PlacedBody => {
        const { measures, mesh: skin } = this.queries.describe(body, { mesh });
        const { id, part } = member;
        const { deflection } = mesh;
        return {
          member: id,
          part,
          body,
          measures,
          skin: this.queries.treeOf(skin!),
          deflection,
          pose: memberPose(member, pose),
        };
      }),
    );
    const isPressed = pressing(project.assembly ?? emptyAssembly());
    return { assembled, interferences: await interferences(this.kernel, bodies, within, isPressed, pause) };
  }

  /** The bodies of all parts that are placed, as what may touch: with meshes fine enough for that. */
  async touching(project: Project): Promise<readonly TouchingBody[]> {
    const { contexts } = await this.builtWith(project, { parts: placedParts(project) });
    return placedParts(project).flatMap((part) =>
      (contexts.get(part)?.handles ?? []).map((body): TouchingBody => {
        const { mesh, topology, measures } = this.queries.describe(body, { mesh: CONTACT_QUALITY });
        return { part, mesh: mesh!, topology: topology!, box: measures.box_mm, deflection: CONTACT_QUALITY.deflection };
      }),
    );
  }

  private async builtWith(project: Project, options: BuildOptions) {
    const scope = valueScope(Object.values(project.values), project.unit);
    const { built, contexts, models } = await this.constructed(project, scope, options);
    const inUse = new Set([...built.values()].flatMap(({ keys }) => keys));
    for (const body of this.cache.trim(inUse)) this.queries.forget(body);
    return { model: { parts: models, values: valuesOf(project, scope) }, contexts, scope };
  }

  /** Each round in which the kernel is hurt knows one step more that is left alone. */
  private async constructed(project: Project, scope: Scope, options: BuildOptions): Promise<Constructed> {
    for (;;) {
      if (this.kernel.isHurt) await this.restart();
      try {
        return await this.construct(project, scope, options);
      } catch (error) {
        if (!(error instanceof StepHurt)) throw error;
      }
    }
  }

  private async restart(): Promise<void> {
    this.cache.clear();
    this.queries.clear();
    await this.kernel.restart();
  }

  /** Lets a step fail without being tried: it went on for so many seconds before. */
  avoid(digest: string, seconds: number): void {
    this.builder.avoid(digest, issue('kernel.endless', { seconds }));
  }

  /** Builds parts of a project, or of one that a part was brought from; `models` are those that were wanted. */
  private async construct(project: Project, scope: Scope, options: BuildOptions): Promise<Constructed> {
    const wanted = (options.parts ?? project.partOrder).filter((id) => project.parts[id] !== undefined);
    const built = new Map<Id, Built>();
    const contexts = new Map<Id, BuildContext>();
    const neighbours = new Neighbours(project, scope, contexts, this.assembling);
    for (const id of buildOrder(project, wanted)) {
      const part = project.parts[id]!;
      const own = wanted.includes(id) ? options : forOthers(options);
      if (part.from) {
        const brought = await this.brought(id, part.from, part, scope, own);
        contexts.set(id, brought.buildContext);
        built.set(id, brought);
        continue;
      }
      const buildContext = new BuildContext(part, scope, this.queries, {
        seen: (step, at, from) => neighbours.seen(id, step, at, from),
        bodiesOf(other) {
          const { handles = [] } = contexts.get(other) ?? {};
          return handles.length > 0 ? ok(handles) : fail('part.empty', { name: project.parts[other]?.name ?? other });
        },
      });
      contexts.set(id, buildContext);
      built.set(id, await this.builder.build(id, part, scope, buildContext, own));
    }
    const all = [...built.values()].map(({ model }) => model);
    // as long as a part is not built to its end nobody knows where it stands
    const checked = options.upTo === undefined ? neighbours.checked(all) : all;
    const trouble = troubles(project, checked);
    const models = checked
      .filter(({ id }) => wanted.includes(id))
      .map((model) => ({ ...model, ...(trouble.has(model.id) ? { trouble: trouble.get(model.id)! } : {}) }));
    return { built, contexts, models: wanted.map((id) => models.find((model) => model.id === id)!) };
  }

  /** A part of another project: built as it is there, with the values that it is given here. */
  private async brought(
    id: Id,
    origin: Origin,
    { sections }: Part,
    scope: Scope,
    { before, upTo, ...options }: BuildOptions,
  ): Promise<Built & { readonly buildContext: BuildContext }> {
    void before;
    void upTo;
    const { built, contexts, models } = await this.construct(origin.design, designScope(origin, scope), {
      ...options,
      parts: [origin.part],
    });
    const buildContext = contexts.get(origin.part)!;
    return {
      buildContext,
      model: { ...models[0]!, id, sections: sectionsOf(sections, buildContext) },
      keys: [...built.values()].flatMap(({ keys }) => keys),
    };
  }

  /** Why a part, or of all that is placed any, is not as it is told: before it is written to a file that should be known. */
  async troubles(project: Project, part: Id | undefined): Promise<Issue[]> {
    const { model } = await this.builtWith(project, { parts: part === undefined ? placedParts(project) : [part] });
    const { assembled } = part === undefined ? await this.assemble(project) : { assembled: undefined };
    return [
      ...model.parts.flatMap(({ trouble }) => trouble ?? []),
      ...(assembled && assembled.conflict.length > 0 ? [issue('assembly.fights')] : []),
    ];
  }

  /** A part as it is built; undefined where there is none. */
  private async contextOf(project: Project, id: Id): Promise<BuildContext | undefined> {
    return (await this.builtWith(project, { parts: [id] })).contexts.get(id);
  }

  /** Bytes that the kernel has taken; they are given back only with the kernel itself. */
  memory = (): number => this.kernel.memory();

  /** The smallest gap between two things of a part's bodies; fails where one of them is not there any more. */
  async gap(project: Project, id: Id, between: readonly [BodyReference, BodyReference]): Promise<Result<Gap>> {
    const buildContext = await this.contextOf(project, id);
    if (!buildContext) return fail('part.unknown', { id });
    const places: PlaceOnBody[] = [];
    for (const reference of between) {
      const found = locate(reference, 'shape', buildContext);
      if (!found.ok) return found;
      const place = placeOnBody(found.value.thing, buildContext.handles);
      if (!place) return fail('reference.kind', { asked: ACCEPT_WORDS.shape });
      places.push(place);
    }
    return this.kernel.gap(places[0]!, places[1]!);
  }

  /**
   * Where the plane of a sketch crosses the parts that stand round its own, by their placements: in the rest pose, seen from
   * the first placement of the part. Only what can be referred to: repeats are left out, and other placements of the part.
   */
  async crossingsAround(project: Project, id: Id, sketch: Id): Promise<ReadonlyMap<string, readonly EdgeFacts[]>> {
    const { contexts, scope } = await this.builtWith(project, { parts: placedParts(project) });
    const { members, rest } = this.assembling.assembled(project, contexts, scope);
    const own = members.find(({ part }) => part === id);
    const plane = contexts.get(id)?.sketches.get(sketch)?.frame;
    if (!own || !plane) return new Map();
    const back = inverse(memberPose(own, rest));
    const others = members.filter((member) => member.part !== id && !isRepeat(member.id));
    return new Map(
      others.map((member) => {
        const pose = compose(memberPose(member, rest), back);
        return [member.id, crossingsThere({ world: contexts.get(member.part)!, pose }, plane)];
      }),
    );
  }

  /** The walls of a part's bodies, each with the key of its body. */
  async walls(
    project: Project,
    id: Id,
    options: Pick<BuildOptions, 'mesh' | 'upTo'>,
  ): Promise<readonly { readonly key: string; readonly walls: Walls }[]> {
    const { parts } = await this.build(project, { ...options, parts: [id] });
    return (parts[0]?.bodies ?? []).flatMap(({ key, mesh }) =>
      mesh ? [{ key, walls: this.queries.wallsOf(mesh) }] : [],
    );
  }

  /** A part as a file of another program; fails where it has no body. */
  async partFile(project: Project, id: Id, format: FileFormat): Promise<Result<Uint8Array>> {
    if (!project.parts[id]) return fail('part.unknown', { id });
    return this.exporting.part(project, id, (await this.contextOf(project, id))!.handles, format);
  }

  /** Everything that is placed as one file, where the design puts it; fails where there is nothing. */
  async assemblyFile(project: Project, format: FileFormat): Promise<Result<Uint8Array>> {
    const { contexts, scope } = await this.builtWith(project, { parts: placedParts(project) });
    const assembled = this.assembling.assembled(project, contexts, scope);
    return this.exporting.assembly(project, assembled, (part) => contexts.get(part)?.handles ?? [], format);
  }

  /** The outline of a sketch as a DXF or SVG file, construction left out; fails where nothing is drawn. */
  async outlineFile(project: Project, part: Id, sketch: Id, format: OutlineFormat): Promise<Result<Uint8Array>> {
    const { parts } = await this.build(project, { parts: [part] });
    return sketchOutline(project, part, sketch, parts[0]?.sketches.get(sketch), format);
  }

  /** A flat face of a part as it is cut out; fails where there is none, or the cut does not fit in. */
  async cutFile(
    project: Project,
    id: Id,
    options: FaceOutlineOptions,
    format: OutlineFormat,
  ): Promise<Result<Uint8Array>> {
    const buildContext = await this.contextOf(project, id);
    return buildContext
      ? faceOutline(project.parts[id]!.name, buildContext, options, format)
      : fail('part.unknown', { id });
  }

  /** A sheet as it is printed; fails where its part has no body, or a view of it can not be had. */
  async sheet(
    project: Project,
    id: Id,
    pause?: (done: number, of: number) => Promise<void>,
  ): Promise<Result<ComposedSheet>> {
    const sheet = project.sheets?.[id];
    if (!sheet) return fail('sheet.unknown', { id });
    const subject = await this.subjectOf(project, sheet.part);
    if (!subject) return fail('part.unknown', { id: sheet.part! });
    const troubles = await this.troubles(project, sheet.part);
    return this.drafting.drawn(project, id, { subject, troubles }, pause);
  }

  private async subjectOf(project: Project, part: Id | undefined): Promise<Subject | undefined> {
    if (part !== undefined) {
      const buildContext = await this.contextOf(project, part);
      return buildContext && partSubject(this.queries, part, project.parts[part]!, buildContext);
    }
    const { contexts, scope } = await this.builtWith(project, { parts: placedParts(project) });
    const assembled = this.assembling.assembled(project, contexts, scope);
    return assemblySubject(this.queries, project, assembled, (id) => contexts.get(id));
  }

  /** The dimensions that make sense for what is picked in a view of a sheet. */
  async fittingMarks(project: Project, sheet: Id, view: Id, picked: readonly Reference[]): Promise<FittingMark[]> {
    const record = project.sheets?.[sheet];
    const subject = record && (await this.subjectOf(project, record.part));
    return subject ? this.drafting.fitting(record, subject, view, picked) : [];
  }
}
