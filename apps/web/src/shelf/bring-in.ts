import { isZip, unpackedProject } from '../project-file.ts';
import { api } from '../sync/api.ts';

const MB = 1024 * 1024;
/** Bytes: a zip with files, and a document by itself. */
const MOST = { zip: 128 * MB, document: 8 * MB };

/**
 * Makes a project of a file; its id. @throws Error with a sentence
 * @param tell how far it has come
 */
export async function bringIn(file: File, tell: (message: string) => void): Promise<string> {
  if (file.size > MOST.zip) throw new Error('The file is larger than 128 MB.');
  const bytes = new Uint8Array(await file.arrayBuffer());
  if (isZip(bytes)) return bringInZip(bytes, tell);
  if (file.size > MOST.document) throw new Error('The file is larger than 8 MB.');
  return (await api.create({ document: parsed(bytes, file.name) })).id;
}

function parsed(bytes: Uint8Array, name: string): unknown {
  try {
    return JSON.parse(new TextDecoder().decode(bytes)) as unknown;
  } catch {
    throw new Error(`${name} is not a readable project file.`);
  }
}

/** A project with the files that it brings in. */
async function bringInZip(bytes: Uint8Array, tell: (message: string) => void): Promise<string> {
  const { document, files } = await unpackedProject(bytes);
  const { id } = await api.create({ document });
  for (const [k, file] of files.entries()) {
    tell(`Bringing in its files: ${k + 1} of ${files.length} …`);
    try {
      await api.keepFile(id, file);
    } catch (error) {
      throw new Error(`The project came in, but not all of its files: ${(error as Error).message}`, { cause: error });
    }
  }
  return id;
}
