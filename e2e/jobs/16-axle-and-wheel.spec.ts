import { expect } from '../house.ts';
import { job } from './hand.ts';

job({ name: '16 axle and wheel', today: 188, aim: 113 }, async (hand) => {
  const { page, bench } = hand;
  await hand.callPart('axle');
  await hand.turn('2');
  await hand.key('o');
  for (const diameter of ['54', '44']) await hand.circle([0, 0], diameter);
  await expect(bench.title()).toContainText('settled');
  await hand.turn('l');
  await hand.key('x');
  await hand.key('b');
  await hand.type('310');
  await hand.reads('tube', hand.figure('Volume'), 238603.96);
  await hand.pick([27 * Math.SQRT1_2, -27 * Math.SQRT1_2, 155]);
  await hand.key('c');
  await hand.type('2.5');
  await hand.reads('bevelled', hand.figure('Volume'), 238090.18);

  // the cross hole: on the upright plane by mistake
  await hand.turn('3');
  await hand.on(page.getByTestId('step-Sketch 2').getByText('Right'));
  await hand.on(page.getByLabel('View', { exact: true }).getByRole('button', { name: 'Front', exact: true }).last());
  await hand.turn('Enter');
  await hand.key('o');
  await hand.circle([0, 117], '19');
  await hand.sizeBetween([0, 117], [15, 155], '38', [60, 130]);
  await expect(bench.title()).toContainText('settled');
  await hand.cut();
  await hand.key('Enter');
  await hand.reads('a hole through both walls', hand.figure('Volume'), 235197.65);

  // the other, on the upright plane
  await hand.turn('3');
  await hand.key('o');
  await hand.circle([0, -131], '10');
  await hand.sizeBetween([0, -131], [15, -155], '24', [60, -140]);
  await expect(bench.title()).toContainText('settled');
  await hand.cut();
  await hand.key('Enter');
  await hand.reads('a hole across', hand.figure('Volume'), 234408.06);

  // a slot in the upper wall alone
  await hand.turn('1');
  await hand.centredRectangle([0, -60], ['7', '80']);
  await hand.sizeBetween([2, -100], [15, -155], '55', [60, -120]);
  await expect(bench.title()).toContainText('settled');
  await hand.cut();
  await hand.key('w');
  await hand.key('w');
  await hand.key('Enter');
  await hand.reads('the axle', hand.figure('Volume'), 231598.34);
  await hand.reads('its centre y', hand.figure('Centre of mass', 1), -0.29620247, 5e-3);
  await hand.reads('its centre z', hand.figure('Centre of mass', 2), -0.62871752, 5e-3);
  await hand.select(page.getByLabel('Material'), 'Steel S235');
  await hand.reads('its mass', hand.figure('Mass'), 1818.047, 1e-5);

  // the wheel
  await hand.newPart('wheel');
  await hand.turn('2');
  await hand.key('o');
  for (const diameter of ['96', '54']) await hand.circle([0, 0], diameter);
  await hand.turn('l');
  await hand.key('x');
  await hand.key('b');
  await hand.type('18');
  await hand.reads('ring', hand.figure('Volume'), 89064.152);
  await hand.pick([36, 10, 9]);
  await hand.turn('s');
  await hand.key('k');
  await hand.click([0, 48]);
  await hand.typeAt([0, 44], '9');
  await hand.point([14, 46]);
  await hand.key('Tab');
  await hand.type('', 'Tab');
  await hand.type('20 deg');
  await hand.key('Escape');
  await hand.key('t');
  await hand.click([-48, 0]);
  await expect(bench.title()).toContainText('settled');
  await hand.cut('18');
  await hand.reads('one pocket', hand.figure('Volume'), 89064.152 - 18 * 83.071345);
  await hand.key('g');
  await hand.pick([0, 0, 12]);
  await hand.type('14');
  await hand.reads('fourteen pockets', hand.figure('Volume'), 68130.173);
  await hand.pick([0, 27, 9]);
  await hand.key('c');
  await hand.type('2.5');
  await hand.reads('the wheel', hand.figure('Volume'), 67583.667);
  await hand.select(page.getByLabel('Material'), 'Steel S235');
  await hand.reads('its mass', hand.figure('Mass'), 530.53178, 1e-5);

  hand.changes();
  await hand.renumber('Pattern round an axis 1', 'count', '16');
  await hand.reads('sixteen pockets', hand.figure('Volume'), 64593.098);
  await hand.on(page.getByRole('button', { name: 'Undo' }));
  await hand.resize('Sketch 2', '9', '10');
  await hand.reads('deeper pockets', hand.figure('Volume'), 63232.333);
  await hand.on(page.getByRole('button', { name: 'Undo' }));
  await hand.resize('Sketch 2', '20 deg', '30 deg');
  await hand.reads('pockets at 60 degrees', hand.figure('Volume'), 73258.64);
  await hand.on(page.getByRole('button', { name: 'Undo' }));
  await hand.reads('the wheel again', hand.figure('Volume'), 67583.667);

  await hand.part('axle');
  await hand.resize('Sketch 1', '⌀44', '46');
  await hand.reads('a thinner tube', hand.figure('Volume'), 189074.11);
  await hand.on(page.getByRole('button', { name: 'Undo' }));
  await hand.renumber('Extrusion 1', 'distance', '350');
  await hand.reads('a longer axle', hand.figure('Volume'), 262385.95);
  await hand.on(page.getByRole('button', { name: 'Undo' }));
  await hand.reads('the axle again', hand.figure('Volume'), 231598.34);
});
