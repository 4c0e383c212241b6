import { expect } from '../house.ts';
import { job } from './hand.ts';

type Vec3 = readonly [number, number, number];

job({ name: '10 drying rack', today: 256, aim: 154 }, async (hand) => {
  const { page, bench } = hand;

  // the left half of the holes, mirrored
  await hand.callPart('bar');
  await hand.turn('2');
  await hand.centredRectangle([0, 0], ['150', '36']);
  await hand.key('o');
  await hand.circle([-20, 0], 'bore = 9');
  await hand.circle([-55, 0], 'bore');
  await hand.sizeBetween([-20, 0], [0, 0], '40 / 2');
  await hand.sizeBetween([-55, 0], [0, 0], '110 / 2');
  await hand.key('Escape');
  await hand.drag([-62, 8], [-12, -8]);
  await hand.clickToo([0, 12]);
  await hand.key('3');
  await expect(bench.title()).toContainText('settled');
  await hand.turn('l');
  await hand.key('x');
  await hand.key('b');
  await hand.type('8');
  await hand.reads('bar', hand.figure('Volume'), 41164.248);

  await hand.newPart('pin');
  await hand.key('q');
  await hand.turn('2');
  await hand.key('o');
  await hand.circle([0, 0], 'bore');
  await hand.turn('l');
  await hand.key('x');
  await hand.key('b');
  await hand.type('15');
  await hand.reads('pin', hand.figure('Volume'), 954.258769, 6e-5);

  await hand.newPart('shackle');
  await hand.key('q');
  await hand.turn('1');
  await hand.key('k');
  await hand.click([44, 28]);
  await hand.typeAt([20, 28], '44');
  await hand.typeAt([0, 0], '56');
  await hand.click([44, -28]);
  await hand.key('Escape');
  await hand.key('Escape');
  await hand.click([0, 10]);
  await hand.clickToo([0, 0]);
  await hand.key('m');
  await expect(bench.title()).toContainText('settled');
  await hand.turn('l');
  await hand.key('x');
  await hand.key('b');
  await hand.choose('walls lie', 'inside (left of) the lines');
  await hand.type('7', 'Tab');
  await hand.type('28');
  await hand.reads('shackle without holes', hand.figure('Volume'), 25480);
  await hand.pick([20, 0, 28]);
  await hand.turn('s');
  await hand.key('o');
  await hand.circle([28, 0], 'bore');
  await hand.sizeBetween([28, 0], [44, 8], '16');
  await expect(bench.title()).toContainText('settled');
  await hand.cut();
  await hand.key('Enter');
  await hand.turnBy(page.getByRole('button', { name: 'Left', exact: true }));
  await hand.pick([0, 0, 12]);
  await hand.turn('s');
  await hand.key('o');
  await hand.circle([0, 0], 'bore');
  await expect(bench.title()).toContainText('settled');
  await hand.cut();
  await hand.key('Enter');
  await hand.reads('shackle', hand.figure('Volume'), 24144.0377);

  await hand.on(page.getByRole('tab', { name: 'Parts' }));
  // in its hole each turns, so far up as the leg is thick
  const join = async (hole: Vec3, other: Vec3, offset: string) => {
    await hand.key('v');
    await hand.pick(hole);
    await hand.pick(other);
    await hand.type(offset);
  };
  const place = (part: string) => hand.on(page.getByRole('button', { name: `Place ${part}` }));
  await join([-55, -4.5, 4], [0, -4.5, 7.5], '-7');
  await join([-55, -4.5, 4], [28, -4.5, -21], '-7');
  await place('pin');
  await join([55, -4.5, 4], [100, -4.5, 7.5], '-7');
  await place('shackle');
  await join([55, -4.5, 4], [95 + 28, -4.5, -21], '-7');
  await place('bar');
  await join([-55, -4.5, 60], [170 - 55, -4.5, 4], '8');
  await join([55, -4.5, 68], [55, -4.5, 60], '8');
  for (const x of [-55, 55]) {
    await place('pin');
    await hand.key('v');
    await hand.pick([x, -4.5, 68]);
    await hand.pick([100, -4.5, 7.5]);
    await hand.key('Enter');
  }
  await hand.reads('height of the stack', hand.whole('Size', 2), 72);
  const freedoms = (row: string) => async () =>
    Number(
      await page
        .getByRole('list', { name: 'Placements' })
        .getByRole('listitem')
        .filter({ hasText: row })
        .locator('.font-mono')
        .innerText(),
    );
  await hand.reads('a pin turns', freedoms('pin 4'), 1);
  await hand.on(bench.desk.getByRole('button', { name: 'Look' }));
  await expect(bench.desk).toContainText('None, in the pose that is shown.');

  hand.changes();
  const undo = page.getByRole('button', { name: 'Undo' });
  await hand.part('shackle');
  await hand.resize('Sketch 1', '44', '50');
  await hand.reads('longer legs', hand.figure('Volume'), 26496.0377);
  await hand.on(undo);
  await hand.on(page.getByRole('link', { name: 'Values' }));
  await hand.on(page.getByLabel('Expression of bore', { exact: true }));
  await hand.key('Control+a');
  await hand.type('10');
  await hand.on(page.getByRole('link', { name: 'Bench' }));
  await hand.reads('wider holes', hand.figure('Volume'), 23830.6639);
  await hand.part('bar');
  await hand.reads('wider holes of the bar', hand.figure('Volume'), 40686.7259);
  await hand.part('pin');
  await hand.reads('a thicker pin', hand.figure('Volume'), 1178.09725, 6e-5);
  await hand.on(undo);
  await hand.part('bar');
  await hand.open('Sketch 1');
  await hand.on(page.getByRole('button', { name: /: 110 \/ 2$/ }));
  await hand.type('100 / 2');
  await hand.turn('l');
  await hand.reads('holes elsewhere', hand.figure('Volume'), 41164.248);
  await hand.on(page.getByRole('tab', { name: 'Parts' }));
  await hand.reads('all follow', hand.whole('Size', 2), 72);
  await expect(bench.desk.getByText('can not all hold')).toHaveCount(0);
  await hand.on(undo);
  await page.reload();
  await hand.reads('as it was', hand.figure('Volume'), 41164.248);
});
