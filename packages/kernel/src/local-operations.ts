import type { NCollection_List_TopoDS_Shape, TopoDS_Shape } from 'replicad-opencascadejs';
import {
  add3,
  distance3,
  dot3,
  issue,
  scale3,
  sub3,
  type OffsetRequest,
  type Result,
  type FilletRequest,
  type DraftRequest,
  type ThickenRequest,
  faceName,
} from '@helb/core';
import { combined } from './booleans.ts';
import { cornersOf, cutFillet, type Corner } from './corner-fillets.ts';
import { detoured, trying } from './detours.ts';
import { direction } from './edges.ts';
import { faceFacts, normalIn } from './facts.ts';
import { fail, ok, type Library, type DisposalScope } from './library.ts';
import { volumeOf } from './measure.ts';
import { carried, distinct, signOf, type FaceHistory, type MadeFace, type NamedSolid } from './names.ts';
import { betweenFaces } from './moved-faces.ts';
import { drop, partsOf } from './parts.ts';
import { plane } from './profile.ts';
import { members, subShapes } from './shapes.ts';
import { isSound } from './soundness.ts';

/** The sub-shapes of a body by name; fails with the first name that is not there. */
export function named(
  parts: readonly { readonly name: string; readonly shape: TopoDS_Shape }[],
  names: readonly string[],
  what: string,
): Result<TopoDS_Shape[]> {
  const found: TopoDS_Shape[] = [];
  for (const name of names) {
    const part = parts.find((other) => other.name === name);
    if (!part) return fail('kernel.gone', { what });
    found.push(part.shape);
  }
  return ok(found);
}

/** One solid of the result, with its names carried; fails where nothing has changed or the body is not sound. */
export function finished(
  library: Library,
  scope: DisposalScope,
  before: NamedSolid,
  history: FaceHistory,
  shape: TopoDS_Shape,
  made: readonly MadeFace[],
): Result<NamedSolid> {
  const solids = subShapes(library, scope, shape, 'TopAbs_SOLID');
  const [solid] = solids;
  if (!solid || solids.length !== 1) return fail('kernel.invalid');
  if (!isSound(library, solid)) return fail('kernel.invalid');
  const volume = volumeOf(library, solid);
  // the library gives back what it was given where it finds no way; what one edge gives another may take
  const isAsLarge = Math.abs(volume - volumeOf(library, before.shape)) < 1e-9 * volume;
  const faces = subShapes(library, scope, solid, 'TopAbs_FACE').length;
  if (isAsLarge && faces === before.faceNames.length) return fail('kernel.unchanged');
  const [result] = carried(library, scope, [before], history, [solid], made);
  return ok({ ...result!, shape: library.TopoDS.Solid(solid) });
}

/** Faces that an edge or a corner turned into, named after it. */
export function madeFrom(
  library: Library,
  scope: DisposalScope,
  history: { Generated(shape: TopoDS_Shape): NCollection_List_TopoDS_Shape },
  sources: readonly { readonly name: string; readonly shape: TopoDS_Shape }[],
  [step, role]: readonly [step: string, role: string],
): MadeFace[] {
  return sources.flatMap(({ name, shape }) =>
    members(library, scope, scope.keep(history.Generated(shape)))
      .filter((face) => face.ShapeType() === 'TopAbs_FACE')
      .map((face) => ({ face, name: faceName(step, role, signOf(name)) })),
  );
}

/**
 * Rolls a ball along edges, and along those that go on smoothly from them. Straight corners with something in the way of
 * the ball are cut off afterwards, and all of them where it does not roll.
 */
export function filleted(
  library: Library,
  scope: DisposalScope,
  body: NamedSolid,
  request: FilletRequest,
): Result<NamedSolid> {
  const corners = cornersOf(library, scope, body, request.edges);
  const crowded = corners.filter(({ isCrowded }) => isCrowded);
  const attempted = (cut: typeof corners) =>
    trying(
      library,
      () => filletedWith(library, scope, body, request, cut),
      ({ ok: isMade }) => isMade,
    );
  const made = attempted(crowded);
  if (made.ok || corners.length === crowded.length) return made;
  const cut = attempted(corners);
  if (!cut.ok) return made;
  detoured(library, issue('kernel.corners-cut'));
  return cut;
}

/** Corners cut off, after the ball has rolled along all else. */
function filletedWith(
  library: Library,
  scope: DisposalScope,
  body: NamedSolid,
  request: FilletRequest,
  corners: readonly { readonly corner: Corner }[],
): Result<NamedSolid> {
  const rest = request.edges.filter(({ name }) => !corners.some(({ corner }) => corner.name === name));
  let now =
    rest.length > 0 || corners.length === 0 ? rolled(library, scope, body, { ...request, edges: rest }) : ok(body);
  for (const { corner } of corners) {
    if (!now.ok) break;
    const edge = request.edges.find(({ name }) => name === corner.name)!;
    // as it is by now: another round may have taken the place of this one
    const [there] = cornersOf(library, scope, now.value, [edge]);
    const next: Result<NamedSolid> = there
      ? cutFillet(library, scope, now.value, there.corner, edge.radius, request.step)
      : fail('round.size');
    if (now.value !== body) drop(now.value);
    now = next;
  }
  return now;
}

function rolled(library: Library, scope: DisposalScope, body: NamedSolid, request: FilletRequest): Result<NamedSolid> {
  const { edges, vertices } = partsOf(library, body);
  const found = named(
    edges,
    request.edges.map(({ name }) => name),
    'edge',
  );
  if (!found.ok) return found;
  const maker = scope.keep(new library.BRepFilletAPI_MakeFillet(body.shape, 'ChFi3d_Rational'));
  found.value.forEach((shape, k) => {
    const { radius, to } = request.edges[k]!;
    const edge = scope.keep(library.TopoDS.Edge(shape));
    // it is rounded already where a neighbour goes on into it
    if (maker.Contour(edge) > 0) return;
    if (to === undefined) maker.Add(radius, edge);
    else maker.Add(radius, to, edge);
  });
  maker.Build(scope.keep(new library.Message_ProgressRange()));
  if (!maker.IsDone() || maker.NbFaultyContours() > 0) return fail('round.size');
  const made = [
    ...madeFrom(library, scope, maker, edges, [request.step, 'round']),
    ...madeFrom(library, scope, maker, vertices.all, [request.step, 'corner']),
  ];
  return finished(library, scope, body, maker, scope.keep(maker.Shape()), made);
}

/** Leans faces about their lines in a plane. */
export function drafted(
  library: Library,
  scope: DisposalScope,
  body: NamedSolid,
  request: DraftRequest,
): Result<NamedSolid> {
  const { faces } = partsOf(library, body);
  const leaning = named(faces, request.faces, 'face');
  if (!leaning.ok) return leaning;
  const maker = scope.keep(new library.BRepOffsetAPI_DraftAngle(body.shape));
  for (const face of leaning.value) {
    maker.Add(
      scope.keep(library.TopoDS.Face(face)),
      direction(library, scope, request.neutral.z),
      request.angle,
      plane(library, scope, request.neutral),
      true,
    );
    if (!maker.AddDone()) return fail('draft.face');
  }
  maker.Build(scope.keep(new library.Message_ProgressRange()));
  if (!maker.IsDone()) return fail('draft.face');
  // its history lists only some of what has changed
  const history: FaceHistory = {
    Modified(shape) {
      const list = new library.NCollection_List_TopoDS_Shape();
      list.Append(scope.keep(maker.ModifiedShape(shape)));
      return list;
    },
    IsDeleted: () => false,
  };
  return finished(library, scope, body, history, scope.keep(maker.Shape()), []);
}

/** The solid between faces and their copies at a distance. */
export function thickened(
  library: Library,
  scope: DisposalScope,
  body: NamedSolid,
  request: ThickenRequest,
): Result<NamedSolid[]> {
  const slabs = slabsOn(library, scope, body, request, (_, name) => faceName(request.step, 'slab', signOf(name)));
  return slabs ?? fail('thicken.face');
}

/**
 * Moves faces one after the other, each with its neighbours as they are by then: what lies between is added or taken away.
 * A moved face stays the same face for all that builds on it. Flat faces take their neighbours along; others are set off
 * square.
 */
export function offsetFaces(
  library: Library,
  scope: DisposalScope,
  body: NamedSolid,
  request: OffsetRequest,
): Result<NamedSolid> {
  let now = body;
  for (const name of request.faces) {
    const moved = offsetFace(library, scope, now, name, request);
    if (now !== body) drop(now);
    if (!moved.ok) return moved;
    now = moved.value;
  }
  return ok(now);
}

function offsetFace(
  library: Library,
  scope: DisposalScope,
  body: NamedSolid,
  name: string,
  { distance, step }: OffsetRequest,
): Result<NamedSolid> {
  const chosen = partsOf(library, body).faces.find((face) => face.name === name);
  if (!chosen) return fail('kernel.gone', { what: 'face' });
  const called = (far: boolean, face: string) => (far ? face : faceName(step, 'side', signOf(face)));
  const between = betweenFaces(library, scope, body, chosen, distance);
  const slab = between
    ? between.ok
      ? ok([calledSlab(library, scope, between.value, chosen, distance, called)])
      : between
    : (slabsOn(library, scope, body, { faces: [name], distance, step, body: 0 }, called) ?? fail('offset.face'));
  if (!slab.ok) return slab;
  const made = combined(library, scope, distance > 0 ? 'add' : 'cut', [body], slab.value);
  slab.value.forEach(({ shape }) => shape.delete());
  if (!made.ok) return made;
  const [one, ...more] = made.value;
  if (more.length === 0 && one!.faceNames.includes(name)) return ok(one!);
  made.value.forEach(({ shape }) => shape.delete());
  return fail('offset.face');
}

/** A slab with its faces called: the one that lies where the face comes to goes on as that face. */
function calledSlab(
  library: Library,
  scope: DisposalScope,
  slab: NamedSolid,
  { name, shape }: { readonly name: string; readonly shape: TopoDS_Shape },
  distance: number,
  called: (far: boolean, face: string) => string,
): NamedSolid {
  const { at, normal } = normalIn(library, scope, shape);
  const beyond = add3(at, scale3(normal, distance));
  const sides = subShapes(library, scope, slab.shape, 'TopAbs_FACE');
  const names = sides.map((side) => {
    const there = normalIn(library, scope, side);
    const isFar =
      Math.abs(dot3(sub3(there.at, beyond), normal)) < 1e-6 && Math.abs(dot3(there.normal, normal)) > 1 - 1e-9;
    return called(isFar, name);
  });
  return { ...slab, faceNames: distinct(library, scope, sides, names) };
}

/** One slab on each face, its own faces named by whether they are the far one; undefined where there is none. */
function slabsOn(
  library: Library,
  scope: DisposalScope,
  body: NamedSolid,
  { faces: names, distance, step }: ThickenRequest | OffsetRequest,
  nameOf: (far: boolean, face: string) => string,
): Result<NamedSolid[]> | undefined {
  const { faces } = partsOf(library, body);
  const chosen = named(faces, names, 'face');
  if (!chosen.ok) return chosen;
  const solids: NamedSolid[] = [];
  for (const [k, face] of chosen.value.entries()) {
    const slab = slabOn(library, scope, face, distance);
    if (!slab) {
      solids.forEach(({ shape }) => shape.delete());
      return undefined;
    }
    const { at, normal } = normalIn(library, scope, face);
    const beyond = add3(at, scale3(normal, distance));
    const sides = subShapes(library, scope, slab, 'TopAbs_FACE');
    const called = sides.map((side) => nameOf(distance3(normalIn(library, scope, side).at, beyond) < 1e-6, names[k]!));
    solids.push({
      shape: slab,
      name: step,
      faceNames: distinct(library, scope, sides, called),
    });
  }
  return ok(solids);
}

/** Material of one thickness on a face: outwards, or inwards where the distance is negative. Undefined if there is none. */
function slabOn(
  library: Library,
  scope: DisposalScope,
  face: TopoDS_Shape,
  distance: number,
): TopoDS_Shape | undefined {
  // a copy: an operation with the body would find shared faces and give nothing
  const copy = scope.keep(new library.BRepBuilderAPI_Transform(face, scope.keep(new library.gp_Trsf()), true, false));
  const [solid] = subShapes(
    library,
    scope,
    sweptSquare(library, scope, scope.keep(copy.Shape()), distance),
    'TopAbs_SOLID',
  );
  if (!solid) return undefined;
  const volume = volumeOf(library, solid);
  if (Math.abs(volume) < 1e-12) return undefined;
  return volume > 0 ? library.TopoDS.Solid(solid) : library.TopoDS.Solid(scope.keep(solid.Reversed()));
}

/** A face swept along its normals. Flat ones are swept exactly: between their edges the library would find free sides. */
function sweptSquare(library: Library, scope: DisposalScope, face: TopoDS_Shape, distance: number): TopoDS_Shape {
  if (faceFacts(library, scope, face).surface.form === 'plane') {
    const [x, y, z] = scale3(normalIn(library, scope, face).normal, distance);
    const along = scope.keep(new library.gp_Vec(x, y, z));
    return scope.keep(scope.keep(new library.BRepPrimAPI_MakePrism(face, along, false, true)).Shape());
  }
  const maker = scope.keep(new library.BRepOffsetAPI_MakeThickSolid());
  maker.MakeThickSolidBySimple(face, distance);
  return maker.IsDone() ? scope.keep(maker.Shape()) : face;
}
