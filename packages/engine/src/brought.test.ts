import {
  designScope,
  explain,
  broughtFrom,
  perform,
  ProjectScript,
  seedSieve,
  valueScope,
  type Action,
  type Project,
} from '@helb/core';
import { placementOf, triple } from '@helb/core/assembly';
import { rectangle } from '@helb/core/samples';
import { startKernelInNode } from '@helb/kernel/node';
import { Engine, inspect, type PartModel } from './index.ts';
import { total } from './test-fixture.ts';

let engine: Engine;
beforeAll(async () => (engine = new Engine(await startKernelInNode())));

const did = (project: Project, ...actions: Action[]): Project => {
  const done = perform(project, actions);
  if (!done.ok) throw new Error(explain(done.issue));
  return done.value.project;
};
const build = async (project: Project) => {
  const { parts } = await engine.build(project);
  return Object.fromEntries(parts.map((part) => [part.id, part])) as Record<string, PartModel>;
};
const told = ({ steps }: PartModel) => steps.flatMap(({ issue }) => (issue ? [explain(issue)] : []));

/** A block 10 x 20 x `high`, in a project of its own, with a hole `bore` through it when it is asked for. */
function block(): ProjectScript {
  return new ProjectScript('Blocks')
    .do('value.add', { id: 'h', name: 'high', expression: 'half * 2' })
    .do('value.add', { id: 'm', name: 'half', expression: '15 mm' })
    .do('value.add', { id: 'x', name: 'unused', expression: '1 mm' })
    .do('part.add', { id: 'b', name: 'Block' })
    .do('step.add', { part: 'b', id: 's', step: sketch(rectangle(0, 0, 10, 20)) })
    .do('step.add', { part: 'b', id: 'e', step: { kind: 'extrude', name: 'E', sketch: 's', distance: 'high' } });
}
const sketch = (entities: ReturnType<typeof rectangle>, plane: unknown = 'top') =>
  ({ kind: 'sketch', name: 'S', plane, entities, relations: {} }) as never;
const revision = (document: Project, number = 1) => ({ project: 'a0b1c2d3e4f5', revision: number, document });

test('every part of the demo, brought into an empty project, is what it is there', async () => {
  const demo = seedSieve();
  const there = await build(demo);
  let project = new ProjectScript('Here').project;
  for (const id of demo.partOrder) {
    const from = broughtFrom(revision(demo), id);
    project = did(project, { command: 'part.bring', input: { id, from } });
  }
  const here = await build(project);
  for (const id of demo.partOrder) {
    expect(told(here[id]!)).toEqual([]);
    expect(here[id]!.steps).toEqual(there[id]!.steps);
    expect(total(here[id]!)).toBeCloseTo(total(there[id]!), 9);
  }
});

describe('values', () => {
  const project = (given: Record<string, string> = {}) =>
    new ProjectScript('Here')
      .do('value.add', { id: 'h', name: 'high', expression: '1 mm' })
      .do('value.add', { id: 'w', name: 'wide', expression: '4 cm' })
      .do('part.bring', { id: 'b', from: { ...broughtFrom(revision(block().project), 'b'), given } }).project;

  test('are those of its own project, whatever is called alike here', async () => {
    expect(total((await build(project()))['b']!)).toBeCloseTo(10 * 20 * 30, 6);
  });

  test('may be given by expressions over those that are here; what depends on them follows', async () => {
    expect(total((await build(project({ h: 'wide' })))['b']!)).toBeCloseTo(10 * 20 * 40, 6);
    expect(total((await build(project({ m: 'wide / 8' })))['b']!)).toBeCloseTo(10 * 20 * 10, 6);
    expect(total((await build(project({ m: '7' })))['b']!)).toBeCloseTo(10 * 20 * 14, 6);
    const { parts } = inspect(project({ m: 'wide / 8' }), await engine.build(project({ m: 'wide / 8' })));
    expect(parts[0]!.from).toEqual({
      project: 'Blocks',
      revision: 1,
      variant: null,
      part: 'Block',
      given: [{ name: 'half', expression: 'wide / 8' }],
    });
  });

  test('of the wrong kind, or unknown here, are told at the steps that use them', async () => {
    expect(told((await build(project({ m: '30 deg' })))['b']!)[0]).toContain('asks for a length');
    expect(told((await build(project({ m: 'half' })))['b']!)[0]).toContain('half');
  });

  test('a loop in its own project stays a loop there, and none comes by what is given', () => {
    const { from } = project({ m: 'high' }).parts['b']!;
    const scope = designScope(from!, valueScope([{ name: 'high', expression: '3 mm' }], 'mm'));
    expect(scope.lookup('half')).toMatchObject({ ok: true, value: { amount: 3 } });
    expect(scope.lookup('high')).toMatchObject({ ok: true, value: { amount: 6 } });
  });
});

describe('another revision', () => {
  /** Two blocks, the second with its bottom on the top of the first. */
  const stacked = () => {
    const side = (placement: string, name: string) =>
      ({ placement, on: { to: 'face', name }, spot: 'middle' }) as const;
    return new ProjectScript('Here')
      .do('part.bring', { id: 'b', from: broughtFrom(revision(block().project), 'b') })
      .do('placement.add', { id: 'p', record: placementOf('Lower', { part: 'b' }, true) })
      .do('placement.add', {
        id: 'q',
        record: { ...placementOf('Upper', { part: 'b' }), at: triple('50 mm', '0 mm', '0 mm') },
      })
      .do('joint.add', {
        id: 'j',
        record: {
          ...{ name: 'Glued', kind: 'rigid', flip: false, offset: '0 mm', angle: '0 deg' },
          ...{ a: side('p', 'e/end'), b: side('q', 'e/start') },
        },
      }).project;
  };
  const heightOf = async (project: Project) => {
    const { assembled } = await engine.assemble(project);
    expect([...assembled.issues]).toEqual([]);
    const upper = assembled.mechanism.bodies.findIndex((_, k) =>
      assembled.members.some((m) => m.id === 'q' && m.body === k),
    );
    return assembled.rest.poses[upper]![2][3];
  };
  const update = (document: Project, number = 2): Action => ({
    command: 'part.update',
    input: { id: 'b', from: broughtFrom(revision(document, number), 'b') },
  });

  test('joints go on, since faces have names', async () => {
    expect(await heightOf(stacked())).toBeCloseTo(30, 6);
    const higher = block().do('value.set', { id: 'm', expression: '20 mm' });
    // an earlier sketch is drawn anew, and a step is put before
    const widened = higher.do('step.add', { part: 'b', id: 's0', step: sketch(rectangle(0, 0, 3, 3)), at: 0 });
    expect(await heightOf(did(stacked(), update(widened.project)))).toBeCloseTo(40, 6);
  });

  test('what is gone there is told here', async () => {
    const other = new ProjectScript('Blocks')
      .do('part.add', { id: 'b', name: 'Block' })
      .do('step.add', { part: 'b', id: 's', step: sketch(rectangle(0, 0, 10, 20)) })
      .do('step.add', { part: 'b', id: 'n', step: { kind: 'extrude', name: 'N', sketch: 's', distance: '5 mm' } });
    const { assembled } = await engine.assemble(did(stacked(), update(other.project)));
    expect(assembled.issues.size).toBe(1);
  });

  test('the rest is not built again', async () => {
    const project = stacked();
    await engine.build(project);
    const seen: string[] = [];
    const more = block().do('part.add', { id: 'c', name: 'Other' });
    await engine.build(did(project, update(more.project)), { progress: (_done, _of, name) => seen.push(name) });
    expect(seen).toEqual([]);
  });
});

test('parts that are drawn here take from those that come from elsewhere', async () => {
  const plane = { to: 'other', at: 'p', on: { to: 'face', name: 'e/end' } };
  const { project } = new ProjectScript('Here')
    .do('part.bring', { id: 'b', from: broughtFrom(revision(block().project), 'b') })
    .do('placement.add', { id: 'p', record: placementOf('Lower', { part: 'b' }, true) })
    .do('part.add', { id: 'c', name: 'Cover' })
    .do('step.add', { part: 'c', id: 't', step: sketch(rectangle(0, 0, 10, 20), plane) })
    .do('step.add', { part: 'c', id: 'u', step: { kind: 'extrude', name: 'U', sketch: 't', distance: '2 mm' } })
    .do('part.add', { id: 'd', name: 'Other hand' })
    .do('step.add', { part: 'd', id: 'o', step: { kind: 'opposite-hand', name: 'O', of: 'b' } });
  const { c, d } = await build(project);
  expect([c, d].flatMap((part) => told(part!))).toEqual([]);
  expect(c!.bodies[0]!.measures.box_mm.low[2]).toBeCloseTo(30, 6);
  expect(total(d!)).toBeCloseTo(6000, 6);
  // and so they do when they are brought further
  const further = new ProjectScript('Further')
    .do('part.bring', { id: 'x', from: broughtFrom(revision(project), 'c') })
    .do('part.bring', { id: 'y', from: broughtFrom(revision(project), 'd') }).project;
  const { x, y } = await build(further);
  expect(x!.bodies[0]!.measures.box_mm.low[2]).toBeCloseTo(30, 6);
  expect(total(y!)).toBeCloseTo(6000, 6);
});
