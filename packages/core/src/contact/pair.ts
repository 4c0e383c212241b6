import {
  alternatelyNearest,
  boxCorners,
  boxesApart,
  distance3,
  inverse,
  middle3,
  MovedTree,
  nearestOfTrees,
  skinsCross,
  transformBox,
  transformPoint,
  type Box3,
  type RigidTransform,
  type Vec3,
} from '../math/index.ts';
import type { FeatureGap } from './gap.ts';
import { gapsOf, nearFeatures, TURNED, type NearFeatures, type ShapeGap } from './near.ts';
import type { ContactShape } from './shape.ts';

/** A body as what may touch, and the box round it, in its own coordinates. */
export interface BoxedShape {
  readonly shape: ContactShape;
  readonly box: Box3;
}

/** Where two bodies come nearest, in the coordinates of the first, and how far that is, mm. */
export interface ShapeNearest {
  readonly distance: number;
  readonly a: Vec3;
  readonly b: Vec3;
}

/** The share by which two may be nearer than is told. */
const ROUGH = 0.1;
/** How often what may meet is looked at again once it is known to go less far. */
const CLOSING = 8;

/**
 * Two bodies that may touch. How the second stands is told from its coordinates to those of the first (`across`); what was
 * found in one pose is remembered as long as it tells enough of the next.
 */
export class ShapePair {
  /** How far it was apart at least, and where. */
  private clear: { readonly at: RigidTransform; readonly distance: number } | undefined;
  /** What was near, where, and as far away as told. */
  private known:
    { readonly near: readonly NearFeatures[]; readonly at: RigidTransform; readonly band: number } | undefined;
  /** Where on the first they were nearest when that was last asked. */
  private nearestWas: Vec3 | undefined;
  /** How far the meshes of both may be from their skins, mm. */
  readonly deflection: number;

  /** @param pace how far it may go in a step that is not known to be clear, mm */
  constructor(
    readonly a: BoxedShape,
    readonly b: BoxedShape,
    readonly pace: number,
  ) {
    this.deflection = a.shape.deflection + b.shape.deflection;
  }

  /** How far the boxes are apart, mm. */
  apart = (across: RigidTransform): number => boxesApart(this.a.box, transformBox(this.b.box, across));

  /**
   * How far what may come as near as `within` goes between two poses, mm, seen from the one of which that is less. What is not
   * counted is further apart than that before and after.
   */
  travel(before: RigidTransform, after: RigidTransform, within = 0): number {
    const [a, b] = [this.a.box, this.b.box];
    return Math.min(
      travelBeside(a, b, before, after, within),
      travelBeside(b, a, inverse(before), inverse(after), within),
    );
  }

  /** Can nothing be nearer than so many mm, as far as is known? */
  isClear(across: RigidTransform, by: number): boolean {
    const known = this.clear ? this.clear.distance - this.travel(this.clear.at, across, by) : 0;
    return Math.max(known, this.apart(across)) >= by;
  }

  /**
   * `upTo`, mm, where the meshes are as far apart as that; else about how far they are: what is told is enough to ask again for
   * less.
   */
  clearance(across: RigidTransform, upTo: number): number {
    if (this.isClear(across, upTo)) return upTo;
    const reach = (upTo + this.deflection) / (1 - ROUGH);
    const [first, second] = [this.a.shape.tree, this.b.shape.tree];
    const options = { enough: Math.max(this.pace, upTo / 2), share: ROUGH };
    const found = nearestOfTrees(first, new MovedTree(second, across), reach, options);
    if (found) return Math.min(found.distance, 0.9 * upTo);
    this.clear = { at: across, distance: upTo };
    return upTo;
  }

  /** Nowhere nearer than this, mm, they are: told roughly; `upTo` at most. */
  atLeast(across: RigidTransform, upTo: number): number {
    if (upTo < Infinity && this.isClear(across, upTo)) return upTo;
    const [first, second] = [this.a.shape.tree, this.b.shape.tree];
    const guess = this.nearestWas && alternatelyNearest(first, second, across, this.nearestWas);
    const limit = Math.min((upTo + this.deflection) / (1 - ROUGH), guess?.distance ?? Infinity);
    const found = nearestOfTrees(first, new MovedTree(second, across), limit, { share: ROUGH }) ?? guess;
    this.nearestWas = found?.a ?? this.nearestWas;
    const told = (found && found.distance < limit ? found.distance : limit) * (1 - ROUGH) - this.deflection;
    // what lies inside of the other may be as far from its skin
    return this.isEnclosed(across) ? 0 : Math.max(0, Math.min(upTo, told));
  }

  /** Finds which features come within so many mm, unless that is known. */
  prepare(across: RigidTransform, within: number): void {
    const needed = within + this.deflection;
    const { known } = this;
    if (known && this.travel(known.at, across, needed) + needed <= known.band && isTurnedLittle(known.at, across))
      return;
    const band = needed + this.pace;
    this.known = { near: nearFeatures(this.a.shape, this.b.shape, across, band), at: across, band };
  }

  /** Gaps between two bounds, mm, of what was prepared. */
  gaps(across: RigidTransform, deepest: number, widest: number): ShapeGap[] {
    const { near, at } = this.known!;
    // what was in it is as far from its skin as it was deep
    const asked = this.deflection + Math.max(widest, -deepest);
    const reach = asked < Infinity ? this.travel(at, across, asked) + asked : Infinity;
    const query = { across, back: inverse(across), deepest, widest };
    return gapsOf(this.a.shape, this.b.shape, query, near, reach);
  }

  /** Is what lies in a gap below 0 inside of both? Else it is behind the one by being on its other side. */
  isShared({ a, b }: FeatureGap, across: RigidTransform): boolean {
    const middle = middle3(a, b);
    return this.a.shape.tree.encloses(middle) && this.b.shape.tree.encloses(transformPoint(inverse(across), middle));
  }

  /**
   * Where they come nearest: the meshes tell about where, their surfaces how near. 0 where they touch or are in each other;
   * undefined where that is `upTo` or more.
   */
  nearest(across: RigidTransform, upTo = Infinity): ShapeNearest | undefined {
    const { a, b, deflection } = this;
    const [first, second] = [a.shape.tree, b.shape.tree];
    // where they were nearest they may be still
    const guess = this.nearestWas && alternatelyNearest(first, second, across, this.nearestWas);
    const limit = Math.min(upTo + 2 * deflection, guess?.distance ?? Infinity);
    const nearer = nearestOfTrees(first, new MovedTree(second, across), limit, { rough: deflection });
    const found = nearer ?? (guess && guess.distance <= limit ? guess : undefined);
    this.nearestWas = found?.a ?? this.nearestWas;
    // what is further apart than its meshes are wrong may lie in the other still
    const isTouching = found !== undefined && found.distance <= deflection;
    if (isTouching ? this.isOverlapping(across) : this.isEnclosed(across))
      return { ...(found ?? { a: ORIGIN, b: ORIGIN }), distance: 0 };
    if (!found) return undefined;
    const reach = found.distance + deflection;
    const near = nearFeatures(a.shape, b.shape, across, reach + deflection, found.distance - deflection);
    const query = { across, back: inverse(across), deepest: -reach, widest: reach };
    const exact = gapsOf(a.shape, b.shape, query, near).reduce<ShapeGap | undefined>(
      (best, gap) => (best && best.gap <= gap.gap ? best : gap),
      undefined,
    );
    // the meshes are the witness: what is further from them than they can be wrong was found elsewhere
    const isBorneOut = exact !== undefined && Math.abs(exact.gap - found.distance) <= 2 * deflection;
    if (!isBorneOut) {
      // then they tell it alone, and no other places of theirs may be nearer
      const alone = nearestOfTrees(first, new MovedTree(second, across), found.distance) ?? found;
      return alone.distance < upTo ? alone : undefined;
    }
    const distance = Math.max(0, exact.gap);
    return distance < upTo ? { distance, a: exact.a, b: exact.b } : undefined;
  }

  /** Does the one lie in the other, where their skins do not meet? */
  private isEnclosed(across: RigidTransform): boolean {
    if (this.apart(across) > 0) return false;
    const [first, second] = [this.a.shape.tree, this.b.shape.tree];
    if (first.isEmpty || second.isEmpty) return false;
    return (
      first.encloses(transformPoint(across, second.triangle(0)[0])) ||
      second.encloses(transformPoint(inverse(across), first.triangle(0)[0]))
    );
  }

  /** Does one go through the other, or lie inside of it, by more than their meshes can be wrong? */
  isOverlapping(across: RigidTransform): boolean {
    if (this.apart(across) > 0) return false;
    const [first, second] = [this.a.shape.tree, this.b.shape.tree];
    if (first.isEmpty || second.isEmpty) return false;
    const isApart =
      nearestOfTrees(first, new MovedTree(second, across), this.deflection, { enough: this.deflection }) === undefined;
    return isApart ? this.isEnclosed(across) : skinsCross(first, second, across, this.deflection);
  }
}

const ORIGIN: Vec3 = [0, 0, 0];

/** Is the turn between two ways in which a pair may stand small? By the cosine, which is told by the trace. */
const isTurnedLittle = (a: RigidTransform, b: RigidTransform): boolean =>
  a.reduce((sum, row, r) => sum + row[0] * b[r]![0] + row[1] * b[r]![1] + row[2] * b[r]![2], 0) >
  1 + 2 * Math.cos(TURNED);

/** How far places of a box go that come as near as `within` to another, which stands still. */
function travelBeside(still: Box3, moved: Box3, before: RigidTransform, after: RigidTransform, within: number): number {
  const beside = transformBox(still, inverse(before));
  let travel = travelOf(moved, before, after);
  // what is further away than it goes does not come so near: what is left goes less far
  for (let k = 0; k < CLOSING; k++) {
    const reach = travel + within;
    const low = moved.low.map((c, n) => Math.max(c, beside.low[n]! - reach)) as unknown as Vec3;
    const high = moved.high.map((c, n) => Math.min(c, beside.high[n]! + reach)) as unknown as Vec3;
    if (low.some((c, n) => c > high[n]!)) return 0;
    const less = travelOf({ low, high }, before, after);
    if (less > 0.9 * travel) return less;
    travel = less;
  }
  return travel;
}

/** How far any place of a box may have come from one pose to another, mm: its corners go furthest. */
const travelOf = (box: Box3, before: RigidTransform, after: RigidTransform): number =>
  boxCorners(box).reduce(
    (most, at) => Math.max(most, distance3(transformPoint(before, at), transformPoint(after, at))),
    0,
  );
