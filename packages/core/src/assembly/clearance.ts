import { ShapePair, type ShapeNearest } from '../contact/index.ts';
import { transformPoint } from '../math/index.ts';
import type { Id } from '../records/index.ts';
import { isAtOrWithin, type PlacementPath } from '../naming/index.ts';
import { acrossIn, touchingShape, type TouchingBody } from './contacts.ts';
import { memberPose, type Member } from './member.ts';
import type { Pose } from './mechanism.ts';

/** How far all of one placement is from all of another, in poses of their mechanism. */
export class Clearance {
  private readonly pairs: readonly { readonly a: Member; readonly b: Member; readonly shapes: ShapePair }[];

  constructor(members: readonly Member[], bodies: readonly TouchingBody[], a: PlacementPath, b: PlacementPath) {
    const of = (path: PlacementPath) =>
      members
        .filter(({ id }) => isAtOrWithin(id, path))
        .flatMap((member) => bodiesOf(bodies, member.part).map((body) => ({ member, body })));
    const shape = (body: TouchingBody) => ({ shape: touchingShape(body), box: body.box });
    this.pairs = of(a).flatMap((one) =>
      of(b)
        .filter(({ member }) => member !== one.member)
        .map((other) => ({
          a: one.member,
          b: other.member,
          shapes: new ShapePair(shape(one.body), shape(other.body), 1),
        })),
    );
  }

  /** Where they come nearest, in space, and how far that is, mm: 0 where they touch or are in each other; undefined without bodies. */
  at(pose: Pick<Pose, 'poses'>): ShapeNearest | undefined {
    let best: ShapeNearest | undefined;
    for (const pair of this.pairs) {
      const across = acrossIn(pair, pose);
      if (best && pair.shapes.isClear(across, best.distance)) continue;
      const found = pair.shapes.nearest(across, best?.distance);
      if (!found) continue;
      const first = memberPose(pair.a, pose);
      best = { distance: found.distance, a: transformPoint(first, found.a), b: transformPoint(first, found.b) };
    }
    return best;
  }
}

const bodiesOf = (bodies: readonly TouchingBody[], part: Id) => bodies.filter((body) => body.part === part);
