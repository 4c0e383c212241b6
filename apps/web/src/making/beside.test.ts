import { ORIGIN_PLANES, type SketchStep } from '@helb/core';
import { axisBeside, materialBeside, shapeOfSketch } from './beside.ts';

const sketch = (plane: SketchStep['plane']): SketchStep => ({
  ...{ kind: 'sketch', name: 'S', plane, entities: {}, relations: {} },
});
/** An upright edge of a step from one height to another. */
const edge = (step: string, from: number, to: number) => ({
  ...{ name: `${step}/side/a | ${step}/side/b`, faces: [`${step}/side/a`, `${step}/side/b`], length: to - from },
  ...{ middle: [5, 5, (from + to) / 2], curve: { form: 'line', from: [5, 5, from], to: [5, 5, to] } },
});
const body = (...edges: ReturnType<typeof edge>[]) => ({ name: 'b', faces: [], vertices: [], edges }) as never;
const { top } = ORIGIN_PLANES;
const beside = (...edges: ReturnType<typeof edge>[]) => materialBeside(sketch('top'), top, [body(...edges)], 'new');

test('the material lies behind a face, and on the side of a plane on which all of it is', () => {
  expect(materialBeside(sketch({ to: 'face', name: 'e/end' }), undefined, [], 'new')).toBe('backwards');
  expect(beside(edge('e', 0, 7))).toBe('forwards');
  expect(beside(edge('e', -2, 0), edge('f', -9, -1))).toBe('backwards');
  expect(beside(edge('e', -2, 2))).toBe('both');
  expect(beside()).toBeUndefined();
  expect(materialBeside(sketch('top'), undefined, [body(edge('e', 0, 1))], 'new')).toBeUndefined();
});

test('what is being made is shown already, and says nothing of where the material is', () => {
  expect(beside(edge('e', -6, 0), edge('new', 0, 10))).toBe('backwards');
});

test('a sketch is seen as it is solved, with its centre lines counted', () => {
  const drawn: SketchStep = {
    ...sketch('front'),
    entities: {
      p: { kind: 'point', x: 0, y: 1 },
      q: { kind: 'point', x: 9, y: 1 },
      l: { kind: 'line', a: 'p', b: 'q', construction: true, centreline: true },
    },
  };
  const { geometry, centrelines } = shapeOfSketch(drawn, { values: {}, unit: 'mm' } as never);
  expect([geometry.line('l').b, centrelines]).toEqual([[9, 1], 1]);
});

test('open lines whose ends lie well apart are a path; what nearly closes is an outline with a gap', () => {
  const chain = (...places: readonly (readonly [number, number])[]) => {
    const points = places.map(([x, y], k) => [`p${k}`, { kind: 'point', x, y }] as const);
    const lines = places.slice(1).map((_, k) => [`l${k}`, { kind: 'line', a: `p${k}`, b: `p${k + 1}` }] as const);
    const drawn = { ...sketch('front'), entities: Object.fromEntries([...points, ...lines]) } as SketchStep;
    return shapeOfSketch(drawn, { values: {}, unit: 'mm' } as never).isPath;
  };
  expect(chain([44, 28], [0, 28], [0, -28], [44, -28])).toBe(true);
  expect(chain([40, 0], [0, 0], [0, 30], [40, 30], [40, 0.5])).toBe(false);
  expect(shapeOfSketch(sketch('front'), { values: {}, unit: 'mm' } as never).isPath).toBe(false);
});

test('what bodies are turned about: an axis of the sketch, else a face about it; nothing where there are several', () => {
  const { front } = ORIGIN_PLANES;
  const round = (
    name: string,
    at: readonly [number, number, number],
    direction: readonly [number, number, number],
  ) => ({
    ...{ name, area: 1, centre: at, surface: { form: 'cylinder', origin: at, axis: direction, radius: 4 } },
  });
  const turned = (...faces: unknown[]) =>
    axisBeside('s', front, [{ name: 'b', edges: [], vertices: [], faces } as never]);
  const [shaft, across] = [round('r/side/a', [0, 0, 7], [0, 0, -1]), round('h/side/c', [0, 3, 7], [0, 1, 0])];
  expect(turned(shaft, across)).toEqual({ to: 'drawn', step: 's', entity: 'y-axis' });
  expect(turned(round('r/side/a', [5, 0, 7], [0, 0, 1]))).toMatchObject({ to: 'face', name: 'r/side/a' });
  expect(turned(shaft, round('k/side/c', [5, 0, 7], [0, 0, 1]))).toBeUndefined();
  expect(turned(across)).toBeUndefined();
  expect(turned()).toBeUndefined();
});
