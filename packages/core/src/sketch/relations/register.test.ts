import { z } from 'zod';
import { idSchema } from '../../records/index.ts';
import { Geometry } from '../geometry.ts';
import { copied, EditBuilder } from '../editing/index.ts';
import type { Relation } from './index.ts';
import { CLICKED_SIZES, OFFERED_RELATIONS, relationKind } from './index.ts';
import { distance } from './distance/index.ts';
import type { RelationKind } from './kind.ts';
import { relationRegister } from './register.ts';

const schema = z.strictObject({ kind: z.literal('apart'), a: idSchema, b: idSchema });
/** A kind that the product does not have: one object, as it would be in a folder of its own. */
const apart: RelationKind<z.infer<typeof schema>> = {
  schema,
  title: 'Apart',
  verb: { key: '', last: true, says: 'Does something.', wants: 'a point' },
  mark: '≠',
  words: 'do not touch',
  refs: ({ a, b }) => [a, b],
  roles: ({ a, b }) => ({ [a]: ['line'], [b]: ['line'] }),
  fit: ([a, b]) => (a !== undefined && b !== undefined ? { kind: 'apart', a, b } : undefined),
  equations: () => ({}),
  anchors: () => [],
};
const register = relationRegister({ distance, apart });

test('a kind that is added by one object is in the schema, offered, and of no other', () => {
  const relation = { kind: 'apart', a: 'l1', b: 'l2' };
  expect(register.schema.parse(relation)).toEqual(relation);
  expect(register.schema.safeParse({ ...relation, value: '3 mm' }).success).toBe(false);
  expect(register.schema.safeParse({ ...relation, kind: 'aside' }).success).toBe(false);
  expect(register.offered).toEqual([
    { kind: 'apart', title: 'Apart', key: '', last: true, says: 'Does something.', wants: 'a point' },
  ]);
  expect(register.kind('apart').fit(['l1', 'l2'], new Geometry({}))).toEqual(relation);
  // dimensions are made by the size tool
  expect(register.clicked).toEqual(['distance']);
});

test('no key is taken twice for the same things, and the size tool asks for what is across before it measures plainly', () => {
  const shared = OFFERED_RELATIONS.flatMap(({ kind, key }) =>
    key && OFFERED_RELATIONS.some((other) => other.kind !== kind && other.key === key) ? [kind] : [],
  );
  // both tell how large something is across: of a circle, and of an ellipse
  expect(shared).toEqual(['diameter', 'axis']);
  const round = new Geometry({
    centre: { kind: 'point', x: 0, y: 0 },
    tip: { kind: 'point', x: 8, y: 0 },
    circle: { kind: 'circle', centre: 'centre', radius: 5 },
    ellipse: { kind: 'ellipse', centre: 'centre', tip: 'tip', minor: 5 },
  });
  const fitting = (id: string) => shared.filter((kind) => relationKind(kind).fit([id], round));
  expect([fitting('circle'), fitting('ellipse')]).toEqual([['diameter'], ['axis']]);
  expect(CLICKED_SIZES).toEqual(['across', 'distance', 'diameter', 'angle', 'axis']);
});

describe('what is left of a relation when all that it is between is carried', () => {
  const by = (angle: number, scale = 1) => ({ about: [0, 0], angle, scale, shift: [0, 0] }) as const;
  const left = (relation: Relation, angle: number): unknown => {
    const { carried } = relationKind(relation.kind);
    return carried ? carried(relation, by(angle)) : relation;
  };
  const level: Relation = { kind: 'horizontal', a: 'l' };
  const upright: Relation = { kind: 'vertical', a: 'l' };
  const across: Relation = { kind: 'distance', a: 'p', b: 'q', direction: 'horizontal', sense: 1, value: '7' };

  test.each<[Relation, number, unknown]>([
    [level, 0, level],
    [level, Math.PI / 2, upright],
    [level, -Math.PI / 2, upright],
    [level, Math.PI, level],
    [upright, 5 * Math.PI * 0.5, level],
    [level, 0.3, undefined],
    [across, 0, across],
    [across, 0.3, undefined],
    [{ ...across, direction: 'aligned' }, 0.3, { ...across, direction: 'aligned' }],
    [{ kind: 'fixed', entity: 'p', at: [1, 2] }, 0, undefined],
    [{ kind: 'parallel', a: 'l', b: 'm' }, 1, { kind: 'parallel', a: 'l', b: 'm' }],
  ])('%j turned by %d', (relation, angle, expected) => {
    expect(left(relation, angle)).toEqual(expected);
  });

  test('lengths grow with the scale, angles do not', () => {
    const drawing = {
      entities: {
        p: { kind: 'point', x: 0, y: 0 },
        q: { kind: 'point', x: 10, y: 0 },
        r: { kind: 'point', x: 0, y: 10 },
        l: { kind: 'line', a: 'p', b: 'q' },
        m: { kind: 'line', a: 'p', b: 'r' },
      },
      relations: {
        d: { kind: 'distance', a: 'p', b: 'q', direction: 'aligned', sense: 1, value: '2-1/8"' },
        w: { kind: 'angle', a: 'l', b: 'm', alongA: 1, alongB: 1, sense: 1, value: '90 deg' },
      },
    } as const;
    let next = 0;
    const builder = new EditBuilder({ ...drawing, geometry: new Geometry(drawing.entities) }, () => `n${next++}`);
    const edit = copied(builder, ['l', 'm'], by(0, 2.5));
    expect(edit.ok).toBe(true);
    const made = Object.values(edit.ok ? edit.value.relations : {}).map(
      (relation) => (relation as { value: string }).value,
    );
    expect(made.sort()).toEqual(['(2-1/8") * 2.5', '90 deg']);
  });
});
