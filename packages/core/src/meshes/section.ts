import { endToEnd, dot3, sub3, type Frame, type Pair, type Vec2, type Vec3 } from '../math/index.ts';
import type { TriangleMesh } from './mesh.ts';

/**
 * Where a plane crosses a mesh: lines of places in its x and y, closed ones ending where they began. A corner that lies in the
 * plane counts as above it, so that every line goes on from triangle to triangle; of a mesh that stands on the plane as below,
 * so that it is seen where it stands.
 */
export function meshSection(mesh: TriangleMesh, frame: Frame): Vec2[][] {
  const lines = crossed(mesh, frame, (height) => height < 0);
  return lines.length > 0 ? lines : crossed(mesh, frame, (height) => height <= 0);
}

function crossed(
  { positions, triangles }: TriangleMesh,
  { origin, x, y, z }: Frame,
  isBelow: (height: number) => boolean,
): Vec2[][] {
  const corners = positions.length / 3;
  const heights = Float64Array.from({ length: corners }, (_, k) => dot3(sub3(placeOf(positions, k), origin), z));
  const crossing = (a: number, b: number): Vec2 => {
    // always from below, so that both triangles of an edge come to the very same place
    const [low, high] = heights[a]! < heights[b]! ? [a, b] : [b, a];
    const share = heights[low]! / (heights[low]! - heights[high]!);
    const [from, to] = [placeOf(positions, low), placeOf(positions, high)];
    const place = from.map((c, k) => c + share * (to[k]! - c)) as unknown as Vec3;
    const out = sub3(place, origin);
    return [dot3(out, x), dot3(out, y)];
  };
  const keyOf = (a: number, b: number) => Math.min(a, b) * corners + Math.max(a, b);
  // edges that are crossed, by two of which each triangle is
  const pairs: Pair[] = [];
  const places = new Map<number, Vec2>();
  for (let t = 0; t < triangles.length; t += 3) {
    const ends: number[] = [];
    for (let k = 0; k < 3; k++) {
      const [a, b] = [triangles[t + k]!, triangles[t + ((k + 1) % 3)]!];
      if (isBelow(heights[a]!) === isBelow(heights[b]!)) continue;
      const key = keyOf(a, b);
      if (!places.has(key)) places.set(key, crossing(a, b));
      ends.push(key);
    }
    if (ends.length === 2) pairs.push([ends[0]!, ends[1]!]);
  }
  return endToEnd(pairs).map((chain) => chain.map((key) => places.get(key)!));
}

const placeOf = (positions: Float32Array, k: number): Vec3 => [
  positions[3 * k]!,
  positions[3 * k + 1]!,
  positions[3 * k + 2]!,
];
