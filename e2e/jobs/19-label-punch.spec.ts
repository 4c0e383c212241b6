import { expect } from '../house.ts';
import { job } from './hand.ts';

// its three parts, and the 40 actions that it takes people to put them together, of which 24 are the aim
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
  await hand.typeAt([50, 41], '13');
  await hand.typeAt([42, 10], '52 - 2 * 11');
  await hand.typeAt([30, 11], '13');
  await hand.click([21, 0]);
  await hand.click([0, 0]);
  await hand.key('Escape');
  await hand.click([42, 26]);
  await hand.key('y');
  // the middle is in hand already
  await hand.key('n');
  await hand.click([0, 10]);
  await hand.type('84');
  await hand.sizeBetween([29, 41], [10, 52], '11');
  await expect(bench.title()).toContainText('settled');
  // a relation to a wrong line fights: it is found and dropped
  await hand.key('Escape');
  await hand.click([35, 41]);
  await hand.clickToo([27, 8.25]);
  await hand.key('g');
  await hand.on(page.getByTestId('fighter').first().getByRole('button', { name: 'drop' }));
  await expect(bench.title()).toContainText('settled');
  await hand.drag([-3, 55], [43.5, -3]);
  await hand.key('3');
  await hand.turn('l');
  await hand.key('x');
  await hand.key('w');
  await hand.type('130');
  await hand.reads('rail', hand.figure('Volume'), 441480);
  await hand.select(page.getByLabel('Material'), 'own entry…');
  await hand.type('Cast iron', 'Tab');
  await hand.type('7.2');
  await hand.reads('its mass', hand.figure('Mass'), 3178.656, 1e-5);

  await hand.newPart('bow');
  // drawn by itself: the rail stands where it would be
  await hand.key('q');
  await hand.turn('1');
  await hand.key('o');
  for (const diameter of ['74', '98']) await hand.circle([0, 40], diameter);
  await hand.key('k');
  await hand.click([0, 104]);
  await hand.typeAt([20, 104], '14');
  await hand.click([14, 86.957]);
  await hand.key('k');
  await hand.click([37, 40]);
  await hand.typeAt([37, 20], '5');
  await hand.click([43, 35]);
  for (const [to, length] of [
    [[43, 10], '22'],
    [[20, 13], '8'],
    [[35, -20], '13'],
    [[70, 0.2], '21'],
    [[56, 60], '40'],
  ] as const) {
    await hand.point(to);
    await hand.type(length);
  }
  await hand.click([49, 40]);
  await hand.sizeBetween([56, 20], [0, 0], '56');
  await hand.sizeBetween([0, 40], [0, 0], '40');
  await hand.sizeBetween([0, 104], [0, 0], '104');
  await expect(bench.title()).toContainText('settled');
  // the lines on the other side too, then what the circles have too much
  await hand.key('Escape');
  await hand.drag([-3, 107], [59, -3]);
  await hand.clickToo([0, 60]);
  await hand.key('3');
  await hand.key('t');
  for (const place of [
    [0, 3],
    [0, -9],
    [0, 89],
    [42, 14.7],
    [-42, 14.7],
  ] as const)
    await hand.click(place);
  await expect(bench.title()).toContainText('settled');
  await hand.extrude('26');
  await hand.reads('bow', hand.figure('Volume'), 87567.0637);
  // a hole from its top into the arch
  await hand.pick([3, -5, 104]);
  await hand.turn('s');
  await hand.key('k');
  await hand.click([-14, -26]);
  await hand.click([14, 0]);
  await hand.key('o');
  await hand.circle([0, -13], '14');
  await expect(bench.title()).toContainText('settled');
  await hand.turn('l');
  await hand.key('x');
  await hand.key('r');
  await hand.key('e');
  await hand.key('e');
  await hand.key('Enter');
  await hand.reads('a hole into the arch', hand.figure('Volume'), 87567.0637 - 4181.92538);
  // six edges, three from each side
  await hand.turnBy(page.getByRole('button', { name: 'Right', exact: true }));
  await hand.pick([56, -13, 0]);
  for (const edge of [
    [56, -13, 40],
    [14, -8, 104],
  ] as const)
    await hand.pickToo(edge);
  await hand.turnBy(page.getByRole('button', { name: 'Left', exact: true }));
  for (const edge of [
    [-56, -13, 0],
    [-56, -13, 40],
    [-14, -8, 104],
  ] as const)
    await hand.pickToo(edge);
  await hand.key('u');
  await hand.type('3');
  await hand.reads('the bow', hand.figure('Volume'), 83083.8374);
  await hand.reads('its centre', hand.figure('Centre of mass', 2), 50.3868197, 1e-4);
  await hand.select(page.getByLabel('Material'), 'Cast iron, 7200 kg/m³');
  await hand.reads('its mass', hand.figure('Mass'), 598.203629, 1e-5);

  await hand.newPart('punch');
  await hand.key('q');
  await hand.turn('1');
  await hand.key('k');
  await hand.click([0, 0]);
  for (const [to, length] of [
    [[20, 0], '7'],
    [[7, 30], '86'],
    [[20, 86], '6'],
    [[13, 100], '22'],
  ] as const) {
    await hand.point(to);
    await hand.type(length);
  }
  await hand.click([0, 108]);
  await expect(bench.title()).toContainText('settled');
  await hand.turn('l');
  await hand.key('v');
  await hand.key('Enter');
  await hand.reads('punch turned', hand.figure('Volume'), 24919.1129);
  await hand.turn('1');
  await hand.key('o');
  await hand.circle([0, 97], '6.4');
  await hand.sizeBetween([0, 97], [0, 0], '97');
  await expect(bench.title()).toContainText('settled');
  await hand.cut();
  await hand.key('Enter');
  await hand.reads('the punch', hand.figure('Volume'), 24089.0792);
  await hand.reads('its centre', hand.figure('Centre of mass', 2), 67.3231389, 1e-4);
  await hand.select(page.getByLabel('Material'), 'own entry…');
  await hand.type('Steel', 'Tab');
  await hand.type('7.85');
  await hand.reads('its mass', hand.figure('Mass'), 189.099272, 1e-5);

  // put together: the bow with its feet in the notches, the punch in its hole
  const corner = () => hand.turnBy(page.getByRole('button', { name: 'Corner', exact: true }));
  await hand.on(page.getByRole('tab', { name: 'Parts' }));
  await hand.key('r');
  await hand.pick([40, -13, 13]);
  await hand.orbit(40, -150);
  await hand.pick([4, 60, 33]);
  await hand.key('Enter');
  await corner();
  await hand.key('r');
  await hand.pick([-52, -26, 45]);
  await hand.pick([72, 0, 8]);
  await hand.type('-52');
  await hand.key('r');
  await hand.pick([-56, 65, 45]);
  await hand.pick([0, 20, 45]);
  await hand.type('14');
  await hand.key('r');
  await hand.pick([-4, -5.7, 60]);
  await hand.pick([46, 70.7, 122]);
  await hand.key('Enter');
  await hand.reads('freedoms of the punch on its axis', hand.freedoms('punch'), 2);
  await hand.pull([38, 59, 50], [38, 59, 140]);
  const up = (await hand.whole('Size', 2)())!;
  await hand.key('r');
  await hand.pick([42, 65, up]);
  await hand.pick([10, 20, 52]);
  await hand.type('108 + 3');
  await hand.reads('freedoms with its tip set', hand.freedoms('punch'), 1);
  await hand.key('0');
  await hand.key('r');
  await hand.pickListed([45.1, 53, 151.2], /bore ⌀6.4/);
  await hand.pick([72, 0, 8]);
  await hand.key('Enter');
  await hand.reads('freedoms with its turn set', hand.freedoms('punch'), 0);
  await hand.reads('mass', hand.whole('Mass'), 3965.9589, 2e-5);
  for (const [k, right] of [42, 65, 37.2878104].entries())
    await hand.reads(`centre ${'xyz'[k]}`, hand.whole('Centre', k), right, 1e-4);

  await expect(page.getByText('These can not all hold')).toHaveCount(0);

  hand.changes();
  await hand.pickListed([84, 130, 52], /corner/);
  for (const [k, right] of [-42, -65, -14.7121896].entries())
    await hand.reads(
      `centre from the far corner, ${'xyz'[k]}`,
      hand.reading('centre of mass from here', k),
      right,
      5e-4,
    );
  await hand.key('Escape');
  const all = () => hand.on(page.getByRole('tab', { name: 'Parts' }));
  const centreUp = (what: string, right: number) => hand.reads(what, hand.whole('Centre', 2), right, 2e-4);
  const undo = page.getByRole('button', { name: 'Undo' });
  await hand.part('rail');
  await hand.open('Sketch 1');
  await hand.on(page.getByRole('button', { name: /: \(84 - 42\) \/ 2$/ }));
  await hand.type('(84 - 46) / 2');
  await hand.turn('l');
  await hand.reads('wider troughs', hand.figure('Mass'), 3137.472, 1e-5);
  await all();
  await centreUp('centre with wider troughs', 37.4062572);
  await hand.on(undo);
  await hand.part('bow');
  await hand.resize('Sketch 1', '⌀74', '70');
  await hand.reads('a smaller arch', hand.figure('Volume'), 89175.5454);
  await all();
  await centreUp('centre with a smaller arch', 37.7560849);
  await hand.on(undo);
  await hand.part('punch');
  await hand.select(page.getByLabel('Material'), 'Cast iron, 7200 kg/m³');
  await hand.reads('of cast iron', hand.figure('Mass'), 24089.0792 * 7.2e-3, 1e-5);
  await all();
  await hand.reads('all of cast iron', hand.whole('Mass'), 3950.301, 2e-5);
  await centreUp('centre of cast iron alone', 36.9507538);
  await hand.on(undo);
  await all();
  await page.reload();
  await centreUp('as it was', 37.2878104);
});
