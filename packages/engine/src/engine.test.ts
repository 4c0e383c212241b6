import { perform, seedSieve, variantOf, type Action, type BodyHandle, type Kernel, type Project } from '@helb/core';
import type { OpenCascadeKernel } from '@helb/kernel';
import { startKernelInNode } from '@helb/kernel/node';
import { BodyCache, Engine, inspect, Overtaken } from './index.ts';

let kernel: OpenCascadeKernel;
beforeAll(async () => (kernel = await startKernelInNode()));

/** Counts the calls of a kernel. */
function counting(inner: Kernel) {
  const calls = { extrude: 0, combine: 0, mesh: 0 };
  const counted = new Proxy(inner, {
    get(kernel, name) {
      const method = kernel[name as keyof Kernel] as boolean | ((...args: unknown[]) => unknown);
      if (typeof method === 'boolean') return method;
      if (name in calls) calls[name as keyof typeof calls]++;
      return method.bind(kernel);
    },
  });
  return { counted, calls };
}

const sieve = seedSieve();
const [partId] = sieve.partOrder as [string];
/** The bearing bracket alone. */
const { assembly: _, studies: _studies, sheets: _sheets, sheetOrder: _order, ...apart } = sieve;
const demo: Project = { ...apart, parts: { [partId]: sieve.parts[partId]! }, partOrder: [partId] };
const stepNamed = (name: string) =>
  demo.parts[partId]!.stepOrder.find((id) => demo.parts[partId]!.steps[id]!.name === name)!;
const changed = (project: Project, ...actions: Action[]) => {
  const result = perform(project, actions);
  if (!result.ok) throw new Error(result.issue.code);
  return result.value.project;
};
const setValue = (project: Project, name: string, expression: string) =>
  changed(project, {
    command: 'value.set',
    input: { id: project.valueOrder.find((id) => project.values[id]!.name === name)!, expression },
  });

/** Volume of the bracket from its values, by hand: plate, four holes, boss above the plate, bore through all. */
const bracketVolume = ({ length = 72, thickness = 8, hole = 5.5, shaft = 12, wall = 6, height = 20 }) => {
  const disc = (d: number) => (Math.PI * d * d) / 4;
  const boss = shaft + 2 * wall;
  return (
    (length * ((length * 2) / 3) - 4 * disc(hole)) * thickness +
    disc(boss) * height -
    disc(shaft) * (thickness + height)
  );
};

const volumeOf = async (engine: Engine, project: Project) =>
  inspect(project, await engine.build(project)).parts[0]!.volume_mm3;

test.each([
  {},
  { 'crank length': '80 mm', shaft: '16 mm' },
  { drum: '150 mm', 'drum bolts': '12', 'slot width': '14 mm' },
  { 'knob pin': '10 mm', 'drum sheet': '6 mm' },
])('the other parts of the demo have the volumes that the values give: %j', async (changes: Record<string, string>) => {
  const project = Object.entries(changes).reduce((now, [name, text]) => setValue(now, name, text), sieve);
  const parts = project.partOrder.slice(1, 3);
  const [arm, disc] = inspect(project, await new Engine(kernel).build(project, { parts })).parts;
  const number = (name: string) =>
    Number.parseFloat(project.values[project.valueOrder.find((id) => project.values[id]!.name === name)!]!.expression);
  const [shaft, pin, wall, length] = ['shaft', 'knob pin', 'crank wall', 'crank length'].map(number) as [
    number,
    number,
    number,
    number,
  ];
  // the hull of two circles: two trapezoids and two sectors
  const [R, r] = [shaft / 2 + wall, pin / 2 + wall];
  const lean = Math.asin((R - r) / length);
  const hull =
    (R + r) * Math.sqrt(length ** 2 - (R - r) ** 2) +
    (R * R * (Math.PI + 2 * lean)) / 2 +
    (r * r * (Math.PI - 2 * lean)) / 2;
  const round = (d: number) => (Math.PI * d * d) / 4;
  expect(arm!.volume_mm3).toBeCloseTo((hull - round(shaft) - round(pin)) * number('crank thickness'), 6);
  const [drum, width] = [number('drum'), number('slot width')];
  const spine = 0.27 * drum;
  const slot = 2 * Math.asin(drum / 8 / spine) * spine * width + round(width);
  const area = round(drum) - round(shaft) - number('drum bolts') * round(5.5) - 4 * slot;
  const hub = (round(shaft + 2 * number('hub wall')) - round(shaft)) * number('hub height');
  expect(disc!.volume_mm3).toBeCloseTo(area * number('drum sheet') + hub, 6);
});

test('every part of the demo builds, settled, without a finding', async () => {
  const model = await new Engine(kernel).build(sieve);
  expect(inspect(sieve, model).findings).toEqual([]);
  expect(model.parts.map(({ bodies }) => bodies.length)).toEqual(sieve.partOrder.map(() => 1));
  const named = (name: string) =>
    model.parts.find(({ id }) => sieve.parts[id]!.name === name)!.bodies[0]!.measures.volume_mm3;
  // the walls of a frustum are the outer less the inner one, and those stand apart by more than their thickness
  const frustum = (low: number, high: number, h: number) => (h / 3) * (low ** 2 + high ** 2 + low * high);
  const apart = (2 * 3) / Math.cos(Math.atan(42 / 70));
  expect(named('Hopper')).toBeCloseTo(frustum(36, 120, 70) - frustum(36 - apart, 120 - apart, 70), 3);
});

test('each variant of the demo builds without a finding, and the sizes that it sets are there', async () => {
  const engine = new Engine(kernel);
  const sizes: Record<string, number[]> = {};
  for (const id of sieve.variantOrder!) {
    const varied = variantOf(sieve, id);
    const inspection = inspect(varied, await engine.build(varied), id);
    expect(inspection.findings).toEqual([]);
    const { low, high } = inspection.parts.find(({ name }) => name === 'Tray')!.box_mm!;
    sizes[inspection.variant] = [0, 1, 2].map((k) => Math.round(1e6 * (high[k]! - low[k]!)) / 1e6);
  }
  expect(sizes).toEqual({ table: [130, 84, 24], school: [200, 124, 24] });
});

test('a value beyond what it may come to is a finding', async () => {
  const id = sieve.valueOrder.find((value) => sieve.values[value]!.name === 'drum bolts')!;
  const done = perform(sieve, [{ command: 'value.set', input: { id, expression: '20' } }]);
  if (!done.ok) throw new Error('refused');
  const { findings } = inspect(done.value.project, await new Engine(kernel).build(done.value.project));
  expect(findings).toEqual([
    { code: 'value.outside', part: null, step: null, message: 'drum bolts comes to 20, and it may be from 3 to 16.' },
  ]);
});

test('the demo part has the volume that its values give, and follows each of them', async () => {
  const engine = new Engine(kernel);
  expect(await volumeOf(engine, demo)).toBeCloseTo(bracketVolume({}), 6);
  expect(await volumeOf(engine, setValue(demo, 'plate length', '90 mm'))).toBeCloseTo(bracketVolume({ length: 90 }), 6);
  expect(await volumeOf(engine, setValue(demo, 'plate thickness', '1/2 in'))).toBeCloseTo(
    bracketVolume({ thickness: 12.7 }),
    6,
  );
});

test('a sweep of all driving values: everything builds, settled, exact (change survival)', async () => {
  const engine = new Engine(kernel);
  for (const length of [60, 72, 110])
    for (const shaft of [6, 12, 20])
      for (const hole of [3.4, 5.5]) {
        let project = setValue(demo, 'plate length', `${length} mm`);
        project = setValue(setValue(project, 'shaft', `${shaft} mm`), 'bolt hole', `${hole} mm`);
        const { parts, findings } = inspect(project, await engine.build(project));
        expect(findings).toEqual([]);
        expect(parts[0]!.steps.every((step) => step.state === 'built')).toBe(true);
        expect(parts[0]!.volume_mm3).toBeCloseTo(bracketVolume({ length, shaft, hole }), 6);
      }
});

test('the inspection carries mass, centre and inertia with units in the names', async () => {
  const [part] = inspect(demo, await new Engine(kernel).build(demo)).parts;
  expect(part!.mass_g).toBeCloseTo(bracketVolume({}) * 2700e-6, 6);
  expect(part!.centre_mm!.slice(0, 2).map((c) => Math.abs(c) < 1e-6)).toEqual([true, true]);
  expect(part!.box_mm).toEqual({
    low: [-36, -24, 0].map((c) => expect.closeTo(c, 6)),
    high: [36, 24, 28].map((c) => expect.closeTo(c, 6)),
  });
  expect(part!.inertia_g_mm2).toHaveLength(6);
});

describe('incremental', () => {
  test('building again computes nothing; a late edit only what comes after it', async () => {
    const { counted, calls } = counting(kernel);
    const engine = new Engine(counted);
    await engine.build(demo);
    expect(calls).toEqual({ extrude: 3, combine: 2, mesh: 0 });
    await engine.build(structuredClone(demo));
    expect(calls).toEqual({ extrude: 3, combine: 2, mesh: 0 });
    await engine.build(setValue(demo, 'boss height', '31 mm'));
    expect(calls).toEqual({ extrude: 5, combine: 4, mesh: 0 });
    await engine.build(changed(demo, { command: 'project.rename', input: { name: 'Other' } }));
    expect(calls).toEqual({ extrude: 5, combine: 4, mesh: 0 });
  });

  test('meshes are made once, and left out where the caller has them', async () => {
    const { counted, calls } = counting(kernel);
    const engine = new Engine(counted);
    const mesh = { deflection: 0.1, angle: 0.3 };
    const first = (await engine.build(demo, { mesh })).parts[0]!.bodies[0]!;
    expect(first.mesh!.triangles.length).toBeGreaterThan(100);
    const again = (await engine.build(demo, { mesh, known: new Set([first.key]) })).parts[0]!.bodies[0]!;
    expect(again).toMatchObject({ key: first.key });
    expect(again.mesh).toBeUndefined();
    expect(calls.mesh).toBe(1);
  });

  test('a build that is overtaken stops before the next step', async () => {
    const { counted, calls } = counting(kernel);
    const abort = new AbortController();
    const building = new Engine(counted).build(demo, {
      signal: abort.signal,
      pause: async () => void (calls.extrude === 1 && abort.abort()),
    });
    await expect(building).rejects.toThrow(Overtaken);
    expect(calls.extrude).toBe(1);
  });

  test('the cache holds to its bound and releases what nobody uses', async () => {
    const { counted } = counting(kernel);
    const released: BodyHandle[] = [];
    const watched = new Proxy(counted, {
      get: (on, name) =>
        name === 'release'
          ? (body: BodyHandle) => (released.push(body), on.release(body))
          : (on[name as keyof Kernel] as unknown),
    });
    const engine = new Engine(watched, { cache: new BodyCache(watched, 4) });
    const before = kernel.held;
    for (let k = 0; k < 8; k++) await engine.build(setValue(demo, 'boss height', `${20 + k} mm`));
    expect(kernel.held - before).toBeLessThanOrEqual(4);
    expect(new Set(released).size).toBe(released.length);
    expect(await volumeOf(engine, demo)).toBeCloseTo(bracketVolume({}), 6);
  });
});

describe('steps that fail', () => {
  const states = async (project: Project) => (await new Engine(kernel).build(project)).parts[0]!;

  test('leave the last good body, and later independent steps standing', async () => {
    const step = stepNamed('Boss body');
    const broken = changed(demo, {
      command: 'step.set',
      input: { part: partId, step, fields: { distance: 'no such thing' } },
    });
    const part = await states(broken);
    expect(part.steps.map(({ state }) => state)).toEqual(['built', 'built', 'built', 'failed', 'built', 'built']);
    const disc = (d: number) => (Math.PI * d * d) / 4;
    expect(part.bodies[0]!.measures.volume_mm3).toBeCloseTo((72 * 48 - 4 * disc(5.5) - disc(12)) * 8, 6);
  });

  test.each([
    ['distance', { distance: '-5 mm' }, 'field.bounds'],
    ['distance', { distance: '30 deg' }, 'unit.asked'],
    ['result', { result: 'cut' }, 'body.none'],
    ['areas', { areas: ['nobody+'] }, 'area.gone'],
  ])('%s: %j says why', async (_, fields, code) => {
    const step = stepNamed('Foot plate');
    const part = await states(changed(demo, { command: 'step.set', input: { part: partId, step, fields: fields } }));
    expect(part.steps[1]).toMatchObject({ state: 'failed', issue: { code } });
  });

  test('a step on a suppressed sketch says so; a cut away from the body too', async () => {
    const suppressed = changed(demo, {
      command: 'step.suppress',
      input: { part: partId, step: stepNamed('Bore'), on: true },
    });
    expect((await states(suppressed)).steps.at(-1)).toMatchObject({ issue: { code: 'engine.suppressed' } });
    const missing = changed(demo, {
      command: 'step.set',
      input: { part: partId, step: stepNamed('Shaft bore'), fields: { ways: 'backwards' } },
    });
    expect((await states(missing)).steps.at(-1)).toMatchObject({ issue: { code: 'body.misses' } });
  });

  test('values in a loop fail the steps that read them, by name', async () => {
    const looped = setValue(demo, 'shaft', 'boss wall + 1 mm');
    const both = setValue(looped, 'boss wall', 'shaft / 2');
    const { findings } = inspect(both, await new Engine(kernel).build(both));
    expect(findings[0]!.message).toContain('shaft → boss wall → shaft');
  });
});
