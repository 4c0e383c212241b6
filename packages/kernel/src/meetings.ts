import type { TopoDS_Shape } from 'replicad-opencascadejs';
import type { Meeting, Movement, Result, Vec3 } from '@helb/core';
import { locationOf } from './edges.ts';
import { nearest } from './gaps.ts';
import { fail, ok, type Library, type Scope } from './library.ts';
import { faceMeasures } from './measure.ts';
import type { NamedSolid } from './names.ts';
import { listOf, subShapes } from './shapes.ts';

/** Nearer than this, mm, two bodies touch. */
const TOUCHING = 1e-6;

/** How two bodies stand to each other where the second is moved: what they have in common, or where they come nearest. */
export function meetingOf(
  library: Library,
  scope: Scope,
  [a, b]: readonly [NamedSolid, NamedSolid],
  movement: Movement,
): Result<Meeting> {
  const moved = scope.keep(b.shape.Moved(locationOf(library, scope, movement), false));
  const gap = nearest(library, scope, a.shape, moved);
  if (!gap.ok) return gap;
  const apart = { overlap_mm3: 0, ...gap.value };
  return gap.value.distance_mm > TOUCHING ? ok(apart) : (overlap(library, scope, a.shape, moved) ?? ok(apart));
}

/** What two shapes have in common; undefined where they only touch. */
function overlap(library: Library, scope: Scope, a: TopoDS_Shape, b: TopoDS_Shape): Result<Meeting> | undefined {
  const common = scope.keepCleared(new library.BRepAlgoAPI_Common());
  common.SetArguments(listOf(library, scope, [a]));
  common.SetTools(listOf(library, scope, [b]));
  common.Build(scope.keep(new library.Message_ProgressRange()));
  if (!common.IsDone() || common.HasErrors()) return fail('kernel.failed', { reason: 'what they share was not found' });
  let [volume, moment] = [0, [0, 0, 0]];
  for (const solid of subShapes(library, scope, scope.keep(common.Shape()), 'TopAbs_SOLID')) {
    const own = faceMeasures(library).solid(solid);
    volume += own.volume;
    moment = moment.map((sum, k) => sum + own.volume * own.centre[k]!);
  }
  if (volume <= LEAST) return undefined;
  const at = moment.map((sum) => sum / volume) as unknown as Vec3;
  return ok({ overlap_mm3: volume, distance_mm: 0, from: at, to: at });
}
/** Less than this, mm^3, is the rounding of faces that lie on each other. */
const LEAST = 1e-3;
