import type { NCollection_List_TopoDS_Shape, TopoDS_Edge, TopoDS_Face, TopoDS_Shape } from 'replicad-opencascadejs';
import {
  add3,
  distance3,
  dot3,
  scale3,
  sub3,
  type BevelRequest,
  type HollowRequest,
  type OffsetRequest,
  type Result,
  type RoundRequest,
  type SlopeRequest,
  type ThickenRequest,
} from '@helb/core';
import { combined } from './booleans.ts';
import { direction } from './edges.ts';
import { normalIn } from './facts.ts';
import { fail, guarded, ok, type Library, type Scope } from './library.ts';
import { areaOf, volumeOf } from './measure.ts';
import { carried, distinct, signOf, type FaceHistory, type MadeFace, type NamedSolid } from './names.ts';
import { betweenFaces } from './moved-faces.ts';
import { forgetParts, partsOf } from './parts.ts';
import { plane } from './profile.ts';
import { listOf, members, subShapes } from './shapes.ts';
import { isSound } from './soundness.ts';

/** The sub-shapes of a body by name; fails with the first name that is not there. */
function named(
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
function finished(
  library: Library,
  scope: Scope,
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
  // the library gives back what it was given where it finds no way
  if (Math.abs(volume - volumeOf(library, before.shape)) < 1e-9 * volume) return fail('kernel.unchanged');
  const [result] = carried(library, scope, [before], history, [solid], made);
  return ok({ ...result!, shape: library.TopoDS.Solid(solid) });
}

/** Faces that an edge or a corner turned into, named after it. */
function madeFrom(
  library: Library,
  scope: Scope,
  history: { Generated(shape: TopoDS_Shape): NCollection_List_TopoDS_Shape },
  sources: readonly { readonly name: string; readonly shape: TopoDS_Shape }[],
  prefix: string,
): MadeFace[] {
  return sources.flatMap(({ name, shape }) =>
    members(library, scope, scope.keep(history.Generated(shape)))
      .filter((face) => face.ShapeType() === 'TopAbs_FACE')
      .map((face) => ({ face, name: `${prefix}/${signOf(name)}` })),
  );
}

/** Rolls a ball along edges, and along those that go on smoothly from them. */
export function rounded(library: Library, scope: Scope, body: NamedSolid, request: RoundRequest): Result<NamedSolid> {
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
    ...madeFrom(library, scope, maker, edges, `${request.step}/round`),
    ...madeFrom(library, scope, maker, vertices.all, `${request.step}/corner`),
  ];
  return finished(library, scope, body, maker, scope.keep(maker.Shape()), made);
}

/** Cuts edges off flat. */
export function bevelled(library: Library, scope: Scope, body: NamedSolid, request: BevelRequest): Result<NamedSolid> {
  const { edges, faces, vertices } = partsOf(library, body);
  const found = named(edges, request.edges, 'edge');
  if (!found.ok) return found;
  const maker = scope.keep(new library.BRepFilletAPI_MakeChamfer(body.shape));
  for (const [k, shape] of found.value.entries()) {
    const edge: TopoDS_Edge = scope.keep(library.TopoDS.Edge(shape));
    if (maker.Contour(edge) > 0) continue;
    const [first] = edges.find(({ name }) => name === request.edges[k])!.faces;
    const face: TopoDS_Face = scope.keep(library.TopoDS.Face(faces.find(({ name }) => name === first)!.shape));
    if (request.angle !== undefined) maker.AddDA(request.distance, request.angle, edge, face);
    else if (request.other !== undefined) maker.Add(request.distance, request.other, edge, face);
    else maker.Add(request.distance, edge);
  }
  maker.Build(scope.keep(new library.Message_ProgressRange()));
  if (!maker.IsDone()) return fail('chamfer.size');
  const made = [
    ...madeFrom(library, scope, maker, edges, `${request.step}/bevel`),
    ...madeFrom(library, scope, maker, vertices.all, `${request.step}/corner`),
  ];
  return finished(library, scope, body, maker, scope.keep(maker.Shape()), made);
}

/** What the inner face of a wall is called, by its outer one. */
export const insideOf = (step: string, face: string): string => `${step}/inside/${signOf(face)}`;

/**
 * Takes the inside away and leaves walls; the open faces leave rims. Where the walls of free faces do not meet when their
 * corners are rounded off, or meet wrongly without a word, they are made to meet sharply.
 */
export function hollowed(library: Library, _: Scope, body: NamedSolid, request: HollowRequest): Result<NamedSolid> {
  const { faces } = partsOf(library, body);
  const open = named(faces, request.open, 'face');
  if (!open.ok) return open;
  const skin = faces.filter(({ name }) => !request.open.includes(name));
  const most =
    MOST_WALL * Math.abs(request.wall) * skin.reduce((sum, { shape }) => sum + areaOf(library, shape).area, 0);
  // outside there is room for more than the skin tells
  const plausible = (made: Result<NamedSolid>) =>
    made.ok && (request.wall < 0 || volumeOf(library, made.value.shape) < most);
  const by = (corners: Corners) =>
    guarded(library, (inner) => walled(library, inner, body, request, open.value, corners));
  const round = by('GeomAbs_Arc');
  if (plausible(round)) return round;
  if (round.ok) round.value.shape.delete();
  const sharp = by('GeomAbs_Intersection');
  if (plausible(sharp)) return sharp;
  if (sharp.ok) sharp.value.shape.delete();
  return round.ok ? fail('shell.wall') : round;
}

/** Walls inwards hold no more than their thickness over their skin, but for what inner corners add. */
const MOST_WALL = 2;

type Corners = 'GeomAbs_Arc' | 'GeomAbs_Intersection';

function walled(
  library: Library,
  scope: Scope,
  body: NamedSolid,
  request: HollowRequest,
  open: readonly TopoDS_Shape[],
  corners: Corners,
): Result<NamedSolid> {
  const { faces } = partsOf(library, body);
  const maker = scope.keep(new library.BRepOffsetAPI_MakeThickSolid());
  maker.MakeThickSolidByJoin(
    body.shape,
    listOf(library, scope, open),
    -request.wall,
    1e-4,
    'BRepOffset_Skin',
    false,
    false,
    corners,
    false,
    scope.keep(new library.Message_ProgressRange()),
  );
  if (!maker.IsDone()) return fail('shell.wall');
  const made = faces.flatMap(({ name, shape }) => {
    const role = request.open.includes(name) ? 'rim' : 'inside';
    return members(library, scope, scope.keep(maker.Generated(shape)))
      .filter((face) => face.ShapeType() === 'TopAbs_FACE')
      .map((face): MadeFace => ({ face, name: `${request.step}/${role}/${signOf(name)}` }));
  });
  // walls that are too thick give back the body as it was, without any inside
  if (made.length === 0) return fail('shell.wall');
  const result = finished(library, scope, body, maker, scope.keep(maker.Shape()), made);
  return result.ok || result.issue.code === 'kernel.gone' ? result : fail('shell.wall');
}

/** Leans faces about their lines in a plane. */
export function sloped(library: Library, scope: Scope, body: NamedSolid, request: SlopeRequest): Result<NamedSolid> {
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
  scope: Scope,
  body: NamedSolid,
  request: ThickenRequest,
): Result<NamedSolid[]> {
  const slabs = slabsOn(library, scope, body, request, (_, name) => `${request.step}/slab/${signOf(name)}`);
  return slabs ?? fail('thicken.face');
}

/**
 * Moves faces one after the other, each with its neighbours as they are by then: what lies between is added or taken away.
 * A moved face stays the same face for all that builds on it. Flat faces take their neighbours along; others are set off
 * square.
 */
export function offsetFaces(
  library: Library,
  scope: Scope,
  body: NamedSolid,
  request: OffsetRequest,
): Result<NamedSolid> {
  let now = body;
  for (const name of request.faces) {
    const moved = offsetFace(library, scope, now, name, request);
    if (now !== body) {
      forgetParts(now);
      now.shape.delete();
    }
    if (!moved.ok) return moved;
    now = moved.value;
  }
  return ok(now);
}

function offsetFace(
  library: Library,
  scope: Scope,
  body: NamedSolid,
  name: string,
  { distance, step }: OffsetRequest,
): Result<NamedSolid> {
  const chosen = partsOf(library, body).faces.find((face) => face.name === name);
  if (!chosen) return fail('kernel.gone', { what: 'face' });
  const called = (far: boolean, face: string) => (far ? face : `${step}/side/${signOf(face)}`);
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
  scope: Scope,
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
  scope: Scope,
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
function slabOn(library: Library, scope: Scope, face: TopoDS_Shape, distance: number): TopoDS_Shape | undefined {
  // a copy: an operation with the body would find shared faces and give nothing
  const copy = scope.keep(new library.BRepBuilderAPI_Transform(face, scope.keep(new library.gp_Trsf()), true, false));
  const maker = scope.keep(new library.BRepOffsetAPI_MakeThickSolid());
  maker.MakeThickSolidBySimple(scope.keep(copy.Shape()), distance);
  if (!maker.IsDone()) return undefined;
  const [solid] = subShapes(library, scope, scope.keep(maker.Shape()), 'TopAbs_SOLID');
  if (!solid) return undefined;
  const volume = volumeOf(library, solid);
  if (Math.abs(volume) < 1e-12) return undefined;
  return volume > 0 ? library.TopoDS.Solid(solid) : library.TopoDS.Solid(scope.keep(solid.Reversed()));
}
