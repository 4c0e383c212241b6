import type { HLRBRep_HLRToShape, TopoDS_Shape } from 'replicad-opencascadejs';
import {
  add3,
  cross3,
  distance3,
  dot3,
  fromTo3,
  length3,
  movedCurve,
  ORIGIN_PLANES,
  scale3,
  sub3,
  type DrawnLine,
  type DrawnView,
  type Frame,
  type Movement,
  type Result,
  type SpaceCurve,
  type Vec3,
} from '@helb/core';
import { direction, locationOf, point, vec } from './edges.ts';
import { curveOf, edgeShape } from './facts.ts';
import { fail, ok, type Library, type Scope } from './library.ts';
import { plane } from './profile.ts';
import { listOf, members, subShapes } from './shapes.ts';

export interface SeenShape {
  readonly shape: TopoDS_Shape;
  readonly movement: Movement;
}

/** What the library's hidden-line removal gives, by how it comes about and whether it is seen. */
const LAYERS: readonly {
  readonly sort: DrawnLine['sort'];
  readonly hidden: boolean;
  readonly of: (result: HLRBRep_HLRToShape, shape: TopoDS_Shape) => TopoDS_Shape;
}[] = [
  { sort: 'sharp', hidden: false, of: (result, shape) => result.VCompound(shape) },
  { sort: 'smooth', hidden: false, of: (result, shape) => result.Rg1LineVCompound(shape) },
  { sort: 'outline', hidden: false, of: (result, shape) => result.OutLineVCompound(shape) },
  { sort: 'sharp', hidden: true, of: (result, shape) => result.HCompound(shape) },
  { sort: 'smooth', hidden: true, of: (result, shape) => result.Rg1LineHCompound(shape) },
  { sort: 'outline', hidden: true, of: (result, shape) => result.OutLineHCompound(shape) },
];

/**
 * What an eye far away sees of solids (exact hidden-line removal), and of what is cut open the rims of the cut: curves in
 * the plane of the eye.
 */
export function drawnView(
  library: Library,
  scope: Scope,
  shapes: readonly SeenShape[],
  eye: Frame,
  cut: Frame | undefined,
): Result<DrawnView> {
  const whole = shapes.map(({ shape, movement }) =>
    scope.keep(shape.Moved(locationOf(library, scope, movement), false)),
  );
  if (!cut) return ok({ lines: linesOf(library, scope, whole, eye), cutFaces: [] });
  const opened: Opened[] = [];
  for (const shape of whole) {
    const open = openedAt(library, scope, shape, cut);
    if (!open.ok) return open;
    opened.push(open.value);
  }
  // places as the eye tells them: x, y, and the height over its plane
  const toEye = fromTo3(eye, ORIGIN_PLANES.top);
  const lines = linesOf(
    library,
    scope,
    opened.map(({ rest }) => rest),
    eye,
  );
  const cutFaces = opened.flatMap(({ faces }, body) =>
    faces.map((face) => ({
      body,
      rims: subShapes(library, scope, face, 'TopAbs_EDGE').map((edge) =>
        movedCurve(edgeShape(library, scope, edge).curve, toEye),
      ),
    })),
  );
  return ok({ lines, cutFaces });
}

function linesOf(library: Library, scope: Scope, shapes: readonly TopoDS_Shape[], eye: Frame): DrawnLine[] {
  const removal = scope.keep(new library.HLRBRep_Algo());
  shapes.forEach((shape) => removal.Add(shape, 0));
  const axes = new library.gp_Ax2(
    point(library, scope, eye.origin),
    direction(library, scope, eye.z),
    direction(library, scope, eye.x),
  );
  removal.Projector(scope.keep(new library.HLRAlgo_Projector(scope.keep(axes))));
  removal.Update();
  removal.Hide();
  const result = scope.keep(new library.HLRBRep_HLRToShape(removal));
  return shapes.flatMap((shape, body) =>
    LAYERS.flatMap(({ sort, hidden, of }): DrawnLine[] => {
      const compound = scope.keep(of(result, shape));
      if (compound.IsNull()) return [];
      library.BRepLib.BuildCurves3d(compound);
      return subShapes(library, scope, compound, 'TopAbs_EDGE').flatMap((edge) => {
        const curve = seenCurve(library, scope, edge);
        return curve ? [{ sort, hidden, body, curve }] : [];
      });
    }),
  );
}

interface Opened {
  /** What is left of the body; nothing of it where it lies all in front. */
  readonly rest: TopoDS_Shape;
  readonly faces: readonly TopoDS_Shape[];
}

/** A body without what lies in front of a plane, and the faces that this leaves. */
function openedAt(library: Library, scope: Scope, shape: TopoDS_Shape, cut: Frame): Result<Opened> {
  const sheet = scope.keep(scope.keep(new library.BRepBuilderAPI_MakeFace(plane(library, scope, cut))).Face());
  const front = point(library, scope, add3(cut.origin, cut.z));
  const half = scope.keep(scope.keep(new library.BRepPrimAPI_MakeHalfSpace(sheet, front)).Solid());
  const operation = scope.keepCleared(new library.BRepAlgoAPI_Cut());
  operation.SetArguments(listOf(library, scope, [shape]));
  operation.SetTools(listOf(library, scope, [half]));
  operation.Build(scope.keep(new library.Message_ProgressRange()));
  if (!operation.IsDone() || operation.HasErrors()) return fail('kernel.failed', { reason: 'no section was found' });
  return ok({
    rest: scope.keep(operation.Shape()),
    faces: members(library, scope, scope.keep(operation.Modified(sheet))),
  });
}

/** Shorter than this, mm, it is a place where something is seen end-on. */
const SHORTEST = 1e-6;
/** Nearer to a line than this, mm, a curve is one: the library gives circles that are seen edge-on as free curves. */
const STRAIGHT = 1e-6;
const SAMPLES = 8;
/** Free curves are followed this closely, mm: far below the width of a line at any scale. */
const FOLLOWED = 1e-3;

/** A curve of a view; undefined where it is seen end-on. */
function seenCurve(library: Library, scope: Scope, shape: TopoDS_Shape): SpaceCurve | undefined {
  const curve = scope.keep(new library.BRepAdaptor_Curve(scope.keep(library.TopoDS.Edge(shape))));
  const [first, last] = [curve.FirstParameter(), curve.LastParameter()];
  const at = (t: number): Vec3 => vec(scope.keep(curve.Value(first + t * (last - first))));
  const ends = [at(0), at(1)] as const;
  const closed = distance3(...ends) < 1e-7;
  const kind = curve.GetType();
  if (kind === 'GeomAbs_Line') return closed ? undefined : { form: 'line', from: ends[0], to: ends[1] };
  if (kind !== 'GeomAbs_Circle' && kind !== 'GeomAbs_Ellipse') {
    const between = Array.from({ length: SAMPLES - 1 }, (_, k) => at((k + 1) / SAMPLES));
    const line = lineThrough([ends[0], ...between, ends[1]], at);
    if (line !== null) return line;
  }
  return curveOf(library, scope, curve, closed ? undefined : ends, FOLLOWED);
}

/**
 * The line that a curve follows, as the library gives circles that are seen edge-on: from its least to its greatest place,
 * since it may go there and back. Undefined where it is one place, null where it is no line.
 */
function lineThrough(places: readonly Vec3[], at: (t: number) => Vec3): SpaceCurve | undefined | null {
  const from = places[0]!;
  const far = places.reduce((a, b) => (distance3(b, from) > distance3(a, from) ? b : a));
  const length = distance3(far, from);
  if (length < SHORTEST) return undefined;
  const way = scale3(sub3(far, from), 1 / length);
  if (places.some((place) => length3(cross3(sub3(place, from), way)) > STRAIGHT)) return null;
  const shares = places.map((place) => dot3(sub3(place, from), way));
  const end = (sign: 1 | -1): Vec3 => {
    const best = shares.reduce((a, share, k) => (sign * share > sign * shares[a]! ? k : a), 0);
    if (best === 0 || best === SAMPLES) return places[best]!;
    return at(greatest((t) => sign * dot3(sub3(at(t), from), way), (best - 1) / SAMPLES, (best + 1) / SAMPLES));
  };
  return { form: 'line', from: end(-1), to: end(1) };
}

/** Where between two parameters a function with one summit is greatest, by thirds. */
function greatest(of: (t: number) => number, low: number, high: number): number {
  for (let k = 0; k < 40; k++) {
    const [a, b] = [low + (high - low) / 3, high - (high - low) / 3];
    if (of(a) < of(b)) low = a;
    else high = b;
  }
  return (low + high) / 2;
}
