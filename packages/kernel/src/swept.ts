import type { NCollection_List_TopoDS_Shape, TopoDS_Shape } from 'replicad-opencascadejs';
import { type Frame, type Profile, type Result, faceName } from '@helb/core';
import { combined } from './booleans.ts';
import { fail, ok, type Library, type DisposalScope } from './library.ts';
import { distinct, type MadeFace, type NamedSolid } from './names.ts';
import { faceOf, type ProfileFace, type ProfileLoop } from './profile.ts';
import { members, ShapeMap, subShapes } from './shapes.ts';

// What all solids that are made of the areas of a sketch have in common.

/** One named solid for each region of a profile, by what is made of its face. */
export function ofRegions(
  library: Library,
  scope: DisposalScope,
  { profile, step }: { readonly profile: Profile; readonly step: string },
  frame: Frame,
  make: (face: ProfileFace, area: string | undefined) => Result<NamedSolid>,
): Result<NamedSolid[]> {
  const solids: NamedSolid[] = [];
  for (const region of profile.regions) {
    const face = faceOf(library, scope, frame, region);
    if (!face.ok) return face;
    const made = make(face.value, profile.regions.length > 1 ? region.key : undefined);
    if (!made.ok) return made;
    solids.push(made.value);
  }
  return solids.length > 0 ? ok(solids) : fail('kernel.profile', { reason: `${step} has no area` });
}

/** What all sweeps of a face tell of their faces. */
interface SweepMaker {
  Shape(): TopoDS_Shape;
  FirstShape(): TopoDS_Shape;
  LastShape(): TopoDS_Shape;
  Generated(shape: TopoDS_Shape): NCollection_List_TopoDS_Shape;
}

/** What its faces are called by: its step, and the area if that has several. A closed sweep has no caps. */
interface SweptNames {
  readonly step: string;
  readonly area: string | undefined;
  readonly closed?: boolean;
}

/** The solid of a sweep with its sides named after the sketch entities and its caps by their role. */
export function sweptSolid(
  library: Library,
  scope: DisposalScope,
  maker: SweepMaker,
  { edges }: Pick<ProfileLoop, 'edges'>,
  { step, area, closed = false }: SweptNames,
): NamedSolid {
  const made: MadeFace[] = [];
  if (!closed) {
    made.push({ face: scope.keep(maker.FirstShape()), name: faceName(step, 'start', area) });
    made.push({ face: scope.keep(maker.LastShape()), name: faceName(step, 'end', area) });
  }
  for (const { edge, entity } of edges)
    for (const face of members(library, scope, scope.keep(maker.Generated(edge))))
      made.push({ face, name: faceName(step, 'side', entity) });
  return namedSolid(library, scope, maker.Shape(), step, made);
}

/** A solid with the names of the faces that were made; others are named after the step alone. */
export function namedSolid(
  library: Library,
  scope: DisposalScope,
  shape: TopoDS_Shape,
  step: string,
  made: readonly MadeFace[],
): NamedSolid {
  const names = new ShapeMap<string>(library);
  made.forEach(({ face, name }) => names.set(face, name));
  const faces = subShapes(library, scope, shape, 'TopAbs_FACE');
  return {
    shape,
    name: step,
    faceNames: distinct(
      library,
      scope,
      faces,
      faces.map((face) => names.get(face) ?? faceName(step, 'face')),
    ),
  };
}

/** A solid of an outline, less those of the openings in it. */
export function lessOpenings<L>(
  library: Library,
  scope: DisposalScope,
  outer: L,
  openings: readonly L[],
  make: (loop: L) => Result<NamedSolid>,
): Result<NamedSolid> {
  const whole = make(outer);
  if (!whole.ok || openings.length === 0) return whole;
  const inner: NamedSolid[] = [];
  let issue: Result<NamedSolid[]> = ok(inner);
  for (const loop of openings) {
    const solid = make(loop);
    if (solid.ok) inner.push(solid.value);
    else issue = solid;
  }
  const made = issue.ok ? combined(library, scope, 'cut', [whole.value], inner) : issue;
  [whole.value, ...inner].forEach(({ shape }) => shape.delete());
  if (!made.ok) return made;
  const [only, ...more] = made.value as [NamedSolid, ...NamedSolid[]];
  if (more.length === 0) return ok(only);
  made.value.forEach(({ shape }) => shape.delete());
  return fail('kernel.invalid');
}
