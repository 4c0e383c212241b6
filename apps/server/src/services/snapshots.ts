import { setImmediate } from 'node:timers/promises';
import { promisify } from 'node:util';
import { gunzip, gzip, gzipSync } from 'node:zlib';
import { explain, loadProject, SCHEMA_VERSION, type Project } from '@helb/core';
import { writtenSize } from './written-size.ts';

const zip = promisify(gzip);
const unzip = promisify(gunzip);
/** Quick rather than small. */
const QUICK = { level: 3 };
/** What is read or written before others have their turn, characters. */
const AT_ONCE = 128 * 1024;
/** No document comes to so much; a row that was damaged does not fill the memory. */
const MOST = { maxOutputLength: 64 * 1024 ** 2 };

// A document is kept packed, in lines: its own without its parts, then one for each part. So it is written and read in turns.

function* linesOf(document: Project): Generator<string> {
  yield JSON.stringify({ ...document, parts: {} });
  for (const part of Object.entries(document.parts)) yield JSON.stringify(part);
}

/** @returns what a snapshot holds */
export async function packed(document: Project): Promise<Buffer> {
  const lines: string[] = [];
  const turns = new Turns();
  for (const line of linesOf(document)) {
    lines.push(line);
    await turns.after(line.length);
  }
  return zip(lines.join('\n'), QUICK);
}

/** The same at once: where nobody waits. */
export const packedSync = (document: Project): Buffer => gzipSync([...linesOf(document)].join('\n'), QUICK);

/** Reads what a snapshot holds; what is in it was checked when it was kept, only older versions are looked at again. */
export async function unpacked(bytes: Buffer): Promise<Project> {
  const [first = '', ...lines] = (await unzip(bytes, MOST)).toString('utf8').split('\n');
  const turns = new Turns();
  const parts: [string, object][] = [];
  for (const line of lines) {
    const part = JSON.parse(line) as [string, object];
    parts.push(part);
    // found once for each part: whoever asks for the size of the whole finds it ready
    writtenSize(part[1]);
    await turns.after(line.length);
  }
  return current({ ...(JSON.parse(first) as Project), parts: Object.fromEntries(parts) as Project['parts'] });
}

/** A document as it was kept by any version. @throws Error where it does not open */
export function current(kept: Project): Project {
  if (kept.schema === SCHEMA_VERSION) return kept;
  const loaded = loadProject(kept);
  if (!loaded.ok) throw new Error(`a kept project does not open: ${explain(loaded.issue)}`);
  return loaded.value;
}

/** Lets others have their turn each time that so much was done. */
class Turns {
  private done = 0;

  async after(characters: number): Promise<void> {
    this.done += characters;
    if (this.done < AT_ONCE) return;
    this.done = 0;
    await setImmediate();
  }
}
