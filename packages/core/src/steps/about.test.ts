import { Geometry } from '../sketch/index.ts';
import { line, point } from '../sketch/test-scene.ts';
import { stepKind, type Step } from './index.ts';
import type { DrawnShape } from './kind.ts';

const beside = { to: 'drawn', step: 's', entity: 'y-axis' } as const;
const chosen = { to: 'origin', name: 'z' } as const;
/** One area, with its sides as the only lines. */
const geometry = new Geometry({
  ...{ a: point(5, 2), b: point(9, 2), c: point(9, 4) },
  ...{ ab: line('a', 'b'), bc: line('b', 'c'), ca: line('c', 'a') },
});
const begun = (kind: 'revolve' | 'helix', axis: readonly object[], shape: Partial<DrawnShape>) => {
  const drawn = { geometry, centrelines: 0, isPath: false, ...shape };
  const step = { kind, name: 'S', sketch: 's', axis } as unknown as Step;
  const next = { ...step, ...stepKind(kind).begun?.(step, drawn) } as Step & { axis: readonly object[] };
  return { axis: next.axis, asked: stepKind(kind).asked?.(next, drawn) };
};

describe.each(['revolve', 'helix'] as const)('about what a %s goes', (kind) => {
  test('what the bodies are turned about is taken', () => {
    expect(begun(kind, [], { axis: beside })).toEqual({ axis: [beside], asked: undefined });
  });

  test('a centre line and a pick stand before it', () => {
    expect(begun(kind, [], { axis: beside, centrelines: 1 })).toEqual({ axis: [], asked: undefined });
    expect(begun(kind, [chosen], { axis: beside })).toEqual({ axis: [chosen], asked: undefined });
  });

  test('where nothing tells it, it is asked', () => {
    expect(begun(kind, [], {})).toEqual({ axis: [], asked: 'axis' });
  });
});
