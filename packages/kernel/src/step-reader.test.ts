import { explain, type BodyHandle } from '@helb/core';
import { all, box, kernel, volume, withKernel } from './test-fixture.ts';

withKernel();

const written = (...bodies: BodyHandle[]): string => {
  const file = kernel.writeStep(
    'x',
    bodies.map((body, k) => ({ name: `body ${k}`, colour: '#808080', body })),
  );
  if (!file.ok) throw new Error(explain(file.issue));
  return new TextDecoder().decode(file.value);
};
const read = (text: string) => {
  kernel.keepFile('f', new TextEncoder().encode(text));
  return kernel.readStep({ file: 'f', step: 'b' });
};

test('what is written is read back: volumes, places, names by their order', () => {
  const [first, second] = [box(30, 20, 10), box(3, 4, 5)];
  const bodies = all(read(written(first, second))) as [BodyHandle, BodyHandle];
  expect(bodies).toHaveLength(2);
  expect(bodies.map(volume).sort((a, b) => a - b)).toEqual([expect.closeTo(60, 9), expect.closeTo(6000, 6)]);
  expect(bodies.map((body) => kernel.bodyName(body))).toEqual(['b#1', 'b#2']);
  expect(bodies.flatMap((body) => kernel.faceNames(body))).toEqual(
    Array.from({ length: 12 }, (_, k) => `b/face/${k + 1}`),
  );
  const [again] = all(read(written(first))) as [BodyHandle];
  expect(kernel.bodyName(again)).toBe('b');
  expect(kernel.measure(again).box_mm.high.map((c) => Math.round(c * 1e6) / 1e6)).toEqual([30, 20, 10]);
});

test('another unit of length is read as what it is', () => {
  const metres = written(box(30, 20, 10)).replace(/SI_UNIT\(\.MILLI\.,\.METRE\.\)/, 'SI_UNIT($,.METRE.)');
  const [body] = all(read(metres)) as [BodyHandle];
  expect(volume(body) / 6000e9).toBeCloseTo(1, 9);
});

test('what is no STEP file, and a file without bodies, are told', () => {
  const trouble = (text: string) => {
    const result = read(text);
    return result.ok ? 'it was read' : explain(result.issue);
  };
  expect(trouble('solid of nothing')).toMatch(/no STEP file/);
  expect(trouble('')).toMatch(/no STEP file/);
  expect(trouble(written(box(1, 1, 1)).replace(/MANIFOLD_SOLID_BREP/g, 'NOTHING_AT_ALL'))).toMatch(/no solid body/);
});
