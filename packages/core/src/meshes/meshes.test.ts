import fc from 'fast-check';
import { strToU8, zipSync } from 'fflate';
import { write3mf, writeStl } from '../formats/index.ts';
import { distance2, frameOn, translation, IDENTITY, type Frame, type Vec2 } from '../math/index.ts';
import { BLOCK_FACES, blockCorner } from '../samples/index.ts';
import { explain } from '../wording/index.ts';
import {
  meshFacts,
  meshSection,
  transformMesh,
  read3mf,
  readMesh,
  readStl,
  type MeshFile,
  type TriangleMesh,
} from './index.ts';

/** A box from the origin, its triangles counter-clockwise from outside. */
function box(w: number, d: number, h: number): TriangleMesh {
  const positions = Float32Array.from([0, 1, 2, 3, 4, 5, 6, 7].flatMap((k) => blockCorner(k, [w, d, h])));
  const triangles = Uint32Array.from(BLOCK_FACES.flatMap(([a, b, c, d]) => [a, b, c, a, c, d]));
  return { positions, triangles };
}
const solidOf = ({ positions, triangles }: TriangleMesh) => ({ positions, triangles, normals: new Float32Array() });
const text = (mesh: TriangleMesh) => {
  const facets: string[] = [];
  for (let t = 0; t < mesh.triangles.length; t += 3) {
    const corners = [0, 1, 2].map((k) => [
      ...mesh.positions.slice(3 * mesh.triangles[t + k]!, 3 * mesh.triangles[t + k]! + 3),
    ]);
    facets.push(
      `facet normal 0 0 0\nouter loop\n${corners.map((at) => `vertex ${at.join(' ')}`).join('\n')}\nendloop\nendfacet`,
    );
  }
  return strToU8(`solid box\n${facets.join('\n')}\nendsolid box`);
};
const read = (result: ReturnType<typeof readStl>): MeshFile => {
  if (!result.ok) throw new Error(explain(result.issue));
  return result.value;
};
const trouble = (result: ReturnType<typeof readStl>) => (result.ok ? 'it was read' : explain(result.issue));

describe('STL', () => {
  test('is read back as it was written, binary and as text, corners that are shared each once', () => {
    for (const bytes of [writeStl([solidOf(box(20, 30, 40))], 'solid box'), text(box(20, 30, 40))]) {
      const { mesh, unit } = read(readStl(bytes));
      expect(unit).toBeUndefined();
      expect(mesh.positions).toHaveLength(24);
      expect(meshFacts(mesh)).toEqual({
        ...{ triangles: 12, loose: 0 },
        box: { low: [0, 0, 0], high: [20, 30, 40] },
        volume: 24_000,
      });
    }
  });

  test('that begins with "solid" and is binary all the same', () => {
    const bytes = writeStl([solidOf(box(1, 1, 1))], '');
    bytes.set(strToU8('solid facet '));
    expect(meshFacts(read(readStl(bytes)).mesh).volume).toBeCloseTo(1, 9);
  });

  test('that can not be read says why', () => {
    const whole = writeStl([solidOf(box(1, 1, 1))], '');
    expect(trouble(readStl(whole.subarray(0, 400)))).toContain('tells of 12 triangles, which it does not hold');
    expect(trouble(readStl(strToU8('nothing of the kind')))).toContain('it begins otherwise');
    expect(trouble(readStl(new Uint8Array()))).toContain('STL');
    expect(trouble(readStl(writeStl([], '')))).toBe('The file holds no triangles.');
    const broken = whole.slice();
    new DataView(broken.buffer).setFloat32(84 + 50 * 3 + 12, NaN, true);
    expect(trouble(readStl(broken))).toContain('a corner of triangle 4 is no place');
    expect(trouble(readStl(strToU8('solid a\nfacet\nvertex 1 2 3\nvertex 1 2 x')))).toContain('no place');
    expect(trouble(readStl(strToU8('solid a\nfacet\nvertex 1 2 3')))).toContain('cut off');
    const many = new Uint8Array(84 + 50 * 2_000_001);
    new DataView(many.buffer).setUint32(80, 2_000_001, true);
    expect(trouble(readStl(many))).toContain('at most 2 million triangles');
  });
});

describe('3MF', () => {
  const model = (content: string, unit = 'millimeter') =>
    `<?xml version="1.0"?>\n<model unit="${unit}">${content}</model>`;
  const packed = (files: Readonly<Record<string, string>>) =>
    zipSync(Object.fromEntries(Object.entries(files).map(([name, content]) => [name, strToU8(content)])));
  const TETRA =
    '<mesh><vertices><vertex x="0" y="0" z="0"/><vertex x="6" y="0" z="0"/><vertex x="0" y="6" z="0"/><vertex x="0" y="0" z="6"/></vertices>' +
    '<triangles><triangle v1="0" v2="2" v3="1"/><triangle v1="0" v2="1" v3="3"/><triangle v1="1" v2="2" v3="3"/><triangle v1="0" v2="3" v3="2"/></triangles></mesh>';
  const object = (id: number, content: string) => `<object id="${id}" type="model">${content}</object>`;
  const single = (content: string, items: string, unit?: string) =>
    packed({ '3D/3dmodel.model': model(`<resources>${content}</resources><build>${items}</build>`, unit) });

  test('is read back as it was written, each solid where it stands', () => {
    const places = [
      { name: 'a', at: IDENTITY },
      { name: 'b', at: translation([100, 0, 5]) },
    ];
    const { mesh, unit } = read(
      read3mf(write3mf('Two', [{ name: 'Box', colour: '#112233', meshes: [solidOf(box(2, 3, 4))], places }])),
    );
    expect(unit).toBe(1);
    const { volume, box: round, triangles } = meshFacts(mesh);
    expect(volume).toBeCloseTo(48, 9);
    expect(triangles).toBe(24);
    expect(round).toEqual({ low: [0, 0, 0], high: [102, 3, 9] });
  });

  test('has units, parts of parts, mirrored ones, and comments in which nothing counts', () => {
    const twice = object(
      2,
      '<components><component objectid="1"/><component objectid="1" transform="-1 0 0 0 1 0 0 0 1 -10 0 0"/></components>',
    );
    const bytes = single(
      `<!-- <object id="9"> -->${object(1, TETRA)}${twice}`,
      "<item objectid='2' transform='2 0 0 0 2 0 0 0 2 0 0 0'/>",
      'inch',
    );
    const { mesh, unit } = read(read3mf(bytes));
    expect(unit).toBe(25.4);
    const { volume, box: round, loose } = meshFacts(mesh);
    expect(loose).toBe(0);
    // two of 36 each, twice as large each way; the mirrored one is turned inside in, not out
    expect(volume).toBeCloseTo(2 * 36 * 8, 6);
    expect(round).toEqual({ low: [-32, 0, 0], high: [12, 12, 12] });
  });

  test('has objects in other model files', () => {
    const bytes = packed({
      '_rels/.rels':
        '<Relationships><Relationship Target="/3D/main.model" Id="r" Type="http://schemas.microsoft.com/3dmanufacturing/2013/01/3dmodel"/></Relationships>',
      '3D/a.model': model(`<resources>${object(1, TETRA)}</resources><build/>`),
      '3D/main.model': model(
        `<resources>${object(1, '<components><component p:path="/3D/a.model" objectid="1"/></components>')}</resources><build><item objectid="1"/></build>`,
      ),
    });
    expect(meshFacts(read(read3mf(bytes)).mesh).volume).toBeCloseTo(36, 9);
  });

  test('that can not be read says why, and does not grow beyond its bounds', () => {
    expect(trouble(read3mf(strToU8('no zip')))).toContain('it is no zip');
    expect(trouble(read3mf(packed({ 'a.txt': '' })))).toContain('it holds no model');
    expect(trouble(read3mf(single(object(1, TETRA), '')))).toBe('The file holds no triangles.');
    expect(trouble(read3mf(single(object(1, TETRA), '<item objectid="7"/>')))).toContain('is not in it');
    const self = object(1, '<components><component objectid="1"/></components>');
    expect(trouble(read3mf(single(self, '<item objectid="1"/>')))).toContain('is not in it');
    const corner = TETRA.replace('v3="1"', 'v3="9"');
    expect(trouble(read3mf(single(object(1, corner), '<item objectid="1"/>')))).toContain('a corner that is not there');
    expect(trouble(read3mf(single(object(1, TETRA.replace('x="6"', '')), '<item objectid="1"/>')))).toContain(
      'no place',
    );
    // each of ten times ten of the one before: 4 million triangles at the end, and as many objects
    const component = (id: number) => `<component objectid="${id}"/>`.repeat(10);
    const nested = [2, 3, 4, 5, 6, 7].map((id) => object(id, `<components>${component(id - 1)}</components>`)).join('');
    expect(trouble(read3mf(single(object(1, TETRA) + nested, '<item objectid="7"/>')))).toContain(
      'more than 20000 objects',
    );
  });
});

test('files are read by how they are called', () => {
  const bytes = writeStl([solidOf(box(1, 1, 1))], '');
  expect(readMesh('Scan.STL', bytes).ok).toBe(true);
  expect(trouble(readMesh('scan.obj', bytes))).toContain('STL and 3MF');
});

test('a mesh is taken larger and moved; an open one encloses nothing', () => {
  const moved = transformMesh(box(1, 2, 3), 10, translation([5, 0, 0]));
  expect(meshFacts(moved)).toMatchObject({ box: { low: [5, 0, 0], high: [15, 20, 30] }, volume: 6000 });
  const { positions, triangles } = box(1, 2, 3);
  const open = meshFacts({ positions, triangles: triangles.slice(3) });
  expect(open).toMatchObject({ loose: 3, volume: undefined });
  // a wall that is told twice is no closed body either
  expect(meshFacts({ positions, triangles: Uint32Array.from([...triangles, ...triangles.slice(0, 3)]) }).loose).toBe(3);
});

describe('where a plane crosses', () => {
  const level = (z: number): Frame => frameOn([0, 0, z], [0, 0, 1], [1, 0, 0]);
  const length = (line: readonly Vec2[]) => line.slice(1).reduce((sum, at, k) => sum + distance2(at, line[k]!), 0);
  const area = (line: readonly Vec2[]) =>
    Math.abs(line.slice(1).reduce((sum, [x, y], k) => sum + line[k]![0] * y - line[k]![1] * x, 0)) / 2;
  const isClosed = (line: readonly Vec2[]) => distance2(line[0]!, line.at(-1)!) === 0;

  test('a box: its rectangle, closed; beside it nothing', () => {
    const lines = meshSection(box(20, 30, 40), level(10));
    expect(lines).toHaveLength(1);
    expect(isClosed(lines[0]!)).toBe(true);
    expect(area(lines[0]!)).toBeCloseTo(600, 6);
    expect(length(lines[0]!)).toBeCloseTo(100, 6);
    expect(meshSection(box(20, 30, 40), level(41))).toEqual([]);
    // through its corners it is the rectangle too, not nothing nor half of it
    expect(meshSection(box(20, 30, 40), level(40)).map(area)).toEqual([600]);
    // and so it is where it stands
    expect(meshSection(box(20, 30, 40), level(0)).map(area)).toEqual([600]);
  });

  test('an open mesh: a line from end to end', () => {
    const { positions, triangles } = box(20, 30, 40);
    // without the wall at the back
    const open = { positions, triangles: Uint32Array.from([...triangles.slice(0, 18), ...triangles.slice(24)]) };
    const lines = meshSection(open, level(10));
    expect(lines).toHaveLength(1);
    expect(isClosed(lines[0]!)).toBe(false);
    expect(length(lines[0]!)).toBeCloseTo(20 + 30 + 30, 6);
  });

  test('closed meshes are crossed in closed lines, wherever: the volume is that of all cuts', () => {
    const number = fc.double({ min: -1, max: 1, noNaN: true });
    fc.assert(
      fc.property(fc.tuple(number, number, number), fc.double({ min: -30, max: 30, noNaN: true }), ([x, y, z], off) => {
        fc.pre(Math.hypot(x, y, z) > 0.1);
        const mesh = transformMesh(box(20, 30, 40), 1, translation([-10, -15, -20]));
        const { z: normal } = frameOn([0, 0, 0], [x, y, z]);
        const at = frameOn([off * normal[0], off * normal[1], off * normal[2]], normal);
        const lines = meshSection(mesh, at);
        expect(lines.every(isClosed)).toBe(true);
        // a convex body is crossed once at most
        expect(lines.length).toBeLessThanOrEqual(1);
      }),
    );
    const cuts = Array.from({ length: 400 }, (_, k) => meshSection(box(20, 30, 40), level((k + 0.5) / 10)).map(area));
    expect(cuts.flat().reduce((sum, one) => sum + one / 10, 0)).toBeCloseTo(24_000, 3);
  });
});
