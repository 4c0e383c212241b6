import type { TopoDS_Shape } from 'replicad-opencascadejs';
import { cross3, dot3, faceName, scale3, type Result, type ShellRequest } from '@helb/core';
import { combined } from './booleans.ts';
import { edgeShape, faceFacts, normalAt } from './facts.ts';
import { fail, ok, type DisposalScope, type Library } from './library.ts';
import { areaOf, volumeOf } from './measure.ts';
import { insideOf, signOf, type MadeFace, type NamedSolid } from './names.ts';
import { drop, partsOf } from './parts.ts';
import { offsetFaces } from './local-operations.ts';
import { members, subShapes } from './shapes.ts';
import { isSound } from './soundness.ts';
import { namedSolid } from './swept.ts';

// Walls where the library finds none at once, as beside an open face that goes on smoothly into others: the body is set in all
// round, which it finds more often, and what lies between that and the open face is taken away too.

/** How walls meet at inner corners. */
export type Corners = 'GeomAbs_Arc' | 'GeomAbs_Intersection';

/**
 * Walls of one thickness about the body set in, open at flat faces whose neighbours stand square to them or go on from them
 * smoothly: there the hollow goes straight out.
 */
export function insetHollow(
  library: Library,
  scope: DisposalScope,
  body: NamedSolid,
  request: ShellRequest,
): Result<NamedSolid> {
  const beside = besideOpen(library, scope, body, request.open);
  // between two open faces that meet something would be left
  const isStraight = ({ cosine, isOuter, isOpen }: Beside) =>
    !isOpen && (isSmooth(cosine) || (isOuter && Math.abs(cosine) < ANGLE));
  if (request.wall < 0 || !beside?.every(isStraight)) return fail('shell.wall');
  const inset = insetOf(library, scope, body, request, 'GeomAbs_Arc');
  if (!inset.ok) return inset;
  const outs = request.open.flatMap((name) => outOf(library, scope, inset.value, request, name) ?? []);
  const all = [inset.value, ...outs];
  const taken = all.reduce((sum, { shape }) => sum + volumeOf(library, shape), 0);
  const hollow =
    outs.length < request.open.length ? fail('shell.wall') : only(combined(library, scope, 'add', [inset.value], outs));
  all.forEach(drop);
  return hollow.ok ? lessHollow(library, scope, body, hollow.value, taken) : hollow;
}

/**
 * The same with the open faces moved out by the wall first, their flat neighbours with them: the body set in ends where they
 * were. Open faces that are flat and meet their neighbours at an angle.
 */
export function movedHollow(
  library: Library,
  scope: DisposalScope,
  body: NamedSolid,
  request: ShellRequest,
  corners: Corners,
): Result<NamedSolid> {
  const { open, wall, step } = request;
  const beside = besideOpen(library, scope, body, open);
  const isFit = ({ cosine, isOuter }: Beside) => !isSmooth(cosine) && (isOuter || corners === 'GeomAbs_Intersection');
  if (wall < 0 || !beside?.every(isFit)) return fail('shell.wall');
  const moved = offsetFaces(library, scope, body, { body: 0, faces: open, distance: wall, step: `${step}/out` });
  if (!moved.ok) return moved;
  const inset = insetOf(library, scope, moved.value, request, corners);
  drop(moved.value);
  return inset.ok ? lessHollow(library, scope, body, inset.value, volumeOf(library, inset.value.shape)) : inset;
}

/** A body less a hollow that lies in it and is so large; the hollow is dropped. */
export function lessHollow(
  library: Library,
  scope: DisposalScope,
  body: NamedSolid,
  hollow: NamedSolid,
  taken: number,
): Result<NamedSolid> {
  const made = only(combined(library, scope, 'cut', [body], [hollow]));
  drop(hollow);
  if (!made.ok) return made;
  const whole = volumeOf(library, body.shape);
  if (Math.abs(volumeOf(library, made.value.shape) - (whole - taken)) < TAKEN * whole) return made;
  drop(made.value);
  return fail('shell.wall');
}
/** So well, as a share of the body, what is taken agrees with the hollow. */
const TAKEN = 1e-6;

/** How much the angle between two faces may be off, as a cosine or a sine. */
const ANGLE = 1e-6;
/** Where along an edge its faces are looked at, as shares of it. */
const ALONG = [0.02, 0.27, 0.5, 0.77, 0.98];

const isSmooth = (cosine: number): boolean => cosine > 1 - ANGLE;

/** How a face stands to an open one beside it. */
interface Beside {
  /** Of the angle between their normals. */
  readonly cosine: number;
  /** Does it fall away from the open face, or rise from it? */
  readonly isOuter: boolean;
  /** Is it open too? */
  readonly isOpen: boolean;
}

/** What is beside open faces, looked at all along their edges; undefined where one of them is not flat. */
function besideOpen(
  library: Library,
  scope: DisposalScope,
  body: NamedSolid,
  open: readonly string[],
): Beside[] | undefined {
  const { faces, edges } = partsOf(library, body);
  const found: Beside[] = [];
  for (const name of open) {
    const { surface } = faceFacts(library, scope, faces.find((face) => face.name === name)!.shape);
    if (surface.form !== 'plane') return undefined;
    const { normal } = surface;
    for (const { faces: meeting, sides, shape } of edges) {
      if (!meeting.includes(name)) continue;
      const own = sides.find((side) => side.name === name)!;
      const other = sides.find((side) => side.name !== name);
      if (!other) return undefined;
      const run = edgeShape(library, scope, shape).along;
      const inwards = cross3(normal, own.edge.Orientation() === 'TopAbs_REVERSED' ? scale3(run, -1) : run);
      const isOuter = dot3(normalAt(library, scope, other.face, other.edge), inwards) < 0;
      const cosineAt = (share: number) => dot3(normal, normalAt(library, scope, other.face, other.edge, share));
      const isOpen = open.includes(other.name);
      found.push(...ALONG.map((share) => ({ cosine: cosineAt(share), isOuter, isOpen })));
    }
  }
  return found;
}

/**
 * A body set in all round, its faces named as the insides of walls. A skin that goes in loses as much volume as it sweeps over;
 * its area is quadratic in how far it went (Steiner), so that Simpson's rule over both ends and the middle is a witness.
 */
function insetOf(
  library: Library,
  scope: DisposalScope,
  body: NamedSolid,
  { wall, step }: ShellRequest,
  corners: Corners,
): Result<NamedSolid> {
  const set = setIn(library, scope, body, wall, corners);
  const half = set && setIn(library, scope, body, wall / 2, corners);
  if (!set || !half) return fail('shell.wall');
  const skin = (shape: TopoDS_Shape) =>
    subShapes(library, scope, shape, 'TopAbs_FACE').reduce((sum, face) => sum + areaOf(library, face).area, 0);
  const swept = (wall / 6) * (skin(body.shape) + 4 * skin(half.solid) + skin(set.solid));
  const whole = volumeOf(library, body.shape);
  if (Math.abs(whole - volumeOf(library, set.solid) - swept) > SWEPT * whole) return fail('shell.wall');
  const made = partsOf(library, body).faces.flatMap(({ name, shape }) =>
    set.from(shape).map((face): MadeFace => ({ face, name: insideOf(step, name) })),
  );
  return ok(namedSolid(library, scope, library.TopoDS.Solid(set.solid), step, made));
}
/** So well, as a share of the body, what is lost agrees with what was swept over: free faces are followed by others. */
const SWEPT = 1e-5;

function setIn(library: Library, scope: DisposalScope, body: NamedSolid, by: number, corners: Corners) {
  const maker = scope.keep(new library.BRepOffsetAPI_MakeOffsetShape());
  const progress = scope.keep(new library.Message_ProgressRange());
  maker.PerformByJoin(body.shape, -by, 1e-4, 'BRepOffset_Skin', false, false, corners, false, progress);
  if (!maker.IsDone()) return undefined;
  const solids = subShapes(library, scope, scope.keep(maker.Shape()), 'TopAbs_SOLID');
  const [solid] = solids;
  if (!solid || solids.length > 1 || !isSound(library, solid) || volumeOf(library, solid) <= 0) return undefined;
  return { solid, from: (face: TopoDS_Shape) => members(library, scope, scope.keep(maker.Generated(face))) };
}

/** What lies between a face of the inset and the open face that it is of. */
function outOf(
  library: Library,
  scope: DisposalScope,
  inset: NamedSolid,
  { wall, step }: ShellRequest,
  name: string,
): NamedSolid | undefined {
  const face = partsOf(library, inset).faces.find((one) => one.name === insideOf(step, name));
  const facts = face && faceFacts(library, scope, face.shape);
  if (facts?.surface.form !== 'plane') return undefined;
  const { normal } = facts.surface;
  const maker = scope.keep(
    new library.BRepPrimAPI_MakePrism(
      face!.shape,
      scope.keep(new library.gp_Vec(...scale3(normal, wall))),
      false,
      true,
    ),
  );
  const rim = faceName(step, 'rim', signOf(name));
  const sides = partsOf(library, inset).edges.flatMap(({ sides: beside, shape }): MadeFace[] => {
    if (!beside.some((side) => side.name === face!.name)) return [];
    const other = beside.find((side) => side.name !== face!.name);
    const isWall = other && !isSmooth(dot3(normal, normalAt(library, scope, other.face, other.edge)));
    const called = isWall ? other.name : rim;
    return members(library, scope, scope.keep(maker.Generated(shape))).map((made) => ({ face: made, name: called }));
  });
  return namedSolid(library, scope, library.TopoDS.Solid(scope.keep(maker.Shape())), `${step}/out`, sides);
}

/** The only one of several solids; the others would be lost. */
export function only(made: Result<NamedSolid[]>): Result<NamedSolid> {
  if (!made.ok) return made;
  const [one, ...more] = made.value;
  if (one && more.length === 0) return ok(one);
  made.value.forEach(drop);
  return fail('shell.wall');
}
