import {
  add3,
  cross3,
  direction3,
  distance3,
  dot3,
  frameAcross,
  length3,
  scale3,
  squareTo3,
  sub3,
  type Frame,
  type Vec2,
  type Vec3,
} from '../../math/index.ts';
import { endsOfCurve, type SpaceCurve, straightAlong } from '../../geometry/index.ts';
import type { EdgeFacts, FaceFacts, Topology } from '../../kernel-port/index.ts';

// The stretches of a flat rim of even width: the top of a wall, the end of a slab, the brim of a cup.

/**
 * A stretch between two edges that keep their distance. Its section is told in a frame whose x runs from one edge to the
 * other and whose y points out of the body.
 */
export interface RimPair {
  readonly frame: Frame;
  readonly width: number;
  /** In which direction the wall goes on into the body below each of the two edges. */
  readonly walls: readonly [Vec2, Vec2];
  /** How far both walls go down, mm. */
  readonly depth: number;
  /** Straight along the frame's z, mm, or about an axis, rad. */
  readonly way:
    | { readonly form: 'straight'; readonly length: number }
    | { readonly form: 'round'; readonly origin: Vec3; readonly axis: Vec3; readonly angle: number };
}

type Line = Extract<SpaceCurve, { form: 'line' }>;
type Circle = Extract<SpaceCurve, { form: 'circle' }>;

/** Two edges of a face that face each other over its width. */
interface Pair {
  readonly edges: readonly [EdgeFacts, EdgeFacts];
  readonly stretch: RimPair;
}

/** A stretch as far as its two edges tell. */
type Rim = Omit<RimPair, 'depth'>;

const NEAR = 1e-6;

/** The stretches of a flat face, all of one width; none where it is no such rim. */
export function stretchesOf(face: FaceFacts, topology: Topology): readonly RimPair[] {
  if (face.surface.form !== 'plane') return [];
  const { normal } = face.surface;
  const edges = topology.edges.filter(({ faces }) => faces.includes(face.name));
  const pairs = edges
    .flatMap((a, k) => edges.slice(k + 1).flatMap((b) => pairOf(face, normal, a, b, topology) ?? []))
    .sort((a, b) => a.stretch.width - b.stretch.width);
  const taken: Pair[] = [];
  for (const pair of pairs) {
    const even = Math.abs(pair.stretch.width - pairs[0]!.stretch.width) < NEAR;
    if (even && taken.every((other) => goTogether(other, pair))) taken.push(pair);
  }
  const paired = new Set(taken.flatMap((pair) => pair.edges));
  // what is left are the ends, straight across: a corner or a bay in the rim is none
  const ends = edges.filter((edge) => !paired.has(edge));
  const across = ({ curve, length }: EdgeFacts) =>
    curve.form === 'line' && Math.abs(length - taken[0]!.stretch.width) < NEAR;
  return taken.length > 0 && ends.length <= 2 && ends.every(across) ? taken.map(({ stretch }) => stretch) : [];
}

/** Two pairs of one rim share no edge, and where their edges meet they go on smoothly. */
function goTogether(a: Pair, b: Pair): boolean {
  return a.edges.every((edge) =>
    b.edges.every((other) => edge !== other && (!meet(edge, other) || goOn(edge.curve, other.curve))),
  );
}

function meet(a: EdgeFacts, b: EdgeFacts): boolean {
  const others: readonly string[] = b.ends ?? [];
  return (a.ends ?? []).some((end) => others.includes(end));
}

/** Do curves that meet have one direction there? */
function goOn(a: SpaceCurve, b: SpaceCurve): boolean {
  const others = endsOfCurve(b);
  const at = endsOfCurve(a).find((place) => others.some((other) => distance3(place, other) < NEAR));
  const [u, v] = at ? [directionAt(a, at), directionAt(b, at)] : [];
  return u !== undefined && v !== undefined && Math.abs(dot3(u, v)) > 1 - 1e-9;
}

function directionAt(curve: SpaceCurve, at: Vec3): Vec3 | undefined {
  return curve.form === 'circle' ? direction3(cross3(curve.axis, sub3(at, curve.centre))) : straightAlong(curve);
}

function pairOf(face: FaceFacts, normal: Vec3, a: EdgeFacts, b: EdgeFacts, topology: Topology): Pair | undefined {
  if (a.turn !== 'outer' || b.turn !== 'outer') return undefined;
  const wallOf = (edge: EdgeFacts) =>
    topology.faces.find(({ name }) => name !== face.name && edge.faces.includes(name));
  const [left, right] = [wallOf(a), wallOf(b)];
  if (!left || !right) return undefined;
  const walls = [left, right] as const;
  const [first, second] = [a.curve, b.curve];
  const rim =
    first.form === 'line' && second.form === 'line'
      ? straight(normal, [first, second], walls)
      : first.form === 'circle' && second.form === 'circle'
        ? round(normal, [first, second], walls)
        : undefined;
  const depths = walls.map((wall) => {
    const around = topology.edges.filter(({ faces }) => faces.includes(wall.name));
    return Math.max(...around.map(({ middle }) => dot3(sub3(face.centre, middle), normal)));
  });
  return rim && { edges: [a, b], stretch: { ...rim, depth: Math.min(...depths) } };
}

function straight(y: Vec3, [a, b]: readonly [Line, Line], walls: readonly [FaceFacts, FaceFacts]): Rim | undefined {
  const along = direction3(sub3(a.to, a.from));
  const over = along && squareTo3(sub3(b.from, a.from), along);
  const x = over && direction3(over);
  if (!x) return undefined;
  const z = cross3(x, y);
  const [from, to] = dot3(z, along) > 0 ? [a.from, a.to] : [a.to, a.from];
  const level = [from, to].every((at) => [b.from, b.to].some((end) => distance3(add3(at, over), end) < NEAR));
  const [first, second] = walls.map(({ surface }) => surface.form === 'plane' && downwards(surface.normal, x, y));
  if (!level || !first || !second) return undefined;
  return {
    frame: { origin: from, x, y, z },
    width: length3(over),
    walls: [first, second],
    way: { form: 'straight', length: distance3(from, to) },
  };
}

/** The direction of a wall in the section: square to its normal, into the body. */
function downwards(normal: Vec3, x: Vec3, y: Vec3): Vec2 {
  const along: Vec2 = [-dot3(normal, y), dot3(normal, x)];
  return along[1] > 0 ? [-along[0], -along[1]] : along;
}

/** The walls of a round stretch stand square on it. */
function round(y: Vec3, circles: readonly [Circle, Circle], walls: readonly [FaceFacts, FaceFacts]): Rim | undefined {
  const [inner, outer] = [...circles].sort((a, b) => a.radius - b.radius) as [Circle, Circle];
  const concentric = distance3(inner.centre, outer.centre) < NEAR;
  if (!concentric || walls.some(({ surface }) => surface.form !== 'cylinder')) return undefined;
  const [mine, other] = [sectorOf(inner, y), sectorOf(outer, y)];
  if (Math.abs(mine.angle - other.angle) > NEAR || distance3(mine.x, other.x) > NEAR) return undefined;
  const down: Vec2 = [0, -1];
  return {
    frame: { origin: add3(inner.centre, scale3(mine.x, inner.radius)), x: mine.x, y, z: cross3(mine.x, y) },
    width: outer.radius - inner.radius,
    walls: [down, down],
    way: { form: 'round', origin: inner.centre, axis: y, angle: mine.angle },
  };
}

/** Where an arc begins and how far it goes, counter-clockwise about a direction; a whole circle from any place. */
function sectorOf({ centre, axis, from, to }: Circle, about: Vec3): { readonly x: Vec3; readonly angle: number } {
  if (!from || !to) return { x: frameAcross(centre, about).x, angle: 2 * Math.PI };
  const [begin, end] = dot3(axis, about) > 0 ? [from, to] : [to, from];
  const x = direction3(sub3(begin, centre))!;
  const out = sub3(end, centre);
  const angle = Math.atan2(dot3(out, cross3(about, x)), dot3(out, x));
  return { x, angle: angle <= 0 ? angle + 2 * Math.PI : angle };
}
