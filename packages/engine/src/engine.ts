import {
  ACCEPT_WORDS,
  boxRound,
  buildOrder,
  designScope,
  fail,
  followedBy,
  locate,
  ok,
  placedParts,
  stepKind,
  undone,
  valueScope,
  withoutNumber,
  type BodyHandle,
  type BodyReference,
  type Box3,
  type ComposedSheet,
  type EdgeFacts,
  type FittingMark,
  type Fineness,
  type Gap,
  type Id,
  type Issue,
  type Kernel,
  type LaidFile,
  type Movement,
  type Origin,
  type Part,
  type PlaceOnBody,
  type Project,
  type Reference,
  type Result,
  type Scope,
} from '@helb/core';
import { emptyAssembly, memberPose, type Assembled } from '@helb/core/assembly';
import { Assembling, type AssembledModel } from './assembled.ts';
import { BodyCache } from './body-cache.ts';
import { Overtaken, type BuildOptions, type InterferenceOptions } from './build-options.ts';
import { Drafting } from './drafting.ts';
import { Exporting, type FileFormat } from './exporting.ts';
import { encounters, pressing, type Encounter, type PlacedBody } from './interference.ts';
import { valuesOf, type Model, type PartModel, type StepResult } from './model.ts';
import { Neighbours } from './neighbours.ts';
import { faceOutline, sketchOutline, type FaceOutlineOptions, type OutlineFormat } from './outlines.ts';
import { crossingsThere, placeOnBody, Site } from './site.ts';
import { SketchCache } from './sketch-cache.ts';
import { NO_FILES, ProjectFiles, type FileSource, type LaidMesh } from './project-files.ts';
import { partSubject, wholeSubject, type Subject } from './subject.ts';
import { Survey } from './survey.ts';
import type { Walls } from './walls.ts';

/** Enough to tell which bodies may meet: the exact ones tell whether they do. */
const COARSE: Fineness = { deflection: 0.2, angle: 0.5 };

interface Built {
  readonly model: PartModel;
  /** Of all that is kept in the cache for it. */
  readonly keys: readonly string[];
}

interface Constructed {
  readonly built: ReadonlyMap<Id, Built>;
  readonly sites: ReadonlyMap<Id, Site>;
  readonly models: readonly PartModel[];
}

const withoutKnown = ({ mesh, ...rest }: Required<LaidMesh>, known?: ReadonlySet<string>): LaidMesh =>
  known?.has(rest.key) ? rest : { ...rest, mesh };

const sectionsOf = (sections: Part['sections'], site: Site): PartModel['sections'] =>
  new Map(Object.entries(sections ?? {}).map(([id, record]) => [id, site.section(record)]));

/** Of parts that are built for others nothing is shown. */
const forOthers = ({ signal, progress, pause }: BuildOptions): BuildOptions => ({
  ...(signal ? { signal } : {}),
  ...(progress ? { progress } : {}),
  ...(pause ? { pause } : {}),
});

/**
 * Rebuilds documents into models. Pull-based: a step is looked up by its resolved inputs and the bodies before it, and
 * computed only if these are new. A step that fails leaves the bodies as they were; later steps go on from these.
 */
export class Engine {
  private readonly sketches = new SketchCache();
  private readonly survey: Survey;
  private readonly assembling = new Assembling();
  private readonly drafting: Drafting;
  private readonly exporting: Exporting;
  private readonly cache: BodyCache;
  private readonly files: ProjectFiles;

  /** @param files where the files of projects come from; without it a step that needs one fails */
  constructor(
    private readonly kernel: Kernel,
    { cache = new BodyCache(kernel), files = NO_FILES }: { cache?: BodyCache; files?: FileSource } = {},
  ) {
    this.survey = new Survey(kernel);
    this.drafting = new Drafting(kernel, this.survey);
    this.exporting = new Exporting(kernel, this.survey);
    this.cache = cache;
    this.files = new ProjectFiles(files, kernel);
  }

  async build(project: Project, options: BuildOptions = {}): Promise<Model> {
    return (await this.builtWith(project, options)).model;
  }

  /** The parts that are placed, brought together as the design puts them. */
  async assemble(project: Project, options: BuildOptions = {}): Promise<AssembledModel> {
    const placed = placedParts(project);
    const { model, sites, scope } = await this.builtWith(project, { parts: placed, ...options });
    return { model, assembled: this.assembling.whole(project, sites, scope) };
  }

  /** The box round everything that is placed, in poses of the mechanism or at rest; undefined where nothing is. */
  async extents(project: Project, poses?: readonly Movement[]): Promise<Box3 | undefined> {
    const { sites, scope } = await this.builtWith(project, { parts: placedParts(project) });
    const { members, rest } = this.assembling.whole(project, sites, scope);
    const pose = { poses: poses ?? rest.poses };
    return boxRound(
      members.flatMap((member) =>
        (sites.get(member.part)?.handles ?? []).map((body) => this.survey.box(body, memberPose(member, pose))),
      ),
    );
  }

  /** Every two placements that overlap in a pose, or come nearer than so many mm. */
  async interference(
    project: Project,
    { poses, within = 0, mesh = COARSE, pause }: InterferenceOptions = {},
  ): Promise<{ readonly assembled: Assembled; readonly encounters: readonly Encounter[] }> {
    const { sites, scope } = await this.builtWith(project, { parts: placedParts(project) });
    const assembled = this.assembling.whole(project, sites, scope);
    const pose = { poses: poses ?? assembled.rest.poses };
    const bodies = assembled.members.flatMap((member) =>
      (sites.get(member.part)?.handles ?? []).map((body): PlacedBody => {
        const { measures, mesh: skin } = this.survey.describe(body, { mesh });
        const { id, part } = member;
        const { deflection } = mesh;
        return {
          member: id,
          part,
          body,
          measures,
          skin: this.survey.treeOf(skin!),
          deflection,
          pose: memberPose(member, pose),
        };
      }),
    );
    const isPressed = pressing(project.assembly ?? emptyAssembly());
    return { assembled, encounters: await encounters(this.kernel, bodies, within, isPressed, pause) };
  }

  private async builtWith(project: Project, options: BuildOptions) {
    const scope = valueScope(Object.values(project.values), project.unit);
    const { built, sites, models } = await this.construct(project, scope, options);
    const inUse = new Set([...built.values()].flatMap(({ keys }) => keys));
    for (const body of this.cache.trim(inUse)) this.survey.forget(body);
    return { model: { parts: models, values: valuesOf(project, scope) }, sites, scope };
  }

  /** Builds parts of a project, or of one that a part was brought from; `models` are those that were wanted. */
  private async construct(project: Project, scope: Scope, options: BuildOptions): Promise<Constructed> {
    const wanted = (options.parts ?? project.partOrder).filter((id) => project.parts[id] !== undefined);
    const built = new Map<Id, Built>();
    const sites = new Map<Id, Site>();
    const neighbours = new Neighbours(project, scope, sites, this.assembling);
    for (const id of buildOrder(project, wanted)) {
      const part = project.parts[id]!;
      const own = wanted.includes(id) ? options : forOthers(options);
      if (part.from) {
        const brought = await this.brought(id, part.from, part, scope, own);
        sites.set(id, brought.site);
        built.set(id, brought);
        continue;
      }
      const site = new Site(part, scope, this.survey, {
        seen: (step, at, from) => neighbours.seen(id, step, at, from),
        bodiesOf(other) {
          const { handles = [] } = sites.get(other) ?? {};
          return handles.length > 0 ? ok(handles) : fail('part.empty', { name: project.parts[other]?.name ?? other });
        },
      });
      sites.set(id, site);
      built.set(id, await this.buildPart(id, part, scope, site, own));
    }
    const models = wanted.map((id) => built.get(id)!.model);
    // as long as a part is not built to its end nobody knows where it stands
    return { built, sites, models: options.upTo === undefined ? neighbours.checked(models) : models };
  }

  /** A part of another project: built as it is there, with the values that it is given here. */
  private async brought(
    id: Id,
    origin: Origin,
    { sections }: Part,
    scope: Scope,
    { before, upTo, ...options }: BuildOptions,
  ): Promise<Built & { readonly site: Site }> {
    void before;
    void upTo;
    const { built, sites, models } = await this.construct(origin.design, designScope(origin, scope), {
      ...options,
      parts: [origin.part],
    });
    const site = sites.get(origin.part)!;
    return {
      site,
      model: { ...models[0]!, id, sections: sectionsOf(sections, site) },
      keys: [...built.values()].flatMap(({ keys }) => keys),
    };
  }

  /** A part as it is built; undefined where there is none. */
  private async siteOf(project: Project, id: Id): Promise<Site | undefined> {
    return (await this.builtWith(project, { parts: [id] })).sites.get(id);
  }

  /** Bytes that the kernel has taken; they are given back only with the kernel itself. */
  memory = (): number => this.kernel.memory();

  /** The smallest gap between two things of a part's bodies; fails where one of them is not there any more. */
  async gap(project: Project, id: Id, between: readonly [BodyReference, BodyReference]): Promise<Result<Gap>> {
    const site = await this.siteOf(project, id);
    if (!site) return fail('part.unknown', { id });
    const places: PlaceOnBody[] = [];
    for (const reference of between) {
      const found = locate(reference, 'shape', site);
      if (!found.ok) return found;
      const place = placeOnBody(found.value.thing, site.handles);
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
    const { sites, scope } = await this.builtWith(project, { parts: placedParts(project) });
    const { members, rest } = this.assembling.whole(project, sites, scope);
    const own = members.find(({ part }) => part === id);
    const plane = sites.get(id)?.sketches.get(sketch)?.frame;
    if (!own || !plane) return new Map();
    const back = undone(memberPose(own, rest));
    const others = members.filter((member) => member.part !== id && !member.id.includes(':'));
    return new Map(
      others.map((member) => {
        const pose = followedBy(memberPose(member, rest), back);
        return [member.id, crossingsThere({ world: sites.get(member.part)!, pose }, plane)];
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
      mesh ? [{ key, walls: this.survey.wallsOf(mesh) }] : [],
    );
  }

  /** A part as a file of another program; fails where it has no body. */
  async partFile(project: Project, id: Id, format: FileFormat): Promise<Result<Uint8Array>> {
    if (!project.parts[id]) return fail('part.unknown', { id });
    return this.exporting.part(project, id, (await this.siteOf(project, id))!.handles, format);
  }

  /** Everything that is placed as one file, where the design puts it; fails where there is nothing. */
  async wholeFile(project: Project, format: FileFormat): Promise<Result<Uint8Array>> {
    const { sites, scope } = await this.builtWith(project, { parts: placedParts(project) });
    const assembled = this.assembling.whole(project, sites, scope);
    return this.exporting.whole(project, assembled, (part) => sites.get(part)?.handles ?? [], format);
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
    const site = await this.siteOf(project, id);
    return site ? faceOutline(project.parts[id]!.name, site, options, format) : fail('part.unknown', { id });
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
    return subject ? this.drafting.drawn(project, id, subject, pause) : fail('part.unknown', { id: sheet.part! });
  }

  private async subjectOf(project: Project, part: Id | undefined): Promise<Subject | undefined> {
    if (part !== undefined) {
      const site = await this.siteOf(project, part);
      return site && partSubject(this.survey, part, project.parts[part]!, site);
    }
    const { sites, scope } = await this.builtWith(project, { parts: placedParts(project) });
    const assembled = this.assembling.whole(project, sites, scope);
    return wholeSubject(this.survey, project, assembled, (id) => sites.get(id));
  }

  /** The dimensions that make sense for what is picked in a view of a sheet. */
  async fittingMarks(project: Project, sheet: Id, view: Id, picked: readonly Reference[]): Promise<FittingMark[]> {
    const record = project.sheets?.[sheet];
    const subject = record && (await this.subjectOf(project, record.part));
    return subject ? this.drafting.fitting(record, subject, view, picked) : [];
  }

  private async laid(step: Id, file: Result<LaidFile>, { pause, signal }: BuildOptions) {
    await pause?.();
    const laid = file.ok ? await this.files.lay(step, file.value) : file;
    if (signal?.aborted) throw new Overtaken();
    return laid;
  }

  private async buildPart(id: Id, part: Part, scope: Scope, site: Site, options: BuildOptions): Promise<Built> {
    const steps: StepResult[] = [];
    const keys: string[] = [];
    let state: { readonly id: number; readonly bodies: readonly BodyHandle[] } = { id: 0, bodies: [] };
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
      site.bodies = state.bodies;
      const context = site.contextFor(stepId);
      const kind = stepKind(step.kind);
      const references = site.unsure(step);
      const add = (issue?: Issue) =>
        steps.push({
          id: stepId,
          ...(issue ? { state: 'failed', issue } : { state: 'built' }),
          ...(references.length > 0 ? { references } : {}),
        });
      if (kind.draw) {
        const solved = this.sketches.solved(step, scope, kind.sources!(step, context));
        site.sketches.set(stepId, solved);
        add(solved.issue);
        continue;
      }
      if (kind.datum) {
        const datum = kind.datum(step, context);
        if (datum.ok) site.datums.set(stepId, datum.value);
        add(datum.ok ? undefined : datum.issue);
        continue;
      }
      if (kind.lay) {
        const laid = await this.laid(stepId, kind.lay(step, context), options);
        if (laid.ok) site.meshes.push(laid.value);
        add(laid.ok ? undefined : laid.issue);
        continue;
      }
      const inputs = kind.resolve!(step, context);
      if (!inputs.ok) {
        add(inputs.issue);
        continue;
      }
      const on = (kind.touches?.(inputs.value) ?? []).map((k) => withoutNumber(this.kernel.bodyName(state.bodies[k]!)));
      const key = `${state.id} ${step.kind} ${JSON.stringify(inputs.value)}`;
      let entry = this.cache.get(key);
      if (!entry) {
        options.progress?.(at, part.stepOrder.length, step.name);
        await options.pause?.();
        const missing = await this.files.fetch(kind.files?.(step) ?? []);
        if (options.signal?.aborted) throw new Overtaken();
        if (missing) {
          add(missing);
          continue;
        }
        const bodies = kind.build!(inputs.value, state.bodies, this.kernel);
        if (!bodies.ok) {
          add(bodies.issue);
          continue;
        }
        entry = this.cache.put(key, bodies.value);
      }
      state = entry;
      site.sources.set(stepId, { kind: step.kind, inputs: inputs.value, on });
      kind.signs?.(inputs.value).forEach((sign) => site.signs.push({ ...sign, step: stepId }));
      keys.push(key);
      add();
    }
    const bodies = state.bodies.map((body) => this.survey.describe(body, options));
    const earlier = (before ?? []).map((body) => this.survey.describe(body, options));
    site.bodies = state.bodies;
    const sections = sectionsOf(part.sections, site);
    const { sketches, datums, signs } = site;
    const planeOf = (sketch: Id | undefined) => (sketch === undefined ? undefined : sketches.get(sketch)?.frame);
    const plane = planeOf(options.before);
    const over = planeOf(options.sketch);
    const crossings = plane && before ? before.flatMap((body) => this.survey.crossing(body, plane)) : [];
    const underlay = over ? site.meshes.flatMap((laid) => this.files.crossed(laid, over)) : [];
    const meshes = site.meshes.map((laid) => withoutKnown(laid, options.known));
    return {
      model: { id, steps, sketches, datums, sections, signs, bodies, earlier, crossings, meshes, underlay },
      keys,
    };
  }
}
