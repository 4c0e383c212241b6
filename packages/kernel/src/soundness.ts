import type { TopoDS_Shape } from 'replicad-opencascadejs';
import { Scope, type Library } from './library.ts';
import { volumeOf } from './measure.ts';

/** Does a shape keep the library's own rules: closed loops, curves on their surfaces, nothing that crosses itself? */
export function isValid(library: Library, shape: TopoDS_Shape): boolean {
  const scope = new Scope();
  const check = new library.BRepCheck_Analyzer(shape, true, false, false);
  const valid = check.IsValid();
  // it would keep all that it has looked at for good (60 kB for a box) unless it looks at something else
  const nothing = scope.keep(new library.TopoDS_Compound());
  scope.keep(new library.TopoDS_Builder()).MakeCompound(nothing);
  check.Init(nothing);
  check.delete();
  scope.close();
  return valid;
}

/** Guards against the silent failures of the library: invalid shells, inside-out and empty solids. */
export const isSound = (library: Library, solid: TopoDS_Shape): boolean =>
  isValid(library, solid) && volumeOf(library, solid) > 0;
