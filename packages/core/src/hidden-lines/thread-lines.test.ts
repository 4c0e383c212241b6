import { frameToFrame, frameOn, type Frame, type Vec3 } from '../math/index.ts';
import { ORIGIN_PLANES } from '../references/index.ts';
import type { Sign } from '../steps/index.ts';
import { threadLines } from './thread-lines.ts';

/** M8 upwards from the origin, 12 mm long. */
const outer: Sign = {
  ...{ name: 'M8', origin: [0, 0, 0], axis: [0, 0, 1], length: 12, radius: 4, diameter: 8, pitch: 1.25 },
  ...{ left: false, inside: false, full: false },
};
const inner: Sign = { ...outer, radius: 3.4, inside: true };
const toEye = (eye: Frame) => frameToFrame(eye, ORIGIN_PLANES.top);
const FRONT: Frame = { origin: [0, 0, 0], x: [1, 0, 0], y: [0, 0, 1], z: [0, -1, 0] };
const TOP = frameOn([0, 0, 0], [0, 0, 1], [1, 0, 0]);
const drawn = (sign: Sign, eye: Frame) =>
  threadLines(sign, toEye(eye), 0.01).map(({ places, curve }) => curve(places)!);
/** Half of what ISO 724 tells of the minor diameter of M8. */
const MINOR = 6.647 / 2;

test('from the side two thin lines along it: of a rod at its minor, in a bore at its major diameter', () => {
  const reach = (sign: Sign) =>
    drawn(sign, FRONT).map((line) => {
      if (line.form !== 'line') throw new Error();
      expect([line.from[1], line.to[1]].map(Math.round).sort((a, b) => a - b)).toEqual([0, 12]);
      return line.from[0];
    });
  expect(reach(outer).sort((a, b) => a - b)[1]).toBeCloseTo(MINOR, 2);
  expect(reach(outer)).toHaveLength(2);
  expect(reach(inner).sort((a, b) => a - b)).toEqual([-4, 4]);
});

test('from its end three quarters of a circle, open above at the right', () => {
  const [ring, ...more] = drawn(outer, TOP);
  if (ring?.form !== 'circle') throw new Error();
  expect(more).toEqual([]);
  expect(ring.radius).toBeCloseTo(MINOR, 2);
  const turn = (place: Vec3) => Math.round((Math.atan2(place[1], place[0]) * 180) / Math.PI);
  expect([turn(ring.from!), turn(ring.to!)]).toEqual([100, 10]);
});

test('it is looked at where it is seen: at the nearer end, and on the rod, not within it', () => {
  const [ring] = threadLines(outer, toEye(TOP), 0.01);
  expect(ring!.places[0]![2]).toBeCloseTo(12.01, 9);
  for (const { places } of threadLines(outer, toEye(FRONT), 0.01))
    for (const [x] of places) expect(Math.abs(x)).toBeCloseTo(4.01, 9);
});

test('slantwise nothing is drawn', () => {
  expect(drawn(outer, frameOn([0, 0, 0], [0.6, 0, 0.8]))).toEqual([]);
});
