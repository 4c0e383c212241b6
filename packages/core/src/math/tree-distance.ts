import { awayFromBox, boxesApart, transformBox, type Box3 } from './box.ts';
import { IDENTITY, transformPoint, type RigidTransform } from './rigid-transform.ts';
import { goesThrough, nearestOfTriangles, type Nearest, type Triangle } from './triangle-distance.ts';
import type { TriangleTree } from './triangle-tree.ts';
import type { Vec3 } from './vector.ts';

/**
 * Where two skins come nearest, the second moved; undefined where that is `upTo` or more. Places in the space of the
 * first. Pairs of boxes are looked into the nearest first, and not at all where they are further apart than what was
 * found. A skin that lies inside the other without touching it is as far away as their skins are.
 * @param enough what is as near as this is told at once, though others may be nearer
 * @param rough others may be nearer by this share of what is told: much less has to be looked at where skins run alongside
 */
export function nearestOfTrees(
  first: TriangleTree,
  second: TriangleTree,
  transform: RigidTransform,
  upTo = Infinity,
  enough = 0,
  rough = 0,
): Nearest | undefined {
  if (first.isEmpty || second.isEmpty) return undefined;
  let best: Nearest | undefined;
  let limit = upTo;
  const near = 1 - rough;
  const { boxOf, triangleOf } = moved(second, transform);
  const waiting: { readonly i: number; readonly j: number; readonly apart: number }[] = [];
  const look = (i: number, j: number): void => {
    const apart = boxesApart(first.box(i), boxOf(j));
    if (apart < near * limit) waiting.push({ i, j, apart });
  };
  look(0, 0);
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    if (next.apart >= near * limit) continue;
    const { i, j } = next;
    const [own, others] = [first.leaf(i), second.leaf(j)];
    if (own && others) {
      for (const k of own)
        for (const l of others) {
          const found = nearestOfTriangles(first.triangle(k), triangleOf(l));
          if (found.distance >= limit) continue;
          best = found;
          limit = found.distance;
          if (limit <= enough) return best;
        }
      continue;
    }
    // the larger of the two is divided; the nearer pair is looked into first
    const before = waiting.length;
    if (!own && (others || sizeOf(first.box(i)) >= sizeOf(boxOf(j))))
      for (const child of first.children(i)) look(child, j);
    else for (const child of second.children(j)) look(i, child);
    if (waiting.length - before === 2 && waiting[before]!.apart < waiting[before + 1]!.apart)
      [waiting[before], waiting[before + 1]] = [waiting[before + 1]!, waiting[before]!];
  }
  return best;
}

/**
 * Every two triangles of two skins that come nearer than `within`, the second skin moved, and where; places in the space of
 * the first. A triangle may be a segment or a single place.
 * @param asked how near a pair has to be to be told; what is further apart is not measured
 */
export function nearPairs(
  first: TriangleTree,
  second: TriangleTree,
  transform: RigidTransform,
  within: number,
  asked: (k: number, l: number) => number,
  each: (k: number, l: number, nearest: Nearest) => void,
): void {
  if (first.isEmpty || second.isEmpty) return;
  const { boxOf, triangleOf } = moved(second, transform);
  const own = moved(first, IDENTITY);
  const waiting: (readonly [number, number])[] = [[0, 0]];
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    const [i, j] = next;
    if (boxesApart(first.box(i), boxOf(j)) > within) continue;
    const [ones, others] = [first.leaf(i), second.leaf(j)];
    if (ones && others) {
      for (const k of ones)
        for (const l of others) {
          const limit = asked(k, l);
          const [p, q] = [own.triangleOf(k), triangleOf(l)];
          if (!boxesNear(p, q, limit)) continue;
          const found = nearestOfTriangles(p, q);
          if (found.distance <= limit) each(k, l, found);
        }
      continue;
    }
    if (!ones && (others || sizeOf(first.box(i)) >= sizeOf(boxOf(j))))
      for (const child of first.children(i)) waiting.push([child, j]);
    else for (const child of second.children(j)) waiting.push([i, child]);
  }
}

/** The triangle of a skin that is nearest to a place, and where on it; undefined of an empty skin. */
export function nearestTriangle(
  tree: TriangleTree,
  place: Vec3,
): { readonly k: number; readonly foot: Vec3 } | undefined {
  let best: { readonly k: number; readonly foot: Vec3 } | undefined;
  let limit = Infinity;
  const waiting = tree.isEmpty ? [] : [{ node: 0, apart: 0 }];
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    if (next.apart >= limit) continue;
    const leaf = tree.leaf(next.node);
    for (const k of leaf ?? []) {
      const found = nearestOfTriangles([place, place, place], tree.triangle(k));
      if (found.distance < limit) [best, limit] = [{ k, foot: found.b }, found.distance];
    }
    if (leaf) continue;
    const children = tree.children(next.node).map((node) => ({ node, apart: awayFromBox(tree.box(node), place) }));
    waiting.push(...children.sort((a, b) => b.apart - a.apart));
  }
  return best;
}

/**
 * Does an edge of the one skin go through the other, by more than so much on both sides, the second moved? Skins that only
 * touch do not, as far as they are meshes of the same fineness.
 */
export function skinsCross(first: TriangleTree, second: TriangleTree, transform: RigidTransform, by: number): boolean {
  let found = false;
  nearPairs(
    first,
    second,
    transform,
    0,
    () => (found ? -1 : 0),
    (k, l) => {
      const [p, q] = [first.triangle(k), second.triangle(l).map((at) => transformPoint(transform, at))];
      found ||= goesThrough(p, q as unknown as Triangle, by);
    },
  );
  return found;
}

/** The places of a tree where it is moved, each found once. */
function moved(tree: TriangleTree, transform: RigidTransform) {
  const boxes = new Map<number, Box3>();
  const triangles = new Map<number, Triangle>();
  return {
    boxOf(node: number): Box3 {
      let box = boxes.get(node);
      if (!box) boxes.set(node, (box = transformBox(tree.box(node), transform)));
      return box;
    },
    triangleOf(k: number): Triangle {
      let known = triangles.get(k);
      if (!known) {
        const [a, b, c] = tree.triangle(k);
        triangles.set(
          k,
          (known = [transformPoint(transform, a), transformPoint(transform, b), transformPoint(transform, c)]),
        );
      }
      return known;
    },
  };
}

/** May two triangles be so near, by the boxes round them? */
function boxesNear(p: Triangle, q: Triangle, within: number): boolean {
  if (within < 0) return false;
  for (let axis = 0; axis < 3; axis++) {
    const [a, b, c] = [p[0][axis]!, p[1][axis]!, p[2][axis]!];
    const [d, e, f] = [q[0][axis]!, q[1][axis]!, q[2][axis]!];
    if (Math.min(a, b, c) - Math.max(d, e, f) > within || Math.min(d, e, f) - Math.max(a, b, c) > within) return false;
  }
  return true;
}

const sizeOf = ({ low, high }: Box3): number => Math.max(high[0] - low[0], high[1] - low[1], high[2] - low[2]);
