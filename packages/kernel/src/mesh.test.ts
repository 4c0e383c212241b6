import { frameOn, translation, type BodyHandle, type BodyMesh } from '@helb/core';
import fc from 'fast-check';
import { flatPatch, loopOf } from './flat-mesh.ts';
import { startKernelInNode } from './node.ts';
import { all, box, circle, kernel, one, profile, rectangle, withKernel } from './test-fixture.ts';

withKernel();

const FINE = { deflection: 0.05, angle: 0.3 };

/** Sides of triangles that no other triangle has the other way round: none where the mesh is closed. */
function openSides({ positions, triangles }: BodyMesh): number {
  const at = (corner: number) => positions.subarray(3 * corner, 3 * corner + 3).join(' ');
  const sides = new Map<string, number>();
  for (let k = 0; k < triangles.length; k += 3) {
    const corners = [...triangles.subarray(k, k + 3)].map(at);
    // triangles at a pole have no area
    if (new Set(corners).size < 3) continue;
    for (let n = 0; n < 3; n++) {
      const [a, b] = [corners[n]!, corners[(n + 1) % 3]!];
      sides.set(`${a} > ${b}`, (sides.get(`${a} > ${b}`) ?? 0) + 1);
      sides.set(`${b} > ${a}`, (sides.get(`${b} > ${a}`) ?? 0) - 1);
    }
  }
  return [...sides.values()].filter((count) => count !== 0).length;
}

function volumeOf({ positions, triangles }: BodyMesh): number {
  let sum = 0;
  for (let k = 0; k < triangles.length; k += 3) {
    const [a, b, c] = [...triangles.subarray(k, k + 3)].map((corner) =>
      positions.subarray(3 * corner, 3 * corner + 3),
    ) as [Float32Array, Float32Array, Float32Array];
    sum +=
      a[0]! * (b[1]! * c[2]! - b[2]! * c[1]!) +
      a[1]! * (b[2]! * c[0]! - b[0]! * c[2]!) +
      a[2]! * (b[0]! * c[1]! - b[1]! * c[0]!);
  }
  return sum / 6;
}

const bored = (body: BodyHandle, x: number, step: string): BodyHandle => {
  const [tool] = all(kernel.extrude({ profile: profile(circle(x, 10, 3)), from: -1, to: 20, step }));
  const made = kernel.combine('cut', [body], [tool!]);
  if (!made.ok) throw new Error(made.issue.code);
  return all({ ok: true, value: made.value.bodies })[0]!;
};
const edge = (body: BodyHandle, part: string) =>
  kernel.topology(body).edges.find(({ name }) => name.includes(part))!.name;

describe('flat faces', () => {
  test('loops are chained from polylines in any order and direction', () => {
    const corners = [
      [0, 0, 0],
      [4, 0, 0],
      [4, 3, 0],
      [0, 3, 0],
    ];
    const sides = corners.map((corner, k) => [corner, corners[(k + 1) % 4]!]);
    fc.assert(
      fc.property(
        fc.shuffledSubarray([0, 1, 2, 3], { minLength: 4 }),
        fc.array(fc.boolean(), { minLength: 4, maxLength: 4 }),
        (order, turned) => {
          const lines = order.map((k) => new Float32Array((turned[k] ? sides[k]!.toReversed() : sides[k]!).flat()));
          const { positions, triangles } = flatPatch([loopOf(lines)], [0, 0, 1]);
          expect(triangles.length).toBe(6);
          const area = [0, 3].reduce((sum, at) => {
            const [a, b, c] = [...triangles.subarray(at, at + 3)].map((k) => [
              positions[3 * k]!,
              positions[3 * k + 1]!,
            ]);
            return sum + ((b![0]! - a![0]!) * (c![1]! - a![1]!) - (c![0]! - a![0]!) * (b![1]! - a![1]!)) / 2;
          }, 0);
          expect(area).toBeCloseTo(12, 12);
        },
      ),
    );
  });
});

describe('the mesh of a body', () => {
  test('is closed and faces outwards, with openings, round and free faces, and after it was turned over', () => {
    const plate = bored(bored(box(40, 20, 5), 10, 'b1'), 30, 'b2');
    const dressed = one(
      kernel.fillet({ body: plate, step: 'f', edges: [{ name: edge(plate, 's/end | s/side/a'), radius: 1 }] }),
    );
    const mirrored = one(
      kernel.transformed({
        body: dressed,
        step: 'm',
        instance: '1',
        transform: [
          [-1, 0, 0, 0],
          [0, 1, 0, 0],
          [0, 0, 1, 0],
        ],
      }),
    );
    for (const body of [plate, dressed, mirrored]) {
      const mesh = kernel.mesh(body, FINE);
      expect(openSides(mesh)).toBe(0);
      const exact = kernel.measure(body).volume_mm3;
      expect(Math.abs(volumeOf(mesh) - exact)).toBeLessThan(2e-3 * exact);
    }
  });

  test('is closed where openings stand in a row, with their corners on one line', () => {
    const slots = [
      [-95, 72],
      [65, 72],
      [-95, -78],
      [65, -78],
      [-15, 72],
    ].map(([x, y], k) =>
      all(kernel.extrude({ profile: profile(rectangle(x!, y!, 30.2, 6.2)), from: -1, to: 7, step: `h${k}` })),
    );
    const plate = all(kernel.extrude({ profile: profile(rectangle(-150, -100, 300, 200)), from: 0, to: 6, step: 's' }));
    const cut = kernel.combine('cut', plate, slots.flat());
    if (!cut.ok) throw new Error();
    const mesh = kernel.mesh(one({ ok: true, value: cut.value.bodies[0]! }), FINE);
    expect(openSides(mesh)).toBe(0);
    expect(volumeOf(mesh)).toBeCloseTo((300 * 200 - 5 * 30.2 * 6.2) * 6, -1);
  });

  test('of what an edit has left alone is kept, and is what a mesh from nothing gives', async () => {
    const plate = bored(box(40, 20, 5), 10, 'b1');
    const before = kernel.mesh(plate, FINE);
    const edited = bored(plate, 30, 'b2');
    const after = kernel.mesh(edited, FINE);
    expect(openSides(after)).toBe(0);
    expect(after.faces.map(({ name }) => name)).toEqual(kernel.faceNames(edited));
    const wall = (mesh: BodyMesh) => mesh.faces.find(({ name }) => name === 'b1/side/o')!.count;
    expect(wall(after)).toBe(wall(before));
    const fresh = await startKernelInNode();
    const made = fresh.extrude({ profile: profile(rectangle(0, 0, 40, 20)), from: 0, to: 5, step: 's' });
    const [start] = made.ok ? made.value : [];
    const tools = [10, 30].map((x, k) => {
      const tool = fresh.extrude({ profile: profile(circle(x, 10, 3)), from: -1, to: 20, step: `b${k + 1}` });
      return tool.ok ? tool.value[0]! : 0;
    });
    const cut = fresh.combine('cut', [start!], tools);
    const anew = fresh.mesh(cut.ok ? cut.value.bodies[0]! : 0, FINE);
    expect(after.triangles.length).toBe(anew.triangles.length);
    expect(volumeOf(after)).toBeCloseTo(volumeOf(anew), 4);
  });

  test('of both halves of a body looks out of each, though they share the face between them', () => {
    const halves = all(kernel.split({ body: box(30, 20, 10), by: frameOn([12, 0, 0], [1, 0, 0]), step: 'c' }));
    const normals = halves.map((half) => {
      const mesh = kernel.mesh(half, FINE);
      expect(openSides(mesh)).toBe(0);
      expect(volumeOf(mesh)).toBeCloseTo(kernel.measure(half).volume_mm3, 3);
      const { surface, centre } = kernel.topology(half).faces.find(({ name }) => name.startsWith('c/cut'))!;
      const inwards = kernel.measure(half).centre_mm[0] - centre[0];
      return surface.form === 'plane' && surface.normal[0] * inwards < 0;
    });
    expect(normals).toEqual([true, true]);
  });

  test('a copy somewhere else has a mesh of its own, and what nobody has any more is forgotten', () => {
    const body = box(10, 10, 10);
    const low = kernel.mesh(body, FINE);
    const high = kernel.mesh(
      one(kernel.transformed({ body, step: 'm', instance: '1', transform: translation([0, 0, 7]) })),
      FINE,
    );
    const least = (mesh: BodyMesh) => Math.min(...mesh.positions.filter((_, k) => k % 3 === 2));
    expect([least(low), least(high)]).toEqual([0, 7]);
  });
});
