import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import init from 'replicad-opencascadejs';

/** Volume of all solids in a STEP file (mm^3), read by the bare geometry library: not by our own code. */
export async function stepVolume(bytes: Uint8Array): Promise<number> {
  const wasm = createRequire(import.meta.url).resolve('replicad-opencascadejs/wasm');
  const library = await init({ wasmBinary: await readFile(wasm), print() {}, printErr() {} });
  library.FS.writeFile('/in.step', bytes);
  const reader = new library.STEPControl_Reader();
  if (reader.ReadFile('/in.step') !== 'IFSelect_RetDone') throw new Error('this is not a STEP file');
  reader.TransferRoots(new library.Message_ProgressRange());
  const properties = new library.GProp_GProps();
  library.BRepGProp.VolumeProperties(reader.OneShape(), properties, false, false, false);
  return properties.Mass();
}
