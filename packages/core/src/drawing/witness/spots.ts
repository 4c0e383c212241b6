import { facesOfName } from '../../naming/index.ts';
import {
  add3,
  addD3,
  alongD3,
  choleskyInPlace,
  choleskySolve,
  constant3,
  cross3,
  crossD3,
  direction2,
  direction3,
  dot3,
  dotD,
  leftD,
  length3,
  lengthD3,
  scale3,
  subD3,
  timesD3,
  toPlane,
  unitD,
  valueOf3,
  type Dual,
  type DualVec,
  type DualVec3,
  type Frame,
  type Vec2,
  type Vec3,
} from '../../math/index.ts';
import { placesOnCurve, straightAlong, type SpaceCurve } from '../../geometry/index.ts';
import type { EdgeFacts } from '../../kernel-port/index.ts';
import { type Thing } from '../../references/index.ts';
import type { MovingAxis, MovingSurface } from './surfaces.ts';
import type { MovingFaces } from './moving-faces.ts';

/** What a thing is in a view, for dimensions: mm of the thing in the plane of the eye. */
export interface Spot {
  /** A place: a corner, what is round seen from its end. */
  readonly point?: DualVec;
  /** A line: its unit normal, and how high places on it lie along that. */
  readonly line?: { readonly normal: DualVec; readonly height: Dual };
  /** Of what is round, mm. */
  readonly radius?: Dual;
  /** Of what is round: is it seen from its end? */
  readonly endOn?: boolean;
  /** Is it the rim of something round, seen from the side? */
  readonly rim?: boolean;
  /** Places of the thing: dimensions begin at one of them. */
  readonly places: readonly Vec2[];
}

/** Two directions differ by less than this where they count as one. */
const SAME = 1e-9;

/** What a thing is in a view; undefined where it leans, so that nothing can be measured to it there. */
export function spotOf(thing: Thing, faces: MovingFaces, eye: Frame): Spot | undefined {
  return SPOTS[thing.to]?.(new Sight(faces, eye), thing as never);
}

/** Of bodies, datums and what is drawn dimensions tell nothing. */
const SPOTS: { readonly [T in Thing['to']]?: (sight: Sight, thing: Extract<Thing, { to: T }>) => Spot | undefined } = {
  face: (sight, { face, body }) => sight.face(face.name, body),
  edge: (sight, { edge, body }) => sight.edge(edge, body),
  vertex: (sight, { vertex, body }) => sight.corner(vertex.name, vertex.at, body),
};

class Sight {
  constructor(
    private readonly faces: MovingFaces,
    private readonly eye: Frame,
  ) {}

  face(name: string, body: number): Spot | undefined {
    const found = this.faces.face(body, name);
    if (!found) return undefined;
    const { plane, axis, radius, centre, ring } = found.surface;
    const places = found.places.map((place) => toPlane(this.eye, place));
    const sized = radius ? { radius } : {};
    if (plane) {
      if (Math.abs(dot3(valueOf3(plane.normal), this.eye.z)) > SAME) return undefined;
      return { line: this.line(plane.normal, plane.height), places };
    }
    if (ring) return { ...sized, places };
    if (axis) return this.round(axis, places, sized);
    return centre && { point: this.flat(centre), ...sized, endOn: true, places };
  }

  private round(axis: MovingAxis, places: readonly Vec2[], more: Pick<Spot, 'radius'>): Spot | undefined {
    const lean = Math.abs(dot3(valueOf3(axis.along), this.eye.z));
    if (lean > 1 - SAME) return { point: this.flat(axis.at), ...more, endOn: true, places };
    if (lean > SAME) return undefined;
    const normal = leftD(unitD(this.way(axis.along)));
    return { line: { normal, height: dotD(normal, this.flat(axis.at)) }, ...more, endOn: false, places };
  }

  edge({ curve, faces, middle }: EdgeFacts, body: number): Spot | undefined {
    const surfaces = this.surfaces(faces, body);
    const places = placesOnCurve(curve, middle).map((place) => toPlane(this.eye, place));
    if (curve.form === 'circle') return this.rim(surfaces, curve, middle, places);
    const way = straightAlong(curve);
    const on = way && pointOn(surfaces, middle);
    if (!on) return undefined;
    const lean = Math.abs(dot3(way, this.eye.z));
    if (lean > 1 - SAME) return { point: this.flat(on), places };
    const [a, b] = surfaces.map(({ plane }) => plane?.normal);
    const along = a && b ? crossD3(a, b) : constant3(way);
    const normal = leftD(unitD(this.way(along)));
    return { line: { normal, height: dotD(normal, this.flat(on)) }, places };
  }

  /** The rim of what is round: seen from its end a place with a radius, from the side a line across the axis. */
  private rim(
    surfaces: readonly MovingSurface[],
    { axis }: Extract<SpaceCurve, { form: 'circle' }>,
    middle: Vec3,
    places: readonly Vec2[],
  ): Spot | undefined {
    const round = surfaces.map((surface) => surface.axis).find((one) => one && isParallel(valueOf3(one.along), axis));
    const on = pointOn(surfaces, middle);
    if (!round || !on) return undefined;
    const from = subD3(on, round.at);
    const rise = round.along.map((c, k) => c.times(from[k]!)).reduce((sum, one) => sum.add(one));
    const radius = lengthD3(subD3(from, timesD3(round.along, rise)));
    const lean = Math.abs(dot3(axis, this.eye.z));
    if (lean > 1 - SAME) return { point: this.flat(round.at), radius, endOn: true, places };
    if (lean > SAME) return undefined;
    const normal = unitD(this.way(round.along));
    const foot = addD3(round.at, timesD3(round.along, rise));
    return { line: { normal, height: dotD(normal, this.flat(foot)) }, radius, endOn: false, rim: true, places };
  }

  corner(name: string, at: Vec3, body: number): Spot | undefined {
    const on = pointOn(this.surfaces(facesOfName(name), body), at);
    return on && { point: this.flat(on), places: [toPlane(this.eye, at)] };
  }

  private surfaces(names: readonly string[], body: number): MovingSurface[] {
    return names.flatMap((name) => this.faces.face(body, name)?.surface ?? []);
  }

  private way = (along: DualVec3): DualVec => [alongD3(along, this.eye.x), alongD3(along, this.eye.y)];

  private flat(place: DualVec3): DualVec {
    const [x, y] = toPlane(this.eye, [0, 0, 0]);
    const [u, v] = this.way(place);
    return [u.plus(x), v.plus(y)];
  }

  private line(normal: DualVec3, height: Dual): NonNullable<Spot['line']> {
    const flat = this.way(normal);
    const [x, y] = toPlane(this.eye, [0, 0, 0]);
    return { normal: flat, height: height.add(flat[0].scaled(x)).add(flat[1].scaled(y)) };
  }
}

const isParallel = (a: Vec3, b: Vec3): boolean => Math.abs(dot3(a, b)) > 1 - SAME;

/**
 * A place where surfaces meet, as it moves with them: along their normals as they do, else not. Undefined where all of
 * them touch, so that the place is nowhere to be seen.
 */
export function pointOn(surfaces: readonly MovingSurface[], place: Vec3): DualVec3 | undefined {
  const normals: Vec3[] = [];
  const taken: MovingSurface[] = [];
  // of more than three those that meet at the clearest angles are met first in most models; the others agree
  for (const surface of surfaces) {
    const normal = surface.normal(place);
    if (normals.length < 3 && square(normal, normals) > 0.02) {
      normals.push(normal);
      taken.push(surface);
    }
  }
  if (taken.length < 2) return undefined;
  const offs = taken.map((surface) => surface.off(place));
  const solve = gramInverse(normals);
  // the shortest way to all of them: N^T (N N^T)^-1
  const ways = normals.map((_, j) => {
    const shares = solve(Float64Array.from(normals, (_, i) => (i === j ? 1 : 0)));
    return normals.reduce<Vec3>((sum, normal, i) => add3(sum, scale3(normal, shares[i]!)), [0, 0, 0]);
  });
  return offs.reduce((at, off, j) => {
    const rest = off.plus(-off.value);
    return subD3(at, ways[j]!.map((c) => rest.scaled(c)) as unknown as DualVec3);
  }, constant3(place));
}

/** How much of a direction is left square to at most two others, 0 to 1. */
function square(normal: Vec3, [a, b]: readonly Vec3[]): number {
  if (!a) return 1;
  const across = b ? direction3(cross3(a, b)) : undefined;
  return across ? Math.abs(dot3(normal, across)) : length3(cross3(normal, a));
}

/** What applies the inverse of N N^T, of the normals as the rows of N. */
function gramInverse(normals: readonly Vec3[]): (right: Float64Array) => Float64Array {
  const n = normals.length;
  const factor = Float64Array.from(normals.flatMap((a) => normals.map((b) => dot3(a, b))));
  choleskyInPlace(factor, n);
  return (right) => {
    choleskySolve(factor, n, right);
    return right;
  };
}

/** The way in which a line runs, in a view. */
export const wayOf = ({ normal }: NonNullable<Spot['line']>): Vec2 =>
  direction2([-normal[1].value, normal[0].value]) ?? [1, 0];
