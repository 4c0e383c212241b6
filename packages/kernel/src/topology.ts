import type { BRepAdaptor_Curve, gp_Ax1, gp_Pnt, gp_Vec, TopoDS_Shape } from 'replicad-opencascadejs';
import {
  add3,
  bezierAt,
  cross3,
  direction3,
  distance3,
  dot3,
  scale3,
  sub3,
  type EdgeFacts,
  type FaceFacts,
  type Frame,
  type SpaceCurve,
  type Surface,
  type Topology,
  type Vec3,
  type VertexFacts,
} from '@helb/core';
import { Scope, type Library } from './library.ts';
import { comparePlaces, type NamedSolid } from './names.ts';
import { plane } from './profile.ts';
import { ShapeMap, subShapes } from './shapes.ts';

/** Faces, edges and vertices of a body by their lasting names, with exact geometry. Seams are left out. */
export function topologyOf(library: Library, solid: NamedSolid): Topology {
  const scope = new Scope();
  const { faces, edges, vertices } = namedParts(library, scope, solid);
  const result: Topology = {
    name: solid.name,
    faces: faces.map(({ name, shape }) => faceFacts(library, scope, name, shape)),
    edges: edges.map(({ name, shape, faces: meeting }) => ({
      name,
      faces: meeting,
      ...edgeFacts(library, scope, shape, (vertex) => vertices.get(vertex).name),
    })),
    vertices: vertices.all.map(({ name, at }) => ({ name, at })),
  };
  scope.close();
  return result;
}

interface NamedEdge {
  readonly name: string;
  readonly shape: TopoDS_Shape;
  readonly faces: readonly string[];
}

/** The sub-shapes of a body with their names: an edge is named by the faces that meet there, a vertex by all of its faces. */
export function namedParts(library: Library, scope: Scope, { shape, faceNames }: NamedSolid) {
  const faces = subShapes(library, scope, shape, 'TopAbs_FACE').map((face, k) => ({
    name: faceNames[k]!,
    shape: face,
  }));
  const ofEdge = new ShapeMap<string[]>(library);
  const ofVertex = new ShapeMap<Set<string>>(library);
  for (const { name, shape: face } of faces) {
    for (const edge of subShapes(library, scope, face, 'TopAbs_EDGE'))
      ofEdge.set(edge, [...(ofEdge.get(edge) ?? []), name]);
    for (const vertex of subShapes(library, scope, face, 'TopAbs_VERTEX'))
      ofVertex.set(vertex, (ofVertex.get(vertex) ?? new Set()).add(name));
  }
  // where a round face meets only itself there is nothing to see or to pick
  const real = subShapes(library, scope, shape, 'TopAbs_EDGE').filter((edge) => ofEdge.get(edge)!.length > 1);
  const edgeNames = numbered(
    real.map((edge) => ofEdge.get(edge)!.toSorted().join(' | ')),
    (k) => middleOf(library, scope, real[k]!),
  );
  const edges = real.map((edge, k): NamedEdge => ({
    name: edgeNames[k]!,
    shape: edge,
    faces: ofEdge.get(edge)!.toSorted(),
  }));
  return { faces, edges, vertices: namedVertices(library, scope, shape, ofVertex), facesAt: ofEdge };
}

function namedVertices(library: Library, scope: Scope, shape: TopoDS_Shape, ofVertex: ShapeMap<Set<string>>) {
  // a vertex of two faces only lies on a seam: nobody sees a corner there
  const corners = subShapes(library, scope, shape, 'TopAbs_VERTEX').filter((vertex) => ofVertex.get(vertex)!.size > 2);
  const places = corners.map((vertex) => placeOfVertex(library, scope, vertex));
  const names = numbered(
    corners.map((vertex) => `corner ${[...ofVertex.get(vertex)!].sort().join(' | ')}`),
    (k) => places[k]!,
  );
  const all = corners.map((vertex, k) => ({ name: names[k]!, at: places[k]!, shape: vertex }));
  const byShape = new ShapeMap<VertexFacts>(library);
  all.forEach((vertex) => byShape.set(vertex.shape, vertex));
  return { all, get: (vertex: TopoDS_Shape) => byShape.get(vertex) ?? { name: '', at: [0, 0, 0] as const } };
}

/** Equal names get a number by place, x before y before z. */
function numbered(names: readonly string[], place: (k: number) => Vec3): string[] {
  const groups = new Map<string, number[]>();
  names.forEach((name, k) => groups.set(name, [...(groups.get(name) ?? []), k]));
  const result = [...names];
  for (const [name, group] of groups) {
    if (group.length === 1) continue;
    const places = new Map(group.map((k) => [k, place(k)]));
    group
      .toSorted((a, b) => comparePlaces(places.get(a)!, places.get(b)!))
      .forEach((k, n) => (result[k] = `${name} ~${n + 1}`));
  }
  return result;
}

const vec = (p: { X(): number; Y(): number; Z(): number }): Vec3 => [p.X(), p.Y(), p.Z()];

function placeOfVertex(library: Library, scope: Scope, vertex: TopoDS_Shape): Vec3 {
  return vec(scope.keep(library.BRep_Tool.Pnt(library.TopoDS.Vertex(vertex))));
}

/** The middle of an edge by its parameter: enough to tell edges apart, and on the curve. */
function middleOf(library: Library, scope: Scope, edge: TopoDS_Shape): Vec3 {
  const curve = scope.keep(new library.BRepAdaptor_Curve(library.TopoDS.Edge(edge)));
  return valueAt(scope, curve, (curve.FirstParameter() + curve.LastParameter()) / 2);
}

const valueAt = (scope: Scope, curve: BRepAdaptor_Curve, t: number): Vec3 => vec(scope.keep(curve.Value(t)));

function faceFacts(library: Library, scope: Scope, name: string, shape: TopoDS_Shape): FaceFacts {
  const properties = scope.keep(new library.GProp_GProps());
  library.BRepGProp.SurfaceProperties(shape, properties, false, false);
  return {
    name,
    surface: surfaceOf(library, scope, shape),
    area: properties.Mass(),
    centre: vec(scope.keep(properties.CentreOfMass())),
  };
}

const axisOf = (scope: Scope, axis: gp_Ax1): { origin: Vec3; axis: Vec3 } => ({
  origin: vec(scope.keep(axis.Location())),
  axis: vec(scope.keep(axis.Direction())),
});

function surfaceOf(library: Library, scope: Scope, shape: TopoDS_Shape): Surface {
  const surface = scope.keep(new library.BRepAdaptor_Surface(library.TopoDS.Face(shape), true));
  const kind = surface.GetType();
  const outside = normalIn(library, scope, shape);
  if (kind === 'GeomAbs_Plane') {
    const plane = scope.keep(surface.Plane());
    return { form: 'plane', origin: vec(scope.keep(plane.Location())), normal: outside.normal };
  }
  if (kind === 'GeomAbs_Cylinder') {
    const cylinder = scope.keep(surface.Cylinder());
    const { origin, axis } = axisOf(scope, scope.keep(cylinder.Axis()));
    const out = sub3(outside.at, origin);
    const hollow = dot3(sub3(out, scale3(axis, dot3(out, axis))), outside.normal) < 0;
    return { form: 'cylinder', origin, axis, radius: cylinder.Radius(), hollow };
  }
  if (kind === 'GeomAbs_Sphere') {
    const sphere = scope.keep(surface.Sphere());
    return { form: 'sphere', centre: vec(scope.keep(sphere.Location())), radius: sphere.Radius() };
  }
  return { form: 'free' };
}

/** A place inside the parameters of a face and the normal there, out of the body. */
export function normalIn(
  library: Library,
  scope: Scope,
  shape: TopoDS_Shape,
): { readonly at: Vec3; readonly normal: Vec3 } {
  const surface = scope.keep(new library.BRepAdaptor_Surface(library.TopoDS.Face(shape), true));
  const place: gp_Pnt = scope.keep(new library.gp_Pnt(0, 0, 0));
  const [du, dv]: [gp_Vec, gp_Vec] = [scope.keep(new library.gp_Vec(0, 0, 0)), scope.keep(new library.gp_Vec(0, 0, 0))];
  const [u, v] = [
    (surface.FirstUParameter() + surface.LastUParameter()) / 2,
    (surface.FirstVParameter() + surface.LastVParameter()) / 2,
  ];
  surface.D1(u, v, place, du, dv);
  const normal = direction3(cross3(vec(du), vec(dv))) ?? ([0, 0, 1] as const);
  const turned = shape.Orientation() === 'TopAbs_REVERSED';
  return { at: vec(place), normal: turned ? scale3(normal, -1) : normal };
}

function edgeFacts(
  library: Library,
  scope: Scope,
  shape: TopoDS_Shape,
  nameOf: (vertex: TopoDS_Shape) => string,
): Omit<EdgeFacts, 'name' | 'faces'> {
  const edge = library.TopoDS.Edge(shape);
  const adaptor = scope.keep(new library.BRepAdaptor_Curve(edge));
  const [first, last] = [adaptor.FirstParameter(), adaptor.LastParameter()];
  const properties = scope.keep(new library.GProp_GProps());
  library.BRepGProp.LinearProperties(shape, properties, false, false);
  const [from, to] = [valueAt(scope, adaptor, first), valueAt(scope, adaptor, last)];
  const closed = distance3(from, to) < 1e-7;
  const names = closed ? [] : endNames(library, scope, shape, from, to, nameOf);
  return {
    curve: curveOf(library, scope, adaptor, closed ? undefined : [from, to]),
    ...(names.length === 2 && names.every((name) => name !== '') ? { ends: [names[0]!, names[1]!] as const } : {}),
    length: properties.Mass(),
    middle: valueAt(scope, adaptor, (first + last) / 2),
  };
}

/** The names of the vertices where the curve begins and ends, whatever the orientation of the edge. */
function endNames(
  library: Library,
  scope: Scope,
  edge: TopoDS_Shape,
  from: Vec3,
  to: Vec3,
  nameOf: (vertex: TopoDS_Shape) => string,
): string[] {
  const ends = subShapes(library, scope, edge, 'TopAbs_VERTEX').map((vertex) => ({
    name: nameOf(vertex),
    at: placeOfVertex(library, scope, vertex),
  }));
  return [from, to].flatMap((place) => {
    const [nearest] = ends.toSorted((a, b) => distance3(a.at, place) - distance3(b.at, place));
    return nearest ? [nearest.name] : [];
  });
}

/** @param ends where it begins and ends; absent for closed curves */
function curveOf(
  library: Library,
  scope: Scope,
  curve: BRepAdaptor_Curve,
  ends: readonly [Vec3, Vec3] | undefined,
): SpaceCurve {
  const kind = curve.GetType();
  const stretch = ends ? { from: ends[0], to: ends[1] } : {};
  if (kind === 'GeomAbs_Line' && ends) return { form: 'line', from: ends[0], to: ends[1] };
  if (kind === 'GeomAbs_Circle') {
    const circle = scope.keep(curve.Circle());
    const { origin, axis } = axisOf(scope, scope.keep(circle.Axis()));
    return { form: 'circle', centre: origin, axis, radius: circle.Radius(), ...stretch };
  }
  if (kind === 'GeomAbs_Ellipse') {
    const ellipse = scope.keep(curve.Ellipse());
    const [x, y] = [scope.keep(ellipse.XAxis()), scope.keep(ellipse.YAxis())];
    return {
      form: 'ellipse',
      centre: vec(scope.keep(ellipse.Location())),
      major: scale3(vec(scope.keep(x.Direction())), ellipse.MajorRadius()),
      minor: scale3(vec(scope.keep(y.Direction())), ellipse.MinorRadius()),
      ...stretch,
    };
  }
  return { form: 'free', spans: bezierSpans(library, scope, curve) };
}

type Span = readonly [Vec3, Vec3, Vec3, Vec3];
/** Free curves are followed this closely, mm; cubic splines exactly. */
const FOLLOWED = 1e-5;
const MOST_SPANS = 200;

/** Cubic Hermite spans between the joints of the curve, halved until they follow it. */
function bezierSpans(library: Library, scope: Scope, curve: BRepAdaptor_Curve): Span[] {
  const count = curve.NbIntervals(library.GeomAbs_Shape.GeomAbs_C3);
  const joints = scope.keep(new library.NCollection_Array1_double(1, count + 1));
  curve.Intervals(joints, library.GeomAbs_Shape.GeomAbs_C3);
  const spans: Span[] = [];
  const add = (a: number, b: number) => {
    const span = hermite(library, scope, curve, a, b);
    const off = [0.25, 0.5, 0.75].map((t) => distance3(bezierAt(span, t), valueAt(scope, curve, a + t * (b - a))));
    if (Math.max(...off) <= FOLLOWED || spans.length >= MOST_SPANS) spans.push(span);
    else {
      add(a, (a + b) / 2);
      add((a + b) / 2, b);
    }
  };
  for (let k = 1; k <= count; k++) add(joints.Value(k), joints.Value(k + 1));
  return spans;
}

function hermite(library: Library, scope: Scope, curve: BRepAdaptor_Curve, a: number, b: number): Span {
  const at = (t: number) => {
    const place = scope.keep(new library.gp_Pnt(0, 0, 0));
    const along = scope.keep(new library.gp_Vec(0, 0, 0));
    curve.D1(t, place, along);
    return [vec(place), scale3(vec(along), (b - a) / 3)] as const;
  };
  const [[from, leave], [to, arrive]] = [at(a), at(b)];
  return [from, add3(from, leave), sub3(to, arrive), to];
}

/** The curves in which a plane crosses a body, named by the faces that they lie on. */
export function crossingOf(library: Library, solid: NamedSolid, frame: Frame): EdgeFacts[] {
  const scope = new Scope();
  const section = scope.keepCleared(new library.BRepAlgoAPI_Section(solid.shape, plane(library, scope, frame), false));
  section.Build(scope.keep(new library.Message_ProgressRange()));
  const { faces, facesAt } = namedParts(library, scope, solid);
  const names = new ShapeMap<string>(library);
  faces.forEach(({ name, shape }) => names.set(shape, name));
  const edges = subShapes(library, scope, scope.keep(section.Shape()), 'TopAbs_EDGE').map((edge) => {
    const face = scope.keep(new library.TopoDS_Shape());
    // where the plane goes along a seam or an edge of the body, that edge itself is found
    const known = section.HasAncestorFaceOn1(edge, face) ? names.get(face) : facesAt.get(edge)?.toSorted()[0];
    return { edge, face: known ?? '' };
  });
  const labels = numbered(
    edges.map(({ face }) => face),
    (k) => middleOf(library, scope, edges[k]!.edge),
  );
  const found = edges.map(({ edge, face }, k): EdgeFacts => ({
    name: labels[k]!,
    faces: [face],
    ...edgeFacts(library, scope, edge, () => ''),
  }));
  scope.close();
  return found.filter(({ faces: [face] }) => face !== '');
}
