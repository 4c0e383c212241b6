import { explain, writeStl, type FileRecord, type Project } from '@helb/core';
import { startKernelInNode } from '@helb/kernel/node';
import { Engine, inspect } from './index.ts';
import { PartFixture, face, total } from './test-fixture.ts';

const files = new Map<string, Uint8Array>();
beforeAll(async () => {
  const source = (file: FileRecord) => Promise.resolve(files.get(file.hash) ?? { reason: '' });
  PartFixture.engine = new Engine(await startKernelInNode(), { files: source });
  files.set('a'.repeat(64), pyramid());
  files.set('b'.repeat(64), new Uint8Array(100));
});

/** A pyramid over 10 x 20 in the plane, 6 high, closed. */
function pyramid(): Uint8Array {
  const positions = Float32Array.from([0, 0, 0, 10, 0, 0, 10, 20, 0, 0, 20, 0, 5, 10, 6]);
  const triangles = Uint32Array.from([0, 2, 1, 0, 3, 2, 0, 1, 4, 1, 2, 4, 2, 3, 4, 3, 0, 4]);
  return writeStl([{ positions, triangles }], 'pyramid');
}
const file = (letter: string, name = 'pyramid.stl'): FileRecord => ({ hash: letter.repeat(64), name, size: 1 });
const laid = async (bench: PartFixture) => (await bench.model()).meshes[0]!;

test('a mesh lies where its step says, in its unit, with what is up in the file turned up', async () => {
  const lies = async (fields: object) => {
    const { facts } = await laid(new PartFixture().step('m', 'reference-mesh', { file: file('a'), ...fields }));
    return [...facts.box.low, ...facts.box.high].map((c) => Number(c.toFixed(4)));
  };
  expect(await lies({})).toEqual([0, 0, 0, 10, 20, 6]);
  expect(await lies({ unit: 'in' })).toEqual([0, 0, 0, 254, 508, 152.4]);
  expect(await lies({ x: '5 mm', z: '-1 cm' })).toEqual([5, 0, -10, 15, 20, -4]);
  expect(await lies({ up: 'y' })).toEqual([0, -6, 0, 10, 0, 20]);
  expect(await lies({ angle: '90 deg', x: '1 mm' })).toEqual([-19, 0, 0, 1, 10, 6]);
});

test('it is measured, is no body, and later steps go on as if it were not there', async () => {
  const bench = new PartFixture().step('m', 'reference-mesh', { file: file('a') }).block('b', 3, 4, 5);
  const model = await bench.model();
  expect(total(model)).toBeCloseTo(60, 6);
  expect(model.meshes[0]).toMatchObject({ step: 'm', named: false, facts: { triangles: 6, loose: 0 } });
  expect(model.meshes[0]!.facts.volume).toBeCloseTo(400, 3);
  const { script } = bench;
  const [part] = inspect(script.project, await PartFixture.engine.build(script.project)).parts;
  expect(part!.meshes).toEqual([
    { step: 'm', triangles: 6, low_mm: [0, 0, 0], high_mm: [10, 20, 6], loose_edges: 0, volume_mm3: 400 },
  ]);
  expect((await bench.step('r', 'fillet', { edges: [], radius: '1 mm' }).model()).meshes).toHaveLength(1);
  script.do('step.suppress', { part: 'part', step: 'm', on: true });
  expect((await bench.model()).meshes).toEqual([]);
});

test('who has a mesh already is not sent it again, until it lies otherwise', async () => {
  const bench = new PartFixture().step('m', 'reference-mesh', { file: file('a') });
  const build = async (project: Project, known: string[]) =>
    (await PartFixture.engine.build(project, { known: new Set(known) })).parts[0]!.meshes[0]!;
  const first = await build(bench.script.project, []);
  expect(first.mesh!.triangles).toHaveLength(18);
  const again = await build(bench.script.project, [first.key]);
  expect(again).not.toHaveProperty('mesh');
  expect(again.facts).toEqual(first.facts);
  bench.script.do('step.set', { part: 'part', step: 'm', fields: { x: '1 mm' } });
  expect((await build(bench.script.project, [first.key])).mesh).toBeDefined();
});

test('a sketch sees where its plane crosses it', async () => {
  const bench = new PartFixture()
    .step('m', 'reference-mesh', { file: file('a') })
    .block('b', 3, 4, 3)
    .sketch('s', {}, face('b/end'))
    .sketch('f', {}, 'front');
  const under = async (sketch: string) =>
    (await PartFixture.engine.build(bench.script.project, { sketch })).parts[0]!.underlay;
  // half way up the pyramid is half as wide
  const lines = await under('s');
  expect(lines).toHaveLength(1);
  const [xs, ys] = [0, 1].map((k) => lines[0]!.map((at) => at[k]!)) as [number[], number[]];
  expect([Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)].map((c) => Number(c.toFixed(4)))).toEqual(
    [2.5, 7.5, 5, 15],
  );
  // it stands on one of its edges
  expect(await under('f')).not.toEqual([]);
  expect((await bench.model()).underlay).toEqual([]);
});

test('a file that is not there, or is none, is told by its step', async () => {
  const trouble = async (one: FileRecord) => new PartFixture().step('m', 'reference-mesh', { file: one }).trouble();
  expect(await trouble(file('c'))).toBe('pyramid.stl is not here: choose the file again.');
  expect(await trouble(file('b'))).toContain('This is no STL file that can be read');
  expect(await trouble(file('a', 'pyramid.obj'))).toContain('STL and 3MF');
  expect(explain((await new PartFixture().step('m', 'reference-mesh').model()).steps[0]!.issue!)).toContain('file');
});
