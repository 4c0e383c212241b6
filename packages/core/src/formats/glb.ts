import type { RigidTransform } from '../math/index.ts';
import type { Solid } from './solids.ts';

const [MAGIC, JSON_CHUNK, BINARY_CHUNK] = [0x46546c67, 0x4e4f534a, 0x004e4942];
const [FLOAT, UINT] = [5126, 5125];

/** Metres, and y upwards: what is drawn in millimetres with z upwards is shrunk and laid over. */
const TO_SPACE = [0.001, 0, 0, 0, 0, 0, -0.001, 0, 0, 0.001, 0, 0, 0, 0, 0, 1];

/**
 * A glTF 2.0 file in its binary form (ISO/IEC 12113): a mesh for each body with the colour of its part, a node for each
 * place where a part stands.
 */
export function writeGlb(title: string, solids: readonly Solid[]): Uint8Array {
  const chunks: Uint8Array[] = [];
  let length = 0;
  const views: object[] = [];
  const accessors: object[] = [];
  const stored = (data: Float32Array | Uint32Array, target: number, accessor: object): number => {
    const bytes = new Uint8Array(data.buffer, data.byteOffset, data.byteLength);
    views.push({ buffer: 0, byteOffset: length, byteLength: bytes.length, target });
    chunks.push(bytes);
    length += bytes.length;
    return accessors.push({ bufferView: views.length - 1, ...accessor }) - 1;
  };
  const places = (data: Float32Array) => ({ componentType: FLOAT, count: data.length / 3, type: 'VEC3' });
  const meshes = solids.map(({ name, meshes: of }, material) => ({
    name,
    primitives: of.map(({ positions, normals, triangles }) => ({
      attributes: {
        POSITION: stored(positions, 34962, { ...places(positions), ...bounds(positions) }),
        NORMAL: stored(normals, 34962, places(normals)),
      },
      indices: stored(triangles, 34963, { componentType: UINT, count: triangles.length, type: 'SCALAR' }),
      material,
    })),
  }));
  const parts = solids.flatMap(({ places: at }, mesh) =>
    at.map(({ name, at: transform }) => ({ name, mesh, matrix: columns(transform) })),
  );
  const document = {
    asset: { version: '2.0', generator: 'Helb' },
    scene: 0,
    scenes: [{ name: title, nodes: [0] }],
    nodes: [{ name: title, matrix: TO_SPACE, children: parts.map((_, k) => k + 1) }, ...parts],
    meshes,
    materials: solids.map(({ name, colour }) => ({
      name,
      pbrMetallicRoughness: { baseColorFactor: [...linear(colour), 1], metallicFactor: 0, roughnessFactor: 0.8 },
    })),
    accessors,
    bufferViews: views,
    buffers: [{ byteLength: length }],
  };
  return binary(new TextEncoder().encode(JSON.stringify(document)), chunks, length);
}

/** Header, then both chunks: text filled up with spaces, numbers with zeros, to whole words. */
function binary(text: Uint8Array, chunks: readonly Uint8Array[], length: number): Uint8Array {
  const whole = (n: number) => Math.ceil(n / 4) * 4;
  const bytes = new Uint8Array(12 + 8 + whole(text.length) + 8 + whole(length));
  const view = new DataView(bytes.buffer);
  [MAGIC, 2, bytes.length, whole(text.length), JSON_CHUNK].forEach((word, k) => view.setUint32(4 * k, word, true));
  bytes.fill(0x20, 20, 20 + whole(text.length));
  bytes.set(text, 20);
  let at = 20 + whole(text.length);
  view.setUint32(at, whole(length), true);
  view.setUint32(at + 4, BINARY_CHUNK, true);
  at += 8;
  for (const chunk of chunks) {
    bytes.set(chunk, at);
    at += chunk.length;
  }
  return bytes;
}

function bounds(positions: Float32Array): { min: number[]; max: number[] } {
  const [min, max] = [
    [Infinity, Infinity, Infinity],
    [-Infinity, -Infinity, -Infinity],
  ];
  positions.forEach((c, k) => {
    min[k % 3] = Math.min(min[k % 3]!, c);
    max[k % 3] = Math.max(max[k % 3]!, c);
  });
  return { min: min, max: max };
}

const columns = (at: RigidTransform): number[] =>
  [0, 1, 2, 3].flatMap((k) => [...at.map((row) => row[k as 0]), k === 3 ? 1 : 0]);

/** Shares of red, green and blue as light (IEC 61966-2-1). */
const linear = (colour: string): number[] =>
  [1, 3, 5].map((k) => {
    const share = parseInt(colour.slice(k, k + 2), 16) / 255;
    return share <= 0.04045 ? share / 12.92 : ((share + 0.055) / 1.055) ** 2.4;
  });
