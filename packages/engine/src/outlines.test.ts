import DxfParser from 'dxf-parser';
import { startKernelInNode } from '@helb/kernel/node';
import { Engine, type FaceOutlineOptions } from './index.ts';
import { PartFixture, circle, face } from './test-fixture.ts';

beforeAll(async () => (PartFixture.engine = new Engine(await startKernelInNode())));

/** A block of 40 x 30 x 8 mm with a bore of 10 mm through it. */
const bored = () =>
  new PartFixture()
    .block('e', 40, 30, 8)
    .sketch('h', circle(20, 15, 5))
    .step('x', 'extrude', { sketch: 'h', distance: '50 mm', ways: 'both', result: 'cut' });

interface Read {
  readonly type: string;
  readonly radius?: number;
  readonly vertices?: readonly { readonly x: number; readonly y: number }[];
}
async function read(bench: PartFixture, options: FaceOutlineOptions): Promise<readonly Read[] | string> {
  const file = await PartFixture.engine.cutFile(bench.script.project, 'part', options, 'dxf');
  if (!file.ok) return file.issue.code;
  return new DxfParser().parseSync(new TextDecoder().decode(file.value))!.entities;
}
const sizeOf = (entities: readonly Read[]) => {
  const places = entities.flatMap(({ vertices = [] }) => vertices);
  const extent = (values: number[]) => Math.max(...values) - Math.min(...values);
  return [extent(places.map(({ x }) => x)), extent(places.map(({ y }) => y))].sort((a, b) => a - b);
};

test('the largest flat face, openings first, in millimetres', async () => {
  const entities = (await read(bored(), { width: 0 })) as Read[];
  expect(entities.map(({ type }) => type)).toEqual(['CIRCLE', 'LINE', 'LINE', 'LINE', 'LINE']);
  expect(entities[0]!.radius).toBeCloseTo(5, 9);
  expect(sizeOf(entities)).toEqual([30, 40].map((size) => expect.closeTo(size, 6)));
});

test('with the width of the cut: the bore smaller, the outside larger', async () => {
  const entities = (await read(bored(), { width: 0.3 })) as Read[];
  expect(entities[0]!.radius).toBeCloseTo(4.85, 9);
  expect(entities.filter(({ type }) => type === 'ARC').map(({ radius }) => radius)).toEqual(
    Array(4).fill(expect.closeTo(0.15, 9)),
  );
  expect(sizeOf(entities)).toEqual([30.3, 40.3].map((size) => expect.closeTo(size, 6)));
  expect(await read(bored(), { width: 11 })).toBe('cut.narrow');
});

test('a face that is told; what is not flat, and what is not there', async () => {
  expect(sizeOf((await read(bored(), { width: 0, face: face('e/side/a') })) as Read[])).toEqual(
    [8, 40].map((size) => expect.closeTo(size, 6)),
  );
  expect(await read(bored(), { width: 0, face: face('x/side/o') })).toBe('reference.kind');
  expect(await read(bored(), { width: 0, face: face('gone') })).toBe('reference.gone');
  expect(await read(new PartFixture(), { width: 0 })).toBe('cut.none');
});
