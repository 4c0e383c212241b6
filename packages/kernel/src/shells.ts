import type { TopoDS_Shape } from 'replicad-opencascadejs';
import {
  frameOn,
  frameToFrame,
  issue,
  type Issue,
  ORIGIN_PLANES,
  type Box3,
  type Frame,
  type ShellRequest,
  type Piece,
  type Result,
  type Vec2,
  faceName,
} from '@helb/core';
import { combined } from './booleans.ts';
import { detoured, trying } from './detours.ts';
import { finished, named } from './local-operations.ts';
import { capped } from './capped.ts';
import { motionOf } from './edges.ts';
import { FIT_MM, fittedHollow } from './fitted-hollow.ts';
import { nearest } from './gaps.ts';
import { insetHollow, movedHollow, only, type Corners } from './inset-hollow.ts';
import { faceFacts } from './facts.ts';
import { fail, guarded, ok, type Library, type DisposalScope } from './library.ts';
import { areaOf, boxOf, volumeOf } from './measure.ts';
import { insideOf, signOf, type MadeFace, type NamedSolid } from './names.ts';
import { drop, partsOf } from './parts.ts';
import { listOf, members, subShapes } from './shapes.ts';
import { extruded } from './extrude-revolve.ts';
import { namedSolid } from './swept.ts';

/**
 * Takes the inside away and leaves walls; the open faces leave rims. Where the walls of free faces do not meet when their
 * corners are rounded off, or meet wrongly without a word, they are made to meet sharply.
 */
export function shelled(
  library: Library,
  _: DisposalScope,
  body: NamedSolid,
  request: ShellRequest,
): Result<NamedSolid> {
  const { faces } = partsOf(library, body);
  const open = named(faces, request.open, 'face');
  if (!open.ok) return open;
  const skin = faces.filter(({ name }) => !request.open.includes(name));
  const most =
    MOST_WALL * Math.abs(request.wall) * skin.reduce((sum, { shape }) => sum + areaOf(library, shape).area, 0);
  const whole = volumeOf(library, body.shape);
  // outside there is room for more than the skin tells; inside something has to go
  const plausible = (made: Result<NamedSolid>) =>
    made.ok && (request.wall < 0 || volumeOf(library, made.value.shape) < Math.min(most, whole * (1 - UNCHANGED)));
  const attempted = (make: (inner: DisposalScope) => Result<NamedSolid>) =>
    trying(library, () => guarded(library, make), plausible);
  const wallsBy = (way: Way) => (inner: DisposalScope) => walled(library, inner, body, request, open.value, way);
  const ways: readonly [make: (inner: DisposalScope) => Result<NamedSolid>, told?: Issue][] = [
    [wallsBy({ corners: 'GeomAbs_Arc', tolerance: 1e-4 })],
    [wallsBy({ corners: 'GeomAbs_Arc', tolerance: 1e-5 })],
    [(inner) => fittedHollow(library, inner, body, request), issue('kernel.hollow-fitted', { within: FIT_MM })],
    [(inner) => insetHollow(library, inner, body, request), issue('kernel.hollow-inset')],
    [(inner) => movedHollow(library, inner, body, request, 'GeomAbs_Arc'), issue('kernel.hollow-inset')],
    [wallsBy({ corners: 'GeomAbs_Intersection', tolerance: 1e-4 }), issue('kernel.sharp-corners')],
    [(inner) => movedHollow(library, inner, body, request, 'GeomAbs_Intersection'), issue('kernel.sharp-corners')],
    [(inner) => cutHollow(library, inner, body, request), issue('kernel.hollow-cut')],
  ];
  // one after the other: round corners keep the wall everywhere, sharp ones are a way out
  for (const [make, told] of ways) {
    const made = attempted(make);
    if (plausible(made)) {
      if (told !== undefined) detoured(library, told);
      return made;
    }
    if (made.ok) made.value.shape.delete();
  }
  return fail('shell.wall');
}

/** Walls inwards hold no more than their thickness over their skin, but for what inner corners add. */
const MOST_WALL = 2;

/** A share of the volume: less is no hollow. */
const UNCHANGED = 1e-9;

/** How walls meet at inner corners, and how near, mm, is taken as meeting. */
interface Way {
  readonly corners: Corners;
  readonly tolerance: number;
}

function walled(
  library: Library,
  scope: DisposalScope,
  body: NamedSolid,
  request: ShellRequest,
  open: readonly TopoDS_Shape[],
  { corners, tolerance }: Way,
): Result<NamedSolid> {
  const { faces } = partsOf(library, body);
  const maker = scope.keep(new library.BRepOffsetAPI_MakeThickSolid());
  maker.MakeThickSolidByJoin(
    body.shape,
    listOf(library, scope, open),
    -request.wall,
    tolerance,
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
      .map((face): MadeFace => ({ face, name: faceName(request.step, role, signOf(name)) }));
  });
  // walls that are too thick give back the body as it was, without any inside
  if (made.length === 0) return fail('shell.wall');
  const shape = scope.keep(maker.Shape());
  const skins = subShapes(library, scope, shape, 'TopAbs_SHELL');
  const keeps = (of: TopoDS_Shape, face: TopoDS_Shape) =>
    subShapes(library, scope, of, 'TopAbs_FACE').some((one) => one.IsSame(face));
  // the bottom of a pocket stays closed, with a skin about the hollow that only touches it
  const hollows = skins.filter((skin) => !faces.some((face) => keeps(skin, face.shape)));
  if (hollows.length > 0) return openedInto(library, scope, body, request, hollows, made);
  const result = finished(library, scope, body, maker, shape, made);
  return result.ok || result.issue.code === 'kernel.gone' ? result : fail('shell.wall');
}

/** A body less hollows that touch its open faces from inside, each told by its skin. */
function openedInto(
  library: Library,
  scope: DisposalScope,
  body: NamedSolid,
  request: ShellRequest,
  skins: readonly TopoDS_Shape[],
  made: readonly MadeFace[],
): Result<NamedSolid> {
  if (request.wall < 0) return fail('shell.wall');
  const { open, step } = request;
  const rimOf = (face: TopoDS_Shape): string => {
    const touched = partsOf(library, body).faces.find(({ name, shape }) => {
      const gap = open.includes(name) ? nearest(library, scope, shape, face) : undefined;
      return gap?.ok && gap.value.distance_mm < TOUCHING;
    });
    return faceName(step, 'rim', signOf(touched?.name ?? open[0]!));
  };
  let hollow = 0;
  const hollows = skins.map((skin) => {
    const solid = scope.keep(new library.BRepBuilderAPI_MakeSolid(scope.keep(library.TopoDS.Shell(skin)))).Solid();
    library.BRepLib.OrientClosedSolid(solid);
    hollow += volumeOf(library, solid);
    const rims = subShapes(library, scope, skin, 'TopAbs_FACE')
      .filter((face) => !made.some((one) => one.face.IsSame(face)))
      .map((face): MadeFace => ({ face, name: rimOf(face) }));
    return namedSolid(library, scope, solid, step, [...made, ...rims]);
  });
  const result = only(combined(library, scope, 'cut', [body], hollows));
  hollows.forEach(drop);
  if (!result.ok) return result;
  const whole = volumeOf(library, body.shape);
  const isTaken = Math.abs(volumeOf(library, result.value.shape) - (whole - hollow)) < TAKEN * whole;
  if (hollow > 0 && isTaken) return result;
  drop(result.value);
  return fail('shell.wall');
}
/** So well, as a share of the body, what is taken agrees with the hollow. */
const TAKEN = 1e-6;
/** Nearer than this, mm, faces touch. */
const TOUCHING = 1e-6;

/**
 * Walls where the library finds none: the hollow of the bent faces as they were before anything cut them, less the walls of
 * the flat faces, which holds where the whole body lies on one side of each. So bent sides that end in a slant get theirs.
 */
function cutHollow(
  library: Library,
  scope: DisposalScope,
  body: NamedSolid,
  request: ShellRequest,
): Result<NamedSolid> {
  const { faces } = partsOf(library, body);
  const flats = faces.flatMap(({ name, shape }) => {
    const { surface } = faceFacts(library, scope, shape);
    return surface.form === 'plane' ? [{ name, frame: frameOn(surface.origin, surface.normal) }] : [];
  });
  const closed = flats.filter(({ name }) => !request.open.includes(name));
  const boxes = closed.map(({ frame }) => boxSeenFrom(library, scope, body, frame));
  if (request.wall < 0 || closed.length === 0 || flats.length === faces.length) return fail('shell.wall');
  if (boxes.some(({ high }) => high[2] > FLAT)) return fail('shell.wall');
  const whole = wholeOf(
    library,
    scope,
    faces.filter(({ name }) => !flats.some((flat) => flat.name === name)),
    request,
  );
  if (!whole.ok) return whole;
  const { caps, solid } = whole.value;
  const skin = shelled(library, scope, solid, { ...request, open: caps });
  let hollow = skin.ok ? only(combined(library, scope, 'cut', [solid], [skin.value])) : skin;
  if (skin.ok) drop(skin.value);
  drop(solid);
  for (const [k, { name, frame }] of closed.entries()) {
    if (!hollow.ok) return hollow;
    const wall = slabUnder(library, scope, frame, boxes[k]!, request.wall, insideOf(request.step, name));
    if (!wall.ok) return wall;
    const less = only(combined(library, scope, 'cut', [hollow.value], [wall.value]));
    [hollow.value, wall.value].forEach(drop);
    hollow = less;
  }
  if (!hollow.ok) return hollow;
  const made = only(combined(library, scope, 'cut', [body], [hollow.value]));
  drop(hollow.value);
  return made;
}
/** How far a body may go beyond a flat face of it and still count as lying under it, mm. */
const FLAT = 1e-6;

/** The solid of bent faces as large as their surfaces are, closed by flat caps. Fails where they do not close it. */
function wholeOf(
  library: Library,
  scope: DisposalScope,
  bent: readonly { readonly name: string; readonly shape: TopoDS_Shape }[],
  { step }: ShellRequest,
): Result<{ readonly solid: NamedSolid; readonly caps: readonly string[] }> {
  const made: MadeFace[] = [];
  const surfaces = new Set<number>();
  for (const { name, shape } of bent) {
    const face = scope.keep(library.TopoDS.Face(shape));
    const surface = scope.keep(library.BRep_Tool.Surface(face));
    if (scope.keep(new library.BRepAdaptor_Surface(face, true)).GetType() !== 'GeomAbs_BSplineSurface')
      return fail('shell.wall');
    const maker = scope.keep(new library.BRepBuilderAPI_MakeFace(surface, 1e-6));
    if (!maker.IsDone()) return fail('shell.wall');
    const whole = scope.keep(maker.Face());
    // two faces that were cut out of one surface are one again
    const known = Math.round(areaOf(library, whole).area * 1e6);
    if (surfaces.has(known)) continue;
    surfaces.add(known);
    made.push({ face: whole, name });
  }
  const caps: string[] = [];
  const solid = capped(library, scope, made, step, () => {
    caps.push(faceName(step, 'cap', caps.length));
    return caps.at(-1)!;
  });
  return solid ? ok({ solid, caps }) : fail('shell.wall');
}

/** The box round a body along the axes of a frame. */
function boxSeenFrom(library: Library, scope: DisposalScope, body: NamedSolid, frame: Frame): Box3 {
  const motion = motionOf(library, scope, frameToFrame(frame, ORIGIN_PLANES.top));
  const maker = scope.keep(new library.BRepBuilderAPI_Transform(body.shape, motion, true, false));
  return boxOf(library, scope.keep(maker.Shape()));
}

/** All that lies less deep than so much under a plane, as wide as a body is; its face in the deep has a name. */
function slabUnder(
  library: Library,
  scope: DisposalScope,
  frame: Frame,
  { low, high }: Box3,
  depth: number,
  name: string,
): Result<NamedSolid> {
  const margin = 1 + 0.1 * Math.max(high[0] - low[0], high[1] - low[1]);
  const [x0, y0, x1, y1] = [low[0] - margin, low[1] - margin, high[0] + margin, high[1] + margin];
  const corners: Vec2[] = [
    [x0, y0],
    [x1, y0],
    [x1, y1],
    [x0, y1],
  ];
  const outer = corners.map((from, k): Piece => ({ form: 'segment', entity: `${k}`, from, to: corners[(k + 1) % 4]! }));
  const region = { key: 'slab', depth: 0, area: (x1 - x0) * (y1 - y0), holes: [], outer };
  const made = extruded(
    library,
    scope,
    { profile: { frame, regions: [region] }, from: -depth, to: margin, step: 'slab' },
    () => {
      throw new Error('nothing stops it');
    },
  );
  if (!made.ok) return made;
  const [slab] = made.value as [NamedSolid];
  return ok({ ...slab, faceNames: slab.faceNames.map((face) => (face === 'slab/start' ? name : face)) });
}
