import {
  heightOver,
  scale3,
  toSpace,
  type BodyHandle,
  type ExtrudeRequest,
  type Frame,
  type Result,
  type RevolveRequest,
  type Stop,
  faceName,
  isFaceOf,
  isSide,
} from '@helb/core';
import { combined, sheetOf, splitBy } from './booleans.ts';
import { direction } from './edges.ts';
import { fail, ok, type Library, type DisposalScope } from './library.ts';
import { centreOf } from './measure.ts';
import { distinct, type MadeFace, type NamedSolid } from './names.ts';
import { axisAt, plane } from './profile.ts';
import { subShapes } from './shapes.ts';
import { namedSolid, ofRegions, sweptSolid } from './swept.ts';

/** A face swept along the frame's z; with a taper its sides lean about their lines in the sketch plane. */
export function extruded(
  library: Library,
  scope: DisposalScope,
  request: ExtrudeRequest,
  bodyOf: (body: BodyHandle) => NamedSolid,
): Result<NamedSolid[]> {
  const { profile, from, to, step, taper = 0 } = request;
  const base: Frame = { ...profile.frame, origin: toSpace(profile.frame, [0, 0], from) };
  return ofRegions(library, scope, request, base, (face, area) => {
    const along = scope.keep(new library.gp_Vec(...scale3(base.z, to - from)));
    const maker = scope.keep(new library.BRepPrimAPI_MakePrism(face.face, along, false, true));
    const plain = sweptSolid(library, scope, maker, face, { step, area });
    const prism = taper === 0 ? ok(plain) : tapered(library, scope, plain, profile.frame, taper);
    return prism.ok && request.until ? stopped(library, scope, prism.value, request, bodyOf) : prism;
  });
}

/**
 * The part of a prism between its sketch plane and what stops it; what ends it there becomes its end. Fails where it is
 * not stopped, or not over its whole area.
 */
function stopped(
  library: Library,
  scope: DisposalScope,
  prism: NamedSolid,
  request: ExtrudeRequest,
  bodyOf: (body: BodyHandle) => NamedSolid,
): Result<NamedSolid> {
  const { until, step } = request;
  const [near, far] = until!.forwards ? ['start', 'end'] : ['end', 'start'];
  const pieces =
    until!.form === 'next'
      ? untilBodies(library, scope, prism, until!.bodies.map(bodyOf), until!.within)
      : beforeFace(library, scope, prism, until!, bodyOf);
  prism.shape.delete();
  if (!pieces.ok) return pieces;
  const begins = pieces.value.filter(({ faceNames }) => faceNames.some((name) => isFaceOf(name, step, near)));
  // a wall may lie farther on
  const kept = begins.length > 0 || !isWithin(until!) ? begins : nearestOf(library, pieces.value, request);
  pieces.value.filter((piece) => !kept.includes(piece)).forEach(({ shape }) => shape.delete());
  const [only, ...more] = kept;
  // with its far end still there it was not stopped everywhere
  const free = only?.faceNames.some((name) => isFaceOf(name, step, far));
  if (!only || more.length > 0 || free) {
    kept.forEach(({ shape }) => shape.delete());
    return fail('extrude.stop');
  }
  const faces = subShapes(library, scope, only.shape, 'TopAbs_FACE');
  const roles = only.faceNames.map((name) =>
    isFaceOf(name, step, 'side') || isFaceOf(name, step, near) ? name : faceName(step, far),
  );
  return ok({ ...only, faceNames: distinct(library, scope, faces, roles) });
}

const isWithin = (until: NonNullable<ExtrudeRequest['until']>): boolean => until.form === 'next' && until.within;

/** The first of several walls on the way. */
function nearestOf(library: Library, pieces: readonly NamedSolid[], { profile }: ExtrudeRequest): NamedSolid[] {
  const far = ({ shape }: NamedSolid) => Math.abs(heightOver(profile.frame, centreOf(library, shape)));
  return pieces.toSorted((a, b) => far(a) - far(b)).slice(0, 1);
}

/** What of a prism lies outside of bodies, or within them. */
function untilBodies(
  library: Library,
  scope: DisposalScope,
  prism: NamedSolid,
  bodies: readonly NamedSolid[],
  within: boolean,
): Result<NamedSolid[]> {
  if (bodies.length === 0) return fail('extrude.stop');
  const pieces = combined(library, scope, within ? 'overlap' : 'cut', [prism], bodies);
  return pieces.ok || pieces.issue.code !== 'kernel.empty' ? pieces : fail('extrude.stop');
}

/** The pieces of a prism on both sides of a plane or of the surface of a face, that made larger. */
function beforeFace(
  library: Library,
  scope: DisposalScope,
  prism: NamedSolid,
  until: Exclude<Stop, { form: 'next' }>,
  bodyOf: (body: BodyHandle) => NamedSolid,
): Result<NamedSolid[]> {
  const sheet = sheetOf(library, scope, until.form === 'plane' ? until.plane : until, bodyOf);
  return sheet.ok ? splitBy(library, scope, prism, sheet.value, `${prism.name}/stop`) : sheet;
}

function tapered(
  library: Library,
  scope: DisposalScope,
  prism: NamedSolid,
  frame: Frame,
  taper: number,
): Result<NamedSolid> {
  const maker = scope.keep(new library.BRepOffsetAPI_DraftAngle(prism.shape));
  const faces = subShapes(library, scope, prism.shape, 'TopAbs_FACE');
  for (const [k, face] of faces.entries()) {
    if (!isSide(prism.faceNames[k]!)) continue;
    maker.Add(
      scope.keep(library.TopoDS.Face(face)),
      direction(library, scope, frame.z),
      taper,
      plane(library, scope, frame),
      true,
    );
    if (!maker.AddDone()) return fail('extrude.taper');
  }
  maker.Build(scope.keep(new library.Message_ProgressRange()));
  if (!maker.IsDone()) return fail('extrude.taper');
  const made = faces.map((face, k): MadeFace => ({
    face: scope.keep(maker.ModifiedShape(face)),
    name: prism.faceNames[k]!,
  }));
  const leaning = namedSolid(library, scope, maker.Shape(), prism.name, made);
  prism.shape.delete();
  return ok(leaning);
}

/** A face turned about an axis in its plane. */
export function revolved(library: Library, scope: DisposalScope, request: RevolveRequest): Result<NamedSolid[]> {
  const { profile, origin, axis, from, to, step } = request;
  const full = to - from > 2 * Math.PI - 1e-9;
  return ofRegions(library, scope, request, profile.frame, (face, area) => {
    const about = axisAt(library, scope, origin, axis);
    const start = scope.keep(new library.gp_Trsf());
    start.SetRotation(about, from);
    const location = scope.keep(new library.TopLoc_Location(start));
    const turned = from === 0 ? face.face : scope.keep(face.face.Moved(location, false));
    // a full turn forgets its flat faces unless it copies
    const maker = scope.keep(
      full
        ? new library.BRepPrimAPI_MakeRevol(turned, about, true)
        : new library.BRepPrimAPI_MakeRevol(turned, about, to - from, false),
    );
    if (!maker.IsDone()) return fail('kernel.failed', { reason: 'nothing could be turned' });
    const edges = face.edges.map(({ edge, entity }) => ({
      entity,
      edge: from === 0 ? edge : scope.keep(library.TopoDS.Edge(scope.keep(edge.Moved(location, false)))),
    }));
    return ok(sweptSolid(library, scope, maker, { ...face, edges }, { step, area, closed: full }));
  });
}
