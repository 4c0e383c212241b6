import { StandingSteps } from './standing-steps.ts';
import type { StepInMaking } from './step-making.ts';

const fillet = (id: string, radius: string) =>
  ({ id, step: { kind: 'fillet', name: id, edges: [], radius }, isNew: true, naming: [] }) as unknown as StepInMaking;

function shelf(text: string | null = null) {
  const kept = { text };
  const open = () => new StandingSteps({ read: () => kept.text, write: (next) => (kept.text = next) });
  return { kept, open };
}

test('what is put there stands over a reload, in its part, as it was, until it is taken', () => {
  const { open } = shelf();
  const standing = open();
  standing.put('p', fillet('s1', '2 mm'));
  standing.put('p', fillet('s2', '3 mm'));
  standing.put('q', fillet('s3', '4 mm'));
  standing.put('p', fillet('s1', '2-1/8"'));
  standing.putSketch('q', 's9');
  const again = open();
  expect(again.of('p').steps).toEqual([fillet('s2', '3 mm'), fillet('s1', '2-1/8"')]);
  expect(again.of('q')).toEqual({ steps: [fillet('s3', '4 mm')], sketch: 's9' });
  expect(again.take('p', 's1')).toEqual(fillet('s1', '2-1/8"'));
  expect(again.take('p', 's1')).toBeUndefined();
  again.take('p', 's2');
  again.putSketch('q', undefined);
  expect(open().snapshot).toEqual({ q: { steps: [fillet('s3', '4 mm')] } });
});

test('each change is told once', () => {
  const standing = shelf().open();
  let told = 0;
  standing.subscribe(() => told++);
  standing.putSketch('p', 's1');
  standing.putSketch('p', 's1');
  standing.put('p', fillet('s2', '1 mm'));
  expect(told).toBe(2);
});

test.each([
  ['nothing', null],
  ['no JSON', '{"p": '],
  ['null', 'null'],
  ['a list', '[1, 2]'],
  ['parts that are none', '{"p": null, "q": 7, "r": {"steps": "many", "sketch": 3}}'],
  ['steps of no kind', '{"p": {"steps": [null, {"id": "s1", "step": {"kind": "wish"}, "naming": []}]}}'],
])('%s was kept: nothing stands, and nothing breaks', (_, text) => {
  const standing = shelf(text).open();
  expect(standing.of('p').steps).toEqual([]);
  expect(standing.of('r').sketch).toBeUndefined();
});
