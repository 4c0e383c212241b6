import {
  add3,
  boxRound,
  distance3,
  transformPoint,
  scale3,
  IDENTITY,
  type BodyMesh,
  type RigidTransform,
  type NamedRange,
  type Vec2,
  type Vec3,
} from '@helb/core';
import { nearness, offsetTo, PICK_PIXELS, type Screen } from './nearness.ts';

/** The edges of a body as they are picked. Each has a ball round it: of thousands most are passed over at once. */
export class Rims {
  /** Centre and radius of the ball round each edge, mm. */
  private readonly balls: Float64Array;

  constructor(private readonly mesh: Pick<BodyMesh, 'edges' | 'edgePoints'>) {
    this.balls = new Float64Array(4 * mesh.edges.length);
    for (const [k, { start, count }] of mesh.edges.entries()) {
      const places = Array.from({ length: count }, (_, at) => this.place(start + at));
      const { low, high } = boxRound(places.map((place) => ({ low: place, high: place })))!;
      const centre = scale3(add3(low, high), 0.5);
      this.balls.set([...centre, distance3(low, high) / 2], 4 * k);
    }
  }

  /** Edges within a few pixels of a place on the screen, of a body that stands at a pose, with how far from the eye they are. */
  near(screen: Screen, [x, y]: Vec2, pose: RigidTransform = IDENTITY, hides?: (place: Vec3) => boolean): NearRim[] {
    const moved = pose === IDENTITY ? (place: Vec3) => place : (place: Vec3) => transformPoint(pose, place);
    return this.mesh.edges.flatMap((range, k): NearRim[] => {
      const [cx, cy, cz, radius] = this.balls.subarray(4 * k, 4 * k + 4) as unknown as [number, number, number, number];
      const [u, v] = screen.toScreen(moved([cx, cy, cz]));
      const reach = radius / screen.pixel + PICK_PIXELS;
      if (Math.abs(u - x) > reach || Math.abs(v - y) > reach) return [];
      const point = (at: number) => moved(this.place(range.start + at));
      const depth = nearness(screen, [x, y], range.count, point, hides);
      if (depth === undefined) return [];
      return [{ range, depth, at: point(0), off: offsetTo(screen, [x, y], range.count, point) }];
    });
  }

  private place(k: number): Vec3 {
    const { edgePoints } = this.mesh;
    return [edgePoints[3 * k]!, edgePoints[3 * k + 1]!, edgePoints[3 * k + 2]!];
  }
}

interface NearRim {
  readonly range: NamedRange;
  readonly depth: number;
  /** Where it begins, in space. */
  readonly at: Vec3;
  /** The way to it on the screen, px. */
  readonly off: Vec2;
}
