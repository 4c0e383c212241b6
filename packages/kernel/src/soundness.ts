import type { BRepCheck_Analyzer, TopoDS_Shape } from 'replicad-opencascadejs';
import { fail, guarded, ok, type Library } from './library.ts';
import { faceMeasures } from './measure.ts';

/** Does a shape keep the library's own rules: closed loops, curves on their surfaces, nothing that crosses itself? */
export function isValid(library: Library, shape: TopoDS_Shape): boolean {
  const { analyzer, nothing } = checkerOf(library);
  analyzer.Init(shape, true);
  const valid = analyzer.IsValid();
  // it keeps all that it has looked at until it looks at something else
  analyzer.Init(nothing);
  return valid;
}

interface Checker {
  readonly analyzer: BRepCheck_Analyzer;
  readonly nothing: TopoDS_Shape;
}
/** One for everything: each that is made keeps some kilobytes for good, even when deleted. */
const checkers = new WeakMap<Library, Checker>();

function checkerOf(library: Library): Checker {
  const known = checkers.get(library);
  if (known) return known;
  const nothing = new library.TopoDS_Compound();
  const builder = new library.TopoDS_Builder();
  builder.MakeCompound(nothing);
  builder.delete();
  const made = { nothing, analyzer: new library.BRepCheck_Analyzer(nothing, true, false, false) };
  checkers.set(library, made);
  return made;
}

/**
 * Guards against the silent failures of the library: invalid shells, inside-out and empty solids, faces whose rim runs the
 * wrong way round (it says that they are valid; their area is below 0), and skins that do not close: what these enclose comes
 * out differently from each side.
 */
export function isSound(library: Library, solid: TopoDS_Shape): boolean {
  if (!isValid(library, solid) && !isMended(library, solid)) return false;
  const { volume, uncertainty, hasTurnedFace } = faceMeasures(library).solid(solid);
  return volume > 0 && !hasTurnedFace && uncertainty.volume < CLOSED * volume;
}
/**
 * Repairs a solid in place: operations leave curves of bent faces that they did not touch out of step with these. True
 * where it is valid then.
 */
function isMended(library: Library, solid: TopoDS_Shape): boolean {
  return guarded(library, (scope) => {
    const fixer = scope.keep(new library.ShapeFix_Solid(scope.keep(library.TopoDS.Solid(solid))));
    fixer.Perform(scope.keep(new library.Message_ProgressRange()));
    scope.keep(fixer.Solid());
    return isValid(library, solid) ? ok(undefined) : fail('kernel.invalid');
  }).ok;
}

/** So much of its volume may be uncertain; what is sewn within its tolerance is nearer by far. */
const CLOSED = 1e-3;
