import { startKernelInNode } from '@helb/kernel/node';
import type { Entities } from '@helb/core';
import { Engine } from './index.ts';
import { PartFixture, circle, rectangle } from './test-fixture.ts';

beforeAll(async () => (PartFixture.engine = new Engine(await startKernelInNode())));

describe('picking by rule', () => {
  const rounded = (entities: Entities, rule: object) =>
    new PartFixture()
      .sketch('s', entities)
      .step('e', 'extrude', { sketch: 's', distance: '10 mm' })
      .step('f', 'fillet', { edges: [{ to: 'rule', gives: 'edges', ...rule }], radius: '1 mm' });
  const upright = { along: 'z', turn: 'outer' };
  const corner = (1 - Math.PI / 4) * 10;

  test('what is drawn later is rounded too, and what is gone is missed by nobody', async () => {
    expect(await rounded(rectangle(0, 0, 20, 10), upright).volume()).toBeCloseTo(2000 - 4 * corner, 6);
    const six: Entities = {
      ...rectangle(0, 0, 20, 10),
      q: { kind: 'point', x: 25, y: 5 },
      b: { kind: 'line', a: 'p1', b: 'q' },
      e: { kind: 'line', a: 'q', b: 'p2' },
    };
    const model = await rounded(six, upright).model();
    expect(model.steps.at(-1)).toMatchObject({ state: 'built' });
    const rounds = model.bodies[0]!.topology!.faces.filter(({ name }) => name.startsWith('f/round/'));
    expect(rounds).toHaveLength(5);
  });

  test('between the sides of a step and its end; where nothing fits any more it says so', async () => {
    const rim = { of: { step: 'e', role: 'side' }, and: { step: 'e', role: 'end' } };
    const model = await rounded(circle(0, 0, 8), rim).model();
    expect(model.steps.at(-1)).toMatchObject({ state: 'built' });
    expect(await rounded(circle(0, 0, 8), upright).trouble()).toBe('No edge fits the rule any more: choose again.');
  });
});

describe('a line that is divided', () => {
  const divided: Entities = {
    ...rectangle(0, 0, 20, 10),
    q: { kind: 'point', x: 8, y: 0 },
    a: { kind: 'line', a: 'p0', b: 'q' },
    z: { kind: 'line', a: 'q', b: 'p1' },
  };

  test('gives one side still, found by the name of either piece', async () => {
    for (const entity of ['a', 'z']) {
      const model = await new PartFixture()
        .sketch('s', divided)
        .step('e', 'extrude', { sketch: 's', distance: '10 mm' })
        .step('f', 'fillet', {
          edges: [{ to: 'edge', name: `e/side/${entity} | e/side/b` }].map(({ to, name }) => ({
            to,
            name: name.split(' | ').sort().join(' | '),
          })),
          radius: '1 mm',
        })
        .model();
      expect(model.steps.at(-1)).toMatchObject({ state: 'built' });
      expect(model.steps.at(-1)!.references).toBeUndefined();
      expect(model.bodies[0]!.measures.faces).toBe(7);
    }
  });
});
