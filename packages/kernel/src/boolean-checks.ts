import type { TopoDS_Face, TopoDS_Shape } from 'replicad-opencascadejs';
import {
  add3,
  boxRound,
  distance3,
  length3,
  middle3,
  scale3,
  sub3,
  type Box3,
  type CombineKind,
  type Vec3,
} from '@helb/core';
import { point, vec } from './edges.ts';
import { middleOf } from './facts.ts';
import { nearest } from './gaps.ts';
import type { Library, DisposalScope } from './library.ts';
import { boxOf, centreOf, volumeOf } from './measure.ts';
import type { NamedSolid } from './names.ts';
import { ShapeMap, subShapes } from './shapes.ts';

// Is a boolean what was asked for? With free faces the library sometimes gives something else without a word.

/** A boolean that is to be looked at. */
export interface Combining {
  readonly kind: CombineKind;
  readonly targets: readonly NamedSolid[];
  readonly tools: readonly NamedSolid[];
}

/** Volumes that add up agree to this share, boxes to this share of their size. */
export const AGREED = 1e-5;

/** How much there is of solids together, and where. */
interface Bulk {
  /** mm^3 */
  readonly volume: number;
  /** The first moments of the volume about the origin, mm^4. */
  readonly moment: Vec3;
}

/** The volume of all together, with its first moments. */
export const bulkOf = (library: Library, solids: readonly NamedSolid[]): Bulk =>
  solids.reduce<Bulk>(
    (sum, { shape }) => {
      const [volume, centre] = [volumeOf(library, shape), centreOf(library, shape)];
      return plus(sum, { volume, moment: scale3(centre, volume) });
    },
    { volume: 0, moment: [0, 0, 0] },
  );
/** One and so many times the other. */
export const plus = (one: Bulk, other: Bulk, times = 1): Bulk => ({
  volume: one.volume + times * other.volume,
  moment: add3(one.moment, scale3(other.moment, times)),
});

/**
 * Are two as much, in the same place? What is left out on one side and too much on the other has the same volume: of
 * mirror images that happens. @param of what they are a share of
 */
export function agree(library: Library, one: Bulk, other: Bulk, of: readonly NamedSolid[]): boolean {
  const { low, high } = boxRoundAll(library, of);
  const within = AGREED * bulkOf(library, of).volume;
  // about a place in the middle: far from the origin moments are large by themselves
  const off = plus(one, other, -1);
  const moment = sub3(off.moment, scale3(middle3(low, high), off.volume));
  return Math.abs(off.volume) <= within && length3(moment) <= within * distance3(low, high);
}
const boxRoundAll = (library: Library, solids: readonly NamedSolid[]): Box3 =>
  boxRound(solids.map(({ shape }) => boxOf(library, shape)))!;

/** Does what was made lie within what it was made of? */
export function isBoxed(library: Library, { kind, targets, tools }: Combining, made: readonly NamedSolid[]): boolean {
  const [own, others, now] = [targets, tools, made].map((solids) => boxRoundAll(library, solids)) as [Box3, Box3, Box3];
  const slack = AGREED * Math.max(...[own, others].flatMap(({ low, high }) => high.map((c, k) => c - low[k]!)));
  const fits = (inner: Box3, outer: Box3) =>
    inner.low.every((c, k) => c > outer.low[k]! - slack) && inner.high.every((c, k) => c < outer.high[k]! + slack);
  const hull = boxRound([own, others])!;
  return {
    add: () => fits(now, hull) && fits(hull, now),
    cut: () => fits(now, own),
    overlap: () => fits(now, own) && fits(now, others),
  }[kind]();
}

/**
 * Does everything that has to be left lie in what is left? The library takes two free faces that lie near each other for
 * one. Of bodies that are added every place has to be there, of one that is cut those that lie outside of what cuts it.
 */
export function keepsPlaces(
  library: Library,
  scope: DisposalScope,
  { kind, targets, tools }: Combining,
  made: readonly NamedSolid[],
): boolean {
  if (kind === 'overlap') return true;
  const isIn = isInOf(library, scope);
  return [...targets, ...(kind === 'add' ? tools : [])]
    .flatMap(({ shape }) => edgePlaces(library, scope, shape))
    .every((at) => (kind === 'cut' && isIn(tools, at)) || isIn(made, at));
}

/**
 * Is the skin of what was made where it has to be? No place on it lies deep in what was added or in what cut, and none outside
 * of what was cut or of what both share. Slow: for where the ways to tell by volumes do not agree.
 */
export function hasItsSkin(
  library: Library,
  scope: DisposalScope,
  { kind, targets, tools }: Combining,
  made: readonly NamedSolid[],
): boolean {
  const solids = [...targets, ...tools];
  const boxes = new Map(solids.map((solid) => [solid, boxOf(library, solid.shape)]));
  const skins = new Map(solids.map((solid) => [solid, subShapes(library, scope, solid.shape, 'TopAbs_SHELL')]));
  const isNear = (solid: NamedSolid, at: Vec3) => {
    const { low, high } = boxes.get(solid)!;
    return at.every((c, k) => c > low[k]! - OUTSIDE && c < high[k]! + OUTSIDE);
  };
  const isIn = (some: readonly NamedSolid[], at: Vec3) =>
    some.some((solid) => isNear(solid, at) && distanceTo(library, scope, solid.shape, at) <= OUTSIDE);
  const isDeep = (some: readonly NamedSolid[], at: Vec3) =>
    some.some(
      (solid) =>
        isNear(solid, at) &&
        skins.get(solid)!.every((skin) => distanceTo(library, scope, skin, at) > OUTSIDE) &&
        distanceTo(library, scope, solid.shape, at) === 0,
    );
  const fits = {
    add: (at: Vec3) => !isDeep(solids, at),
    cut: (at: Vec3) => !isDeep(tools, at) && isIn(targets, at),
    overlap: (at: Vec3) => isIn(targets, at) && isIn(tools, at),
  }[kind];
  // a face that was left as it was fits where nothing else is near: most do
  const untouched = new ShapeMap<NamedSolid>(library);
  for (const solid of solids)
    for (const face of subShapes(library, scope, solid.shape, 'TopAbs_FACE')) untouched.set(face, solid);
  for (const { shape } of made)
    for (const face of freeFaces(library, scope, shape)) {
      const own = untouched.get(face);
      const box = boxOf(library, face);
      const isAlone = own && solids.every((other) => other === own || areApart(box, boxes.get(other)!));
      if (isAlone && (kind === 'add' || targets.includes(own))) continue;
      for (const at of placesOn(library, scope, face)) if (!fits(at)) return false;
    }
  return true;
}

const areApart = (a: Box3, b: Box3): boolean =>
  a.low.some((c, k) => c > b.high[k]!) || a.high.some((c, k) => c < b.low[k]!);

/** The middles of the edges of all free faces. */
function edgePlaces(library: Library, scope: DisposalScope, shape: TopoDS_Shape): Vec3[] {
  const edges = freeFaces(library, scope, shape)
    .flatMap((face) => subShapes(library, scope, face, 'TopAbs_EDGE'))
    .map((edge) => middleOf(library, scope, edge));
  return [...new Map(edges.map((at) => [at.map((c) => c.toFixed(4)).join(), at])).values()];
}

/** So many places each way are looked at on a free face. */
const PLACES = 5;

/** Places all over a face, one after the other. */
function* placesOn(library: Library, scope: DisposalScope, face: TopoDS_Face): Generator<Vec3> {
  const surface = scope.keep(new library.BRepAdaptor_Surface(face, false));
  const { UMin, UMax, VMin, VMax } = library.BRepTools.UVBounds(face);
  for (let k = 0; k < PLACES ** 2; k++) {
    const u = ((k % PLACES) + 0.5) / PLACES;
    const v = (Math.floor(k / PLACES) + 0.5) / PLACES;
    const at = vec(scope.keep(surface.Value(UMin + u * (UMax - UMin), VMin + v * (VMax - VMin))));
    if (distanceTo(library, scope, face, at) < ON) yield at;
  }
}

const freeFaces = (library: Library, scope: DisposalScope, shape: TopoDS_Shape): TopoDS_Face[] =>
  subShapes(library, scope, shape, 'TopAbs_FACE')
    .filter((face) => isFree(library, scope, face))
    .map((face) => scope.keep(library.TopoDS.Face(face)));

/** From so far away, mm, a place lies outside; nearer than so much it lies on a face. */
const OUTSIDE = 1e-3;
const ON = 1e-6;

const isInOf = (library: Library, scope: DisposalScope) => (solids: readonly NamedSolid[], at: Vec3) =>
  solids.some(({ shape }) => distanceTo(library, scope, shape, at) <= OUTSIDE);

/** How far a place is from a shape, mm; 0 within it, and where that can't be found. */
function distanceTo(library: Library, scope: DisposalScope, shape: TopoDS_Shape, at: Vec3): number {
  const vertex = scope.keep(new library.BRepBuilderAPI_MakeVertex(point(library, scope, at)));
  const gap = nearest(library, scope, scope.keep(vertex.Vertex()), shape);
  return gap.ok ? gap.value.distance_mm : 0;
}

/** Has it faces whose meetings the library follows step by step? Of the others it knows them. */
export const hasFreeFaces = (library: Library, scope: DisposalScope, shape: TopoDS_Shape): boolean =>
  subShapes(library, scope, shape, 'TopAbs_FACE').some((face) => isFree(library, scope, face));
const isFree = (library: Library, scope: DisposalScope, face: TopoDS_Shape): boolean =>
  FREE.has(scope.keep(new library.BRepAdaptor_Surface(scope.keep(library.TopoDS.Face(face)), false)).GetType());
const FREE = new Set<string>([
  ...['GeomAbs_BSplineSurface', 'GeomAbs_BezierSurface', 'GeomAbs_OffsetSurface'],
  ...['GeomAbs_SurfaceOfExtrusion', 'GeomAbs_SurfaceOfRevolution'],
]);
