import { COORDINATES } from '../naming/index.ts';
import { frameOn } from '../math/index.ts';
import { axisOfCoordinate, coordinateEquation, isBall, jointEquations, JOINTS, offeredJoints } from './joints.ts';
import type { JointKind, JointName } from './joints.ts';
import { jointSchemaOf } from './records.ts';

const side = (body: number) => ({ body, frame: frameOn([body, 2, 3], [0, 0, 1]) });

/** A kind that the product does not have, by one object: it slides along x only, and turns about nothing. */
const rail: JointKind = {
  ...{ title: 'rail', key: '', says: 'One slides along x of the other.' },
  holds: ['y', 'z', 'tilt', 'turn'],
  leaves: ['slide x'],
};

test('a kind that is added by one object is in the schema, offered, and has its equations', () => {
  const kinds = { revolute: JOINTS.revolute, rail };
  const on = { to: 'face', name: 's1/end' };
  const record = {
    ...{ name: 'Rail 1', kind: 'rail', flip: false, offset: '0 mm', angle: '0 deg' },
    a: { placement: 'p1', on, spot: 'middle' },
    b: { placement: 'p2' },
  };
  expect(jointSchemaOf(kinds).parse(record)).toEqual(record);
  expect(jointSchemaOf(kinds).safeParse({ ...record, kind: 'rope' }).success).toBe(false);
  expect(offeredJoints(kinds)).toEqual([
    { kind: 'revolute', title: 'Join revolute', key: 'V', says: JOINTS.revolute.says },
    { kind: 'rail', title: 'Join rail', key: '', says: rail.says },
  ]);
  // two places, two directions of its axis, one turn about it
  expect(jointEquations(rail, side(0), side(1)).map(({ form }) => form)).toEqual(['span', 'span', 'dot', 'dot', 'dot']);
});

test.each<[JointName, number]>([
  ['rigid', 6],
  ['revolute', 5],
  ['prismatic', 5],
  ['cylindrical', 4],
  ['pin-in-slot', 4],
  ['planar', 3],
  ['spherical', 3],
])('%s takes %i freedoms, and what it leaves is told by coordinates, but for a ball', (kind, taken) => {
  expect(jointEquations(JOINTS[kind], side(0), side(1))).toHaveLength(taken);
  const left = 6 - taken;
  expect(JOINTS[kind].leaves).toHaveLength(isBall(kind) ? 0 : left);
});

test('no key makes two kinds of joints', () => {
  const keys = offeredJoints(JOINTS).map(({ key }) => key);
  expect(new Set(keys).size).toBe(keys.length);
});

test('a coordinate goes along an axis of the first frame, or about its third', () => {
  expect(COORDINATES.map(axisOfCoordinate)).toEqual(['z', 'z', 'x', 'y']);
  for (const name of COORDINATES) {
    const equation = coordinateEquation(name, side(0), side(1), 7);
    expect(equation).toMatchObject({ form: name === 'turn' ? 'turn' : 'span', coordinate: 7 });
  }
});
