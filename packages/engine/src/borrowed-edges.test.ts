import {
  borrowingOf,
  fingerprintOfEdge,
  projected,
  type Action,
  type Id,
  type Reference,
  type SketchStep,
  type Thing,
} from '@helb/core';
import type { OpenCascadeKernel } from '@helb/kernel';
import { startKernelInNode } from '@helb/kernel/node';
import { changed, Plate } from './test-plate.ts';

let kernel: OpenCascadeKernel;
beforeAll(async () => (kernel = await startKernelInNode()));

test('an edge goes on being borrowed, whatever its ends came to be called', async () => {
  const plate = new Plate(kernel);
  const { reference, thing } = await plate.face(`${plate.ids['plate']}/end`);
  plate.add('rim', { kind: 'sketch', name: 'Rim', plane: reference, entities: {}, relations: {} });
  const model = await plate.model();
  const { frame } = model.sketches.get(plate.ids['rim']!)!;
  const { topology } = thing as Extract<Thing, { to: 'face' }>;
  const edge = topology.edges.find(({ middle }) => middle[1] === 0 && middle[2] === 6)!;
  const seen = projected({ to: 'edge', edge, body: 0 }, 'shape', frame, () => []);
  if (!seen.ok) throw new Error(seen.issue.code);
  const source: Reference = { to: 'edge', name: edge.name, print: fingerprintOfEdge(edge) };
  const { newId } = plate.script;
  const borrowed = borrowingOf(seen.value, source, 'shape', { loans: {}, construction: false, newId });
  plate.script.do('sketch.borrow', { part: plate.part, step: plate.ids['rim']!, id: newId('o'), ...borrowed });
  // its neighbours are drawn anew, and one of them leans
  const sketch = plate.script.project.parts[plate.part]!.steps[plate.ids['sketch']!] as SketchStep;
  const uprights = Object.entries(sketch.relations).flatMap(([id, relation]) =>
    relation.kind === 'vertical' ? [[id, relation.a] as const] : [],
  );
  const after = changed(plate.script.project, {
    command: 'sketch.revise',
    input: {
      ...{ part: plate.part, step: plate.ids['sketch']!, what: 'redraw' },
      entities: Object.fromEntries(uprights.map(([, line]) => [newId('l'), sketch.entities[line]!])),
      relations: {},
      remove: uprights.flat(),
    },
  });
  const { sketches, bodies } = await plate.model(after);
  const { sources } = sketches.get(plate.ids['rim']!)!;
  expect(sources.lost).toEqual({});
  const [line] = Object.values(sources.borrowed).filter(({ kind }) => kind === 'line');
  const ends = (line as { a: Id; b: Id }) && [(line as { a: Id }).a, (line as { b: Id }).b];
  expect(ends.map((id) => sources.borrowed[id])).toEqual([
    expect.objectContaining({ kind: 'point' }),
    expect.objectContaining({ kind: 'point' }),
  ]);
  // the corners are other ones by name
  expect(bodies[0]!.topology!.edges.find(({ name }) => name === edge.name)!.ends).not.toEqual(edge.ends);

  // one that is gone is offered by what bounds the face that is drawn on, and takes the place of the one before
  const other = topology.edges.find(({ middle }) => middle[0] === 40 && middle[2] === 6)!;
  const there = projected({ to: 'edge', edge: other, body: 0 }, 'shape', frame, () => []);
  if (!there.ok) throw new Error(there.issue.code);
  const side: Reference = { to: 'edge', name: other.name, print: fingerprintOfEdge(other) };
  const loan = borrowingOf(there.value, side, 'shape', { loans: {}, construction: false, newId });
  const [wide] = Object.entries(after.values).find(([, { name }]) => name === 'wide')!;
  const script: Action[] = [
    { command: 'sketch.borrow', input: { part: plate.part, step: plate.ids['rim']!, id: 'side', ...loan } },
    { command: 'value.set', input: { id: wide, expression: '70 mm' } },
  ];
  const lost = await plate.model(changed(after, ...script));
  const [gone] = lost.steps.find(({ id }) => id === plate.ids['rim'])!.references!;
  expect(gone!.fate).toBe('gone');
  const [first, second, third] = gone!.offers;
  for (const offer of [first, second, third])
    expect(bodies[0]!.topology!.edges.find(({ name }) => name === (offer as { name: string }).name)!.middle[2]).toBe(6);
  const taken = await plate.model(
    changed(after, ...script, {
      command: 'step.repoint',
      input: { part: plate.part, step: plate.ids['rim']!, path: [...gone!.path], reference: first! },
    }),
  );
  const rim = taken.sketches.get(plate.ids['rim']!)!;
  expect(rim.sources.lost).toEqual({});
  expect(Object.values(loan.loan.makes).every((id) => rim.sources.borrowed[id])).toBe(true);
});
