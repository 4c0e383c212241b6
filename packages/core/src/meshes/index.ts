import { fail, type Result, type Words } from '../result/index.ts';
import type { MeshFile } from './mesh.ts';
import { readStl } from './stl-reader.ts';
import { read3mf } from './three-mf-reader.ts';

export { enclosedVolume, meshFacts, transformMesh, type MeshFacts, type MeshFile, type TriangleMesh } from './mesh.ts';
export { Welder } from './welder.ts';
export { meshSection } from './section.ts';
export { readStl } from './stl-reader.ts';
export { read3mf } from './three-mf-reader.ts';

const READERS: Readonly<Record<string, (bytes: Uint8Array) => Result<MeshFile>>> = { stl: readStl, '3mf': read3mf };
/** How the names of files of triangles end. */
export const MESH_ENDINGS = Object.keys(READERS).map((ending) => `.${ending}`);

/** A file of triangles, read by how its name ends. */
export function readMesh(name: string, bytes: Uint8Array): Result<MeshFile> {
  const read = READERS[name.toLowerCase().split('.').at(-1)!];
  return read ? read(bytes) : fail('mesh.format');
}

export const meshWords: Words = {
  'mesh.unreadable': (f) =>
    `This is no ${f['format']} file that can be read: ${f['reason']}. Write it anew where it comes from.`,
  'mesh.empty': () => 'The file holds no triangles.',
  'mesh.large': (f) =>
    `The file is too large: at most ${Number(f['most']) / 1e6} million triangles. Thin it out where it comes from.`,
  'mesh.format': () => 'Meshes are read from STL and 3MF files.',
};
