import {
  boxesApart,
  compose,
  transformBox,
  transformPoint,
  MovedTree,
  nearestOfTrees,
  inverse,
  type BodyHandle,
  type BodyMeasures,
  type Id,
  type Kernel,
  type RigidTransform,
  type TriangleTree,
  type Vec3,
} from '@helb/core';

/** Two placements that overlap, or come nearer to each other than was asked; places in space. */
export interface Interference {
  readonly a: string;
  readonly b: string;
  /** 0 where they do not overlap. */
  readonly overlap_mm3: number;
  readonly distance_mm: number;
  readonly from: Vec3;
  readonly to: Vec3;
  /** False where the kernel could not tell: their meshes come that near, whether they overlap nobody knows. */
  readonly compared: boolean;
  /** Are they meant to press into each other? */
  readonly pressed: boolean;
}

/** A body of a member, in the coordinates of its part. */
export interface PlacedBody {
  readonly member: string;
  readonly part: Id;
  readonly body: BodyHandle;
  readonly measures: BodyMeasures;
  /** Its skin as a mesh that lies no further from it than `deflection`, mm. */
  readonly skin: TriangleTree;
  readonly deflection: number;
  readonly pose: RigidTransform;
}

/**
 * Every two members that overlap or come nearer than `within` mm, the worst first. Which pairs may be is told by their
 * boxes and then by their meshes; how far apart these are, or how much they overlap, by the exact bodies. Gives way
 * between pairs.
 */
export async function interferences(
  kernel: Kernel,
  bodies: readonly PlacedBody[],
  within: number,
  isPressed: (a: string, b: string) => boolean,
  pause: (done: number, of: number) => Promise<void> = () => Promise.resolve(),
): Promise<Interference[]> {
  const boxes = bodies.map(({ measures, pose }) => transformBox(measures.box_mm, pose));
  const pairs = bodies.flatMap((a, i) =>
    bodies.slice(i + 1).flatMap((b, k) => {
      const near = a.member !== b.member && boxesApart(boxes[i]!, boxes[i + 1 + k]!) <= within + 1e-9;
      return near ? [[a, b] as const] : [];
    }),
  );
  const found = new Map<string, Interference>();
  for (const [k, [a, b]] of pairs.entries()) {
    await pause(k, pairs.length);
    const across = compose(b.pose, inverse(a.pose));
    if (!mayMeet(a, b, across, within)) continue;
    const met = kernel.clearance(a.body, b.body, across);
    const { overlap_mm3, distance_mm, from, to } = met.ok ? met.value : unclear(a);
    if (met.ok && overlap_mm3 === 0 && distance_mm >= within) continue;
    const key = `${a.member} ${b.member}`;
    const before = found.get(key);
    const now = {
      a: a.member,
      b: b.member,
      overlap_mm3: overlap_mm3 + (before?.overlap_mm3 ?? 0),
      distance_mm,
      from: transformPoint(a.pose, from),
      to: transformPoint(a.pose, to),
      compared: met.ok && (before?.compared ?? true),
      pressed: isPressed(a.member, b.member),
    };
    // of several bodies the nearest is told
    if (!before || !met.ok || overlap_mm3 > 0 || distance_mm < before.distance_mm) found.set(key, now);
  }
  return [...found.values()].sort((a, b) => b.overlap_mm3 - a.overlap_mm3 || a.distance_mm - b.distance_mm);
}

/** What is told of a pair that could not be compared: that it is there. */
const unclear = ({ measures }: PlacedBody) => ({
  overlap_mm3: 0,
  distance_mm: 0,
  from: measures.centre_mm,
  to: measures.centre_mm,
});

/** Do the meshes come so near that the bodies may? One that lies inside the other does too. */
function mayMeet(a: PlacedBody, b: PlacedBody, across: RigidTransform, within: number): boolean {
  const near = within + a.deflection + b.deflection;
  if (nearestOfTrees(a.skin, new MovedTree(b.skin, across), near, { enough: near })) return true;
  const from = (body: PlacedBody): Vec3 => body.skin.triangle(0)[0];
  return a.skin.encloses(transformPoint(across, from(b))) || b.skin.encloses(transformPoint(inverse(across), from(a)));
}
