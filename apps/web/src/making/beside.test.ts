import { ORIGIN_PLANES, type SketchStep, type Topology, type Vec3 } from '@helb/core';
import { materialBeside, shapeOfSketch } from './beside.ts';

const sketch = (plane: SketchStep['plane']): SketchStep => ({
  ...{ kind: 'sketch', name: 'S', plane, entities: {}, relations: {} },
});
const body = (...places: Vec3[]): Topology => ({
  ...{ name: 'b', faces: [], edges: [] },
  vertices: places.map((at, k) => ({ name: `v${k}`, at }) as never),
});

test('the material lies behind a face, and on the side of a plane on which all of it is', () => {
  const { top } = ORIGIN_PLANES;
  expect(materialBeside(sketch({ to: 'face', name: 'e/end' }), undefined, [])).toBe('backwards');
  expect(materialBeside(sketch('top'), top, [body([0, 0, 0], [3, 4, 7])])).toBe('forwards');
  expect(materialBeside(sketch('top'), top, [body([0, 0, -2]), body([1, 1, 0])])).toBe('backwards');
  expect(materialBeside(sketch('top'), top, [body([0, 0, -2], [0, 0, 2])])).toBeUndefined();
  expect(materialBeside(sketch('top'), top, [])).toBeUndefined();
  expect(materialBeside(sketch('top'), undefined, [body([0, 0, 1])])).toBeUndefined();
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
