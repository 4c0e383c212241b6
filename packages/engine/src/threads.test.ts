import { startKernelInNode } from '@helb/kernel/node';
import { signLines } from '@helb/core';
import { Engine, inspect } from './index.ts';
import { PartFixture, circle, disc, face, plane, total } from './test-fixture.ts';

beforeAll(async () => (PartFixture.engine = new Engine(await startKernelInNode())));

describe('threads', () => {
  const shaft = (d: number) =>
    new PartFixture().sketch('s', circle(0, 0, d / 2)).step('e', 'extrude', { sketch: 's', distance: '12 mm' });
  const minor = (8 - 1.0825 * 1.25) / 2;
  const square = (a: number, b: number) => (a * a + a * b + b * b) / 3;

  test('as a sign it changes no body, and is told with its length, hand and name', async () => {
    const bench = shaft(8).step('t', 'thread', {
      faces: [face('e/side/o')],
      extent: 'part',
      length: '9 mm',
      hand: 'left',
    });
    const model = await bench.model();
    expect(total(model)).toBeCloseTo(disc(8) * 12, 6);
    expect(inspect(bench.script.project, { parts: [model], values: [] }).parts[0]!.threads).toEqual([
      { step: 't', name: 'M8', length_mm: 9, hand: 'left', full: false },
    ]);
    const lines = signLines(model.signs[0]!);
    expect(lines.every(([x, y]) => Math.abs(Math.hypot(x, y) - 4) < 1e-9)).toBe(true);
    const heights = lines.map(([, , z]) => z);
    expect(Math.max(...heights) - Math.min(...heights)).toBeCloseTo(9, 9);
  });

  test('cut in full on a shaft it leaves what its profile turns round (Pappus)', async () => {
    const bench = shaft(8).step('t', 'thread', {
      faces: [face('e/side/o')],
      extent: 'part',
      length: '5 mm',
      shown: 'full',
    });
    const major = (8 - 0.02875) / 2;
    // flat over a quarter of the pitch at the root and an eighth at the crest, flanks between (ISO 68-1)
    const mean = minor * minor * 0.25 + square(minor, major) * 0.625 + major * major * 0.125;
    expect((await bench.volume()) / (Math.PI * mean * 5 + disc(8) * 7)).toBeCloseTo(1, 5);
  });

  test('under a head it leaves the head alone', async () => {
    const bolt = shaft(8)
      .step('top', 'datum-plane', { how: 'offset', on: [plane('top')], by: '12 mm' })
      .sketch('h', circle(0, 0, 7), { to: 'datum', step: 'top' })
      .step('head', 'extrude', { sketch: 'h', distance: '5 mm', result: 'add' })
      .step('t', 'thread', { faces: [face('e/side/o')], shown: 'full' });
    const major = (8 - 0.02875) / 2;
    const mean = minor * minor * 0.25 + square(minor, major) * 0.625 + major * major * 0.125;
    // over parts of a turn the profile is not whole: within a hundredth of a turn's volume
    expect((await bolt.volume()) / (Math.PI * mean * 12 + disc(14) * 5)).toBeCloseTo(1, 3);
  });

  test('in a bore; and a face of another size is refused with what it needs', async () => {
    const nut = (d: number) =>
      new PartFixture()
        .block('b', 20, 20, 4)
        .sketch('c', circle(10, 10, d / 2))
        .step('h', 'extrude', { sketch: 'c', distance: '4 mm', result: 'cut' })
        .step('t', 'thread', { faces: [face('h/side/o')], shown: 'full' });
    const [bore, major] = [3.4, 4];
    // what of the flanks lies outside the bore
    const share = (bore - minor) / (major - minor);
    const beyond =
      square(bore, major) * 0.625 * (1 - share) + major * major * 0.125 + bore * bore * (0.25 + 0.625 * share);
    expect((await nut(6.8).volume()) / (1600 - Math.PI * beyond * 4)).toBeCloseTo(1, 5);
    const coarse = shaft(8).step('t', 'thread', { faces: [face('e/side/o')], size: 'own', pitch: '9 mm' });
    expect(await coarse.trouble()).toMatch(/pitch well below the diameter of 8 mm/);
    expect(await nut(5).trouble()).toBe('M8 does not fit here: this bore is ⌀5, and it needs ⌀6.8.');
  });
});
