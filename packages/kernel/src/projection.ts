import type { HLRBRep_HLRToShape, TopoDS_Shape } from 'replicad-opencascadejs';
import {
  add3,
  distance3,
  dot3,
  movedCurve,
  sub3,
  type DrawnLine,
  type DrawnView,
  type Frame,
  type Movement,
  type Result,
  type SpaceCurve,
  type Vec3,
} from '@helb/core';
import { direction, point } from './edges.ts';
import { edgeShape } from './facts.ts';
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
  const whole = shapes.map(({ shape, movement }) => {
    const motion = scope.keep(new library.gp_Trsf());
    motion.SetValues(...movement[0], ...movement[1], ...movement[2]);
    return scope.keep(shape.Moved(scope.keep(new library.TopLoc_Location(motion)), false));
  });
  if (!cut) return ok({ lines: linesOf(library, scope, whole, eye), cutFaces: [] });
  const opened: Opened[] = [];
  for (const shape of whole) {
    const open = openedAt(library, scope, shape, cut);
    if (!open.ok) return open;
    opened.push(open.value);
  }
  const toEye = intoFrame(eye);
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
        straightened(movedCurve(edgeShape(library, scope, edge).curve, toEye)),
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
        const { curve, length } = edgeShape(library, scope, edge);
        return length < SHORTEST ? [] : [{ sort, hidden, body, curve: straightened(curve) }];
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

/** How places in space are told by a frame: x, y, and the height over it. */
function intoFrame({ origin, x, y, z }: Frame): Movement {
  const row = (axis: Vec3) => [...axis, -dot3(axis, origin)] as unknown as Movement[0];
  return [row(x), row(y), row(z)];
}

/** Shorter than this, mm, it is a place where something is seen end-on. */
const SHORTEST = 1e-6;
const STRAIGHT = 1e-6;

/** A free curve whose control points lie on one line is a line: the library tells circles seen edge-on as such. */
function straightened(curve: SpaceCurve): SpaceCurve {
  if (curve.form !== 'free') return curve;
  const places = curve.spans.flat();
  const from = places[0]!;
  const to = places.reduce((far, place) => (distance3(place, from) > distance3(far, from) ? place : far), from);
  const [along, length] = [sub3(to, from), distance3(from, to)];
  const off = (place: Vec3) => {
    const [x, y] = sub3(place, from);
    return Math.abs(x * along[1] - y * along[0]) / length;
  };
  if (length < SHORTEST || places.some((place) => off(place) > STRAIGHT)) return curve;
  const shares = places.map((place) => {
    const [x, y] = sub3(place, from);
    return (x * along[0] + y * along[1]) / length ** 2;
  });
  const at = (share: number): Vec3 => [from[0] + share * along[0], from[1] + share * along[1], 0];
  return { form: 'line', from: at(Math.min(...shares)), to: at(Math.max(...shares)) };
}
