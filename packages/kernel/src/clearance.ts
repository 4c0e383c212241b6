import type { TopoDS_Shape } from 'replicad-opencascadejs';
import { distance3, type Clearance, type RigidTransform, type Result, type Vec3 } from '@helb/core';
import { AGREED, hasFreeFaces } from './boolean-checks.ts';
import { FUZZY } from './booleans.ts';
import { locationOf } from './edges.ts';
import { nearest } from './gaps.ts';
import { fail, guarded, ok, type Library, type DisposalScope } from './library.ts';
import { faceMeasures } from './measure.ts';
import type { NamedSolid } from './names.ts';
import { listOf, subShapes } from './shapes.ts';

/** Nearer than this, mm, two bodies touch. */
const TOUCHING = 1e-6;

/** How two bodies stand to each other where the second is moved: what they have in common, or where they come nearest. */
export function clearanceOf(
  library: Library,
  scope: DisposalScope,
  [a, b]: readonly [NamedSolid, NamedSolid],
  transform: RigidTransform,
): Result<Clearance> {
  const moved = scope.keep(b.shape.Moved(locationOf(library, scope, transform), false));
  const gap = nearest(library, scope, a.shape, moved);
  if (!gap.ok) return gap;
  const apart = { overlap_mm3: 0, ...gap.value };
  return gap.value.distance_mm > TOUCHING ? ok(apart) : (overlap(library, scope, a.shape, moved) ?? ok(apart));
}

/** What two shapes have in common; undefined where they only touch. Free faces are asked in both orders: they have to agree. */
function overlap(
  library: Library,
  scope: DisposalScope,
  a: TopoDS_Shape,
  b: TopoDS_Shape,
): Result<Clearance> | undefined {
  const isSure = ![a, b].some((shape) => hasFreeFaces(library, scope, shape));
  for (const fuzzy of isSure ? [0] : FUZZY) {
    const one = guarded(library, (inner) => common(library, inner, a, b, fuzzy));
    if (!isSure) {
      const other = guarded(library, (inner) => common(library, inner, b, a, fuzzy));
      const isAgreed = one.ok && other.ok && isSame(one.value, other.value);
      if (!isAgreed) continue;
    }
    if (!one.ok) return one;
    const { volume, centre } = one.value;
    return volume <= LEAST ? undefined : ok({ overlap_mm3: volume, distance_mm: 0, from: centre, to: centre });
  }
  return fail('kernel.wrong');
}

interface Shared {
  readonly volume: number;
  readonly centre: Vec3;
}
/** As much, and in the same place: of mirror images what is overlooked in one order may be as large as in the other. */
function isSame(one: Shared, other: Shared): boolean {
  const within = LEAST + AGREED * one.volume;
  if (Math.abs(one.volume - other.volume) > within) return false;
  // what only touches lies nowhere
  if (one.volume <= LEAST) return true;
  // a centre counts by how much lies there, over the size of it
  const size = Math.max(Math.cbrt(one.volume), 1);
  return one.volume * distance3(one.centre, other.centre) <= 10 * within * size;
}

function common(
  library: Library,
  scope: DisposalScope,
  a: TopoDS_Shape,
  b: TopoDS_Shape,
  fuzzy: number,
): Result<Shared> {
  const operation = scope.keepCleared(new library.BRepAlgoAPI_Common());
  if (fuzzy > 0) operation.SetFuzzyValue(fuzzy);
  operation.SetArguments(listOf(library, scope, [a]));
  operation.SetTools(listOf(library, scope, [b]));
  operation.Build(scope.keep(new library.Message_ProgressRange()));
  if (!operation.IsDone() || operation.HasErrors())
    return fail('kernel.failed', { reason: 'what they share was not found' });
  let [volume, moment] = [0, [0, 0, 0]];
  for (const solid of subShapes(library, scope, scope.keep(operation.Shape()), 'TopAbs_SOLID')) {
    const own = faceMeasures(library).solid(solid);
    volume += own.volume;
    moment = moment.map((sum, k) => sum + own.volume * own.centre[k]!);
  }
  return ok({ volume, centre: moment.map((sum) => sum / volume) as unknown as Vec3 });
}
/** Less than this, mm^3, is the rounding of faces that lie on each other. */
const LEAST = 1e-3;
