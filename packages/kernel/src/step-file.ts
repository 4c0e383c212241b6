import type { TopoDS_Shape } from 'replicad-opencascadejs';
import type { ExportBody } from '@helb/core';
import { locationOf } from './edges.ts';
import { fail, ok, type Library, type Scope } from './library.ts';

/**
 * Writes solids with names and colours into one STEP file (AP214, mm) through the library's file system in memory. What has
 * places is a component of one assembly, called as the title.
 */
export function stepFile(
  library: Library,
  scope: Scope,
  title: string,
  bodies: readonly (Omit<ExportBody, 'body'> & { readonly shape: TopoDS_Shape })[],
) {
  const text = (value: string) => scope.keep(new library.TCollection_ExtendedString(value, true));
  const doc = scope.keep(new library.TDocStd_Document(text('BinXCAF')));
  const main = scope.keep(doc.Main());
  const shapes = scope.keep(library.XCAFDoc_DocumentTool.ShapeTool(main));
  const colours = scope.keep(library.XCAFDoc_DocumentTool.ColorTool(main));
  const whole = bodies.some(({ places }) => places) ? scope.keep(shapes.NewShape()) : undefined;
  if (whole) scope.keep(library.TDataStd_Name.Set(whole, text(title)));
  for (const { name, colour, shape, places = [] } of bodies) {
    const label = scope.keep(shapes.AddShape(shape, false, true));
    scope.keep(library.TDataStd_Name.Set(label, text(name)));
    const shade = scope.keep(new library.Quantity_Color());
    library.Quantity_Color.ColorFromHex(colour, shade);
    colours.SetColor(label, shade, library.XCAFDoc_ColorType.XCAFDoc_ColorSurf);
    for (const { name: called, at } of places) {
      const component = scope.keep(shapes.AddComponent(whole!, label, locationOf(library, scope, at)));
      scope.keep(library.TDataStd_Name.Set(component, text(called)));
    }
  }
  if (whole) shapes.UpdateAssemblies();
  const writer = scope.keep(new library.STEPCAFControl_Writer());
  writer.SetColorMode(true);
  writer.SetNameMode(true);
  // Perform, not Transfer: the latter would write one file a part and an empty main file
  const path = '/out.step';
  const written = writer.Perform(doc, path, scope.keep(new library.Message_ProgressRange()));
  if (!written) return fail('kernel.failed', { reason: `STEP of ${title} was not written` });
  const bytes = library.FS.readFile(path);
  library.FS.unlink(path);
  return ok(Uint8Array.from(bytes));
}
