import { boxesApart, transformBox, type Box3 } from './box.ts';
import { transformPoint, type RigidTransform } from './rigid-transform.ts';
import { nearestOfTriangles, type Nearest, type Triangle } from './triangle-distance.ts';
import type { TriangleTree } from './triangle-tree.ts';

/**
 * Where two skins come nearest, the second moved; undefined where that is `upTo` or more. Places in the space of the
 * first. Pairs of boxes are looked into the nearest first, and not at all where they are further apart than what was
 * found. A skin that lies inside the other without touching it is as far away as their skins are.
 * @param enough what is as near as this is told at once, though others may be nearer
 */
export function nearestOfTrees(
  first: TriangleTree,
  second: TriangleTree,
  transform: RigidTransform,
  upTo = Infinity,
  enough = 0,
): Nearest | undefined {
  if (first.isEmpty || second.isEmpty) return undefined;
  let best: Nearest | undefined;
  let limit = upTo;
  const moved = new Map<number, Box3>();
  const boxOf = (node: number): Box3 => {
    let box = moved.get(node);
    if (!box) moved.set(node, (box = transformBox(second.box(node), transform)));
    return box;
  };
  const triangles = new Map<number, Triangle>();
  const triangle = (k: number): Triangle => {
    let known = triangles.get(k);
    if (!known)
      triangles.set(k, (known = second.triangle(k).map((at) => transformPoint(transform, at)) as unknown as Triangle));
    return known;
  };
  const waiting: { readonly i: number; readonly j: number; readonly apart: number }[] = [];
  const look = (i: number, j: number): void => {
    const apart = boxesApart(first.box(i), boxOf(j));
    if (apart < limit) waiting.push({ i, j, apart });
  };
  look(0, 0);
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    if (next.apart >= limit) continue;
    const { i, j } = next;
    const [own, others] = [first.leaf(i), second.leaf(j)];
    if (own && others) {
      for (const k of own)
        for (const l of others) {
          const found = nearestOfTriangles(first.triangle(k), triangle(l));
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

const sizeOf = ({ low, high }: Box3): number => Math.max(high[0] - low[0], high[1] - low[1], high[2] - low[2]);
