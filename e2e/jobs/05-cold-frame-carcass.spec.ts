import { expect } from '../house.ts';
import { job } from './hand.ts';

job({ name: '05 cold-frame carcass', today: 143, aim: 86 }, async (hand) => {
  const { page, bench } = hand;
  const all = () => hand.on(page.getByRole('tab', { name: 'Parts' }));
  /** Looks at a part from a side, and begins to draw on what is there. */
  const drawOn = async (part: string, side: string, place: readonly [number, number, number]) => {
    await hand.part(part);
    await hand.turnBy(page.getByRole('button', { name: side, exact: true }));
    await hand.pick(place);
    await hand.turn('s');
  };
  /** Into the carcass: as thick as a board. */
  const extrudeInwards = async () => {
    await hand.turn('l');
    await hand.key('x');
    await hand.key('w');
    await hand.type('1.8');
  };

  await hand.callPart('front');
  await all();
  await hand.on(page.getByRole('button', { name: '+ new part' }));
  await hand.type('right cheek, left cheek, back, floor, lid');
  await hand.part('front');
  await hand.turn('1');
  await hand.key('b');
  await hand.click([-30, 10]);
  await hand.point([20, 30]);
  await hand.type('96', 'Tab');
  await hand.on(page.getByRole('group', { name: 'Unit' }).getByRole('button', { name: 'cm', exact: true }));
  await hand.type('22');
  await hand.key('Escape');
  await hand.click([300, 10]);
  await hand.clickToo([0, 0]);
  await hand.key('m');
  await expect(bench.title()).toContainText('settled');
  await extrudeInwards();
  await hand.reads('front', hand.figure('Volume'), 3801.6);

  await drawOn('right cheek', 'Right', [480, 9, 110]);
  await hand.key('k');
  await hand.click([0, 0]);
  await hand.typeAt([200, 0], '52');
  await hand.click([520, 340]);
  await hand.click([0, 220]);
  await hand.click([0, 0]);
  await hand.key('n');
  await hand.click([520, 340]);
  await hand.click([0, 220]);
  await hand.typeAt([-80, 280], '12');
  await expect(bench.title()).toContainText('settled');
  await extrudeInwards();
  await hand.reads('right cheek', hand.figure('Volume'), 2620.8);

  // the same outline, taken over
  await drawOn('left cheek', 'Left', [-480, 9, 110]);
  await hand.key('r');
  await hand.click([-300, 150]);
  await extrudeInwards();
  await hand.reads('left cheek', hand.figure('Volume'), 2620.8);

  await drawOn('back', 'Back', [471, 520, 170]);
  await hand.key('b');
  await hand.click([-480, 0]);
  await hand.click([480, 340]);
  await expect(bench.title()).toContainText('settled');
  await extrudeInwards();
  await hand.reads('back', hand.figure('Volume'), 5875.2);

  // what is drawn in place stands still there: nothing has to be glued
  await all();
  const overlap = (pair: string) => async () => {
    const row = bench.desk.getByRole('listitem').filter({ hasText: pair });
    return Number(/overlap ([\d.]+)/.exec(await row.first().innerText())?.[1]);
  };
  const look = () => hand.on(bench.desk.getByRole('button', { name: 'Look' }));
  await hand.reads('four boards', hand.whole('Volume'), 14918.4);
  await hand.reads('as high as the back', hand.whole('Size', 2), 34);
  await look();
  await hand.reads('front in a cheek', overlap('front and left cheek'), 71.28);
  await hand.reads('back in a cheek', overlap('right cheek and back'), 109.487077, 1e-6);
  const free = page.getByRole('list', { name: 'Placements' }).getByText('held');
  await expect(free).toHaveCount(6);

  hand.changes();
  const undo = page.getByRole('button', { name: 'Undo' });
  const resize = async (part: string, shown: string, text: string) => {
    await hand.part(part);
    await hand.resize('Sketch 1', shown, text);
  };
  const reads = async (what: string, boards: Readonly<Record<string, number>>, sum: number, merged: number) => {
    for (const [part, volume] of Object.entries(boards)) {
      await hand.part(part);
      await hand.reads(`${what}: ${part}`, hand.figure('Volume'), volume);
    }
    await all();
    await hand.reads(`${what}: all`, hand.whole('Volume'), sum);
    await look();
    const pairs = ['front and right cheek', 'front and left cheek', 'right cheek and back', 'left cheek and back'];
    const shared = async () => {
      const overlaps = await Promise.all(pairs.map((pair) => overlap(pair)().catch(() => NaN)));
      return sum - overlaps.reduce((total, one) => total + one, 0);
    };
    await hand.reads(`${what}: merged`, shared, merged);
  };
  await resize('front', '22', '30');
  await reads(
    'higher',
    { front: 5184, 'right cheek': 3369.6, 'left cheek': 3369.6, back: 7257.6 },
    19180.8,
    18715.5858,
  );
  await hand.on(undo);
  await resize('front', '96', '110');
  await reads('wider', { front: 4356, 'left cheek': 2620.8, back: 6732 }, 16329.6, 15968.0658);
  await hand.on(undo);
  await resize('right cheek', '52', '60');
  await reads('deeper', { 'left cheek': 3024, back: 5875.2 }, 3801.6 + 2 * 3024 + 5875.2, 15363.0864);
  await hand.on(undo);
  await page.reload();
  await all();
  await hand.reads('as it was', hand.whole('Volume'), 14918.4);
  await expect(free).toHaveCount(6);
});
