import { ShapePair, type ShapeNearest } from '../contact/index.ts';
import { transformPoint } from '../math/index.ts';
import { isAtOrWithin, type PlacementPath } from '../naming/index.ts';
import { acrossIn, touchingShape, type TouchingBody } from './contacts.ts';
import { memberPose, type Member } from './member.ts';
import type { Pose } from './mechanism.ts';

type Posed = Pick<Pose, 'poses'>;

/** Two members with their bodies, and how far these are from each other in poses of their mechanism. */
export class MemberPair {
  private readonly shapes: readonly ShapePair[];

  constructor(
    readonly a: Member,
    readonly b: Member,
    bodies: readonly TouchingBody[],
  ) {
    const of = ({ part }: Member) =>
      bodies.flatMap((body) => (body.part === part ? [{ shape: touchingShape(body), box: body.box }] : []));
    this.shapes = of(a).flatMap((one) => of(b).map((other) => new ShapePair(one, other, 1)));
  }

  get isEmpty(): boolean {
    return this.shapes.length === 0;
  }

  /**
   * Where they come nearest, in space, and how far that is, mm: 0 where they touch or are in each other; undefined where that
   * is `upTo` or more.
   */
  nearest(pose: Posed, upTo = Infinity): ShapeNearest | undefined {
    const across = acrossIn(this, pose);
    let best: ShapeNearest | undefined;
    for (const shapes of this.shapes) {
      const limit = best?.distance ?? upTo;
      if (limit < Infinity && shapes.isClear(across, limit)) continue;
      best = shapes.nearest(across, limit) ?? best;
    }
    if (!best) return undefined;
    const first = memberPose(this.a, pose);
    return { distance: best.distance, a: transformPoint(first, best.a), b: transformPoint(first, best.b) };
  }

  /** Nowhere nearer than this, mm, they are: told roughly and quickly; `upTo` at most. */
  atLeast(pose: Posed, upTo: number): number {
    const across = acrossIn(this, pose);
    return this.shapes.reduce((least, shapes) => Math.min(least, shapes.atLeast(across, least)), upTo);
  }

  /** How far what may come as near as `within` goes from one pose to another, mm, the one seen from the other. */
  travel(before: Posed, after: Posed, within: number): number {
    const [from, to] = [acrossIn(this, before), acrossIn(this, after)];
    return Math.max(0, ...this.shapes.map((shapes) => shapes.travel(from, to, within)));
  }

  /** How far their boxes are apart, mm. */
  apart(pose: Posed): number {
    const across = acrossIn(this, pose);
    return Math.min(...this.shapes.map((shapes) => shapes.apart(across)));
  }
}

/** How far all of one placement is from all of another, in poses of their mechanism. */
export class Clearance {
  private readonly pairs: readonly MemberPair[];

  constructor(members: readonly Member[], bodies: readonly TouchingBody[], a: PlacementPath, b: PlacementPath) {
    const of = (path: PlacementPath) => members.filter(({ id }) => isAtOrWithin(id, path));
    this.pairs = of(a).flatMap((one) =>
      of(b)
        .filter((other) => other !== one)
        .map((other) => new MemberPair(one, other, bodies)),
    );
  }

  /** Where they come nearest, in space, and how far that is, mm: 0 where they touch or are in each other; undefined without bodies. */
  at(pose: Posed): ShapeNearest | undefined {
    return this.pairs.reduce<ShapeNearest | undefined>(
      (best, pair) => pair.nearest(pose, best?.distance) ?? best,
      undefined,
    );
  }
}
