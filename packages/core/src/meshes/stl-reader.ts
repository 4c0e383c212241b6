import { fail, ok, type Result } from '../result/index.ts';
import { MESH_LIMITS, type MeshFile } from './mesh.ts';
import { Welder } from './welder.ts';

const [HEADER, RECORD] = [84, 50];

/**
 * An STL file (3D Systems, 1989), binary or as text. It names no unit. Its normals are left: they follow from the order of
 * the corners. Fails with mesh.unreadable, mesh.large or mesh.empty.
 */
export function readStl(bytes: Uint8Array): Result<MeshFile> {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const count = bytes.length < HEADER ? -1 : view.getUint32(80, true);
  // a binary file may begin with "solid" too: what tells is its length
  if (bytes.length === HEADER + RECORD * count) return readBinary(view, count);
  const text = new TextDecoder().decode(bytes);
  if (/^\s*solid\b/.test(text) && /\bfacet\b/.test(text)) return readText(text);
  const whole = count >= 0 && bytes.length > HEADER ? `it tells of ${count} triangles, which it does not hold` : '';
  return fail('mesh.unreadable', { format: 'STL', reason: whole || 'it begins otherwise' });
}

function readBinary(view: DataView, count: number): Result<MeshFile> {
  if (count > MESH_LIMITS.triangles) return tooMany();
  const welder = new Welder();
  for (let t = 0; t < count; t++) {
    const at = HEADER + RECORD * t + 12;
    const number = (k: number) => view.getFloat32(at + 4 * k, true);
    for (let k = 0; k < 9; k++) if (!Number.isFinite(number(k))) return noNumber(t + 1);
    const [a, b, c] = [0, 3, 6].map((k) => welder.corner(number(k), number(k + 1), number(k + 2)));
    welder.triangle(a!, b!, c!);
  }
  return finished(welder);
}

function readText(text: string): Result<MeshFile> {
  const welder = new Welder();
  const corners: number[] = [];
  for (const [, x, y, z] of text.matchAll(/\bvertex\s+(\S+)\s+(\S+)\s+(\S+)/g)) {
    const place = [Number(x), Number(y), Number(z)] as const;
    if (!place.every(Number.isFinite)) return noNumber(welder.triangles + 1);
    corners.push(welder.corner(...place));
    if (corners.length < 3) continue;
    welder.triangle(...(corners.splice(0) as [number, number, number]));
    if (welder.triangles > MESH_LIMITS.triangles) return tooMany();
  }
  if (corners.length > 0) return fail('mesh.unreadable', { format: 'STL', reason: 'its last triangle is cut off' });
  return finished(welder);
}

const finished = (welder: Welder): Result<MeshFile> =>
  welder.triangles === 0 ? fail('mesh.empty') : ok({ mesh: welder.mesh(), unit: undefined });
const tooMany = () => fail('mesh.large', { most: MESH_LIMITS.triangles });
const noNumber = (triangle: number) =>
  fail('mesh.unreadable', { format: 'STL', reason: `a corner of triangle ${triangle} is no place` });
