import { startKernelInNode } from '@helb/kernel/node';
import { Engine } from './index.ts';
import { face, PartFixture, rectangle } from './test-fixture.ts';

// Bodies of one part may stand in each other or touch: each is what it is by itself.

beforeAll(async () => (PartFixture.engine = new Engine(await startKernelInNode())));

/** A block of 30 x 20 x 10 at the origin and another of its own from a place on, as large as told. */
const two = (x: number, y: number, w: number, d: number) =>
  new PartFixture()
    .block('b', 30, 20, 10)
    .sketch('k', rectangle(x, y, w, d))
    .step('c', 'extrude', { sketch: 'k', distance: '10 mm', result: 'new' });
const extruded = (part: PartFixture, id: string, at: Parameters<typeof rectangle>, distance: string, result: string) =>
  part.sketch(`k${id}`, rectangle(...at)).step(id, 'extrude', { sketch: `k${id}`, distance, result });
/** The bodies; every step did what it says. */
async function bodies(part: PartFixture) {
  await part.volume();
  return (await part.model()).bodies;
}
const volumes = async (part: PartFixture) =>
  (await bodies(part)).map(({ measures }) => Math.round(measures.volume_mm3 * 1e6) / 1e6).toSorted((a, b) => a - b);

test('what two bodies share is cut from both, and left to both', async () => {
  // the second stands wholly in the first; the slot meets the first alone, then both
  const within = () => two(20, 5, 6, 6);
  expect(await volumes(within())).toEqual([360, 6000]);
  expect(await volumes(extruded(within(), 's', [0, 0, 5, 20], '10 mm', 'cut'))).toEqual([360, 5000]);
  expect(await volumes(extruded(within(), 's', [0, 0, 23, 20], '4 mm', 'cut'))).toEqual([360 - 72, 6000 - 1840]);
  // half in, half out
  expect(await volumes(extruded(two(25, 5, 10, 10), 's', [0, 0, 28, 20], '10 mm', 'cut'))).toEqual([400, 700]);
  expect(await volumes(extruded(two(25, 5, 10, 10), 's', [20, 0, 8, 20], '10 mm', 'overlap'))).toEqual([300, 1600]);
  // one of them is cut away altogether
  expect(await volumes(extruded(within(), 's', [19, 0, 8, 20], '10 mm', 'cut'))).toEqual([600, 3800]);
});

test('what is added joins what it meets, and nothing else: bodies that touch or overlap stay two', async () => {
  const touching = () => two(30, 0, 10, 20);
  expect(await volumes(extruded(touching(), 's', [0, 0, 5, 20], '15 mm', 'add'))).toEqual([2000, 6500]);
  expect(await volumes(extruded(two(25, 5, 10, 10), 's', [0, 0, 5, 20], '15 mm', 'add'))).toEqual([1000, 6500]);
  // over both it joins them
  expect(await volumes(extruded(touching(), 's', [25, 0, 10, 20], '15 mm', 'add'))).toEqual([8000 + 1000]);
  // beside both it is a body more
  expect(await volumes(extruded(touching(), 's', [60, 0, 5, 20], '15 mm', 'add'))).toEqual([1500, 2000, 6000]);
});

test('faces of both are told apart, and what is done with one of them stays with it', async () => {
  const slotted = extruded(two(25, 5, 10, 10), 's', [10, 0, 18, 20], '4 mm', 'cut');
  const names = (await bodies(slotted)).flatMap(({ topology }) => topology!.faces.map(({ name }) => name));
  expect(new Set(names).size).toBe(names.length);
  const floor = names.filter((name) => name.startsWith('s/end'));
  expect(floor).toHaveLength(2);
  expect(await volumes(slotted)).toEqual([1000 - 120, 6000 - 1440]);
  // the first is that of the block, set back by 1
  slotted.step('o', 'offset-face', { faces: [face(floor[0]!)], distance: '1 mm' });
  expect(await volumes(slotted)).toEqual([1000 - 120, 6000 - 1440 - 360]);
});
