import {
  distance2,
  distance3,
  dot3,
  frameAcross,
  nearestOn,
  toPlane,
  type BodyMesh,
  type FaceFacts,
  type Topology,
  type Vec2,
  type Vec3,
} from '@helb/core';

// How much room there is on a body for what is to be built next: what is grown within it can be built.

/** A body as it was built last. */
export interface Grounds {
  readonly topology: Topology;
  readonly mesh: BodyMesh;
}

/** The stretches of an edge, as the mesh has them. */
function stretchesOf({ edgePoints, edges }: BodyMesh, name: string): (readonly [Vec3, Vec3])[] {
  const at = (k: number): Vec3 => [edgePoints[3 * k]!, edgePoints[3 * k + 1]!, edgePoints[3 * k + 2]!];
  return edges
    .filter((edge) => edge.name === name)
    .flatMap(({ start, count }) =>
      Array.from({ length: count / 2 }, (_, k) => [at(start + 2 * k), at(start + 2 * k + 1)] as const),
    );
}

/** The frame of a sketch on a flat face. */
export function frameOf({ surface }: FaceFacts) {
  if (surface.form !== 'plane') throw new Error('the face is not flat');
  return frameAcross(surface.origin, surface.normal);
}

/** The flat faces that are large enough to stand on. */
export const flatFaces = ({ topology }: Grounds): FaceFacts[] =>
  topology.faces.filter(({ surface, area }) => surface.form === 'plane' && area > 60);

/** What bounds a flat face, in its sketch frame. */
export function rimOf(grounds: Grounds, face: FaceFacts): (readonly [Vec2, Vec2])[] {
  const frame = frameOf(face);
  return grounds.topology.edges
    .filter(({ faces }) => faces.includes(face.name))
    .flatMap(({ name }) => stretchesOf(grounds.mesh, name))
    .map(([a, b]) => [toPlane(frame, a), toPlane(frame, b)] as const);
}

/** The radius of the largest circle about a place of a flat face that lies in it; 0 for a place outside. */
export function roomAt(rim: readonly (readonly [Vec2, Vec2])[], place: Vec2): number {
  const [x, y] = place;
  const crossed = rim.filter(
    ([a, b]) => a[1] > y !== b[1] > y && a[0] + ((y - a[1]) / (b[1] - a[1])) * (b[0] - a[0]) > x,
  );
  if (crossed.length % 2 === 0) return 0;
  return Math.min(...rim.map((stretch) => awayFrom(stretch, place)));
}

function awayFrom([from, to]: readonly [Vec2, Vec2], place: Vec2): number {
  return distance2(nearestOn({ form: 'segment', entity: 'rim', from, to }, place), place);
}

/** Straight edges between flat faces, and how near anything else of these faces comes to each. */
export function straightEdges({ topology, mesh }: Grounds): { readonly name: string; readonly room: number }[] {
  const flat = new Set(topology.faces.filter(({ surface }) => surface.form === 'plane').map(({ name }) => name));
  return topology.edges.flatMap(({ name, curve, faces, ends, length, turn }) => {
    if (curve.form !== 'line' || !ends || (turn !== 'outer' && turn !== 'inner')) return [];
    if (!faces.every((face) => flat.has(face))) return [];
    const own = stretchesOf(mesh, name).flat();
    const others = topology.edges
      .filter((other) => other.name !== name && other.faces.some((face) => faces.includes(face)))
      .filter((other) => !other.ends?.some((end) => ends.includes(end)))
      .flatMap((other) => stretchesOf(mesh, other.name).flat());
    const beside = topology.edges.filter(
      (other) => other.name !== name && other.ends?.some((end) => ends.includes(end)),
    );
    const shortest = Math.min(length, ...beside.map((other) => other.length));
    const near = Math.min(...others.flatMap((place) => own.map((at) => distance3(at, place))), shortest);
    return [{ name, room: near }];
  });
}

/** Do all neighbours of a flat face stand square on it, or are they flat as well? */
export function isSteep({ topology }: Grounds, face: FaceFacts): boolean {
  if (face.surface.form !== 'plane') return false;
  const { normal } = face.surface;
  const beside = new Set(
    topology.edges.filter(({ faces }) => faces.includes(face.name)).flatMap(({ faces }) => [...faces]),
  );
  return topology.faces
    .filter(({ name }) => beside.has(name))
    .every(({ surface }) => {
      if (surface.form === 'plane') return true;
      return surface.form === 'cylinder' && Math.abs(dot3(surface.axis, normal)) > 1 - 1e-9;
    });
}
