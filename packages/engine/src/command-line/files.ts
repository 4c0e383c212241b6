import { createHash } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { basename, join } from 'node:path';
import type { FileSource } from '../project-files.ts';

/** The files of a project from a folder, each called by its own name or by its hash; what is in it must be the same. */
export const filesIn =
  (folder: string): FileSource =>
  async ({ name, hash }) => {
    for (const candidate of [basename(name), hash]) {
      const bytes = await readFile(join(folder, candidate)).catch(() => undefined);
      if (bytes && createHash('sha256').update(bytes).digest('hex') === hash) return new Uint8Array(bytes);
    }
    return { reason: `no file of this name with the same content lies in ${folder}; name its folder by --files` };
  };
