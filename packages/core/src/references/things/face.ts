import {
  add3,
  carriedFrame,
  carriedSide,
  dot3,
  frameAcross,
  frameOn,
  scale3,
  sub3,
  type Vec3,
} from '../../math/index.ts';
import { axisOfSurface, centreOfSurface, hullOf, radiusOfSurface } from '../../geometry/index.ts';
import type { EdgeFacts, FaceFacts, Topology } from '../../kernel-port/index.ts';
import { fingerprintOfFace } from '../fingerprints.ts';
import { transformEdge, transformFace } from './facts.ts';
import { ELSEWHERE, type ThingKind } from './kind.ts';

export interface FaceThing {
  readonly to: 'face';
  readonly face: FaceFacts;
  readonly body: number;
  readonly topology: Topology;
  /** Its normal or axis when it was chosen: the directions of its plane, and those about its axis, turn along from there. */
  readonly was?: Vec3;
}

/** The edges that bound a face. */
export const rimsOf = ({ face, topology }: Omit<FaceThing, 'to' | 'body'>): EdgeFacts[] =>
  topology.edges.filter(({ faces }) => faces.includes(face.name));

/** How far a face goes along an axis, by the curves that bound it. */
function extent(thing: FaceThing, origin: Vec3, axis: Vec3): readonly [Vec3, Vec3] {
  const heights = rimsOf(thing)
    .flatMap(({ curve }) => hullOf(curve))
    .map((place) => dot3(sub3(place, origin), axis));
  const at = (height: number) => add3(origin, scale3(axis, height));
  return heights.length === 0 ? [origin, origin] : [at(Math.min(...heights)), at(Math.max(...heights))];
}

export const face: ThingKind<FaceThing> = {
  // of the body's topology only what bounds it
  transform(thing, by) {
    const moved = transformFace(thing.face, by);
    const edges = rimsOf(thing).map((edge) => transformEdge(edge, by));
    const topology = { name: thing.topology.name, faces: [moved], edges, vertices: [] };
    return { to: 'face', face: moved, body: ELSEWHERE, topology };
  },
  name: (thing) => thing.face.name,
  fingerprint: (thing) => fingerprintOfFace(thing.face),
  plane({ face: { surface }, was }) {
    if (surface.form !== 'plane') return undefined;
    const now = frameAcross(surface.origin, surface.normal);
    return was ? carriedFrame(frameOn(now.origin, was), now) : now;
  },
  axis(thing) {
    const axis = axisOfSurface(thing.face.surface);
    if (!axis) return undefined;
    const side = thing.was && { side: carriedSide(thing.was, axis.direction) };
    return { ...axis, stretch: extent(thing, axis.origin, axis.direction), ...side };
  },
  point: (thing) => centreOfSurface(thing.face.surface),
  middle: (thing) => thing.face.centre,
  readings({ face: { surface, area } }) {
    const radius = radiusOfSurface(surface);
    return [
      { label: 'area', amount: area, of: 'area' },
      ...(radius === undefined ? [] : [{ label: 'radius', amount: radius, of: 'length' } as const]),
    ];
  },
};
