import { z } from 'zod';
import { idSchema, type Id } from '../../records/index.ts';
import { issue, type Issue, type Words } from '../../result/index.ts';
import {
  ORIGIN_PLANES,
  frameOfPrint,
  planeOf,
  referenceSchema,
  sameReference,
  type Borrowing,
  type Reference,
} from '../../references/index.ts';
import { dot2, sub2 } from '../../math/index.ts';
import { entityKind, Geometry, type Entities, type Entity, type NewId } from '../../sketch/index.ts';
import type { ReferencePlace, ResolveContext, SketchSources } from '../kind.ts';
import type { SketchStep } from './index.ts';

/**
 * Something borrowed: what it comes from, how it is seen on the sketch plane, and which entity of the sketch is which part
 * of it. The keys last as long as their source: names of edges and corners.
 */
export const projectedReferenceSchema = z.strictObject({
  source: referenceSchema,
  how: z.enum(['shape', 'axis', 'crossing']),
  makes: z
    .record(z.string().min(1).max(5000), idSchema)
    .refine((makes) => Object.keys(makes).length <= 500, 'one source gives at most 500 entities'),
});
export type ProjectedReference = z.infer<typeof projectedReferenceSchema>;

export const planeSchema = z.union([z.enum(['front', 'top', 'right']), referenceSchema]);
export type SketchPlane = z.infer<typeof planeSchema>;

/** The plane of a sketch as a reference. */
export const planeReference = (plane: SketchPlane): Reference =>
  typeof plane === 'string' ? { to: 'origin', name: plane } : plane;

/** The frame of an origin plane, or of any other where it was when it was chosen. */
function lastFrame(plane: SketchPlane): SketchSources['frame'] {
  return typeof plane === 'string' ? ORIGIN_PLANES[plane] : (frameOfPrint(plane) ?? ORIGIN_PLANES.top);
}

/** Sources of a sketch as long as nobody has looked: the plane where it was, everything borrowed where it was drawn. */
export function drawnSources(step: SketchStep): SketchSources {
  const held = Object.values(step.loans ?? {}).flatMap(({ makes }) => Object.values(makes));
  return {
    frame: lastFrame(step.plane),
    borrowed: Object.fromEntries(held.flatMap((id) => (step.entities[id] ? [[id, step.entities[id]]] : []))),
    lost: {},
    more: {},
    now: {},
  };
}

/** Finds the plane and everything that is borrowed; what can't be found stays where it was drawn and is told. */
export function sourcesOf(step: SketchStep, context: ResolveContext): SketchSources {
  const drawn = drawnSources(step);
  const lost: Record<string, Issue> = {};
  const more: Record<string, number> = {};
  const now: Record<string, Entities> = {};
  const plane = context.find(planeReference(step.plane), 'plane');
  const frame = plane.ok ? planeOf(plane.value)! : drawn.frame;
  if (!plane.ok) lost['plane'] = plane.issue;
  const borrowed: Record<Id, Entity> = { ...drawn.borrowed };
  for (const [id, loan] of Object.entries(step.loans ?? {})) {
    const found = context.find(loan.source, 'shape');
    const seen = found.ok ? context.project(found.value, loan.how, frame, loan.source) : found;
    if (!seen.ok) {
      lost[id] = seen.issue;
      continue;
    }
    const taken = onto(seen.value, loan, step.entities, keysTaken(step.loans, loan.source, loan.how));
    Object.assign(borrowed, taken.entities);
    if (taken.lost) lost[id] = taken.lost;
    if (taken.more > 0) more[id] = taken.more;
    if (taken.more > 0 || taken.lost) now[id] = seen.value;
  }
  return { frame, borrowed, lost, more, now };
}

/** The keys that are borrowed of one source, be it in several projected references. */
const keysTaken = (loans: SketchStep['loans'], source: Reference, how: Borrowing): ReadonlySet<string> =>
  new Set(
    Object.values(loans ?? {})
      .filter((loan) => loan.how === how && sameReference(loan.source, source))
      .flatMap(({ makes }) => Object.keys(makes)),
  );

/** What of a source is not borrowed yet: its curves with the points that they stand on; nothing if all of it is. */
export function notYetBorrowed(seen: Entities, step: SketchStep, source: Reference, how: Borrowing): Entities {
  const known = keysTaken(step.loans, source, how);
  if (known.size === 0) return seen;
  const curves = Object.entries(seen).filter(([key, { kind }]) => kind !== 'point' && !known.has(key));
  const points = curves.flatMap(([, entity]) =>
    entityKind(entity.kind)
      .uses(entity)
      .map((key) => [key, seen[key]!] as const),
  );
  return Object.fromEntries([...points, ...curves]);
}

/** What is seen, as the entities that were made of it. */
function onto(seen: Entities, loan: ProjectedReference, drawn: Entities, known: ReadonlySet<string>) {
  const entities: Record<Id, Entity> = {};
  const makes = withCornersNow(seen, withCurveNow(seen, loan.makes, drawn), drawn);
  let [gone, changed] = [0, 0];
  for (const [key, id] of Object.entries(makes)) {
    const entity = seen[key];
    if (!entity) gone++;
    else if (entity.kind !== drawn[id]?.kind || !standsOn(entity, makes)) changed++;
    else entities[id] = entityKind(entity.kind).onto(entity, (point) => makes[point]!);
  }
  const curves = Object.entries(seen).filter(([key, { kind }]) => kind !== 'point' && !known.has(key));
  const facts = { gone, changed, of: Object.keys(makes).length };
  return { entities, more: curves.length, ...(gone + changed > 0 ? { lost: issue('borrow.lost', facts) } : {}) };
}

/** What is borrowed, where it is one curve of one: that is the same one, whatever it is called now. */
function withCurveNow(
  seen: Entities,
  makes: ProjectedReference['makes'],
  drawn: Entities,
): ProjectedReference['makes'] {
  const [now, ...others] = Object.keys(seen).filter((key) => seen[key]!.kind !== 'point');
  const [was, ...rest] = Object.keys(makes).filter((key) => drawn[makes[key]!] && drawn[makes[key]!]!.kind !== 'point');
  if (now === undefined || was === undefined || now === was || others.length + rest.length > 0) return makes;
  return Object.fromEntries(Object.entries(makes).map(([key, id]) => [key === was ? now : key, id]));
}

/**
 * What is borrowed, by the names that its corners have now: a curve that is there goes on standing on its ends, whatever
 * they came to be called. Where one corner became two, neither is it.
 */
function withCornersNow(
  seen: Entities,
  makes: ProjectedReference['makes'],
  drawn: Entities,
): ProjectedReference['makes'] {
  const keyOf = new Map(Object.entries(makes).map(([key, id]) => [id, key]));
  const stands = new Map<string, Set<string>>();
  for (const [key, id] of Object.entries(makes)) {
    const [entity, before] = [seen[key], drawn[id]];
    if (!entity || entity.kind !== before?.kind) continue;
    const now = entityKind(entity.kind).uses(entity);
    const then = entityKind(before.kind)
      .uses(before)
      .map((point) => keyOf.get(point));
    const isTurned = now.length === 2 && runsBack(seen, now, drawn, entityKind(before.kind).uses(before), then);
    now.forEach((name, k) => {
      const old = then[isTurned ? 1 - k : k];
      if (old === undefined) return;
      stands.set(old, (stands.get(old) ?? new Set()).add(name));
    });
  }
  const nameNow = (key: string): string => {
    const [name, ...others] = stands.get(key) ?? [];
    const isOnlyIts = [...stands].every(([other, names]) => other === key || !names.has(name!));
    return name !== undefined && others.length === 0 && isOnlyIts && !seen[key] ? name : key;
  };
  return Object.fromEntries(Object.entries(makes).map(([key, id]) => [nameNow(key), id]));
}

/** Does a line run the other way now? An end that kept its name tells it, else the direction in which it was drawn. */
function runsBack(
  seen: Entities,
  now: readonly string[],
  drawn: Entities,
  ids: readonly Id[],
  then: readonly (string | undefined)[],
): boolean {
  if (now.some((name, k) => name === then[k])) return false;
  if (now[0] === then[1] || now[1] === then[0]) return true;
  const along = (entities: Entities, [a, b]: readonly string[]) => {
    const geometry = new Geometry(entities);
    return sub2(geometry.point(b!), geometry.point(a!));
  };
  return dot2(along(seen, now), along(drawn, ids)) < 0;
}

const standsOn = (entity: Entity, makes: ProjectedReference['makes']): boolean =>
  entityKind(entity.kind)
    .uses(entity)
    .every((key) => Object.hasOwn(makes, key));

/** Entities for what is seen, and the projected reference of them. Corners that were borrowed before are used again. */
export function borrowingOf(
  seen: Entities,
  source: Reference,
  how: Borrowing,
  options: {
    readonly loans: Readonly<Record<Id, ProjectedReference>>;
    readonly construction: boolean;
    readonly newId: NewId;
  },
): { readonly entities: Record<Id, Entity>; readonly loan: ProjectedReference } {
  // corners are named within their own part
  const beside = Object.values(options.loans).filter((loan) => placeOf(loan.source) === placeOf(source));
  const before = new Map(beside.flatMap(({ makes: made }) => Object.entries(made)));
  const entities: Record<Id, Entity> = {};
  const makes: Record<string, Id> = {};
  for (const [key, entity] of Object.entries(seen)) {
    const known = entity.kind === 'point' && CORNER.test(key) ? before.get(key) : undefined;
    makes[key] = known ?? options.newId('b');
  }
  for (const [key, entity] of Object.entries(seen)) {
    if (before.get(key) === makes[key]) continue;
    const made = entityKind(entity.kind).onto(entity, (point) => makes[point]!);
    entities[makes[key]!] = made.kind === 'point' || !options.construction ? made : { ...made, construction: true };
  }
  return { entities, loan: { source, how, makes } };
}
const placeOf = (source: Reference): string => (source.to === 'other' ? `${source.at} ${source.from ?? ''}` : '');

/** Keys of corners of bodies; other keys mean something only beside their own source. */
const CORNER = /^corner /;

/** A projected reference without what is gone; undefined if nothing of it is left. */
export function projectedReferenceWithout(
  loan: ProjectedReference,
  gone: ReadonlySet<Id>,
): ProjectedReference | undefined {
  const left = Object.entries(loan.makes).filter(([, id]) => !gone.has(id));
  return left.length === 0 ? undefined : { ...loan, makes: Object.fromEntries(left) };
}

/** All references of a sketch: its plane, and what it borrows from. */
export const projectedReferencePlaces = (step: SketchStep): ReferencePlace[] => [
  ...(typeof step.plane === 'string'
    ? []
    : [{ path: ['plane'], reference: step.plane, accepts: 'plane' as const, label: 'plane of the sketch' }]),
  ...Object.entries(step.loans ?? {}).map(([id, { source }]): ReferencePlace => ({
    path: ['loans', id, 'source'],
    reference: source,
    accepts: 'shape',
    label: 'borrowed',
  })),
];

/** The first trouble with what a sketch comes from. */
export const sourceTrouble = ({ lost }: SketchSources): Issue | undefined => lost['plane'] ?? Object.values(lost)[0];

/** Is this entity held by what it was borrowed from? */
export const isBorrowed = (step: SketchStep, id: Id): boolean =>
  Object.values(step.loans ?? {}).some(({ makes }) => Object.values(makes).includes(id));

export const projectedReferenceWords: Words = {
  'borrow.nothing': (f) =>
    f['how'] === 'axis'
      ? 'This has no axis to borrow: choose something round.'
      : f['how'] === 'crossing'
        ? 'The sketch plane does not cross this face any more.'
        : 'Nothing of this is seen on the sketch plane.',
  'borrow.lost': (f) => {
    const count = Number(f['gone']) + Number(f['changed']);
    return `${count} of ${f['of']} borrowed ${f['of'] === 1 ? 'thing is' : 'things are'} ${f['gone'] === 0 ? 'of another kind now' : 'gone'}; ${count === 1 ? 'it stays' : 'they stay'} where ${count === 1 ? 'it was' : 'they were'} last.`;
  },
  'borrow.again': () => 'This is borrowed already.',
  'borrow.held': () => 'This is borrowed and follows its source: let it go first, or draw over it.',
};
