import type {
  BRepAdaptor_Curve,
  BRepAdaptor_Surface,
  gp_Ax1,
  gp_Pnt,
  gp_Vec,
  TopoDS_Shape,
} from 'replicad-opencascadejs';
import {
  add3,
  bezierAt,
  cross3,
  direction3,
  distance3,
  dot3,
  scale3,
  sub3,
  type FaceFacts,
  type SpaceCurve,
  type Surface,
  type Vec3,
} from '@helb/core';
import { vec } from './edges.ts';
import type { Library, DisposalScope } from './library.ts';
import { areaOf } from './measure.ts';
import { subShapes } from './shapes.ts';

// Exact geometry of single faces and edges.

/** Where a vertex is. */
export function placeOfVertex(library: Library, scope: DisposalScope, vertex: TopoDS_Shape): Vec3 {
  return vec(scope.keep(library.BRep_Tool.Pnt(scope.keep(library.TopoDS.Vertex(vertex)))));
}

/** The middle of an edge by its parameter: enough to tell edges apart, and on the curve. */
export function middleOf(library: Library, scope: DisposalScope, edge: TopoDS_Shape): Vec3 {
  const curve = scope.keep(new library.BRepAdaptor_Curve(scope.keep(library.TopoDS.Edge(edge))));
  return valueAt(scope, curve, (curve.FirstParameter() + curve.LastParameter()) / 2);
}

const valueAt = (scope: DisposalScope, curve: BRepAdaptor_Curve, t: number): Vec3 => vec(scope.keep(curve.Value(t)));

/** What a face is, exactly: its surface, area and centre. */
export function faceFacts(library: Library, scope: DisposalScope, shape: TopoDS_Shape): Omit<FaceFacts, 'name'> {
  const { area, centre } = areaOf(library, shape);
  return { surface: surfaceOf(library, scope, shape), area, centre };
}

const axisOf = (scope: DisposalScope, axis: gp_Ax1): { origin: Vec3; axis: Vec3 } => ({
  origin: vec(scope.keep(axis.Location())),
  axis: vec(scope.keep(axis.Direction())),
});

type SurfaceReader = (scope: DisposalScope, surface: BRepAdaptor_Surface, outside: Normal) => Surface;

/** What the library calls kinds of surfaces; all others are free ones. */
const SURFACES: Readonly<Record<string, SurfaceReader>> = {
  GeomAbs_Plane: (scope, surface, { normal }) => {
    const plane = scope.keep(surface.Plane());
    return { form: 'plane', origin: vec(scope.keep(plane.Location())), normal };
  },
  GeomAbs_Cylinder: (scope, surface, { at, normal }) => {
    const cylinder = scope.keep(surface.Cylinder());
    const { origin, axis } = axisOf(scope, scope.keep(cylinder.Axis()));
    const out = sub3(at, origin);
    const hollow = dot3(sub3(out, scale3(axis, dot3(out, axis))), normal) < 0;
    return { form: 'cylinder', origin, axis, radius: cylinder.Radius(), hollow };
  },
  GeomAbs_Sphere: (scope, surface) => {
    const sphere = scope.keep(surface.Sphere());
    return { form: 'sphere', centre: vec(scope.keep(sphere.Location())), radius: sphere.Radius() };
  },
  GeomAbs_Cone: (scope, surface, { at }) => coneOf(ringAt(scope, surface, 0), ringAt(scope, surface, 1), at),
  GeomAbs_Torus: (scope, surface) => {
    const [outer, inner] = [ringAt(scope, surface, 0), ringAt(scope, surface, Math.PI)];
    const [major, minor] = [(outer.radius + inner.radius) / 2, (outer.radius - inner.radius) / 2];
    return { form: 'torus', origin: outer.centre, axis: outer.axis, major, minor };
  },
};

function surfaceOf(library: Library, scope: DisposalScope, shape: TopoDS_Shape): Surface {
  const surface = scope.keep(new library.BRepAdaptor_Surface(scope.keep(library.TopoDS.Face(shape)), true));
  const read = SURFACES[surface.GetType()];
  return read ? read(scope, surface, normalIn(library, scope, shape)) : { form: 'free' };
}

interface Ring {
  readonly centre: Vec3;
  readonly axis: Vec3;
  readonly radius: number;
}

/** A circle of a surface that goes round an axis: the library's own classes for cones and rings are not bound. */
function ringAt(scope: DisposalScope, surface: BRepAdaptor_Surface, v: number): Ring {
  const at = (u: number) => vec(scope.keep(surface.Value(u, v)));
  const [near, side, far] = [at(0), at(Math.PI / 2), at(Math.PI)];
  const centre = scale3(add3(near, far), 0.5);
  const axis = direction3(cross3(sub3(near, centre), sub3(side, centre))) ?? ([0, 0, 1] as const);
  return { centre, axis, radius: distance3(near, far) / 2 };
}

/** The cone through two circles; `at` is a place on it, which tells on which side of its tip it lies. */
function coneOf(a: Ring, b: Ring, at: Vec3): Surface {
  const [narrow, wide] = a.radius < b.radius ? [a, b] : [b, a];
  const run = sub3(wide.centre, narrow.centre);
  const [rise, height] = [wide.radius - narrow.radius, Math.hypot(...run)];
  const origin = sub3(narrow.centre, scale3(run, narrow.radius / rise));
  const along = scale3(run, 1 / height);
  const axis = dot3(sub3(at, origin), along) < 0 ? scale3(along, -1) : along;
  return { form: 'cone', origin, axis, angle: Math.atan2(rise, height) };
}

/** A place inside the parameters of a face and the normal there, out of the body. */
export function normalIn(library: Library, scope: DisposalScope, shape: TopoDS_Shape): Normal {
  const surface = scope.keep(new library.BRepAdaptor_Surface(scope.keep(library.TopoDS.Face(shape)), true));
  return normalOf(
    library,
    scope,
    shape,
    (surface.FirstUParameter() + surface.LastUParameter()) / 2,
    (surface.FirstVParameter() + surface.LastVParameter()) / 2,
  );
}

interface Normal {
  readonly at: Vec3;
  readonly normal: Vec3;
}

function normalOf(library: Library, scope: DisposalScope, shape: TopoDS_Shape, u: number, v: number): Normal {
  const surface = scope.keep(new library.BRepAdaptor_Surface(scope.keep(library.TopoDS.Face(shape)), true));
  const place: gp_Pnt = scope.keep(new library.gp_Pnt(0, 0, 0));
  const [du, dv]: [gp_Vec, gp_Vec] = [scope.keep(new library.gp_Vec(0, 0, 0)), scope.keep(new library.gp_Vec(0, 0, 0))];
  surface.D1(u, v, place, du, dv);
  const normal = direction3(cross3(vec(du), vec(dv))) ?? ([0, 0, 1] as const);
  const turned = shape.Orientation() === 'TopAbs_REVERSED';
  return { at: vec(place), normal: turned ? scale3(normal, -1) : normal };
}

/** What is the same for an edge in every body that has it. */
export interface EdgeShape {
  readonly curve: SpaceCurve;
  readonly length: number;
  readonly middle: Vec3;
  /** Along the curve at its middle. */
  readonly along: Vec3;
  /** The places of the vertices where the curve begins and ends, whatever the orientation of the edge; none if closed. */
  readonly ends: readonly Vec3[];
}

/** What an edge is, exactly: its curve, length and middle. */
export function edgeShape(library: Library, scope: DisposalScope, shape: TopoDS_Shape): EdgeShape {
  const edge = scope.keep(library.TopoDS.Edge(shape));
  const adaptor = scope.keep(new library.BRepAdaptor_Curve(edge));
  const [first, last] = [adaptor.FirstParameter(), adaptor.LastParameter()];
  const properties = scope.keep(new library.GProp_GProps());
  library.BRepGProp.LinearProperties(shape, properties, false, false);
  const [from, to] = [valueAt(scope, adaptor, first), valueAt(scope, adaptor, last)];
  const closed = distance3(from, to) < 1e-7;
  const place = scope.keep(new library.gp_Pnt(0, 0, 0));
  const along = scope.keep(new library.gp_Vec(0, 0, 0));
  adaptor.D1((first + last) / 2, place, along);
  return {
    curve: curveOf(library, scope, adaptor, closed ? undefined : [from, to]),
    length: properties.Mass(),
    middle: vec(place),
    along: vec(along),
    ends: closed ? [] : endsOf(library, scope, shape, from, to),
  };
}

function endsOf(library: Library, scope: DisposalScope, edge: TopoDS_Shape, from: Vec3, to: Vec3): Vec3[] {
  const ends = subShapes(library, scope, edge, 'TopAbs_VERTEX').map((vertex) => placeOfVertex(library, scope, vertex));
  return [from, to].flatMap((place) => ends.toSorted((a, b) => distance3(a, place) - distance3(b, place)).slice(0, 1));
}

/** The outward normal of a face on one of its edges: in the middle, or at a share of its parameters. */
export function normalAt(
  library: Library,
  scope: DisposalScope,
  face: TopoDS_Shape,
  edge: TopoDS_Shape,
  share = 0.5,
): Vec3 {
  const on = scope.keep(library.TopoDS.Face(face));
  const drawn = scope.keep(new library.BRepAdaptor_Curve2d(scope.keep(library.TopoDS.Edge(edge)), on));
  const at = scope.keep(drawn.Value((1 - share) * drawn.FirstParameter() + share * drawn.LastParameter()));
  return normalOf(library, scope, face, at.X(), at.Y()).normal;
}

type CurveReader = (
  scope: DisposalScope,
  curve: BRepAdaptor_Curve,
  ends: readonly [Vec3, Vec3] | undefined,
) => SpaceCurve | undefined;

const stretchOf = (ends: readonly [Vec3, Vec3] | undefined) => (ends ? { from: ends[0], to: ends[1] } : {});

/** What the library calls kinds of curves; all others are free ones. */
const CURVES: Readonly<Record<string, CurveReader>> = {
  GeomAbs_Line: (_, __, ends) => ends && { form: 'line', from: ends[0], to: ends[1] },
  GeomAbs_Circle: (scope, curve, ends) => {
    const circle = scope.keep(curve.Circle());
    const { origin, axis } = axisOf(scope, scope.keep(circle.Axis()));
    return { form: 'circle', centre: origin, axis, radius: circle.Radius(), ...stretchOf(ends) };
  },
  GeomAbs_Ellipse: (scope, curve, ends) => {
    const ellipse = scope.keep(curve.Ellipse());
    const [x, y] = [scope.keep(ellipse.XAxis()), scope.keep(ellipse.YAxis())];
    return {
      form: 'ellipse',
      centre: vec(scope.keep(ellipse.Location())),
      major: scale3(vec(scope.keep(x.Direction())), ellipse.MajorRadius()),
      minor: scale3(vec(scope.keep(y.Direction())), ellipse.MinorRadius()),
      ...stretchOf(ends),
    };
  },
};

/** @param ends where it begins and ends; absent for closed curves @param followed how closely free ones are, mm */
const curveOf = (
  library: Library,
  scope: DisposalScope,
  curve: BRepAdaptor_Curve,
  ends: readonly [Vec3, Vec3] | undefined,
  followed = FOLLOWED,
): SpaceCurve =>
  CURVES[curve.GetType()]?.(scope, curve, ends) ?? {
    form: 'free',
    spans: bezierSpans(library, scope, curve, followed),
  };

type Span = readonly [Vec3, Vec3, Vec3, Vec3];
/** Free curves are followed this closely, mm; cubic splines exactly. */
const FOLLOWED = 1e-5;
const MOST_SPANS = 200;

/** Cubic Hermite spans between the joints of the curve, halved until they follow it: less closely where it takes too many. */
function bezierSpans(library: Library, scope: DisposalScope, curve: BRepAdaptor_Curve, followed: number): Span[] {
  const count = curve.NbIntervals(library.GeomAbs_Shape.GeomAbs_C3);
  const joints = scope.keep(new library.NCollection_Array1_double(1, count + 1));
  curve.Intervals(joints, library.GeomAbs_Shape.GeomAbs_C3);
  const spans: Span[] = [];
  const most = Math.max(MOST_SPANS, count);
  const add = (a: number, b: number) => {
    if (spans.length > most) return;
    const span = hermite(library, scope, curve, a, b);
    const off = [0.25, 0.5, 0.75].map((t) => distance3(bezierAt(span, t), valueAt(scope, curve, a + t * (b - a))));
    if (Math.max(...off) <= followed || b - a < 1e-9) spans.push(span);
    else {
      add(a, (a + b) / 2);
      add((a + b) / 2, b);
    }
  };
  for (let k = 1; k <= count; k++) add(joints.Value(k), joints.Value(k + 1));
  return spans.length > most ? bezierSpans(library, scope, curve, 10 * followed) : spans;
}

function hermite(library: Library, scope: DisposalScope, curve: BRepAdaptor_Curve, a: number, b: number): Span {
  const at = (t: number) => {
    const place = scope.keep(new library.gp_Pnt(0, 0, 0));
    const along = scope.keep(new library.gp_Vec(0, 0, 0));
    curve.D1(t, place, along);
    return [vec(place), scale3(vec(along), (b - a) / 3)] as const;
  };
  const [[from, leave], [to, arrive]] = [at(a), at(b)];
  return [from, add3(from, leave), sub3(to, arrive), to];
}
