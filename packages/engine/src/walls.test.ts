import { startKernelInNode } from '@helb/kernel/node';
import { Engine } from './index.ts';
import { PartFixture, circle, face, rectangle } from './test-fixture.ts';
import { wallsOf, type Walls } from './walls.ts';

beforeAll(async () => (PartFixture.engine = new Engine(await startKernelInNode())));

const walls = async (bench: PartFixture): Promise<Walls> => wallsOf((await bench.model()).bodies[0]!.mesh!);

/** The thicknesses at all corners that a test chooses by their places. */
const where = ({ positions, thickness }: Walls, chosen: (x: number, y: number, z: number) => boolean): number[] =>
  [...thickness].filter((_, k) => chosen(positions[3 * k]!, positions[3 * k + 1]!, positions[3 * k + 2]!));

test('a block is as thick as it is behind each of its faces', async () => {
  const found = await walls(new PartFixture().block('b', 40, 30, 10));
  expect(found.thinnest.thickness_mm).toBeCloseTo(10, 4);
  const inner = (low: number, high: number) => (c: number) => c > low + 0.5 && c < high - 0.5;
  const [ix, iy, iz] = [inner(0, 40), inner(0, 30), inner(0, 10)];
  const ways = [
    where(found, (x, y, z) => ix(x) && iy(y) && z === 10),
    where(found, (x, y, z) => ix(x) && y === 0 && iz(z)),
    where(found, (x, y, z) => x === 40 && iy(y) && iz(z)),
  ];
  ways.forEach((list, k) => {
    expect(list.length).toBeGreaterThan(20);
    for (const thickness of list) expect(thickness).toBeCloseTo([10, 30, 40][k]!, 4);
  });
});

test('a box with walls of two thicknesses: the thinner one is found, and its face', async () => {
  const found = await walls(
    new PartFixture()
      .block('b', 40, 30, 20)
      .step('s', 'shell', { open: [face('b/end')], wall: '2 mm', others: [face('b/start')], other: '1.2 mm' }),
  );
  expect(found.thinnest.thickness_mm).toBeCloseTo(1.2, 4);
  expect(found.thinnest.face).toMatch(/start|inside/);
  const side = where(found, (x, y, z) => x === 0 && y > 5 && y < 25 && z > 5 && z < 15);
  for (const thickness of side) expect(thickness).toBeCloseTo(2, 4);
});

test('a hole near an edge leaves a thin place between the two', async () => {
  const found = await walls(
    new PartFixture()
      .block('b', 40, 30, 10)
      .sketch('s', circle(20, 25, 4.5), 'top')
      .step('h', 'extrude', { sketch: 's', distance: '10 mm', result: 'cut' }),
  );
  expect(found.thinnest.thickness_mm).toBeCloseTo(0.5, 1);
  expect(found.thinnest.at[1]).toBeGreaterThan(29);
});

test('the skin is that of the body: the same area, in triangles that are not too many', async () => {
  const bench = new PartFixture()
    .sketch('s', rectangle(0, 0, 400, 1))
    .step('b', 'extrude', { sketch: 's', distance: '300 mm' });
  const { positions, triangles } = await walls(bench);
  const at = (k: number) => [positions[3 * k]!, positions[3 * k + 1]!, positions[3 * k + 2]!] as const;
  let area = 0;
  for (let k = 0; k < triangles.length; k += 3) {
    const [a, b, c] = [at(triangles[k]!), at(triangles[k + 1]!), at(triangles[k + 2]!)];
    const [u, v] = [b.map((p, n) => p - a[n]!), c.map((p, n) => p - a[n]!)] as [number[], number[]];
    area += Math.hypot(u[1]! * v[2]! - u[2]! * v[1]!, u[2]! * v[0]! - u[0]! * v[2]!, u[0]! * v[1]! - u[1]! * v[0]!) / 2;
  }
  expect(area / (2 * (400 * 300 + 400 + 300))).toBeCloseTo(1, 5);
  expect(triangles.length / 3).toBeLessThanOrEqual(120_000);
});
