import {
  add3,
  boxCorners,
  candidates,
  distance3,
  drawnThing,
  evaluate,
  fail,
  LENGTH,
  lastSeenWords,
  locate,
  transformEdge,
  transformFrame,
  ok,
  planeOf,
  planeReference,
  projected,
  scale3,
  stepKind,
  inverse,
  type BodyHandle,
  type Datum,
  type EdgeFacts,
  type Elsewhere,
  type Frame,
  type Id,
  type Part,
  type PlaceOnBody,
  type Reference,
  type ResolveContext,
  type Result,
  type Scope,
  type Section,
  type Sign,
  type SolvedSketch,
  type Source,
  type Step,
  type Thing,
  type Topology,
  nameOfThing,
} from '@helb/core';
import type { BuiltWorld } from './assembled.ts';
import type { UnsureReference } from './model.ts';
import type { LaidMesh } from './project-files.ts';
import type { BodyQueries } from './body-queries.ts';

/** Another part as it is built, with what planes cross of it. */
export interface Seen extends Elsewhere {
  readonly world: BuiltWorld;
}

/** What a part takes from others. */
interface Outside {
  /** What a step of it sees at a placement. */
  seen(step: Id, at: string, from: string | undefined): Result<Seen>;
  bodiesOf(part: Id): Result<readonly BodyHandle[]>;
}

/** Where a plane crosses another part, seen from this one. */
export const crossingsThere = ({ world, pose }: Seen, plane: Frame): EdgeFacts[] =>
  world.crossings(transformFrame(plane, inverse(pose))).map((edge) => transformEdge(edge, pose));

/** A part while it is being built: the bodies, sketches and datums that there are before the next step. */
export class BuildContext implements BuiltWorld {
  readonly sketches = new Map<Id, SolvedSketch>();
  readonly datums = new Map<Id, Datum>();
  /** Threads and the like, by the step that makes them. */
  readonly signs: (Sign & { readonly step: Id })[] = [];
  /** Triangles that are laid under it. */
  readonly meshes: Required<LaidMesh>[] = [];
  /** Steps that make bodies, as they were resolved. */
  readonly sources = new Map<Id, Source>();
  private solids: readonly BodyHandle[] = [];
  private topologies: readonly Topology[] | undefined;
  /** The step that is looked at now; none when all are built. */
  private step: Id = '';

  constructor(
    private readonly part: Part,
    private readonly scope: Scope,
    private readonly queries: BodyQueries,
    private readonly outside: Outside,
  ) {}

  set bodies(handles: readonly BodyHandle[]) {
    if (handles !== this.solids) this.topologies = undefined;
    this.solids = handles;
  }

  get handles(): readonly BodyHandle[] {
    return this.solids;
  }

  /** Told only when a step refers to something of them. */
  get bodies(): readonly Topology[] {
    return (this.topologies ??= this.solids.map((body) => this.queries.topology(body)));
  }

  get size(): number {
    const boxes = this.solids.map((body) => this.queries.describe(body, {}).measures.box_mm);
    const corners = boxes.flatMap(boxCorners);
    return corners.reduce((most, corner) => Math.max(most, distance3(corner, corners[0]!)), 0);
  }

  elsewhere = (at: string, from: string | undefined): Result<Seen> => this.outside.seen(this.step, at, from);

  datum = (step: Id): Datum | undefined => this.datums.get(step);

  drawn(step: Id, entity: Id) {
    const sketch = this.sketches.get(step);
    return sketch && drawnThing(sketch.frame, sketch.solution.geometry, entity);
  }

  contextFor(step: Id): ResolveContext {
    this.step = step;
    return {
      step,
      scope: this.scope,
      sketch: (wanted) => this.sketchOf(wanted),
      find: (reference, accepts) => {
        const match = locate(reference, accepts, this);
        if (match.ok) return ok(match.value.thing);
        const { code, facts } = match.issue;
        return code === 'reference.gone' ? fail(code, { ...facts, what: this.lastSeen(reference) }) : match;
      },
      source: (wanted) => this.known(wanted, this.sources),
      bodiesOf: (part) => this.outside.bodiesOf(part),
      project: (thing, how, frame, source) => projected(thing, how, frame, () => this.crossingsOf(source, frame)),
    };
  }

  /** What a reference pointed to, with its first letter large. */
  private lastSeen(reference: Reference): string {
    const nameOf = (step: string, at?: string) =>
      at === undefined ? (this.part.steps[step]?.name ?? 'a step that is gone') : 'another part';
    const words = lastSeenWords(reference, nameOf);
    return words.charAt(0).toUpperCase() + words.slice(1);
  }

  /** The references of a step that are not found by their names. */
  unsure(step: Step): UnsureReference[] {
    const ground = step.kind === 'sketch' ? planeReference(step.plane) : undefined;
    return (stepKind(step.kind).references?.(step) ?? []).flatMap((place): UnsureReference[] => {
      const match = locate(place.reference, place.accepts, this);
      const { path, label, reference } = place;
      if (!match.ok)
        return [{ path, label, reference, fate: 'gone', offers: candidates(reference, place.accepts, this, ground) }];
      const { fate, now } = match.value;
      return fate === 'exact' ? [] : [{ path, label, reference, fate, offers: [now] }];
    });
  }

  /** The plane of a section with all that the part has in the end; its z looks towards what is left out. */
  section({ plane, offset, turned }: Section): Result<Frame> {
    this.step = '';
    const match = locate(plane, 'plane', this);
    if (!match.ok) return match;
    const by = evaluate(offset, LENGTH, this.scope);
    if (!by.ok) return by;
    const frame = planeOf(match.value.thing)!;
    const origin = add3(frame.origin, scale3(frame.z, by.value));
    const { x, z } = frame;
    return ok({ ...frame, origin, ...(turned && { x: scale3(x, -1), z: scale3(z, -1) }) });
  }

  crossings(plane: Frame): EdgeFacts[] {
    return this.solids.flatMap((body) => this.queries.crossing(body, plane));
  }

  /** Where a plane crosses the bodies of the part that something is of. */
  private crossingsOf(source: Reference, plane: Frame): EdgeFacts[] {
    if (source.to !== 'other') return this.crossings(plane);
    const seen = this.elsewhere(source.at, source.from);
    return seen.ok ? crossingsThere(seen.value, plane) : [];
  }

  /** The solved sketch of an earlier step, or why there is none. */
  private sketchOf(wanted: Id): Result<SolvedSketch> {
    const found = this.known(wanted, this.sketches);
    if (!found.ok || !found.value.sources.lost['plane']) return found;
    return fail('engine.before', { step: this.part.steps[wanted]?.name ?? wanted });
  }

  private known<T>(wanted: Id, made: ReadonlyMap<Id, T>): Result<T> {
    const found = made.get(wanted);
    const step = this.part.steps[wanted];
    if (found) return ok(found);
    return fail(step?.suppressed ? 'engine.suppressed' : 'engine.before', { step: step?.name ?? wanted });
  }
}

/** Something of the bodies of a part, as the kernel calls it; undefined where it is none of them. */
export function placeOnBody(thing: Thing, bodies: readonly BodyHandle[]): PlaceOnBody | undefined {
  if (!('body' in thing) || thing.to === 'body') return undefined;
  return { body: bodies[thing.body]!, to: thing.to, name: nameOfThing(thing) };
}
