import {
  add3,
  cross3,
  direction3,
  distance3,
  dot3,
  length3,
  scale3,
  sub3,
  TriangleTree,
  type BodyMesh,
  type Vec3,
} from '@helb/core';

/** The skin of a body as triangles fine enough to be painted, and how thick the body is behind each corner. */
export interface Walls {
  readonly positions: Float32Array;
  readonly normals: Float32Array;
  readonly triangles: Uint32Array;
  /** Square to the skin through the wall, mm, one a corner; the size of the body where there is no wall, as at an edge. */
  readonly thickness: Float32Array;
  /** Where it is thinnest. */
  readonly thinnest: { readonly thickness_mm: number; readonly at: Vec3; readonly face: string };
}

/** Triangles are divided until none of their edges is longer than this share of the body. */
const SHARE = 1 / 70;
/** Rather coarser than more triangles than this. */
const MOST = 120_000;
/** A triangle in so many at most along each edge. */
const FINEST = 64;
/** Rays start so far inside, as a share of the body: not on the face that they start from. */
const INSIDE = 1e-6;
/** And so far from the edges of their triangle, as a share of it: along an edge there is no wall. */
const OFF_EDGE = 0.02;

type Triangle = readonly [Vec3, Vec3, Vec3];

/** Measures the walls of a closed body by rays from its skin inwards; as exact as its mesh. */
export function wallsOf(mesh: BodyMesh): Walls {
  const size = sizeOf(mesh.positions);
  const tree = new TriangleTree(mesh.positions, mesh.triangles);
  const count = mesh.triangles.length / 3;
  const triangles = Array.from({ length: count }, (_, k) => corners(mesh.positions, mesh.triangles, k));
  const longest = longestFor(triangles, size * SHARE);
  const skin = new Skin();
  let thinnest: Walls['thinnest'] = { thickness_mm: Infinity, at: [0, 0, 0], face: '' };
  for (const { name, start, count: length } of mesh.faces)
    for (let k = start / 3; k < (start + length) / 3; k++) {
      const triangle = triangles[k]!;
      const flat = direction3(cross3(sub3(triangle[1], triangle[0]), sub3(triangle[2], triangle[0])));
      if (!flat) continue;
      const normals = corners(mesh.normals, mesh.triangles, k);
      skin.divide(triangle, normals, divisions(triangle, longest), (place) => {
        const thickness = behind(tree, place, flat, size * INSIDE) ?? size;
        if (thickness < thinnest.thickness_mm) thinnest = { thickness_mm: thickness, at: place, face: name };
        return thickness;
      });
    }
  return { ...skin.arrays(), thinnest };
}

/** A wall has a skin on either side: where these lean to each other by more than this (cosine), they are a wedge. */
const OPPOSED = 0.7;

/** How far it is from a place of the skin through a wall, against the normal; undefined where there is none. */
function behind(tree: TriangleTree, place: Vec3, normal: Vec3, inside: number): number | undefined {
  const inwards = scale3(normal, -1);
  const hit = tree.firstHit(add3(place, scale3(inwards, inside)), inwards);
  const outwards = hit && direction3(tree.normal(hit.triangle));
  return hit && outwards && dot3(outwards, inwards) > OPPOSED ? hit.distance + inside : undefined;
}

/** The diagonal of the box round all places. */
function sizeOf(positions: Float32Array): number {
  const low: [number, number, number] = [Infinity, Infinity, Infinity];
  const high: [number, number, number] = [-Infinity, -Infinity, -Infinity];
  positions.forEach((c, n) => {
    low[n % 3] = Math.min(low[n % 3]!, c);
    high[n % 3] = Math.max(high[n % 3]!, c);
  });
  return distance3(low, high);
}

function corners(values: Float32Array, triangles: Uint32Array, k: number): Triangle {
  const at = (n: number): Vec3 => {
    const first = 3 * triangles[3 * k + n]!;
    return [values[first]!, values[first + 1]!, values[first + 2]!];
  };
  return [at(0), at(1), at(2)];
}

function divisions([a, b, c]: Triangle, longest: number): number {
  const edge = Math.max(length3(sub3(b, a)), length3(sub3(c, b)), length3(sub3(a, c)));
  return Math.min(FINEST, Math.max(1, Math.ceil(edge / longest)));
}

/** The longest edge that is wanted, or what keeps the triangles from being too many. */
function longestFor(triangles: readonly Triangle[], wanted: number): number {
  const total = (longest: number) => triangles.reduce((sum, triangle) => sum + divisions(triangle, longest) ** 2, 0);
  let longest = wanted;
  while (total(longest) > Math.max(MOST, triangles.length)) longest *= 1.5;
  return longest;
}

/** Collects divided triangles. */
class Skin {
  private readonly positions: number[] = [];
  private readonly normals: number[] = [];
  private readonly triangles: number[] = [];
  private readonly thickness: number[] = [];

  /** A triangle in n^2; each corner is measured a little within it. */
  divide(triangle: Triangle, normals: Triangle, n: number, measure: (place: Vec3) => number): void {
    const first = this.thickness.length;
    const middle = mixed(triangle, [1 / 3, 1 / 3, 1 / 3]);
    const row = (i: number) => first + i * (n + 1) - (i * (i - 1)) / 2;
    for (let i = 0; i <= n; i++)
      for (let j = 0; j <= n - i; j++) {
        const shares: Vec3 = [(n - i - j) / n, j / n, i / n];
        const place = mixed(triangle, shares);
        this.positions.push(...place);
        this.normals.push(...mixed(normals, shares));
        this.thickness.push(measure(add3(scale3(place, 1 - OFF_EDGE / n), scale3(middle, OFF_EDGE / n))));
        if (i + j === n) continue;
        this.triangles.push(row(i) + j, row(i) + j + 1, row(i + 1) + j);
        if (i + j < n - 1) this.triangles.push(row(i) + j + 1, row(i + 1) + j + 1, row(i + 1) + j);
      }
  }

  arrays() {
    return {
      positions: Float32Array.from(this.positions),
      normals: Float32Array.from(this.normals),
      triangles: Uint32Array.from(this.triangles),
      thickness: Float32Array.from(this.thickness),
    };
  }
}

const mixed = ([a, b, c]: Triangle, [p, q, r]: Vec3): Vec3 => add3(add3(scale3(a, p), scale3(b, q)), scale3(c, r));
