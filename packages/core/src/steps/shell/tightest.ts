import type { BodyMesh, Topology } from '../../kernel-port/index.ts';
import { dot3, sub3, type Vec3 } from '../../math/index.ts';
import { besideEach } from './skin.ts';

/** Where walls meet first when they grow inwards. */
interface Tightest {
  readonly at: Vec3;
  /** The radius of the largest ball inside that touches the skin there, mm: walls as thick as that leave no hollow. */
  readonly radius: number;
}

/** How many places of the skin are looked at, at most: each against each. */
const MOST_PLACES = 1500;

/**
 * The smallest of the largest balls that touch the skin from inside: how strongly it bends, or how near its sides are to
 * each other (the shrinking ball of Ma, Bae, Choi 2012, over all places of the mesh). Faces that meet at an edge say
 * nothing of each other: their walls meet at a corner. Undefined where nothing is in the way.
 * @param open faces that get no wall
 */
export function tightestPlace(mesh: BodyMesh, topology: Topology, open: readonly string[]): Tightest | undefined {
  const beside = besideEach(topology);
  const places = placesOf(mesh).filter(({ face }) => !open.includes(face));
  const step = Math.max(1, Math.ceil(places.length / MOST_PLACES));
  const some = places.filter((_, k) => k % step === 0);
  let found: Tightest | undefined;
  for (const { at, normal, face } of some)
    for (const other of some) {
      if (beside.get(face)?.has(other.face)) continue;
      const way = sub3(other.at, at);
      const [inwards, square] = [-dot3(normal, way), dot3(way, way)];
      // what lies in the tangent plane touches no ball
      if (inwards <= FLAT * Math.sqrt(square)) continue;
      const radius = square / (2 * inwards);
      if (!found || radius < found.radius) found = { at, radius };
    }
  return found;
}
const FLAT = 1e-3;

interface SkinPlace {
  readonly at: Vec3;
  readonly normal: Vec3;
  readonly face: string;
}

/** The corners of the triangles, each once for a face. */
function placesOf({ positions, normals, triangles, faces }: BodyMesh): SkinPlace[] {
  const vector = (from: Float32Array, k: number): Vec3 => [from[3 * k]!, from[3 * k + 1]!, from[3 * k + 2]!];
  return faces.flatMap(({ name, start, count }) =>
    [...new Set(triangles.subarray(start, start + count))].map((k) => ({
      at: vector(positions, k),
      normal: vector(normals, k),
      face: name,
    })),
  );
}
