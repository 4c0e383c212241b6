import { facesOfName, isCalled, kinOfName } from '../naming/index.ts';
import { distance3, dot3, type RigidTransform } from '../math/index.ts';
import type { Topology } from '../kernel-port/index.ts';
import type { Id } from '../records/index.ts';
import { fail, ok, type Result } from '../result/index.ts';
import { isOfBody, type BodyReference, type OtherReference, type Fingerprint, type Reference } from './reference.ts';
import { fitting } from './rules.ts';
import { allOf, namedThing } from './of-bodies.ts';
import {
  axisOf,
  curvesOf,
  fingerprintOf,
  isOwn,
  ORIGIN_DATUMS,
  planeOf,
  pointOf,
  transformThing,
  type Datum,
  type DrawnThing,
  type Thing,
} from './things/index.ts';

/** What there is before a step: the bodies, the datums, what was drawn. */
export interface World {
  readonly bodies: readonly Topology[];
  datum(step: Id): Datum | undefined;
  drawn(step: Id, entity: Id): DrawnThing | undefined;
  /** Another part where it is placed, seen from this one; fails where it can't be. Absent where there is no other. */
  elsewhere?(at: string, from: string | undefined): Result<Elsewhere>;
}

/** Another part as it is built, and how its space lies in that of this one. */
export interface Elsewhere {
  readonly world: World;
  readonly pose: RigidTransform;
}

/** A reference that was found: by its name, or by its fingerprint where the name is gone. `now` is what it is called today. */
interface Match {
  readonly fate: 'exact' | 'recovered';
  readonly thing: Thing;
  readonly now: Reference;
}

/** What a step can ask for; each is a kind of geometry that several things have. */
export type Accepts =
  'plane' | 'sheet' | 'round' | 'axis' | 'point' | 'curve' | 'face' | 'edge' | 'edges' | 'body' | 'place' | 'shape';

const ACCEPTED: Readonly<Record<Accepts, (thing: Thing) => boolean>> = {
  plane: (thing) => planeOf(thing) !== undefined,
  round: (thing) => thing.to === 'face' && isOwn(thing) && thing.face.surface.form === 'cylinder',
  sheet: (thing) => (thing.to === 'face' && isOwn(thing)) || planeOf(thing) !== undefined,
  axis: (thing) => axisOf(thing) !== undefined,
  point: (thing) => pointOf(thing) !== undefined,
  curve: (thing) => curvesOf(thing).length > 0,
  face: (thing) => thing.to === 'face' && isOwn(thing),
  edge: (thing) => thing.to === 'edge' && isOwn(thing),
  edges: (thing) => (thing.to === 'edge' || thing.to === 'face') && isOwn(thing),
  body: (thing) => thing.to === 'body' && isOwn(thing),
  place: (thing) =>
    (thing.to === 'face' && isOwn(thing)) || planeOf(thing) !== undefined || pointOf(thing) !== undefined,
  shape: () => true,
};
/** What each is called where it is asked for. */
export const ACCEPT_WORDS: Readonly<Record<Accepts, string>> = {
  plane: 'a flat face or a datum plane',
  round: 'a round face',
  sheet: 'a face or a datum plane',
  axis: 'a straight edge, a round face or a datum axis',
  point: 'a corner, a centre or a point',
  curve: 'an edge or a drawn curve',
  face: 'a face',
  edge: 'an edge',
  edges: 'an edge, or a face for all of its edges',
  body: 'a body',
  place: 'a face, a datum plane or a point',
  shape: 'a face, an edge, a corner or a drawn curve',
};

/** Is a thing of a sort that is accepted? */
export const suits = (thing: Thing, accepts: Accepts): boolean => ACCEPTED[accepts](thing);

/**
 * Finds what a reference points to. Fails with reference.gone where neither its name nor its fingerprint is there any
 * more, with reference.kind where it is there but can't be what is asked (a face that is not flat any more).
 */
export function locate(reference: Reference, accepts: Accepts, world: World): Result<Match> {
  const match = FINDERS[reference.to](reference as never, world);
  if (!match.ok) return match;
  const { thing } = match.value;
  const all = thing.to === 'rule' ? thing.things : [thing];
  if (!all.every((one) => suits(one, accepts))) return fail('reference.kind', { asked: ACCEPT_WORDS[accepts] });
  const was = 'print' in reference ? reference.print : undefined;
  const carries = was?.along && (thing.to === 'face' || thing.to === 'edge') && fingerprintOf(thing)?.form === was.form;
  return carries ? ok({ ...match.value, thing: { ...thing, was: was.along } as Thing }) : match;
}

type Finder<T extends Reference['to']> = (reference: Extract<Reference, { to: T }>, world: World) => Result<Match>;

/** What is there by its name, or is not. */
const byName = (reference: Reference, thing: Thing | undefined): Result<Match> =>
  thing ? ok({ fate: 'exact', thing, now: reference }) : fail('reference.gone', { to: reference.to });

const datumThing = (datum: Datum | undefined): Thing | undefined => datum && { to: 'datum', datum };

const inBodies = (reference: BodyReference, { bodies }: World): Result<Match> => {
  for (const means of [isSame, isCalled])
    for (const [body, topology] of bodies.entries()) {
      const thing = namedThing(reference.to, (name) => means(reference.name, name), topology, body);
      if (thing) return byName(reference, thing);
    }
  const [best] = ranked(reference, bodies);
  if (!best?.sure) return fail('reference.gone', { to: reference.to });
  return ok({ fate: 'recovered', thing: best.item.thing, now: named(reference.to, best.item) });
};
const isSame = (wanted: string, now: string): boolean => wanted === now;

/** How each kind of reference is found. */
const FINDERS: { readonly [T in Reference['to']]: Finder<T> } = {
  face: inBodies,
  edge: inBodies,
  vertex: inBodies,
  body: inBodies,
  origin: (reference) => byName(reference, datumThing(ORIGIN_DATUMS[reference.name])),
  datum: (reference, world) => byName(reference, datumThing(world.datum(reference.step))),
  drawn: (reference, world) => byName(reference, world.drawn(reference.step, reference.entity)),
  rule: (reference, { bodies }) => {
    const things = fitting(reference, bodies);
    return things.length > 0
      ? byName(reference, { to: 'rule', things })
      : fail('reference.none', { gives: reference.gives });
  },
  other: (reference, world) => {
    const other = otherOf(reference, world);
    if (!other.ok) return other;
    const match = locate(reference.on, 'shape', other.value.world);
    if (!match.ok) return match;
    const { fate, thing, now } = match.value;
    const seen = transformThing(thing, other.value.pose);
    return ok({ fate, thing: seen, now: otherAs(reference, now as OtherReference['on'], seen) });
  },
};

const otherOf = ({ at, from }: OtherReference, world: World): Result<Elsewhere> =>
  world.elsewhere?.(at, from) ?? fail('reference.alone');

/** The reference to another thing of the same part, with how that looks from here. */
function otherAs({ print: _, ...reference }: OtherReference, on: OtherReference['on'], thing: Thing): OtherReference {
  const print = fingerprintOf(thing);
  return { ...reference, on, ...(print ? { print } : {}) };
}

/** Faces, edges and vertices in one form. */
interface Item {
  readonly name: string;
  readonly print: Fingerprint;
  readonly thing: Thing;
}

/**
 * Likely replacements for a reference that is gone, the likeliest first.
 * @param ground what bounds this face comes before all else: a sketch is drawn on it
 */
export function candidates(reference: Reference, accepts: Accepts, world: World, ground?: Reference): Reference[] {
  if (reference.to === 'other') {
    const other = otherOf(reference, world);
    if (!other.ok || !isOfBody(reference.on)) return [];
    return ranked(reference.on, other.value.world.bodies)
      .filter(isLikely)
      .map(({ item }) => ({ ...item, thing: transformThing(item.thing, other.value.pose) }))
      .filter(({ thing }) => suits(thing, accepts))
      .slice(0, MOST_OFFERED)
      .map((item) => otherAs(reference, named((reference.on as BodyReference).to, item), item.thing));
  }
  if (!isOfBody(reference)) return [];
  const bounds = ({ item }: Ranked) =>
    ground?.to === 'face' && facesOfName(item.name).some((face) => face === ground.name);
  const all = ranked(reference, world.bodies);
  return [...all.filter(bounds), ...all.filter((one) => isLikely(one) && !bounds(one))]
    .filter(({ item }) => suits(item.thing, accepts))
    .slice(0, MOST_OFFERED)
    .map(({ item }) => named(reference.to, item));
}
const MOST_OFFERED = 3;

const named = (to: BodyReference['to'], { name, print }: Item): BodyReference => ({ to, name, print });

interface Ranked {
  readonly item: Item;
  /** Of the same family, by its name. */
  readonly kin: boolean;
  readonly cost: number;
  /** Near enough to be taken for the same without asking. */
  readonly sure: boolean;
}

const isLikely = ({ kin, cost }: Ranked): boolean => kin || cost < FAR;

/**
 * What could be meant, by likeness, strangers last. The same but for the discriminator of a split is sure where it is the only one or the
 * nearest by far; anything else only where it lies in the same place with the same size.
 */
function ranked(reference: BodyReference, bodies: readonly Topology[]): Ranked[] {
  const wanted = kinOfName(reference.name);
  const { print } = reference;
  const scored = allOf(reference.to, bodies)
    .map(({ name, thing }): Item => ({ name, thing, print: fingerprintOf(thing)! }))
    .map((item) => ({ item, kin: kinOfName(item.name) === wanted, cost: print ? unlikeness(print, item.print) : 1 }))
    .filter(({ kin, cost }) => kin || cost < Infinity)
    .sort((a, b) => Number(b.kin) - Number(a.kin) || a.cost - b.cost);
  const family = scored.filter(({ kin }) => kin);
  return scored.map(({ item, kin, cost }, k) => ({
    ...{ item, kin, cost },
    sure: cost < SAME || (k === 0 && kin && (family.length === 1 || cost < family[1]!.cost * CLEARLY)),
  }));
}

/** Relative to the size of the thing: below this they are taken for the same, above that for strangers. */
const SAME = 1e-5;
const FAR = 1.5;
/** The nearest of several of one family is taken where it is this much nearer than the next. */
const CLEARLY = 0.2;

/** 0 for the same place, size and direction; 1 for as far off as the thing is large. Different forms are strangers. */
function unlikeness(a: Fingerprint, b: Fingerprint): number {
  if (a.form !== b.form) return Infinity;
  const reach = Math.max(Math.sqrt(a.form === 'point' ? 1 : Math.max(a.size, 1e-9)), 1e-3);
  const scale = a.form === 'point' ? 10 : AREAL.has(a.form) ? reach : Math.max(a.size, 1e-3);
  const turned = a.along && b.along ? 1 - Math.abs(dot3(a.along, b.along)) : 0;
  return distance3(a.at, b.at) / scale + Math.abs(a.size - b.size) / Math.max(a.size, b.size, 1e-9) + 2 * turned;
}
const AREAL = new Set(['plane', 'cylinder', 'cone', 'sphere', 'surface']);
