import { expect } from '../house.ts';
import { job } from './hand.ts';

const INCH = 25.4;
const inch = (at: readonly [number, number]) => [at[0] * INCH, at[1] * INCH] as const;

job({ name: '21 drop dibber', today: 91, aim: 55 }, async (hand) => {
  const { page, bench } = hand;
  await hand.choose('unit of lengths', 'inches');

  // the tube: two circles about the origin, the ring between them
  await hand.callPart('drop tube');
  await hand.turn('1');
  await hand.key('o');
  for (const diameter of ['.75', '.5']) await hand.circle([0, 0], diameter);
  await hand.extrude('5 3/8');
  await hand.reads('tube', hand.figure('Volume'), 1.31922348, 1e-5);
  await hand.select(page.getByLabel('Material'), 'PMMA');

  // the point, drawn in place: what is bored is its outline
  await hand.newPart('brass point');
  await hand.key('d');
  await hand.on(page.getByRole('button', { name: 'Back', exact: true }));
  await hand.pick([0.22 * INCH, 0, 0.22 * INCH]);
  await hand.type('-3/16');
  await hand.turn('s');
  await hand.key('r');
  await hand.click(inch([0.25, 0]));
  await expect(bench.title()).toContainText('settled');
  await hand.extrude('7/8');
  await hand.reads('plug', hand.figure('Volume'), 0.171805848, 1e-5);

  // a cone to a small circle, 3/8 before it
  await hand.key('d');
  await hand.pick([0.1 * INCH, (11 / 16) * INCH, 0.1 * INCH]);
  await hand.type('3/8');
  await hand.turn('s');
  await hand.key('o');
  await hand.circle([0, 0], '.2');
  await hand.turn('l');
  await hand.pick([0.15 * INCH, (11 / 16) * INCH, 0.15 * INCH]);
  await hand.key('l');
  await hand.key('Enter');
  await hand.reads('with the cone', hand.figure('Volume'), 0.171805848 + 0.0382881605, 1e-5);

  // half a ball on its end: half a disc turned about the line across it
  await hand.pick([0.05 * INCH, 1.0625 * INCH, 0.05 * INCH]);
  await hand.turn('s');
  await hand.key('r');
  await hand.click(inch([0.0707, 0.0707]));
  await hand.key('k');
  await hand.click(inch([-0.1, 0]));
  await hand.click(inch([0.1, 0]));
  await expect(bench.title()).toContainText('settled');
  await hand.turn('l');
  await hand.key('v');
  await hand.on(bench.desk.getByRole('checkbox').nth(1));
  await hand.type('180');
  await hand.reads('brass point', hand.figure('Volume'), 0.212188404, 1e-5);
  await hand.select(page.getByLabel('Material'), 'Brass CW614N');

  // both together
  await hand.on(page.getByRole('tab', { name: 'Parts' }));
  await hand.reads('mass of both', hand.whole('Mass'), 55.0652076 + (8.43 / 8.5 - 1) * 29.5557321, 1e-2);

  hand.changes();
  // the bore in the very first sketch: the plug and the cone follow
  await hand.on(page.getByTitle('Edit drop tube'));
  await hand.resize('Sketch 1', '⌀.5', '7/16');
  await hand.reads('tube with a smaller bore', hand.figure('Volume'), 1.56657788, 1e-5);
  await hand.part('brass point');
  await hand.reads('its point', hand.figure('Volume'), 0.164941796, 1e-5);
});
