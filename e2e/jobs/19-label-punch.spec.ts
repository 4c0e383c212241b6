import { expect } from '../house.ts';
import { job } from './hand.ts';

job({ name: '19 label punch', today: 299, aim: 179 }, async (hand) => {
  const { page, bench } = hand;

  // the left half of the rail, up to its middle
  await hand.callPart('rail');
  await hand.turn('1');
  await hand.key('k');
  await hand.click([0, 0]);
  for (const [to, length] of [
    [[0, 30], '19'],
    [[20, 19], '8'],
    [[8, 40], '14'],
    [[-20, 33], '8'],
    [[0, 60], '19'],
    [[30, 52], '(84 - 42) / 2'],
  ] as const) {
    await hand.point(to);
    await hand.type(length);
  }
  await hand.click([29, 41]);
  await hand.point([50, 41]);
  await hand.type('13');
  await hand.point([42, 10]);
  await hand.type('52 - 2 * 11');
  await hand.point([30, 11]);
  await hand.type('13');
  await hand.click([21, 0]);
  await hand.click([0, 0]);
  await hand.key('Escape');
  await hand.click([42, 26]);
  await hand.key('y');
  // the middle is in hand already
  await hand.key('n');
  await hand.click([0, 10]);
  await hand.click([20, -10]);
  await hand.type('84');
  await hand.sizeBetween([29, 41], [10, 52], [15, 46], '11');
  await expect(bench.title()).toContainText('settled');
  // a relation to a wrong line fights: it is found and dropped
  await hand.key('Escape');
  await hand.click([35, 41]);
  await hand.clickToo([27, 8.25]);
  await hand.key('g');
  await hand.on(page.getByTestId('fighter').first().getByRole('button', { name: 'drop' }));
  await expect(bench.title()).toContainText('settled');
  await hand.drag([-3, 55], [43.5, -3]);
  await hand.clickToo([42, 26]);
  await hand.key('3');
  await page.screenshot({ path: '/tmp/shots/rail2.png' });
  await hand.turn('l');
  await hand.key('x');
  await hand.key('w');
  await hand.type('130');
  await hand.key('Enter');
  await hand.reads('rail', hand.figure('Volume'), 441480);
  await hand.select(page.getByLabel('Material'), 'own entry…');
  await hand.type('Cast iron', 'Tab');
  await hand.type('7.2');
  await hand.reads('its mass', hand.figure('Mass'), 3178.656, 1e-5);
  console.log('rail', hand.actions);

  await hand.newPart('bow');
  await hand.turn('1');
  await hand.key('o');
  for (const diameter of ['74', '98']) await hand.circle([0, 40], diameter);
  await page.screenshot({ path: '/tmp/shots/bow0.png' });
  await hand.key('k');
  await hand.click([0, 104]);
  await hand.point([20, 104]);
  await hand.type('14');
  await hand.click([14, 86.957]);
  await hand.key('k');
  await hand.click([49, 40]);
  for (const [to, length] of [
    [[60, 40], '7'],
    [[56, 10], '40'],
    [[40, 0], '21'],
    [[35, 20], '13'],
    [[50, 13], '8'],
    [[43, 30], '22'],
    [[30, 35], '6'],
  ] as const) {
    await hand.point(to);
    await hand.type(length);
  }
  await hand.click([37, 40]);
  await page.screenshot({ path: '/tmp/shots/bow1.png' });
  await hand.sizeBetween([0, 40], [0, 0], [-20, 20], '40');
  await hand.sizeBetween([0, 104], [0, 0], [-70, 50], '104');
  await page.screenshot({ path: '/tmp/shots/bow2.png' });
  await expect(bench.title()).toContainText('settled');
  console.log('bow', hand.actions);
});
