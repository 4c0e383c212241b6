import type { TopoDS_Wire } from 'replicad-opencascadejs';
import {
  add3,
  frameOn,
  scale3,
  toSpace,
  type Frame,
  type Result,
  type ThreadRequest,
  type Vec2,
  type Vec3,
} from '@helb/core';
import { point } from './edges.ts';
import { helixWire } from './helices.ts';
import { fail, ok, type Library, type DisposalScope } from './library.ts';
import type { NamedSolid } from './names.ts';
import { subShapes } from './shapes.ts';
import { namedSolid } from './swept.ts';

/**
 * The corners of one turn of the profile: share of the way from the minor to the major radius, and of the pitch. Flat at
 * the crest over an eighth of the pitch, at the root over a quarter (ISO 68-1).
 */
const PROFILE: readonly (readonly [out: number, along: number])[] = [
  [0, 0],
  [0, 0.25],
  [1, 0.25 + 0.3125],
  [1, 0.375 + 0.3125],
  [0, 1],
];

/**
 * A rod with a thread, longer at both ends than was asked by a turn at least. Its flanks are ruled between helices of one
 * turn, repeated and sewn: made by sweeping, the library takes many times as long and fails in silence.
 */
export function threadedRod(library: Library, scope: DisposalScope, request: ThreadRequest): Result<NamedSolid> {
  const { pitch, length, origin, axis } = request;
  const turns = Math.ceil(length / pitch) + 3;
  const start = frameOn(add3(origin, scale3(axis, -2 * pitch)), axis);
  return sewnRod(library, scope, start, turns, request);
}

function sewnRod(
  library: Library,
  scope: DisposalScope,
  frame: Frame,
  turns: number,
  { pitch, major, minor, left, step }: ThreadRequest,
): Result<NamedSolid> {
  const sewing = scope.keep(new library.BRepBuilderAPI_Sewing(1e-4, true, true, true, false));
  const corners = PROFILE.map(([out, along]): Vec2 => [minor + out * (major - minor), along * pitch]);
  const helix = ([radius, height]: Vec2) =>
    helixWire(library, scope, {
      form: 'helix',
      origin: toSpace(frame, [0, 0], height),
      axis: frame.z,
      x: frame.x,
      radius,
      pitch,
      turns: 1,
      left,
      taper: 0,
    });
  const flanks = scope.keep(new library.BRepOffsetAPI_ThruSections(false, true, 1e-6));
  flanks.CheckCompatibility(false);
  corners.forEach((corner) => flanks.AddWire(helix(corner)));
  flanks.Build(scope.keep(new library.Message_ProgressRange()));
  if (!flanks.IsDone()) return fail('kernel.failed', { reason: 'no thread could be wound' });
  const turn = scope.keep(flanks.Shape());
  const at = (height: number) => {
    const motion = scope.keep(new library.gp_Trsf());
    motion.SetTranslation(scope.keep(new library.gp_Vec(...scale3(frame.z, height))));
    return scope.keep(new library.TopLoc_Location(motion));
  };
  const strips = subShapes(library, scope, turn, 'TopAbs_FACE');
  for (let k = 0; k < turns; k++) {
    const place = at(k * pitch);
    for (const strip of strips) sewing.Add(scope.keep(strip.Moved(place, false)));
  }
  // closed at both ends by the helicoid up to the axis, and by the profile
  const floor = scope.keep(new library.BRepOffsetAPI_ThruSections(false, true, 1e-6));
  floor.CheckCompatibility(false);
  floor.AddWire(helix(corners[0]!));
  floor.AddWire(axisWire(library, scope, frame, pitch));
  floor.Build(scope.keep(new library.Message_ProgressRange()));
  if (!floor.IsDone()) return fail('kernel.failed', { reason: 'no thread could be closed' });
  const face = profileFace(library, scope, frame, corners, pitch);
  for (const height of [0, turns * pitch])
    for (const cap of [scope.keep(floor.Shape()), face]) sewing.Add(scope.keep(cap.Moved(at(height), false)));
  sewing.Perform(scope.keep(new library.Message_ProgressRange()));
  const [shell] = subShapes(library, scope, scope.keep(sewing.SewedShape()), 'TopAbs_SHELL');
  if (!shell) return fail('kernel.failed', { reason: 'the thread does not close' });
  const maker = scope.keep(new library.BRepBuilderAPI_MakeSolid(scope.keep(library.TopoDS.Shell(shell))));
  const solid = maker.Solid();
  library.BRepLib.OrientClosedSolid(solid);
  const faces = subShapes(library, scope, solid, 'TopAbs_FACE');
  return ok(
    namedSolid(
      library,
      scope,
      solid,
      step,
      faces.map((side) => ({ face: side, name: `${step}/thread` })),
    ),
  );
}

function axisWire(library: Library, scope: DisposalScope, frame: Frame, pitch: number): TopoDS_Wire {
  const maker = scope.keep(
    new library.BRepBuilderAPI_MakeEdge(
      point(library, scope, frame.origin),
      point(library, scope, toSpace(frame, [0, 0], pitch)),
    ),
  );
  return scope.keep(scope.keep(new library.BRepBuilderAPI_MakeWire(scope.keep(maker.Edge()))).Wire());
}

/** The profile of one turn down to the axis, flat, in the half plane from which the helices start. */
function profileFace(library: Library, scope: DisposalScope, frame: Frame, corners: readonly Vec2[], pitch: number) {
  const places: Vec3[] = [[0, 0] as Vec2, ...corners, [0, pitch] as Vec2].map(([out, up]) =>
    toSpace(frame, [out, 0], up),
  );
  const maker = scope.keep(new library.BRepBuilderAPI_MakeWire());
  places.forEach((place, k) => {
    const next = places[(k + 1) % places.length]!;
    const edge = scope.keep(
      new library.BRepBuilderAPI_MakeEdge(point(library, scope, place), point(library, scope, next)),
    );
    maker.Add(scope.keep(edge.Edge()));
  });
  const face = scope.keep(new library.BRepBuilderAPI_MakeFace(scope.keep(maker.Wire()), true));
  return scope.keep(face.Face());
}
