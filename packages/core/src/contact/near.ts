import {
  boxesApart,
  dot3,
  inverse,
  middle3,
  MovedTree,
  nearestOfTrees,
  scale3,
  transformBox,
  transformDirection,
  type RigidTransform,
  type Vec3,
} from '../math/index.ts';
import { canTouch, gapOf, type FeatureGap, type GapQuery } from './gap.ts';
import type { ContactShape } from './shape.ts';

/** Two features that are near each other, by their places in the lists of their shapes, and about where. */
export interface NearFeatures {
  readonly i: number;
  readonly j: number;
  /** In the coordinates of the first. */
  readonly near: Vec3;
  /** Of their meshes, mm. */
  readonly distance: number;
}

/**
 * All pairs of features of two shapes that come nearer than `within`, the second moved.
 * @param nowhere nearer than this anything is known to come, mm
 */
export function nearFeatures(
  a: ContactShape,
  b: ContactShape,
  across: RigidTransform,
  within: number,
  nowhere = 0,
): NearFeatures[] {
  const found: NearFeatures[] = [];
  // no mesh tells more exactly where
  const enough = Math.max(0, nowhere) + a.deflection + b.deflection;
  const [faces, others] = [flats(a, b, inverse(across)), flats(b, a, across)];
  const [first, second] = [a.tree.box(0), transformBox(b.tree.box(0), across)];
  const near = a.features.flatMap(({ box }, i) => (boxesApart(box, second) < within ? [i] : []));
  b.features.forEach((other, j) => {
    const box = transformBox(other.box, across);
    if (boxesApart(first, box) >= within) return;
    let moved: MovedTree | undefined;
    for (const i of near) {
      const one = a.features[i]!;
      if (boxesApart(one.box, box) >= within || !canTouch(one, other) || faces(i, j) || others(j, i)) continue;
      moved ??= new MovedTree(other.tree(), across);
      const nearest = nearestOfTrees(one.tree(), moved, within, { enough });
      if (nearest) found.push({ i, j, near: middle3(nearest.a, nearest.b), distance: nearest.distance });
    }
  });
  return found;
}

/**
 * Tells of a flat face of the one shape whether a feature of the other looks away from it.
 * @param to from the coordinates of the first to those of the second
 */
function flats(one: ContactShape, other: ContactShape, to: RigidTransform): (i: number, j: number) => boolean {
  const against = one.features.map(({ flat }) => flat && scale3(transformDirection(to, flat), -1));
  return (i, j) => {
    const normal = against[i];
    return normal !== undefined && other.features[j]!.steady.some((along) => dot3(normal, along) > LEANS);
  };
}
/** As a sine: more than what is near turns while it is taken for near. */
const LEANS = 0.25;

/** The largest angle by which pairs may turn while what was found near is still taken for that, rad. */
export const TURNED = 0.1;

/** A gap between two features of two shapes, in the coordinates of the first. */
export interface ShapeGap extends FeatureGap {
  readonly i: number;
  readonly j: number;
}

/**
 * The gaps between features that are near: only where both look at each other. What is behind two faces of an outer edge is
 * behind that which it is less far behind: it can leave there.
 * @param within those whose meshes were further apart than this are left out, mm
 */
export function gapsOf(
  a: ContactShape,
  b: ContactShape,
  query: GapQuery,
  pairs: readonly NearFeatures[],
  within = Infinity,
): ShapeGap[] {
  const found: ShapeGap[] = [];
  for (const { i, j, near, distance } of pairs) {
    if (distance > within) continue;
    const gap = gapOf(a.features[i]!, b.features[j]!, query, near);
    if (gap) found.push({ ...gap, i, j });
  }
  return found.filter(
    (one) =>
      one.gap >= 0 ||
      !found.some(
        (other) =>
          other.gap > one.gap &&
          ((other.j === one.j && a.features[one.i]!.beside.has(other.i)) ||
            (other.i === one.i && b.features[one.j]!.beside.has(other.j))),
      ),
  );
}
