import type { EdgeFacts, Topology } from '../kernel-port/index.ts';
import {
  distance3,
  dot3,
  transformPoint,
  transformDirection,
  inverse,
  type RigidTransform,
  type Vec3,
} from '../math/index.ts';
import { type SpaceCurve, endsOfCurve } from '../geometry/index.ts';
import { curvesOf, isOnCurve, rimsOf, type Thing } from '../references/index.ts';
import type { EdgeOfBody } from './kind.ts';

/** Chosen edges by body: an edge itself, or all edges of a face. Each once. */
export function edgesByBody(things: readonly Thing[]): { readonly body: number; readonly edges: readonly string[] }[] {
  const found = new Map<number, Set<string>>();
  for (const thing of things) {
    if (!('body' in thing)) continue;
    const known = found.get(thing.body) ?? new Set<string>();
    for (const { name } of 'face' in thing ? rimsOf(thing) : curvesOf(thing)) known.add(name);
    found.set(thing.body, known);
  }
  return [...found].map(([body, edges]) => ({ body, edges: [...edges].sort() }));
}

/**
 * On which of its two faces an edge has its first number. An edge that is chosen by itself has it on that whose name comes
 * first. Edges that are chosen by a face have it all on that face, or all beside it: as the first of them has.
 * @returns the names of the edges that have it on the face whose name comes second
 */
export function edgesOnSecond(things: readonly Thing[]): string[] {
  const [told, second] = [new Set<string>(), new Set<string>()];
  for (const thing of things) {
    if (thing.to !== 'face') continue;
    const rims = rimsOf(thing).toSorted((a, b) => (a.name < b.name ? -1 : 1));
    const isOnFace = rims[0]?.faces[0] === thing.face.name;
    for (const { name, faces } of rims) {
      if (!told.has(name) && (faces[0] === thing.face.name) !== isOnFace) second.add(name);
      told.add(name);
    }
  }
  return [...second];
}

/** Chosen faces by body, each once. */
export function facesByBody(things: readonly Thing[]): { readonly body: number; readonly faces: readonly string[] }[] {
  const found = new Map<number, string[]>();
  for (const thing of things)
    if (thing.to === 'face' && !found.get(thing.body)?.includes(thing.face.name))
      found.set(thing.body, [...(found.get(thing.body) ?? []), thing.face.name]);
  return [...found].map(([body, faces]) => ({ body, faces }));
}

/** Things by the body that they are of, in the order in which the bodies come first. */
export function byBody<T extends { readonly body: number }>(things: readonly T[]): [body: number, things: T[]][] {
  const found = new Map<number, T[]>();
  for (const thing of things) found.set(thing.body, [...(found.get(thing.body) ?? []), thing]);
  return [...found];
}

/**
 * The edges that stand where one stood, moved: that edge itself again, or the pieces that are left of it. Names do not tell
 * this: what a copy cuts through is called by its neighbours, and these are others.
 */
export function edgesInPlace(
  was: EdgeFacts,
  transform: RigidTransform,
  bodies: readonly Pick<Topology, 'edges'>[],
): readonly EdgeOfBody[] {
  const middle = transformPoint(transform, was.middle);
  const size = was.length;
  const all = bodies.flatMap(({ edges }, body) => edges.map((edge) => ({ body, edge })));
  const alike = all.filter(({ edge }) => Math.abs(edge.length - size) <= SAME * (1 + size));
  const itself =
    alike.find(({ edge }) => distance3(edge.middle, middle) <= SAME * (1 + size)) ??
    alike.find(({ edge }) => isSameRing(edge.curve, was.curve, transform));
  if (itself) return [{ body: itself.body, name: itself.edge.name }];
  const back = inverse(transform);
  const lies = (place: Vec3) => isOnCurve(was.curve, transformPoint(back, place), SAME * (1 + size));
  return all
    .filter(({ edge }) => edge.length < size && distance3(edge.middle, middle) <= size)
    .filter(({ edge }) => [edge.middle, ...endsOfCurve(edge.curve)].every(lies))
    .map(({ body, edge }) => ({ body, name: edge.name }));
}
/** How near places have to be, relative to the size of an edge. */
const SAME = 1e-6;

/** Closed rims may begin anywhere: their middle does not tell. */
function isSameRing(is: SpaceCurve, was: SpaceCurve, transform: RigidTransform): boolean {
  if (is.form !== 'circle' || was.form !== 'circle' || is.from || was.from) return false;
  const near = distance3(is.centre, transformPoint(transform, was.centre)) <= SAME * (1 + was.radius);
  const level = Math.abs(dot3(is.axis, transformDirection(transform, was.axis))) > 1 - SAME;
  return near && level && Math.abs(is.radius - was.radius) <= SAME * (1 + was.radius);
}
