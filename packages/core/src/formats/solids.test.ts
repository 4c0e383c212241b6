import { WebIO } from '@gltf-transform/core';
import { XMLParser } from 'fast-xml-parser';
import { strFromU8, unzipSync } from 'fflate';
import { translation, type RigidTransform } from '../math/index.ts';
import { writeGlb } from './glb.ts';
import { writeObj } from './obj.ts';
import { cornersOf, welded, type Solid } from './solids.ts';
import { transformMesh } from '../meshes/index.ts';
import { writeStl } from './stl.ts';
import { BLOCK_FACES, blockCorner, stlVolume } from '../samples/index.ts';
import { write3mf } from './three-mf.ts';

/** A block of which each face has corners of its own, as meshes of bodies have. */
function block(w: number, d: number, h: number): Solid['meshes'][number] {
  const positions = Float32Array.from(BLOCK_FACES.flatMap((face) => face.flatMap((k) => blockCorner(k, [w, d, h]))));
  const triangles = Uint32Array.from(BLOCK_FACES.flatMap((_, f) => [0, 1, 2, 0, 2, 3].map((k) => 4 * f + k)));
  return { positions, normals: new Float32Array(positions.length).fill(1), triangles };
}
const TURNED: RigidTransform = [
  [0, -1, 0, 100],
  [1, 0, 0, 20],
  [0, 0, 1, 5],
];
const SOLIDS: Solid[] = [
  {
    name: 'Plate & <co>',
    colour: '#8fa6a1',
    meshes: [block(10, 20, 5)],
    places: [{ name: 'first', at: translation([0, 0, 0]) }],
  },
  {
    name: 'Peg',
    colour: '#C7A98B',
    meshes: [block(2, 3, 4)],
    places: [
      { name: 'left', at: TURNED },
      { name: 'right', at: translation([50, 0, 0]) },
    ],
  },
];

test('corners where faces meet are one: each edge has a triangle on either side, the other way round', () => {
  const mesh = welded([block(1, 2, 3)]);
  const { triangles } = mesh;
  expect(cornersOf(mesh)).toHaveLength(8);
  const edges = new Set<string>();
  for (let t = 0; t < triangles.length; t += 3)
    for (let k = 0; k < 3; k++) edges.add(`${triangles[t + k]} ${triangles[t + ((k + 1) % 3)]}`);
  expect(edges.size).toBe(triangles.length);
  for (const edge of edges) expect(edges).toContain(edge.split(' ').reverse().join(' '));
});

test('3MF: millimetres, a part once, where it stands as often as it does', () => {
  const files = unzipSync(write3mf('Sieve', SOLIDS));
  expect(Object.keys(files).sort()).toEqual(['3D/3dmodel.model', '[Content_Types].xml', '_rels/.rels']);
  const parser = new XMLParser({ ignoreAttributes: false, attributeNamePrefix: '' });
  const { model } = parser.parse(strFromU8(files['3D/3dmodel.model']!)) as {
    model: {
      unit: string;
      resources: { basematerials: { base: Record<string, string>[] }; object: { name: string; mesh: Mesh }[] };
      build: { item: { objectid: string; transform: string }[] };
    };
  };
  interface Mesh {
    vertices: { vertex: Record<string, string>[] };
    triangles: { triangle: Record<string, string>[] };
  }
  expect(model.unit).toBe('millimeter');
  expect(model.resources.basematerials.base[0]).toEqual({ name: 'Plate & <co>', displaycolor: '#8FA6A1FF' });
  expect(model.resources.object.map(({ name }) => name)).toEqual(['Plate & <co>', 'Peg']);
  const volumes = model.resources.object.map(({ mesh }) => {
    const at = mesh.vertices.vertex.map(({ x, y, z }) => [Number(x), Number(y), Number(z)]);
    return mesh.triangles.triangle.reduce((sum, { v1, v2, v3 }) => {
      const [a, b, c] = [at[Number(v1)]!, at[Number(v2)]!, at[Number(v3)]!];
      return sum + det(a, b, c) / 6;
    }, 0);
  });
  expect(volumes).toEqual([expect.closeTo(1000, 9), expect.closeTo(24, 9)]);
  expect(model.build.item.map(({ objectid }) => objectid)).toEqual(['2', '3', '3']);
  // rows are the images of the axes: x goes to y, y to -x
  expect(model.build.item[1]!.transform).toBe('0 1 0 -1 0 0 0 0 1 100 20 5');
});
const det = (a: number[], b: number[], c: number[]): number =>
  a[0]! * (b[1]! * c[2]! - b[2]! * c[1]!) +
  a[1]! * (b[2]! * c[0]! - b[0]! * c[2]!) +
  a[2]! * (b[0]! * c[1]! - b[1]! * c[0]!);

test('glTF: metres with y upwards, colours as light', async () => {
  const bytes = await writeGlb('Sieve', SOLIDS);
  // by hand: the word at its head, version 2, its own length, and then the text
  const head = new DataView(bytes.buffer, bytes.byteOffset, 20);
  expect([0, 4, 8, 16].map((at) => head.getUint32(at, true))).toEqual([0x46546c67, 2, bytes.length, 0x4e4f534a]);
  const document = await new WebIO().readBinary(bytes);
  const root = document.getRoot();
  expect(root.listMeshes().map((mesh) => mesh.getName())).toEqual(['Plate & <co>', 'Peg']);
  const [left] = root.listNodes().filter((node) => node.getName() === 'left');
  // where the corner of the peg stands: at (100, 20, 5) mm
  const at = left!.getWorldMatrix().slice(12, 15);
  expect(at).toEqual([expect.closeTo(0.1, 9), expect.closeTo(0.005, 9), expect.closeTo(-0.02, 9)]);
  const [first] = root.listMaterials();
  // 143 of 255 in sRGB
  expect(first!.getBaseColorFactor()[0]).toBeCloseTo(0.27468, 5);
  expect(first!.getBaseColorFactor()[3]).toBe(1);
  const position = root.listMeshes()[1]!.listPrimitives()[0]!.getAttribute('POSITION')!;
  expect(position.getMax([])).toEqual([2, 3, 4]);
  // a peg stands twice, its numbers once
  expect(root.listNodes().filter((node) => node.getMesh()?.getName() === 'Peg')).toHaveLength(2);
  expect(root.listAccessors()).toHaveLength(6);
});

test('OBJ and STL: every place where a part stands', () => {
  const obj = writeObj('Sieve', SOLIDS).split('\n');
  expect(obj.filter((line) => line.startsWith('o '))).toEqual(['o first', 'o left', 'o right']);
  expect(obj.filter((line) => line.startsWith('v '))).toHaveLength(3 * 8);
  expect(obj).toContain('v 97 22 9');
  const last = obj.filter((line) => line.startsWith('f ')).at(-1)!;
  expect(
    last
      .split(' ')
      .slice(1)
      .every((k) => Number(k) > 16 && Number(k) <= 24),
  ).toBe(true);
  const all = SOLIDS.flatMap(({ meshes, places }) =>
    places.flatMap(({ at }) => meshes.map((mesh) => transformMesh(mesh, 1, at))),
  );
  expect(stlVolume(writeStl(all, 'x'))).toBeCloseTo(1000 + 2 * 24, 2);
});
