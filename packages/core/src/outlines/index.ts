import { fail, type Result } from '../result/index.ts';
import { readDxf } from './dxf-reader.ts';
import type { Outline } from './outline.ts';
import { readSvg } from './svg-reader.ts';

// Not part of the main entry: the readers are loaded when somebody opens a file.
export * from './outline.ts';
export { readDxf, readSvg };

const READERS: Readonly<Record<string, (text: string) => Result<Outline>>> = { dxf: readDxf, svg: readSvg };

/** What the file of this name holds. */
export function readOutline(name: string, text: string): Result<Outline> {
  const ending = name.toLowerCase().split('.').at(-1) ?? '';
  const read = Object.hasOwn(READERS, ending) ? READERS[ending] : undefined;
  if (!read) return fail('outline.format');
  try {
    return read(text);
  } catch (error) {
    // what no reader was prepared for, like elements nested thousands deep
    return fail('outline.unreadable', { format: ending.toUpperCase(), reason: (error as Error).message });
  }
}
