import { expect } from '../house.ts';
import { job } from './hand.ts';

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
  await hand.key('Enter');
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
  await hand.key('Enter');
  await hand.reads('pin', hand.figure('Volume'), 954.258769);

  await hand.newPart('shackle');
  await hand.key('q');
  await hand.turn('1');
  await hand.key('k');
  await hand.click([30, 28]);
  await hand.point([10, 28]);
  await hand.type('44');
  await page.screenshot({ path: '/tmp/shots/c10a.png' });
  await hand.point([-14, 0]);
  await hand.type('56');
  await hand.click([30, -28]);
  await hand.key('Escape');
  await page.screenshot({ path: '/tmp/shots/c10.png' });
});
