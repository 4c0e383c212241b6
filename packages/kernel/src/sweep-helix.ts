import type { TopoDS_Wire } from 'replicad-opencascadejs';
import {
  add3,
  cross3,
  direction3,
  dot3,
  frameOn,
  scale3,
  squareTo3,
  sub3,
  Path,
  toSpace,
  type Frame,
  type Profile,
  type Result,
  type SpaceCurve,
  type HelixRequest,
  type SweepRequest,
  type Vec3,
} from '@helb/core';
import { axes, direction } from './edges.ts';
import { fail, ok, type Library, type DisposalScope } from './library.ts';
import { helixWire } from './helices.ts';
import { loftedLoops } from './lofts.ts';
import type { NamedSolid } from './names.ts';
import type { ProfileFace, ProfileLoop } from './profile.ts';
import { edgeOfCurve } from './space-edges.ts';
import { lessOpenings, ofRegions, sweptSolid } from './swept.ts';

/** A face moved along a path of curves that go on into each other. */
export function sweptAlong(library: Library, scope: DisposalScope, request: SweepRequest): Result<NamedSolid[]> {
  const path = wireOf(library, scope, request.path);
  if (!path.ok) return path;
  const [only] = request.path.length === 1 ? request.path : [];
  // along a helix an area keeps its place to the axis
  const upright = only?.form === 'helix' ? only.axis : request.keep === 'fixed' ? planeNormal(request.path) : undefined;
  const { step, twist } = request;
  const stations = twist ? stationsAlong(request.path, twist) : undefined;
  if (stations?.some(({ bends }) => bends)) return fail('sweep.twist');
  return ofRegions(library, scope, request, request.profile.frame, (face, area) =>
    stations
      ? lessOpenings(library, scope, face.outer, face.openings, (loop) => through(library, scope, loop, stations, step))
      : piped(library, scope, path.value, face, { step, area, ...(upright ? { upright } : {}) }),
  );
}

interface PipeOptions {
  readonly step: string;
  readonly area: string | undefined;
  /** A direction that the profile keeps. */
  readonly upright?: Vec3;
}

/** A profile with openings is a pipe less the pipes of its openings: the library sweeps single loops. */
const piped = (library: Library, scope: DisposalScope, spine: TopoDS_Wire, face: ProfileFace, options: PipeOptions) =>
  lessOpenings(library, scope, face.outer, face.openings, (loop) => pipe(library, scope, spine, loop, options));

function pipe(
  library: Library,
  scope: DisposalScope,
  spine: TopoDS_Wire,
  loop: ProfileLoop,
  { step, area, upright }: PipeOptions,
): Result<NamedSolid> {
  const maker = scope.keep(new library.BRepOffsetAPI_MakePipeShell(spine));
  if (upright) maker.SetMode(direction(library, scope, upright));
  else maker.SetMode(false);
  maker.SetTransitionMode('BRepBuilderAPI_RightCorner');
  maker.Add(loop.wire, false, false);
  maker.Build(scope.keep(new library.Message_ProgressRange()));
  if (!maker.IsDone() || !maker.MakeSolid()) return fail('sweep.path');
  return ok(sweptSolid(library, scope, maker, loop, { step, area }));
}

/** The direction square to the plane of a path; for a straight one any that is square to it. */
function planeNormal(path: readonly SpaceCurve[]): Vec3 {
  const round = path.find((curve) => curve.form === 'circle');
  if (round?.form === 'circle') return round.axis;
  const along = path.flatMap((curve) => (curve.form === 'line' ? [sub3(curve.to, curve.from)] : []));
  for (const other of along.slice(1)) {
    const normal = direction3(cross3(along[0]!, other));
    if (normal) return normal;
  }
  return along[0] ? frameOn([0, 0, 0], direction3(along[0])!).x : [0, 0, 1];
}

function wireOf(library: Library, scope: DisposalScope, curves: readonly SpaceCurve[]): Result<TopoDS_Wire> {
  const maker = scope.keep(new library.BRepBuilderAPI_MakeWire());
  for (const curve of curves) {
    maker.Add(edgeOfCurve(library, scope, curve));
    if (!maker.IsDone()) return fail('sweep.joined');
  }
  return ok(scope.keep(maker.Wire()));
}

/** A face moved along a helix, keeping its direction to the axis. */
export function sweptAlongHelix(library: Library, scope: DisposalScope, request: HelixRequest): Result<NamedSolid[]> {
  const { profile, origin, axis, pitch, turns, left, taper, step } = request;
  const start = startOf(profile);
  const out = squareTo3(sub3(start, origin), axis);
  const radius = Math.hypot(...out);
  if (radius < 1e-6) return fail('helix.axis');
  const foot = add3(origin, scale3(axis, dot3(sub3(start, origin), axis)));
  const x = direction3(out)!;
  const spine = helixWire(library, scope, { form: 'helix', origin: foot, axis, x, radius, pitch, turns, left, taper });
  return ofRegions(library, scope, request, profile.frame, (face, area) =>
    piped(library, scope, spine, face, { step, area, upright: axis }),
  );
}

/** A place of the profile from which its helix starts: the first corner of its outline. */
function startOf({ frame, regions }: Profile): Vec3 {
  return toSpace(frame, regions[0]!.outer[0]!.from);
}

/** Places on a path for each half turn, and at least on the whole of it: the surface between them is smooth. */
const STATIONS = 12;
/** A path that turns by more than this between two places has a corner: the cosine. */
const CORNER = Math.cos(0.5);

interface Station {
  readonly frame: Frame;
  /** Does the path have a corner before it? */
  readonly bends: boolean;
}

/** Frames along a path, turned by an angle over the whole way besides what the path does. */
function stationsAlong(curves: readonly SpaceCurve[], twist: number): Station[] {
  const path = new Path(curves);
  const count = STATIONS * Math.max(2, Math.ceil(Math.abs(twist) / Math.PI));
  const frames = path.frames(Array.from({ length: count + 1 }, (_, k) => (path.length * k) / count));
  return frames.map(({ origin, x, y, z }, k) => {
    const turn = (twist * k) / count;
    const out = add3(scale3(x, Math.cos(turn)), scale3(y, Math.sin(turn)));
    const bends = k > 0 && dot3(frames[k - 1]!.z, z) < CORNER;
    return { frame: frameOn(origin, z, out), bends };
  });
}

/** A smooth solid through a loop and its copies in all places of a path. */
function through(
  library: Library,
  scope: DisposalScope,
  loop: ProfileLoop,
  stations: readonly Station[],
  step: string,
): Result<NamedSolid> {
  const system = ({ frame }: Station) => axes(library, scope, frame);
  const start = system(stations[0]!);
  const copies = stations.slice(1).map((station): ProfileLoop => {
    const motion = scope.keep(new library.gp_Trsf());
    motion.SetDisplacement(start, system(station));
    const maker = scope.keep(new library.BRepBuilderAPI_Transform(loop.wire, motion, true, false));
    return { wire: scope.keep(library.TopoDS.Wire(scope.keep(maker.Shape()))), edges: [] };
  });
  return loftedLoops(library, scope, [loop, ...copies], { straight: false, step });
}
