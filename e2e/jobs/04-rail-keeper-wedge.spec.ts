import { expect } from '../house.ts';
import { job } from './hand.ts';

job({ name: '04 rail, keeper and wedge', today: 286, aim: 172 }, async (hand) => {
  const { page, bench } = hand;
  const view = (side: string) => hand.turnBy(page.getByRole('button', { name: side, exact: true }));
  const all = () => hand.on(page.getByRole('tab', { name: 'Parts' }));
  const material = page.getByLabel('Material');
  const ownMaterial = async (name: string, density: string) => {
    await hand.select(material, 'own entry…');
    await hand.type(name, 'Tab');
    await hand.type(density);
  };
  const settled = () => expect(bench.title()).toContainText('settled');
  /** Closes the sketch and extrudes it to both sides, so much in all. */
  const extrudeBothWays = async (distance: string) => {
    await hand.turn('l');
    await hand.key('x');
    await hand.key('b');
    await hand.type(distance);
  };
  const cutThroughBothWays = async () => {
    await hand.cut();
    await hand.key('b');
    await hand.key('Enter');
  };
  /** A slot across the middle of the 40: so far from a point that is touched, and as long as told. */
  const slotFrom = async (y: number, from: string, length: string, towards: 1 | -1) => {
    await hand.key('b');
    await hand.point([20, y]);
    await hand.point([8, y + towards * 26]);
    await hand.type('(40 - 10) / 2', 'Tab');
    await hand.type(from);
    await hand.point([-2, y + towards * 56]);
    await hand.type('10', 'Tab');
    await hand.type(length);
  };

  await hand.callPart('post');
  await hand.turn('3');
  await hand.key('k');
  await hand.point([20, 10]);
  await hand.type('136', 'Tab');
  await hand.type('32 / 2');
  await hand.click([0, 16]);
  await hand.typeAt([0, -10], '32');
  await hand.click([136, -16]);
  await hand.typeAt([136, -25], '14');
  await hand.typeAt([0, -30], '160');
  await hand.typeAt([-24, 0], '60');
  await hand.click([136, 30]);
  await hand.click([136, 16]);
  await settled();
  await extrudeBothWays('40');
  await hand.reads('U block', hand.figure('Volume'), 209920);
  await hand.turn('2');
  await slotFrom(136, '30', '43', -1);
  await hand.size('43', '42');
  await settled();
  await cutThroughBothWays();
  await hand.reads('with slots', hand.figure('Volume'), 198160);
  await view('Front');
  await hand.pick([-10, -24, 10]);
  await hand.turn('s');
  await hand.centredRectangle([0, 0], ['40', '40']);
  await hand.extrude('45');
  await hand.reads('with its shank', hand.figure('Volume'), 270160);
  await view('Front');
  await hand.pick([-10, -24, 30]);
  await hand.pickToo([-10, -24, -30]);
  await hand.key('u');
  await hand.type('5');
  await hand.pickBehind([-10, -24, 20], 2);
  await page.keyboard.down('Shift');
  await hand.pickBehind([-10, -24, -20], 2);
  await page.keyboard.up('Shift');
  await hand.key('u');
  await hand.type('4');
  await hand.reads('post', hand.figure('Volume'), 270005.487);
  await ownMaterial('ash', '0.68 g/cm³');
  await hand.reads('post in g', hand.figure('Mass'), 183.603731, 1e-4);

  // where it goes
  await hand.newPart('rail');
  await hand.turn('3');
  await hand.key('b');
  await hand.click([0, -16]);
  await hand.typeAt([80, 16], '190');
  await settled();
  await extrudeBothWays('40');
  await hand.turn('2');
  await slotFrom(0, '68', '42', 1);
  await settled();
  await cutThroughBothWays();
  await hand.reads('rail', hand.figure('Volume'), 229760);
  await hand.select(material, 'ash, 680 kg/m³');
  await hand.reads('rail in g', hand.figure('Mass'), 156.2368, 3e-4);

  // through the slots of the post, over its prongs
  await hand.newPart('keeper');
  await hand.turn('3');
  await hand.key('k');
  await hand.click([106, -30]);
  await hand.click([106, 30]);
  await hand.typeAt([112, 30], '9');
  await hand.typeAt([115, 36], '12');
  await hand.typeAt([95, 42], '24');
  await hand.typeAt([91, -20], '84');
  await hand.click([115, -42]);
  await hand.click([115, -30]);
  await hand.click([106, -30]);
  await settled();
  await extrudeBothWays('10');
  await hand.reads('keeper, plain', hand.figure('Volume'), 14760);
  await view('Back');
  await hand.pick([0, 115, 42]);
  await hand.pickToo([0, 115, -42]);
  await hand.key('u');
  await hand.type('4');
  await hand.reads('keeper', hand.figure('Volume'), 14691.3274);
  await ownMaterial('beech', '0.72 g/cm³');
  await hand.reads('keeper in g', hand.figure('Mass'), 10.5777557, 3e-3);

  // by itself: it is to slide to its place
  await hand.newPart('wedge');
  await hand.key('q');
  await hand.turn('3');
  await hand.key('k');
  await hand.click([0, 0]);
  await hand.typeAt([0, 20], '130');
  await hand.typeAt([-10, 130], '26');
  await hand.click([-19, 0]);
  await hand.click([0, 0]);
  await hand.key('y');
  await hand.click([0, 65]);
  await hand.click([-22.5, 65]);
  await hand.key('n');
  await hand.click([-12, 65]);
  await hand.type('23');
  await settled();
  await extrudeBothWays('10');
  await hand.reads('wedge, plain', hand.figure('Volume'), 29900);
  await view('Front');
  await hand.pick([-5, -23, 65]);
  await hand.pickToo([5, -23, 65]);
  await view('Back');
  await hand.pickToo([-5, 0, 100]);
  await hand.pickToo([5, 0, 100]);
  await hand.key('u');
  await hand.type('3');
  await hand.reads('wedge', hand.figure('Volume'), 28895.1288);
  await hand.select(material, 'beech, 720 kg/m³');
  await hand.reads('wedge in g', hand.figure('Mass'), 20.8044928, 3e-4);

  await all();
  await hand.reads('all in g', hand.whole('Mass'), 371.222779, 1e-4);
  // one thing after the other: what is picked next takes what was related
  await hand.key('r');
  await view('Front');
  await hand.pickBehind([-12, 0, 10], 1);
  await view('Back');
  await hand.pick([-12, 0, 10]);
  await view('Corner');
  await hand.pick([-20, 160, 0]);
  await hand.reads('freedoms, its end on the bottom', hand.freedoms('rail'), 3);
  await hand.pick([-20, -10, 0]);
  await hand.pick([-10, 160, 16]);
  await hand.reads('freedoms, its side flush', hand.freedoms('rail'), 1);
  await view('Under');
  await hand.pickBehind([-12, 120, 16], 1);
  await view('Back');
  await hand.pick([0, 0, 100]);
  await hand.reads('freedoms, its top flush', hand.freedoms('rail'), 0);
  await view('Front');
  await hand.pick([0, 91, 36]);
  await view('Corner');
  await hand.pick([-5, 80, 120]);
  await hand.pick([-5, 103, 36]);
  await hand.pick([0, 66.4, 100]);
  await view('Top');
  await hand.pick([0, 68, 16]);
  await hand.key('Enter');
  await hand.reads('freedoms of the wedge', hand.freedoms('wedge'), 0);

  hand.changes();
  const readsTop = async (what: string, aboveCentreLine: number) => {
    await hand.pick([0, 80, aboveCentreLine]);
    await hand.pickToo([-10, 160, 16]);
    await hand.reads(what, hand.reading('distance'), aboveCentreLine - 16);
    await hand.key('Escape');
  };
  await readsTop('top of the wedge above that of the rail', 81);
  // a figure is of the parts as they stand, however they are drawn
  await hand.pick([0, 80, 81]);
  await hand.pickToo([-10, 160, 16]);
  await page.getByLabel('Drawn apart').fill('0.6');
  await hand.reads('the same, drawn apart', hand.reading('distance'), 65);
  await page.getByLabel('Drawn apart').fill('0');
  await hand.key('Escape');
  const look = () => hand.on(bench.desk.getByRole('button', { name: 'Look' }));
  await look();
  await expect(bench.desk.getByText('overlap')).toHaveCount(0);
  const undo = page.getByRole('button', { name: 'Undo' });
  for (const [from, top] of [
    ['67.4', 68],
    ['68.3', 87.5],
  ] as const) {
    await hand.part('rail');
    await hand.resize('Sketch 2', '68', from);
    await all();
    await view('Top');
    await readsTop(`slot at ${from}`, top);
    await hand.on(undo);
  }
  await hand.part('keeper');
  await ownMaterial('steel', '7.85 g/cm³');
  await hand.reads('keeper of steel in g', hand.figure('Mass'), 115.32692, 3e-4);
  await all();
  await hand.reads('all with it in g', hand.whole('Mass'), 475.971944, 1e-4);
  await hand.on(undo);
  await page.reload();
  await all();
  await hand.reads('as it was, in g', hand.whole('Mass'), 371.222779, 1e-4);
  await view('Top');
  await readsTop('as it was', 81);
});
