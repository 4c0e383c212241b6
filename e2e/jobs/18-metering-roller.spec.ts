import { expect } from '../house.ts';
import { job } from './hand.ts';

job({ name: '18 metering roller', today: 218, aim: 131 }, async (hand) => {
  const { page, bench } = hand;
  await hand.callPart('hub');
  await hand.turn('1');

  // the right half of what is outside, each line by its length
  await hand.key('k');
  await hand.click([0, 0]);
  await hand.typeAt([0, 20], '17');
  await hand.typeAt([20, 17], '12');
  await hand.typeAt([12, 24], '1');
  await hand.typeAt([30, 18], '9');
  await hand.typeAt([21, 8], '4');
  await hand.key('Escape');
  await hand.key('Escape');
  await hand.drag([-2, 21], [25, 12]);
  await hand.clickToo([0, -8]);
  await hand.key('3');
  await hand.turnBy(page.getByRole('button', { name: 'Fit', exact: true }));

  // the rest: a line right across, and the right hollow below it
  await hand.key('k');
  await hand.click([-21, 14]);
  await hand.click([21, 14]);
  await hand.key('k');
  await hand.click([6, 14]);
  await hand.click([6, 0]);
  await hand.typeAt([14, 0], '12');
  await hand.typeAt([18, 9], '11');
  await hand.click([21, 11]);
  await hand.click([21, 14]);
  await hand.key('n');
  await hand.click([6, 7]);
  await hand.clickToo([0, 5]);
  await hand.click([3, -6]);
  await hand.type('3');
  await expect(bench.title()).toContainText('settled');
  await hand.turn('l');
  await hand.key('v');
  await hand.key('Enter');
  await hand.reads('turned hub', hand.figure('Volume'), 23053.0069);

  // a cross on the floor of the deep pocket
  await hand.turnBy(page.getByRole('button', { name: 'Left', exact: true }));
  await hand.pick([3, 6, 6]);
  await hand.turn('s');
  await hand.key('o');
  await hand.circle([0, 0], '9');
  await hand.key('k');
  await hand.click([0, 0]);
  await hand.click([0, 10]);
  await hand.key('Control+z');
  await hand.click([0, 14]);
  // beside it on both sides, the second by a wrong number
  await hand.key('f');
  await hand.click([0, 9]);
  await hand.typeAt([2, 9], '1.5');
  await hand.click([0, 9]);
  await hand.typeAt([-2, 9], '15');
  await hand.size('15', '1.5');
  // closed above, and four times round
  await hand.key('k');
  await hand.click([-1.5, 14]);
  await hand.click([1.5, 14]);
  await hand.key('Escape');
  await hand.key('Escape');
  await hand.click([1.5, 9]);
  await hand.clickToo([-1.5, 9]);
  await hand.clickToo([0.7, 14]);
  await hand.clickToo([0, 0]);
  await hand.key('5');
  await hand.on(page.getByRole('button', { name: 'pattern count: 6' }));
  await hand.type('4');
  await hand.turn('l');
  await hand.key('x');
  await hand.type('7');
  await hand.reads('hub with its cross', hand.figure('Volume'), 24301.1953);

  // a blind hole from the other side
  await hand.turnBy(page.getByRole('button', { name: 'Right', exact: true }));
  await hand.pick([15, 5, 5]);
  await hand.turn('s');
  await hand.key('o');
  await hand.circle([0, 0], '6.4');
  await hand.cut('14');
  await hand.reads('the hub', hand.figure('Volume'), 23850.8166);
  await hand.reads('its centre', hand.figure('Centre of mass'), 3.67790383, 5e-3);

  // the sleeve
  await hand.newPart('sleeve');
  await hand.turn('2');
  await hand.key('o');
  await hand.circle([0, 0], '36');
  await hand.key('f');
  await hand.click([18, 0]);
  await hand.typeAt([23, 2], '6.5');
  await hand.turn('l');
  await hand.key('x');
  await hand.type('38');
  await hand.reads('ring', hand.figure('Volume'), 32978.8689);
  // both its outer edges, by the face between them
  await hand.pick([24.5 * Math.SQRT1_2, -24.5 * Math.SQRT1_2, 19]);
  await hand.key('c');
  await hand.type('2.4');
  await hand.reads('ring with its chamfers', hand.figure('Volume'), 32121.1387);
  await hand.pick([0, -20, 38]);
  await hand.turn('s');
  await hand.centredRectangle([0, 30], ['2.4', '5.2']);
  await hand.sizeBetween([0.9, 27.4], [0, 0], '20.8', [9, 9]);
  await expect(bench.title()).toContainText('settled');
  await hand.cut();
  await hand.key('Enter');
  await hand.reads('one flute', hand.figure('Volume'), 32121.1387 - 322.716367);
  await hand.key('g');
  await hand.pick([0, 0, 42]);
  await hand.type('24');
  await hand.reads('the sleeve', hand.figure('Volume'), 24375.9459);
  await hand.on(page.getByRole('tab', { name: 'Parts' }));
  await hand.key('r');
  await hand.pick([-21, 12.73, -12.73]);
  await hand.pick([12.73, -12.73, 38]);
  await hand.key('Enter');
  await hand.turnBy(page.getByRole('button', { name: 'Left', exact: true }));
  // a wrong face first, then the ends flush
  await hand.key('r');
  await hand.pick([-21, 5, 5]);
  await hand.key('Escape');
  await hand.key('r');
  await hand.pick([-21, 11.3, 11.3]);
  await hand.pick([-21, 13.7, 13.7]);
  await hand.key('Enter');
  await hand.reads('as long as the hub', hand.whole('Size'), 42);

  hand.changes();
  const undo = page.getByRole('button', { name: 'Undo' });
  await hand.part('hub');
  await hand.open('Sketch 1');
  await hand.size('1', '1.5');
  await hand.size('4', '4.5');
  await hand.turn('l');
  await hand.reads('a larger rim, on both ends', hand.figure('Volume'), 24882.8298);
  await hand.on(undo);
  await hand.on(undo);
  await hand.open('Sketch 2');
  await hand.on(page.getByRole('button', { name: 'pattern count: 4' }));
  await hand.type('6');
  await hand.turn('l');
  await hand.reads('six arms', hand.figure('Volume'), 24252.2504);
  await hand.on(undo);
  await hand.part('sleeve');
  await hand.renumber('Pattern round an axis 1', 'count', '30');
  await hand.reads('thirty flutes', hand.figure('Volume'), 22439.6477);
  await hand.on(undo);
  // its number stands beside the view of so small a sketch: it is in the list as well
  await hand.open('Sketch 2');
  await hand.on(page.getByRole('button', { name: /: 20\.8$/ }));
  await hand.type('21.3');
  await hand.turn('l');
  await hand.reads('shallower flutes', hand.figure('Volume'), 25470.3459);
  await hand.on(undo);
  await page.reload();
  await hand.reads('the sleeve as it was', hand.figure('Volume'), 24375.9459);
});
