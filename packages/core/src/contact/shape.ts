import {
  add3,
  boxRound,
  cross3,
  direction3,
  distance3,
  dot3,
  length3,
  nearestTriangle,
  scale3,
  sub3,
  TriangleTree,
  type Box3,
  type Vec3,
} from '../math/index.ts';
import { endsOfCurve, nearestOnCurve, type SpaceCurve, type Surface } from '../geometry/index.ts';
import type { BodyMesh, EdgeFacts, NamedRange, Topology } from '../kernel-port/index.ts';
import { alongFaces, awayFrom, fieldOf, type DistanceField } from './fields.ts';
import { circleSpine, lineSpine, polySpine, spineOf, type CurveSpine, type Spine } from './spines.ts';

/** A face, an outer edge or an outer corner of a body, as what may touch: in the coordinates of the body, mm. */
export interface ContactFeature {
  readonly kind: 'face' | 'edge' | 'corner';
  /** The lasting name. */
  readonly name: string;
  /** Its mesh: triangles, segments or the corner. */
  readonly tree: () => TriangleTree;
  /** The box round that. */
  readonly box: Box3;
  /** How far a place lies outside; not bounded by where it ends. */
  readonly field: DistanceField;
  /** What it is swept from by a ball of this radius; undefined of what is flat, hollow, conical or free. */
  readonly spine?: Spine;
  readonly radius: number;
  readonly isFlat: boolean;
  readonly isHollow: boolean;
  /** Of a face: the faces beyond its outer edges, by their places in the list. */
  readonly beside: ReadonlySet<number>;
  /** Where it is flat, its normal. */
  readonly flat?: Vec3;
  /** Directions to which no normal of it leans, wherever on it: along a cylinder, along a straight edge, into faces beside it. */
  readonly steady: readonly Vec3[];
  /** Directions into the skin from a place of it, of an edge or a corner: none of them may go outwards where it touches. */
  tangents(place: Vec3): readonly Vec3[];
  /** Does a place that lies on what it is a piece of lie on the piece? */
  holds(place: Vec3): boolean;
}

/** A body as what may touch: its features, and a tree that tells which of them are near. */
export interface ContactShape {
  readonly features: readonly ContactFeature[];
  /** Triangles of faces, segments of edges and corners. */
  readonly tree: TriangleTree;
  /** How far its mesh may be from its skin, mm. */
  readonly deflection: number;
}

/** What lies off a piece by less than this, mm, lies on it still. */
const ON = 2e-3;

const NOTHING: ReadonlySet<number> = new Set();
const NOWHERE = (): readonly Vec3[] => [];

/**
 * A body by its mesh, which tells where its faces lie and end, and by its exact surfaces and curves. Only what stands out may
 * touch: inner edges and smooth ones are left out.
 * @param mesh fine enough that what is free may be taken for it
 * @param deflection how far that may be from the skin, mm
 */
export function contactShape(mesh: BodyMesh, topology: Topology, deflection: number): ContactShape {
  const builder = new ShapeBuilder(mesh, topology);
  topology.faces.forEach(({ name, surface }) => builder.addFace(name, surface));
  const outer = topology.edges.filter(({ turn }) => turn === 'outer');
  outer.forEach((edge) => builder.addEdge(edge));
  for (const { name, at } of topology.vertices) {
    if (outer.filter(({ ends }) => ends?.includes(name)).length >= 2) builder.addCorner(name, at);
  }
  return { ...builder.finished(), deflection };
}

class ShapeBuilder {
  private readonly features: ContactFeature[] = [];
  private readonly elements: Element[] = [];
  private readonly faces: Map<string, NamedRange>;
  private readonly lines: Map<string, NamedRange>;
  /** Outward fields of faces, by name. */
  private readonly fields = new Map<string, DistanceField>();

  constructor(
    private readonly mesh: BodyMesh,
    private readonly topology: Topology,
  ) {
    this.faces = new Map(mesh.faces.map((range) => [range.name, range]));
    this.lines = new Map(mesh.edges.map((range) => [range.name, range]));
  }

  finished(): Omit<ContactShape, 'deflection'> {
    return { features: this.features, tree: treeOf(this.elements) };
  }

  addFace(name: string, surface: Surface): void {
    const { start, count } = this.faces.get(name) ?? { start: 0, count: 0 };
    if (count === 0) return;
    const { positions, normals, triangles } = this.mesh;
    const place = (k: number): Vec3 => at(positions, triangles[start + k]!);
    const way = (k: number): Vec3 => at(normals, triangles[start + k]!);
    const piece = new FacePiece(
      Array.from({ length: count / 3 }, (_, k) => [place(3 * k), place(3 * k + 1), place(3 * k + 2)] as const),
      Array.from({ length: count / 3 }, (_, k) => [way(3 * k), way(3 * k + 1), way(3 * k + 2)] as const),
    );
    const side = sideOf(fieldOf(surface), piece);
    const field = fieldOf(surface, side) ?? piece.field;
    this.fields.set(name, field);
    const swept = side === 1 ? spineOf(surface) : undefined;
    this.put(piece.triangles, {
      ...{ kind: 'face', name, field, radius: swept?.radius ?? 0, ...(swept ? { spine: swept.spine } : {}) },
      isFlat: surface.form === 'plane',
      isHollow: side === -1,
      beside: this.besideOf(name),
      ...(surface.form === 'plane' ? { flat: scale3(surface.normal, side) } : {}),
      steady: surface.form === 'cylinder' ? [surface.axis, scale3(surface.axis, -1)] : [],
      tangents: NOWHERE,
      holds: piece.holds,
    });
  }

  /** Faces come first in the list, in the order of the topology. */
  private besideOf(name: string): ReadonlySet<number> {
    const { faces, edges } = this.topology;
    const shown = faces.filter((face) => (this.faces.get(face.name)?.count ?? 0) > 0).map((face) => face.name);
    const across = edges.flatMap((edge) =>
      edge.turn === 'outer' && edge.faces.includes(name) ? edge.faces.filter((other) => other !== name) : [],
    );
    return new Set(across.map((other) => shown.indexOf(other)).filter((k) => k >= 0));
  }

  addEdge({ name, curve, faces, middle }: EdgeFacts): void {
    const range = this.lines.get(name);
    if (!range) return;
    const segments = Array.from(
      { length: range.count / 2 },
      (_, k) =>
        [at(this.mesh.edgePoints, range.start + 2 * k), at(this.mesh.edgePoints, range.start + 2 * k + 1)] as const,
    );
    const spine = spineOfCurve(curve, segments);
    if (!spine) return;
    const fields = faces.map((face) => this.fields.get(face)).filter((field) => field !== undefined);
    const tangents = (place: Vec3): readonly Vec3[] => {
      const { along } = spine.place(spine.foot(place));
      const [one, other] = fields.map((field) => field(place)?.normal);
      return one && other ? alongFaces(along, [one, other]) : [];
    };
    const surfaces = this.topology.faces.filter((face) => faces.includes(face.name));
    const isStraight = curve.form === 'line' && surfaces.every(({ surface }) => isSameAlong(surface, curve));
    const along = isStraight ? spine.place(0).along : undefined;
    const steady = along
      ? [along, scale3(along, -1), ...tangents(middle)]
      : surfaces.flatMap(({ surface }) =>
          surface.form === 'cylinder' ? downAxis(surface.axis, tangents(middle)) : [],
        );
    this.put(
      segments.map(([a, b]) => [a, b, b] as const),
      {
        ...{ kind: 'edge', name, spine, steady, radius: 0, isFlat: false, isHollow: false, beside: NOTHING },
        field: (place) => awayFrom(spine.place(spine.foot(place)).at, place, 0),
        tangents: isStraight ? always(tangents(middle)) : (place) => tangents(place),
        holds: (place) => isWithin(spine, spine.foot(place)),
      },
    );
  }

  addCorner(name: string, corner: Vec3): void {
    const away = this.topology.edges.flatMap(({ ends, curve }) => (ends?.includes(name) ? leaving(curve, corner) : []));
    this.put([[corner, corner, corner]], {
      ...{
        kind: 'corner',
        name,
        spine: { form: 'point', at: corner },
        steady: away,
        radius: 0,
        isFlat: false,
        isHollow: false,
        beside: NOTHING,
      },
      field: (place) => awayFrom(corner, place, 0),
      tangents: () => away,
      holds: () => true,
    });
  }

  private put(elements: readonly Element[], feature: Omit<ContactFeature, 'tree' | 'box'>): void {
    this.elements.push(...elements);
    let tree: TriangleTree | undefined;
    const corners = elements.flat();
    this.features.push({
      ...feature,
      tree: () => (tree ??= treeOf(elements)),
      box: boxRound(corners.map((corner) => ({ low: corner, high: corner })))!,
    });
  }
}

type Element = readonly [Vec3, Vec3, Vec3];

const treeOf = (elements: readonly Element[]): TriangleTree =>
  new TriangleTree(
    Float32Array.from(elements.flat(2)),
    Uint32Array.from({ length: 3 * elements.length }, (_, k) => k),
  );

const at = (list: Float32Array, k: number): Vec3 => [list[3 * k]!, list[3 * k + 1]!, list[3 * k + 2]!];

/** Is a place of a spine between its ends? */
export const isWithin = ({ low, high }: CurveSpine, t: number): boolean => t >= low - ON && t <= high + ON;

/** Of the directions into faces at a rim the one that runs along a cylinder: it is the same all round. */
const downAxis = (axis: Vec3, tangents: readonly Vec3[]): readonly Vec3[] =>
  tangents.filter((along) => Math.abs(dot3(along, axis)) > 1 - 1e-6);

const always = (directions: readonly Vec3[]) => () => directions;

/** Has a surface the same normal all along a straight line on it? */
const isSameAlong = (surface: Surface, { from, to }: Extract<SpaceCurve, { form: 'line' }>): boolean => {
  if (surface.form === 'plane') return true;
  const along = direction3(sub3(to, from));
  return surface.form === 'cylinder' && along !== undefined && Math.abs(dot3(along, surface.axis)) > 1 - 1e-9;
};

/** On which side of its axis the material of a face lies, told by the normals of its mesh. */
function sideOf(outward: DistanceField | undefined, { triangles, normals }: FacePiece): 1 | -1 {
  for (const [k, triangle] of triangles.entries()) {
    const found = outward?.(middleOf(triangle));
    const cosine = found ? dot3(found.normal, middleOf(normals[k]!)) : 0;
    if (Math.abs(cosine) > 0.1) return cosine > 0 ? 1 : -1;
  }
  return 1;
}

const middleOf = ([a, b, c]: readonly [Vec3, Vec3, Vec3]): Vec3 => scale3(add3(add3(a, b), c), 1 / 3);

function spineOfCurve(curve: SpaceCurve, segments: readonly (readonly [Vec3, Vec3])[]): CurveSpine | undefined {
  if (curve.form === 'line') {
    const along = direction3(sub3(curve.to, curve.from));
    const length = distance3(curve.from, curve.to);
    return along && lineSpine(curve.from, along, 0, length, length);
  }
  if (curve.form === 'circle') {
    const { centre, axis, radius, from, to } = curve;
    return circleSpine(centre, axis, radius, from && to && [from, to]);
  }
  const places = [...segments.slice(0, 1).map(([a]) => a), ...segments.map(([, b]) => b)];
  return places.length > 1 ? polySpine(places) : undefined;
}

/** The direction in which a curve leaves one of its ends. */
function leaving(curve: SpaceCurve, end: Vec3): Vec3[] {
  const [from, to] = endsOfCurve(curve);
  const along = nearestOnCurve(curve, end)?.along;
  if (!from || !to || !along) return [];
  return [distance3(from, end) <= distance3(to, end) ? along : scale3(along, -1)];
}

/** The triangles of one face, with the normals of its surface at their corners. */
class FacePiece {
  private tree: TriangleTree | undefined;

  constructor(
    readonly triangles: readonly (readonly [Vec3, Vec3, Vec3])[],
    readonly normals: readonly (readonly [Vec3, Vec3, Vec3])[],
  ) {}

  private nearest(place: Vec3) {
    this.tree ??= treeOf(this.triangles);
    return nearestTriangle(this.tree, place);
  }

  /** Off the mesh along its surface counts, not how far its triangles cut the surface short. */
  holds = (place: Vec3): boolean => {
    const found = this.nearest(place);
    if (!found) return false;
    const { k, foot } = found;
    const [a, b, c] = this.triangles[k]!;
    const normal = direction3(cross3(sub3(b, a), sub3(c, a)));
    const way = sub3(place, foot);
    return length3(normal ? sub3(way, scale3(normal, dot3(way, normal))) : way) <= ON;
  };

  /** To the mesh made round by its normals (Phong tessellation: Boubekeur, Alexa 2008). */
  field: DistanceField = (place) => {
    const found = this.nearest(place);
    if (!found) return undefined;
    const { k, foot } = found;
    const [corners, ways] = [this.triangles[k]!, this.normals[k]!];
    const weights = barycentric(corners, foot);
    const mix = (of: (n: number) => Vec3): Vec3 =>
      weights.reduce<Vec3>((sum, weight, n) => add3(sum, scale3(of(n), weight)), [0, 0, 0]);
    const normal = direction3(mix((n) => ways[n]!));
    if (!normal) return undefined;
    const round = mix((n) => {
      const off = dot3(sub3(foot, corners[n]!), ways[n]!);
      return sub3(foot, scale3(ways[n]!, off));
    });
    const onSkin = add3(scale3(foot, 1 - ROUNDED), scale3(round, ROUNDED));
    return { distance: dot3(sub3(place, onSkin), normal), normal };
  };
}
/** The share of the way to the tangent planes that keeps curvature best (Boubekeur, Alexa 2008: 3/4, exact on a parabola: 1/2). */
const ROUNDED = 0.5;

function barycentric([a, b, c]: readonly [Vec3, Vec3, Vec3], place: Vec3): readonly [number, number, number] {
  const normal = cross3(sub3(b, a), sub3(c, a));
  const square = dot3(normal, normal);
  if (square === 0) return [1, 0, 0];
  const share = (p: Vec3, q: Vec3) => dot3(cross3(sub3(q, p), sub3(place, p)), normal) / square;
  return [share(b, c), share(c, a), share(a, b)];
}
