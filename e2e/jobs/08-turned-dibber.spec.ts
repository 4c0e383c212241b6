import { type Locator } from '@playwright/test';
import { expect } from '../house.ts';
import { job } from './hand.ts';

job({ name: '08 turned dibber', today: 127, aim: 76 }, async (hand) => {
  const { page, bench } = hand;
  await hand.turn('1');

  // half the outline right of the axis, its diameters mistaken for radii
  await hand.key('k');
  await hand.click([0, 0]);
  await hand.typeAt([14, 0], '28');
  await hand.typeAt([28, 12], '18');
  await hand.click([34, 18]);
  await hand.click([34, 45]);
  await hand.click([0, 45]);
  await hand.key('n');
  await hand.click([34, 45]);
  await hand.point([60, 60]);
  await hand.key('w');
  await hand.click([60, 60]);
  await hand.type('34');
  await hand.click([0, 0]);
  await hand.click([0, 45]);
  await hand.click([-20, 30]);
  await hand.type('150');
  await expect(bench.title()).toContainText('settled');
  await hand.turn('l');
  await hand.key('v');
  await hand.key('Enter');
  await hand.reads('mistaken radii', hand.figure('Volume'), 523716.062);

  await hand.open('Sketch 1');
  await hand.size('34', '17');
  await hand.size('28', '14');
  await hand.turn('l');
  await hand.reads('right radii', hand.figure('Volume'), 130929.015);

  // rounded in the sketch
  await hand.open('Sketch 1');
  await hand.click([17, 150]);
  await hand.key('1');
  await hand.type('6');
  await hand.click([14, 0]);
  await hand.key('1');
  await hand.type('2.5');
  await hand.turn('l');
  await hand.reads('turned body', hand.figure('Volume'), 130055.584);

  // the mortise, in the lower face
  await hand.on(page.getByRole('button', { name: 'Under', exact: true }));
  await hand.pick([3, 3, 0]);
  await hand.turn('s');
  await hand.centredRectangle([0, 0], ['5', '12']);
  await hand.cut('30');
  await hand.reads('with the mortise', hand.figure('Volume'), 128255.584);

  // a groove: a rectangle about its centre is begun by mistake
  await hand.turn('1');
  await hand.key('i');
  await hand.click([17, 40]);
  await hand.key('b');
  await hand.click([17, 40]);
  await hand.point([15, 43]);
  await hand.type('2', 'Tab');
  await hand.type('2.5');
  // 22 above the step
  await hand.sizeBetween([16, 40], [16, 18], '22', [24, 30]);
  await expect(bench.title()).toContainText('settled');
  await hand.turn('l');
  await hand.key('v');
  await hand.key('r');
  await hand.key('Enter');
  await hand.reads('one groove', hand.figure('Volume'), 128255.584 - 502.654825);
  // its two outer edges
  await hand.pick([0, -17, 40]);
  await hand.pickToo([0, -17, 42.5]);
  await hand.key('u');
  await hand.type('1.2');
  await hand.reads('its edges rounded', hand.figure('Volume'), 127687.953);
  // groove and rounding again along the axis
  await hand.key('n');
  await hand.pick([0, 0, 158]);
  await hand.type('7', 'Tab');
  await hand.type('14');
  await hand.reads('seven grooves', hand.figure('Volume'), 124282.168);
  await hand.reads('its centre', hand.figure('Centre of mass', 2), 78.0153544, 1e-4);
  await hand.select(page.getByLabel('Material'), 'Beech');
  await hand.reads('its mass', hand.figure('Mass'), 89.4831611, 1e-4);

  hand.changes();
  await hand.renumber('Pattern along a line 1', 'count', '9');
  await hand.renumber('Pattern along a line 1', 'spacing', '11');
  await hand.reads('nine grooves', hand.figure('Volume'), 123146.907);
  await hand.reads('its centre', hand.figure('Centre of mass', 2), 77.8841287, 1e-4);
  await hand.key('Control+z');
  await hand.key('Control+z');
  await hand.resize('Sketch 1', '150', '160');
  await hand.reads('longer', hand.figure('Volume'), 133361.371);
  await hand.reads('its centre', hand.figure('Centre of mass', 2), 83.1994468, 1e-4);

  // step by step back to the first turned body, and on again
  const [undo, redo] = ['Undo', 'Redo'].map((name) => page.getByRole('button', { name })) as [Locator, Locator];
  while (await page.getByTestId('step-Sketch 2').isVisible()) await hand.on(undo);
  await hand.reads('the first turned body', hand.figure('Volume'), 130055.584);
  while (await redo.isEnabled()) await hand.on(redo);
  await page.reload();
  await hand.reads('still so when it is opened again', hand.figure('Volume'), 133361.371);
});
