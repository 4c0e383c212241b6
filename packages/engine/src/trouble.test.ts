import { explain, ProjectScript } from '@helb/core';
import { placementOf } from '@helb/core/assembly';
import { rectangle, rectangleSizes } from '@helb/core/samples';
import { startKernelInNode } from '@helb/kernel/node';
import { Engine } from './index.ts';

let engine: Engine;
beforeAll(async () => (engine = new Engine(await startKernelInNode())));

/** A plate whose width is a value, its opposite hand, and one that has nothing to do with them; all are placed. */
function pair(width: string) {
  const script = new ProjectScript('Pair').do('value.add', { id: 'v', name: 'width', expression: width });
  const block = (part: string, relations = {}) =>
    script
      .do('part.add', { id: part, name: part })
      .do('step.add', {
        part,
        id: `${part}s`,
        step: { kind: 'sketch', name: 'Outline', plane: 'top', entities: rectangle(0, 0, 40, 20), relations },
      })
      .do('step.add', {
        part,
        id: `${part}e`,
        step: {
          kind: 'extrude',
          name: 'Plate',
          sketch: `${part}s`,
          areas: 'outline',
          distance: '5 mm',
          ways: 'forwards',
          result: 'new',
        },
      });
  block('left', rectangleSizes('width', '20 mm'));
  script.do('part.add', { id: 'right', name: 'right' }).do('step.add', {
    part: 'right',
    id: 'm',
    step: { kind: 'opposite-hand', name: 'Mirror', of: 'left', plane: 'right' },
  });
  block('other');
  for (const part of ['left', 'right', 'other'])
    script.do('placement.add', { id: `p-${part}`, record: placementOf(part, { part }, part === 'left') });
  return script.project;
}

test('a part with a step that fails, and what is built on it, say so; the rest does not', async () => {
  const { parts } = await engine.build(pair('-5 mm'));
  expect(parts.map(({ trouble }) => trouble?.code)).toEqual(['part.broken', 'part.built-on', undefined]);
  expect(explain(parts[0]!.trouble!)).toBe(
    '"left" is not as it is told: its step "Outline" fails. What is shown of it is the last that was good.',
  );
  expect((await engine.build(pair('30 mm'))).parts.map(({ trouble }) => trouble)).toEqual([
    undefined,
    undefined,
    undefined,
  ]);
});

test('all that is placed is troubled with any of its parts; a part alone only with its own', async () => {
  const project = pair('-5 mm');
  expect((await engine.troubles(project, undefined)).map(({ code }) => code)).toEqual(['part.broken', 'part.built-on']);
  expect((await engine.troubles(project, 'right')).map(({ code }) => code)).toEqual(['part.built-on']);
  expect(await engine.troubles(project, 'other')).toEqual([]);
});
