/** A project with the files that it brings in: a zip of `project.json` and of `files/`, each named by what is in it. */

const DOCUMENT = 'project.json';
const FILES = 'files/';
/** What a zip may come to when it is unpacked, bytes; and how many files it may hold. */
const MOST = { document: 8 * 1024 * 1024, file: 32 * 1024 * 1024, all: 256 * 1024 * 1024, count: 500 } as const;

export const ZIP_TYPE = 'application/zip';

/** Is it a zip by how it begins? */
export const isZip = (bytes: Uint8Array): boolean => bytes[0] === 0x50 && bytes[1] === 0x4b;

interface UnpackedProject {
  readonly document: unknown;
  readonly files: readonly Blob[];
}

/** @param files that it brings in, by their hashes */
export async function packedProject(text: string, files: ReadonlyMap<string, Uint8Array>): Promise<Uint8Array> {
  const { zipSync } = await import('fflate');
  const entries = [...files].map(([hash, bytes]) => [FILES + hash, bytes] as const);
  return zipSync({ [DOCUMENT]: new TextEncoder().encode(text), ...Object.fromEntries(entries) });
}

/** Reads a zip of a project. Throws with a sentence where it is none, or too large. */
export async function unpackedProject(bytes: Uint8Array): Promise<UnpackedProject> {
  const { unzipSync } = await import('fflate');
  let [all, count] = [0, 0];
  const entries = read(() =>
    unzipSync(bytes, {
      filter({ name, originalSize }) {
        if (name !== DOCUMENT && !name.startsWith(FILES)) return false;
        all += originalSize;
        const most = name === DOCUMENT ? MOST.document : MOST.file;
        if (originalSize > most || all > MOST.all || ++count > MOST.count)
          throw new TooLarge('This zip is larger than a project may be: at most 8 MB of steps and 500 files of 32 MB.');
        return !name.endsWith('/');
      },
    }),
  );
  const document = entries[DOCUMENT];
  if (!document) throw new Error(`This zip holds no project: there is no ${DOCUMENT} in it.`);
  const files = Object.entries(entries).flatMap(([name, content]) => (name === DOCUMENT ? [] : [new Blob([content])]));
  return { document: read(() => JSON.parse(new TextDecoder().decode(document)) as unknown), files };
}

class TooLarge extends Error {}

/** What its reader says of a zip that is broken says nothing to people. */
function read<T>(work: () => T): T {
  try {
    return work();
  } catch (error) {
    if (error instanceof TooLarge) throw error;
    throw new Error('This zip is broken or cut off: it can not be read.', { cause: error });
  }
}
