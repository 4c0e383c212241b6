import {
  distance3,
  fingerprintOfEdge,
  fingerprintOfFace,
  ORIGIN_PLANES,
  rotation,
  transformDirection,
  transformPoint,
  type Datum,
  type Id,
  type Reference,
  type Vec3,
} from '@helb/core';
import { startKernelInNode } from '@helb/kernel/node';
import { Engine } from './index.ts';
import { axis, body, circle, PartFixture, rectangle } from './test-fixture.ts';

// Directions on and about what is turned go along with it: nothing is turned by itself where an axis or a face gets steep.

beforeAll(async () => {
  PartFixture.engine = new Engine(await startKernelInNode());
});

const rad = (deg: number) => (deg * Math.PI) / 180;
const turned = (about: Vec3, deg: number) => rotation([0, 0, 0], about, rad(deg));

/** A wedge over Front whose top leans by 50 deg, or a block; turned about an axis of the part. */
const wedge = (part: PartFixture) =>
  part
    .sketch(
      's',
      {
        p0: { kind: 'point', x: 0, y: 0 },
        p1: { kind: 'point', x: 60, y: 0 },
        p2: { kind: 'point', x: 50 * Math.cos(rad(50)), y: 50 * Math.sin(rad(50)) },
        a: { kind: 'line', a: 'p0', b: 'p1' },
        b: { kind: 'line', a: 'p1', b: 'p2' },
        c: { kind: 'line', a: 'p0', b: 'p2' },
      },
      'front',
    )
    .step('e', 'extrude', { sketch: 's', distance: '30 mm' });
const turn = (part: PartFixture, about: 'x' | 'y' | 'z', deg: number) =>
  part.step('m', 'move', { bodies: [body('e')], turn: 'yes', angle: `${deg} deg`, about: [axis(about)] });

async function datumOf(part: PartFixture, id: Id): Promise<Datum> {
  const { steps, datums } = await part.model();
  expect(steps.flatMap(({ issue }) => issue ?? [])).toEqual([]);
  return datums.get(id)!;
}

test('what is drawn on a face that leans goes along when all is turned about the vertical', async () => {
  const first = await turn(wedge(new PartFixture()), 'z', 10).model();
  const leaning = first.bodies[0]!.topology!.faces.find(({ name }) => name.includes('side/c'))!;
  const ground: Reference = { to: 'face', name: leaning.name, print: fingerprintOfFace(leaning) };
  const boss = (deg: number) =>
    turn(wedge(new PartFixture()), 'z', deg)
      .sketch('t', rectangle(5, 12, 4, 9), ground)
      .step('b', 'extrude', { sketch: 't', distance: '2 mm', result: 'new' });
  const centre = async (deg: number): Promise<Vec3> => {
    const { steps, bodies } = await boss(deg).model();
    expect(steps.flatMap(({ issue }) => issue ?? [])).toEqual([]);
    return bodies.at(-1)!.measures.centre_mm;
  };
  const begun = await centre(10);
  for (const deg of [40, 90, 100, 150, 189, 191, 275, 359])
    expect([deg, distance3(await centre(deg), transformPoint(turned([0, 0, 1], deg - 10), begun))]).toEqual([
      deg,
      expect.closeTo(0, 6),
    ]);
});

test.each(['face', 'edge'] as const)(
  'a curve that winds about a round %s begins where it did, however it is tilted',
  async (to) => {
    const rod = (deg: number) =>
      turn(
        new PartFixture().sketch('s', circle(20, 0, 5)).step('e', 'extrude', { sketch: 's', distance: '30 mm' }),
        'y',
        deg,
      );
    const { topology } = (await rod(20).model()).bodies[0]!;
    const face = topology!.faces.find(({ name }) => name.includes('side'))!;
    const rim = topology!.edges.find(({ curve }) => curve.form === 'circle')!;
    const about: Reference =
      to === 'face'
        ? { to, name: face.name, print: fingerprintOfFace(face) }
        : { to, name: rim.name, print: fingerprintOfEdge(rim) };
    const beginning = async (deg: number): Promise<Vec3> => {
      const datum = await datumOf(rod(deg).step('h', 'helix-curve', { axis: [about] }), 'h');
      if (datum.form !== 'curve' || datum.edge.curve.form !== 'helix') throw new Error('no helix');
      return datum.edge.curve.x;
    };
    const begun = await beginning(20);
    for (const deg of [5, 30, 70, 110, 155])
      expect([deg, distance3(await beginning(deg), transformDirection(turned([0, 1, 0], deg - 20), begun))]).toEqual([
        deg,
        expect.closeTo(0, 6),
      ]);
  },
);

/** A line on a plane that goes off at an angle, and a plane square to it at its end. */
const pathAt = (deg: number, ground: 'front' | 'top' | 'right', how: string) =>
  new PartFixture()
    .sketch(
      's',
      {
        p: { kind: 'point', x: 3, y: 2 },
        q: { kind: 'point', x: 3 + 20 * Math.cos(rad(deg)), y: 2 + 20 * Math.sin(rad(deg)) },
        l: { kind: 'line', a: 'p', b: 'q' },
      },
      ground,
    )
    .step('d', 'datum-plane', {
      how,
      on: [
        { to: 'drawn', step: 's', entity: 'l' },
        { to: 'drawn', step: 's', entity: 'q' },
      ],
    });
const frameOf = async (part: PartFixture) => {
  const datum = await datumOf(part, 'd');
  if (datum.form !== 'plane') throw new Error('no plane');
  return datum.frame;
};

test.each(['front', 'top', 'right'] as const)(
  'a plane square to a line drawn on %s turns with that, all the way round',
  async (ground) => {
    const begun = await frameOf(pathAt(0, ground, 'square'));
    expect(distance3(begun.z, ORIGIN_PLANES[ground].x)).toBeCloseTo(0, 9);
    for (const deg of [30, 60, 70, 90, 120, 180, 250, 300]) {
      const { x, z } = await frameOf(pathAt(deg, ground, 'square'));
      const round = turned(ORIGIN_PLANES[ground].z, deg);
      const apart = [
        distance3(x, transformDirection(round, begun.x)),
        distance3(z, transformDirection(round, begun.z)),
      ];
      expect([deg, ...apart]).toEqual([deg, expect.closeTo(0, 9), expect.closeTo(0, 9)]);
    }
  },
);

test('one that was made before keeps its usual directions', async () => {
  const [flat, steep] = [await frameOf(pathAt(60, 'front', 'normal')), await frameOf(pathAt(70, 'front', 'normal'))];
  expect(distance3(flat.x, [0, 1, 0])).toBeCloseTo(0, 9);
  expect(distance3(steep.y, [0, 1, 0])).toBeCloseTo(0, 9);
});
