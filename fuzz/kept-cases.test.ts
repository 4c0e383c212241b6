import { enclosedVolume, perform } from '@helb/core';
import { Engine } from '@helb/engine';
import type { OpenCascadeKernel } from '@helb/kernel';
import { startKernelInNode } from '@helb/kernel/node';
import { keptCase, keptCases, sampleCase, samples } from './sample-cases.ts';

// Cases that were broken once, by hand or by the campaign.

let kernel: OpenCascadeKernel;
let engine: Engine;
beforeAll(async () => {
  kernel = await startKernelInNode();
  engine = new Engine(kernel);
});

test('each keeps all laws now', async () => {
  for (const [k, { name }] of (await samples()).entries())
    if (!name.startsWith('demo'))
      expect([name, (await sampleCase(kernel, engine, k)).broken]).toEqual([name, undefined]);
}, 900_000);

test('every one opens, is built, and what it shows has a witness', async () => {
  for (const name of await keptCases()) {
    const { parts } = await engine.build(await keptCase(name), { mesh: { deflection: 0.1, angle: 0.3 } });
    for (const { bodies } of parts)
      for (const { measures, mesh } of bodies) {
        expect([name, measures.volume_mm3 > 0]).toEqual([name, true]);
        expect(measures.off.volume_mm3).toBeLessThan(1e-6 * measures.volume_mm3);
        expect(Math.abs(enclosedVolume(mesh!) - measures.volume_mm3)).toBeLessThan(0.1 * measures.area_mm2);
      }
  }
}, 600_000);

test('the jar: symmetric, with the volume of its own closed mesh', async () => {
  const { parts } = await engine.build(await keptCase('jar-wrong-volume'));
  const { volume_mm3, centre_mm } = parts[0]!.bodies[0]!.measures;
  // its triangles, refined: 27 551 at 0.03, 27 560 at 0.01
  expect(volume_mm3).toBeCloseTo(27_562.56, 1);
  expect(Math.hypot(centre_mm[0], centre_mm[1])).toBeLessThan(1e-5);
});

test('walls of a loft that is cut at a slant, and corners whose rounds reach an opening, are built', async () => {
  const states = async (name: string) =>
    (await engine.build(await keptCase(name))).parts[0]!.steps.map(({ state }) => state);
  for (const name of ['loft-cut-shell-fails', 'rounded-corners-null-function'])
    expect([name, [...new Set(await states(name))]]).toEqual([name, ['built']]);
});

test('a loft and its mirror image: the library would leave out what sticks out, and is refused', async () => {
  for (const name of ['loft-and-its-image', 'loft-with-boss-and-its-image']) {
    const { parts } = await engine.build(await keptCase(name));
    expect([name, parts[0]!.steps.at(-1)!.issue!.code]).toEqual([name, 'kernel.wrong']);
  }
});

test('a loft joined to its image, where in one order the library overlooks what both share: symmetric', async () => {
  const project = await keptCase('loft-joined-to-its-image');
  const image = {
    ...{ kind: 'mirror', name: 'Image', what: 'bodies', bodies: [{ to: 'body', name: 's0' }] },
    ...{ plane: [{ to: 'origin', name: 'right' }], copies: 'add' },
  };
  const added = perform(project, [{ command: 'step.add', input: { part: 'part', id: 'image', step: image } } as never]);
  if (!added.ok) throw new Error(added.issue.code);
  const { parts } = await engine.build(added.value.project);
  expect(parts[0]!.steps.map(({ state }) => state)).not.toContain('failed');
  const { volume_mm3, centre_mm } = parts[0]!.bodies[0]!.measures;
  // asked for in the other order, and with all that nearly meets taken as meeting; it was 26 778.31 without a word
  expect(volume_mm3).toBeCloseTo(26_789.18, 1);
  expect(Math.abs(centre_mm[0])).toBeLessThan(1e-5);
});

test('a step that puts a face of the step before it out of step: the next build over that one is mended', async () => {
  const project = await keptCase('slot-that-another-step-puts-out-of-step');
  const part = project.parts['part']!;
  const volumes = [];
  // the pocket and the boss of the end, in both orders
  for (const last of [
    ['s5s', 's5', 's6s', 's6'],
    ['s6s', 's6', 's5s', 's5'],
  ]) {
    const stepOrder = [...part.stepOrder.slice(0, -4), ...last];
    const { parts } = await engine.build({ ...project, parts: { part: { ...part, stepOrder } } });
    expect(parts[0]!.steps.map(({ state }) => state)).toEqual(stepOrder.map(() => 'built'));
    volumes.push(parts[0]!.bodies[0]!.measures.volume_mm3);
  }
  expect(volumes[1]).toBeCloseTo(volumes[0]!, 8);
});

test('a round over the rim of an opening that the library does not cut: it fails, and is not passed over', async () => {
  const { parts } = await engine.build(await keptCase('round-that-cut-nothing'));
  expect(parts[0]!.steps.map(({ state }) => state)).toEqual([...Array<string>(4).fill('built'), 'failed']);
  expect(parts[0]!.steps.at(-1)!.issue!.code).toBe('round.size');
});

test('a bevel of which one face has its rim the wrong way round, in every size: it fails, and no figure is wrong', async () => {
  const { parts } = await engine.build(await keptCase('bevel-with-a-face-turned-round'));
  expect(parts[0]!.steps.map(({ state }) => state)).toEqual([...Array<string>(5).fill('built'), 'failed']);
  expect(parts[0]!.steps.at(-1)!.issue!.code).toBe('chamfer.size');
  const { volume_mm3, off } = parts[0]!.bodies[0]!.measures;
  // without the bevel; with it 44 646 were told with 8.5 more or less, in another size 3.5 more
  expect(volume_mm3).toBeCloseTo(44_653.3375, 3);
  expect(off.volume_mm3).toBeLessThan(1e-6);
});

test('thin walls go round inner corners, in this size as in larger ones', async () => {
  const { parts } = await engine.build(await keptCase('thin-walls-with-inner-corners'));
  const { volume_mm3, faces } = parts[0]!.bodies[0]!.measures;
  // 1.7 times as large it is 529.7782 times 1.7 cubed; with corners that meet sharply it would be 530.0205
  expect(volume_mm3).toBeCloseTo(529.7782, 3);
  expect(faces).toBe(153);
});

test('where another way was gone it is told at the step, and when it is taken from the cache too', async () => {
  for (const [name, code] of [
    ['loft-cut-shell-fails', 'kernel.hollow-cut'],
    // the library would let their corners meet sharply
    ['detours/walls-that-meet-sharply', 'kernel.hollow-fitted'],
  ] as const) {
    const project = await keptCase(name);
    for (const _ of [1, 2]) {
      const { parts } = await engine.build(project);
      const told = parts[0]!.steps.map(({ detours = [] }) => detours.map((way) => way.code));
      expect([told.at(-1), told.flat()]).toEqual([[code], [code]]);
    }
  }
});

test('a bevel that is sound here and not in a file of it: no file is given out', async () => {
  const project = await keptCase('bevel-that-no-file-keeps');
  const { parts } = await engine.build(project);
  expect(parts[0]!.steps.map(({ state }) => state)).not.toContain('failed');
  const step = await engine.partFile(project, 'part', 'step');
  expect(step).toMatchObject({ ok: false, issue: { code: 'kernel.unread', facts: { title: 'Part' } } });
  expect(await engine.partFile(project, 'part', '3mf')).toMatchObject({ ok: true });
});

test('a growing round that breaks the library: one step fails with a word, all else is there', async () => {
  const { parts } = await engine.build(await keptCase('growing-round-breaks-the-library'));
  expect(parts[0]!.steps.map(({ state }) => state)).toEqual([...Array<string>(6).fill('built'), 'failed']);
  expect(parts[0]!.steps.at(-1)!.issue!.code).toBe('kernel.hurt');
  expect(parts[0]!.bodies[0]!.measures.volume_mm3).toBeCloseTo(34_113.605, 2);
});
