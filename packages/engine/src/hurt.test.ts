import { KernelHurt, type Kernel } from '@helb/core';
import { startKernelInNode } from '@helb/kernel/node';
import { Engine } from './index.ts';
import { PartFixture, total } from './test-fixture.ts';

let real: Kernel;
beforeAll(async () => (real = await startKernelInNode()));

/** The kernel, broken by fillets of one radius and by measuring bodies of one step, as the library may be. */
function fragile({ radius, step }: { radius?: number; step?: string }) {
  const counts = { restarts: 0, rounds: 0 };
  let hurt = false;
  const breakDown = (): never => {
    hurt = true;
    throw new KernelHurt('null function');
  };
  const kernel = new Proxy(real, {
    get(target, key: keyof Kernel) {
      if (key === 'isHurt') return hurt;
      if (key === 'restart')
        return async () => {
          counts.restarts++;
          hurt = false;
          await target.restart();
        };
      if (key === 'fillet')
        return (request: Parameters<Kernel['fillet']>[0]) => {
          counts.rounds++;
          return request.edges.some((edge) => edge.radius === radius) ? breakDown() : target.fillet(request);
        };
      if (key === 'measure')
        return (body: number) => (target.bodyName(body).startsWith(step ?? '-') ? breakDown() : target.measure(body));
      const value: unknown = Reflect.get(target, key);
      return typeof value === 'function' ? (value.bind(target) as unknown) : value;
    },
  });
  const watched: (string | undefined)[] = [];
  return { engine: new Engine(kernel, { watch: (digest) => watched.push(digest) }), counts, watched };
}

const rounded = (radius: string) =>
  new PartFixture()
    .block('b', 40, 30, 20)
    .step('r', 'fillet', { edges: [{ to: 'edge', name: 'b/end | b/side/a' }], radius })
    .sketch('h-s', { m: { kind: 'point', x: 20, y: 15 }, o: { kind: 'circle', centre: 'm', radius: 4 } })
    .step('h', 'extrude', { sketch: 'h-s', extent: 'through', result: 'cut' });

test('a step that breaks the kernel fails with a word; what is before and after it is built, and it is not tried again', async () => {
  const { engine, counts, watched } = fragile({ radius: 3 });
  const { project } = rounded('3 mm').script;
  const { parts } = await engine.build(project);
  expect(parts[0]!.steps.map(({ state }) => state)).toEqual(['built', 'built', 'failed', 'built', 'built']);
  expect(parts[0]!.steps[2]!.issue!.code).toBe('kernel.hurt');
  expect(total(parts[0]!)).toBeCloseTo(40 * 30 * 20 - 20 * Math.PI * 16, 6);
  expect(counts).toEqual({ restarts: 1, rounds: 1 });
  // who watches for steps without an end is told that the one that broke it has ended
  expect(watched.filter((digest) => digest === undefined)).toHaveLength(watched.length / 2);
  await engine.build(project);
  expect(counts).toEqual({ restarts: 1, rounds: 1 });
  // another size is another step
  const mended = await engine.build(rounded('2 mm').script.project);
  expect(mended.parts[0]!.steps[2]!.state).toBe('built');
});

test('where a body can not even be measured, the step that made it fails', async () => {
  const { engine, counts } = fragile({ step: 'b2' });
  const bench = new PartFixture().block('a', 10, 10, 10).block('b2', 5, 5, 30);
  const { parts } = await engine.build(bench.script.project);
  expect(parts[0]!.steps.map(({ state }) => state)).toEqual(['built', 'built', 'built', 'failed']);
  expect(total(parts[0]!)).toBeCloseTo(1000, 9);
  expect(counts.restarts).toBe(1);
});

test('a step that is to be left alone fails without being tried; all others are as ever', async () => {
  const seen: (string | undefined)[] = [];
  const { project } = rounded('2 mm').script;
  await new Engine(real, { watch: (digest) => seen.push(digest) }).build(project);
  expect(seen.map((digest) => digest !== undefined)).toEqual([true, false, true, false, true, false]);
  const engine = new Engine(real);
  engine.avoid(seen[2]!, 120);
  const { parts } = await engine.build(project);
  expect(parts[0]!.steps[2]!.issue).toEqual({ code: 'kernel.endless', facts: { seconds: 120 } });
  expect(parts[0]!.steps[4]!.state).toBe('built');
});
