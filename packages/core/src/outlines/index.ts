import { fail, type Result } from '../result/index.ts';
import { readDxf } from './dxf-reader.ts';
import type { Outline } from './outline.ts';
import { readSvg } from './svg-reader.ts';

// Not part of the main entry: the readers are loaded when somebody opens a file.
export * from './outline.ts';
export { readDxf, readSvg };

/** What the file of this name holds. */
export function readOutline(name: string, text: string): Result<Outline> {
  const ending = name.toLowerCase().split('.').at(-1);
  if (ending === 'dxf') return readDxf(text);
  return ending === 'svg' ? readSvg(text) : fail('outline.format');
}
