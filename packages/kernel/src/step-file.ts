import type { TopoDS_Shape } from 'replicad-opencascadejs';
import type { ExportBody } from '@helb/core';
import { AGREED, bulkOf } from './boolean-checks.ts';
import { locationOf } from './edges.ts';
import { fail, guarded, ok, type Library, type DisposalScope } from './library.ts';
import { faceMeasures } from './measure.ts';
import { readSolids } from './step-reader.ts';

/**
 * Writes solids with names and colours into one STEP file (AP214, mm) through the library's file system in memory. What has
 * places is a component of one assembly, called as the title. Fails where the same bodies are not read back from it.
 */
export function stepFile(
  library: Library,
  scope: DisposalScope,
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
  const bytes = Uint8Array.from(library.FS.readFile(path));
  library.FS.unlink(path);
  return isReadBack(library, bytes, bodies) ? ok(bytes) : fail('kernel.unread', { title });
}

/** What leaves is read back first: bodies that are sound here are not always so when a file of them is read. */
function isReadBack(library: Library, bytes: Uint8Array, bodies: Parameters<typeof stepFile>[3]): boolean {
  let [count, volume, slack] = [0, 0, 0];
  for (const { shape, places } of bodies) {
    const own = faceMeasures(library).solid(shape);
    const times = places?.length ?? 1;
    count += times;
    volume += times * own.volume;
    // what is not sure here is not sure there either
    slack += times * (AGREED * own.volume + 2 * own.uncertainty.volume);
  }
  const read = guarded(library, (scope) => readSolids(library, scope, bytes, { step: 'back' }));
  if (!read.ok) return false;
  const back = bulkOf(library, read.value).volume;
  read.value.forEach(({ shape }) => shape.delete());
  // a small body that is lost among large ones shows in how many there are
  return read.value.length === count && Math.abs(back - volume) <= slack;
}
