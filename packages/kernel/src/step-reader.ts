import { type ReadStepRequest, type Result, faceName, numberedBody } from '@helb/core';
import { fail, ok, type Library, type DisposalScope } from './library.ts';
import type { NamedSolid } from './names.ts';
import { subShapes } from './shapes.ts';
import { isSound } from './soundness.ts';

/**
 * The solids of a STEP file (ISO 10303-21, any unit of length; mm afterwards). Faces are named by their order in the
 * file: a file is found by what is in it, so that the order lasts.
 */
export function readSolids(
  library: Library,
  scope: DisposalScope,
  bytes: Uint8Array,
  { step }: Pick<ReadStepRequest, 'step'>,
): Result<NamedSolid[]> {
  const path = '/in.step';
  library.FS.writeFile(path, bytes);
  const reader = scope.keep(new library.STEPControl_Reader());
  try {
    if (reader.ReadFile(path) !== 'IFSelect_RetDone') return fail('step-file.unreadable');
  } finally {
    library.FS.unlink(path);
  }
  reader.TransferRoots(scope.keep(new library.Message_ProgressRange()));
  const whole = scope.keep(reader.OneShape());
  if (whole.IsNull()) return fail('step-file.empty', { faces: 0 });
  const solids = subShapes(library, scope, whole, 'TopAbs_SOLID');
  if (solids.length === 0)
    return fail('step-file.empty', { faces: subShapes(library, scope, whole, 'TopAbs_FACE').length });
  const bad = solids.filter((solid) => !isSound(library, solid)).length;
  if (bad > 0) return fail('step-file.unsound', { bad, of: solids.length });
  let faces = 0;
  return ok(
    solids.map((solid, k) => ({
      shape: library.TopoDS.Solid(solid),
      name: solids.length > 1 ? numberedBody(step, k + 1) : step,
      faceNames: subShapes(library, scope, solid, 'TopAbs_FACE').map(() => faceName(step, 'face', ++faces)),
    })),
  );
}
