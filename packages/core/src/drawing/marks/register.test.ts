import { z } from 'zod';
import type { Reference, Thing } from '../../references/index.ts';
import { ok } from '../../result/index.ts';
import { diameter } from './diameter/index.ts';
import { markFields, sizeRow, things } from './fields.ts';
import { markTries, WRITTEN_MARKS } from './index.ts';
import type { Held, MarkKind, Picked } from './kind.ts';
import { markRegister } from './register.ts';
import { TOLERANCE_TITLES, toleranceKind, toleranceSchema } from './tolerances.ts';

const schema = z.strictObject({ kind: z.literal('stamp'), ...markFields, of: things(1), text: z.string().min(1) });
/** A kind that the product does not have: one object, as it would be in a folder of its own. */
const stamp: MarkKind<z.infer<typeof schema>> = {
  schema,
  title: 'Stamp',
  written: { words: 'a stamp', begin: (view, of) => ({ kind: 'stamp', view, of, text: 'Checked' }) },
  cost: () => 3,
  read: ({ text }) => ok({ tells: [], words: text, places: () => [], draw: () => undefined as never }),
};
const register = markRegister({ diameter, stamp });

const face: Reference = { to: 'face', name: 's1/end' };

test('a kind that is added by one object is in the schema, in the words and among what is written', () => {
  const [offered] = register.written;
  const mark = offered!.begin('v1', [face], []);
  expect([offered!.kind, offered!.words]).toEqual(['stamp', 'a stamp']);
  expect(register.schema.parse(mark)).toEqual(mark);
  expect(register.schema.safeParse({ ...mark, text: '' }).success).toBe(false);
  expect(register.schema.safeParse({ ...mark, kind: 'seal' }).success).toBe(false);
  const kind = register.kind('stamp');
  expect([kind.title, kind.cost!(mark, []), kind.sized]).toEqual(['Stamp', 3, undefined]);
  // what is no dimension is not tried for what is picked
  expect(register.tries([{ reference: face, thing: {} as Thing }], 'v1').map(({ mark: one }) => one.kind)).toEqual([
    'diameter',
  ]);
});

const edge = (name: string, straight: boolean): Picked => ({
  reference: { to: 'edge', name },
  thing: {
    to: 'edge',
    body: 0,
    edge: {
      ...{ name, faces: ['a', 'b'], ends: ['p', 'q'], length: 7, middle: [3.5, 0, 0] },
      curve: straight
        ? { form: 'line', from: [0, 0, 0], to: [7, 0, 0] }
        : { form: 'circle', centre: [0, 0, 0], axis: [0, 0, 1], radius: 2, from: [2, 0, 0], to: [0, 2, 0] },
    },
  },
});

test.each([
  [[edge('e', true)], ['distance', 'diameter', 'radius', 'hole', 'chamfer']],
  [[edge('e', false)], ['diameter', 'radius', 'hole', 'chamfer']],
  [
    [edge('e', true), edge('f', true)],
    ['distance', 'distance', 'distance', 'angle', 'diameter', 'radius', 'hole', 'chamfer'],
  ],
  [
    [edge('e', true), edge('f', true), edge('g', false)],
    ['distance', 'distance', 'distance', 'distance', 'circle-of', 'diameter', 'radius', 'hole', 'chamfer'],
  ],
])('what is tried for what is picked, the likeliest first', (picks, kinds) => {
  expect(markTries(picks, 'v1').map(({ mark }) => mark.kind)).toEqual(kinds);
});

test('a straight edge by itself is measured between its corners, of another part in that', () => {
  const [{ mark, things: of }] = markTries([edge('e', true)], 'v1') as [ReturnType<typeof markTries>[number]];
  expect(mark.of).toEqual([
    { to: 'vertex', name: 'p' },
    { to: 'vertex', name: 'q' },
  ]);
  expect(of.map((thing) => 'vertex' in thing && thing.vertex.at)).toEqual([
    [0, 0, 0],
    [7, 0, 0],
  ]);
  const there: Picked = { ...edge('e', true), reference: { to: 'other', at: 'm1', on: { to: 'edge', name: 'e' } } };
  expect(markTries([there], 'v1')[0]!.mark.of).toEqual([
    { to: 'other', at: 'm1', on: { to: 'vertex', name: 'p' } },
    { to: 'other', at: 'm1', on: { to: 'vertex', name: 'q' } },
  ]);
});

test('a new datum takes the first letter that none has, and leaves out those that read like figures', () => {
  const { begin } = WRITTEN_MARKS.find(({ kind }) => kind === 'datum')!;
  const after = (...letters: string[]) =>
    begin(
      'v1',
      [face],
      letters.map((letter) => ({ kind: 'datum', letter })),
    );
  expect(after()).toMatchObject({ letter: 'A' });
  expect(after('A', 'C')).toMatchObject({ letter: 'B' });
  expect(after(...'ABCDEFGH')).toMatchObject({ letter: 'J' });
});

test('where a size is told costs nothing where one looks for it', () => {
  const held = (hollow: boolean, endOn: boolean) =>
    [{ thing: { to: 'face', face: { surface: { form: 'cylinder', hollow } } }, spot: { endOn } }] as unknown as Held[];
  const cost = (hollow: boolean, endOn: boolean) => diameter.cost!({} as never, held(hollow, endOn));
  expect([cost(true, true), cost(true, false), cost(false, true), cost(false, false)]).toEqual([0, 1, 1, 0]);
});

describe('tolerances', () => {
  test('each kind begins with what its own schema takes', () => {
    for (const kind of Object.keys(TOLERANCE_TITLES) as (keyof typeof TOLERANCE_TITLES)[]) {
      const { begun, fields } = toleranceKind(kind);
      expect(toleranceSchema.parse(begun)).toEqual(begun);
      expect(Object.keys(begun).sort()).toEqual(['kind', ...fields.map(({ name }) => name)].sort());
    }
  });

  test.each([
    [{ kind: 'even', by: 0.05 }, ['12', ' ±0.05']],
    [{ kind: 'limits', upper: 0.2, lower: -0.1 }, ['12', { upper: '+0.2', lower: '−0.1' }]],
    // ISO 286-2: H7 over 10 up to 18 mm
    [{ kind: 'fit', class: 'H7' }, ['12', ' H7', { upper: '+0.018', lower: '0' }]],
  ] as const)('%j stands behind the size', (tolerance, row) => {
    expect(sizeRow([], 12, '', { tolerance })).toEqual(ok(row));
    expect(sizeRow([], 12, '', { tolerance, extra: true })).toEqual(ok(['(', ...row, ')']));
  });

  test('limits the wrong way round and classes that are none are refused', () => {
    expect(toleranceSchema.safeParse({ kind: 'limits', upper: 0, lower: 0.1 }).success).toBe(false);
    expect(toleranceSchema.safeParse({ kind: 'fit', class: 'HH' }).success).toBe(false);
  });
});
