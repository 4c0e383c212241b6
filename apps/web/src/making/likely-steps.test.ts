import { ProjectScript } from '@helb/core';
import { likelySteps } from './likely-steps.ts';

const origin = (name: 'front' | 'top') => ({ to: 'origin', name }) as const;

/** Three sketches, the first of them extruded and cut with. */
function part() {
  const script = new ProjectScript('Box').do('part.add', { id: 'p', name: 'box' });
  for (const id of ['s1', 's2', 's3'])
    script.do('step.add', {
      ...{ part: 'p', id },
      step: { kind: 'sketch', name: id, plane: origin('front'), entities: {}, relations: {} },
    });
  for (const [id, result] of [
    ['e1', 'new'],
    ['e2', 'cut'],
  ] as const)
    script.do('step.add', {
      ...{ part: 'p', id },
      step: { kind: 'extrude', name: id, sketch: 's1', distance: '5 mm', result },
    });
  return script.project.parts['p']!;
}

test('a step is meant for the last sketch that none uses, a repeat for the last feature', () => {
  const { stepOrder } = part();
  expect(likelySteps(part(), stepOrder, new Set())).toEqual({
    ...{ sketch: 's3', isDue: true, waiting: ['s2', 's3'], latest: ['e2'] },
  });
  // where each is used the last of all is taken, and other verbs come first
  expect(likelySteps(part(), ['s1', 'e1'], new Set())).toMatchObject({ sketch: 's1', isDue: false, waiting: [] });
  expect(likelySteps(part(), [], new Set())).toMatchObject({ sketch: undefined, isDue: false });
});

test('what is chosen comes first, in the order of the list, each where it fits', () => {
  const { stepOrder } = part();
  expect(likelySteps(part(), stepOrder, new Set(['s2']))).toMatchObject({ sketch: 's2', isDue: true, latest: ['e2'] });
  expect(likelySteps(part(), stepOrder, new Set(['e1', 's1']))).toMatchObject({ sketch: 's1', latest: ['e1'] });
  expect(likelySteps(part(), stepOrder, new Set(['s2', 's1'])).waiting).toEqual(['s1', 's2']);
  // what comes later can not be taken
  expect(likelySteps(part(), ['s1', 'e1'], new Set(['s2']))).toMatchObject({ sketch: 's1', isDue: false });
});
