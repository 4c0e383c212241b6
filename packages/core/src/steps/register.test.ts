import { ok } from '../result/index.ts';
import { LENGTH } from '../units/index.ts';
import { stepsPage } from '../document/steps-page.ts';
import { changing } from './define.ts';
import { choice, number, picks } from './fields/index.ts';
import { fillet } from './fillet/index.ts';
import { OFFERED_STEPS, STEP_NAMES, stepKind } from './index.ts';
import type { ResolveContext } from './kind.ts';
import { stepRegister } from './register.ts';

/** A kind that the product does not have: one object, as it would be in a folder of its own. */
const dent = changing('dent', {
  title: 'Dent',
  noun: 'Dimple',
  verb: { key: '', title: 'Dent it', likely: ['face'], says: 'Presses dents into faces.' },
  fields: {
    at: picks('faces', 'face', { max: 3, many: 'faces' }),
    deep: number('depth', { asks: LENGTH, initial: '0.5 mm', min: 0.1, max: 2 }),
    shape: choice('shape', { ball: 'round', cone: 'pointed' }, 'ball'),
  },
  sentence: 'Dent {at} by {deep}[?, {shape}]',
  inputs: ({ at, deep, shape }) => ok({ faces: at.length, deep, shape }),
  build: (_, before) => ok(before),
  words: { 'dent.deep': () => 'So deep a dent goes through: make it shallower.' },
});

const register = stepRegister({ fillet, dent });
const step = { kind: 'dent', name: 'Dent 1', deep: '1 mm', at: [{ to: 'face', name: 's1/end' }] } as const;

describe('a kind that is added by one object', () => {
  test('is in the schema: what it asks is checked, what nobody asked is refused', () => {
    expect(register.schema.parse(step)).toEqual(step);
    expect(register.schema.safeParse({ ...step, shape: 'square' }).success).toBe(false);
    expect(register.schema.safeParse({ ...step, radius: '1 mm' }).success).toBe(false);
    expect(register.schema.safeParse({ ...step, kind: 'bump' }).success).toBe(false);
  });

  test('is offered, after those that stand before it', () => {
    expect(register.offered.map(({ kind, title, key }) => [kind, title, key])).toEqual([
      ['fillet', 'Round', 'U'],
      ['dent', 'Dent it', ''],
    ]);
    expect(register.offered[1]!.likely).toEqual(['face']);
  });

  test('has a sentence, lines that ask, expressions and what it needs', () => {
    const kind = register.kind('dent');
    const phrases = kind.sentence(step as never, () => 'Plate');
    expect(phrases.map((phrase) => ('text' in phrase ? phrase.text : '')).join('')).toBe(
      'Dent the end of Plate by 1 mm',
    );
    expect(kind.picks!(step as never).map(({ field, max }) => [field, max])).toEqual([['at', 3]]);
    expect(kind.expressions(step as never)).toEqual([
      { path: ['deep'], label: 'Dent 1 · depth', text: '1 mm', asks: LENGTH },
    ]);
    expect(kind.references!(step as never).map(({ path }) => path)).toEqual([['at', '0']]);
  });

  test('is resolved and built, its bounds are held', () => {
    const context = {
      scope: { value: () => undefined },
      find: () => ok({ to: 'face' }),
    } as unknown as ResolveContext;
    expect(dent.resolve(step, context)).toEqual(ok({ faces: 1, deep: 1, shape: 'ball' }));
    expect(dent.resolve({ ...step, deep: '3 mm' }, context)).toMatchObject({ issue: { code: 'field.bounds' } });
    expect(dent.resolve({ ...step, at: [] }, context)).toMatchObject({ issue: { code: 'reference.missing' } });
    expect(dent.build({ faces: 1, deep: 1, shape: 'ball' }, [7], undefined as never)).toEqual(ok([7]));
  });

  test('is in the words and in the docs', () => {
    expect(register.words['dent.deep']!({}, String)).toContain('shallower');
    const page = stepsPage(register);
    expect(page).toContain('## Dent (`dent`)');
    expect(page).toContain('| `deep` | depth | a length from 0.1 to 2 mm | `0.5 mm` |');
    expect(page).toContain('| `shape` | shape | `ball` round, `cone` pointed | `ball` |');
  });
});

test('no key opens two kinds of steps', () => {
  const keys = OFFERED_STEPS.map(({ key }) => key).filter(Boolean);
  expect(new Set(keys).size).toBe(keys.length);
  expect(STEP_NAMES.filter((name) => stepKind(name).verb === undefined)).toEqual(['sketch']);
});
