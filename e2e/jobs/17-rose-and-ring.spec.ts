import { expect } from '../house.ts';
import { job } from './hand.ts';

job({ name: '17 rose and ring', today: 258, aim: 155 }, async (hand) => {
  const { page, bench } = hand;
  const view = (side: string) => hand.turnBy(page.getByRole('button', { name: side, exact: true }));
  const settled = () => expect(bench.title()).toContainText('settled');
  const plane = async (from: string, by: string) => {
    await hand.key('d');
    await hand.on(hand.datum(from));
    await hand.type(by);
  };
  const drawOn = async (name: string) => {
    await hand.on(hand.datum(name));
    await hand.turn('s');
  };
  const ellipse = async (long: string, short: string) => {
    await hand.key(' ');
    await hand.type('ellipse');
    await hand.click([0, 0]);
    await hand.point([30, 0]);
    await hand.type(long);
    await hand.point([0, 12]);
    await hand.type(short);
    await settled();
    await hand.turn('l');
  };
  /** A round boss on a plane, down to what is there. */
  const bossDown = async (name: string, diameter: string) => {
    await drawOn(name);
    await hand.key('o');
    await hand.circle([0, 0], diameter);
    await hand.turn('l');
    for (const key of ['x', 'w', 'e', 'e', 'Enter']) await hand.key(key);
  };
  const ownMaterial = async (name: string, density: string) => {
    await hand.select(page.getByLabel('Material'), 'own entry…');
    await hand.type(name, 'Tab');
    await hand.type(density);
  };
  const volume = (what: string, right: number, within?: number) =>
    hand.reads(what, hand.figure('Volume'), right, within);

  await hand.callPart('rose');
  await plane('Top', '84');
  await hand.turn('2');
  await ellipse('132', '66');
  await drawOn('Plane 1');
  await ellipse('84', '42');
  await hand.key('l');
  await hand.key('Enter');
  await volume('loft', 391090.586);
  await hand.reads('its middle', hand.figure('Centre of mass', 2), 35.88);

  await hand.turn('1');
  await hand.key('k');
  await hand.point([-70, -10]);
  await hand.type('75', 'Tab');
  await hand.type('6');
  await hand.point([-75, 2]);
  await hand.type('10');
  await hand.point([74, 36]);
  await hand.key('Tab');
  await hand.key('Tab');
  await hand.type('12');
  await hand.click([74, -6]);
  await hand.click([-75, -6]);
  await hand.sizeBetween([0, -6], [0, -20], '150');
  await settled();
  await hand.cut();
  await hand.key('b');
  await hand.key('Enter');
  await volume('cut', 268315.307);

  await plane('Plane 1', '6.5');
  await bossDown('Plane 2', '32');
  await volume('collar', 273542.917);
  await view('Corner');
  const rim = (radius: number, z: number) => [-radius * Math.SQRT1_2, -radius * Math.SQRT1_2, z] as const;
  await hand.pick(rim(16, 90.5));
  await hand.pickToo(rim(16, 84));
  await hand.key('u');
  await hand.type('2.4');
  await volume('fillets', 273551.245);
  await plane('Plane 2', '17');
  await bossDown('Plane 3', '24');
  await volume('spigot', 281241.863);
  await hand.pick([0, 0, 107.5]);
  await hand.key('e');
  await hand.type('1.6');
  await volume('shell', 40077.5, 2e-5);

  await hand.turn('1');
  await hand.point([12, 106]);
  await hand.wheel(-900);
  await hand.key(' ');
  await hand.type('polygon');
  await hand.point([12, 107.5]);
  await hand.point([12, 104]);
  await hand.type('1.4');
  await hand.point([14, 106.1]);
  await hand.type('2.4', 'Tab');
  await hand.type('3');
  await hand.key('Escape');
  await hand.click([11.4, 105.7]);
  await hand.key('v');
  await settled();
  await hand.click([13.2, 106.1]);
  await hand.key('1');
  await hand.type('0.3');
  await settled();
  await hand.turn('l');
  await hand.key('z');
  await hand.key('w');
  await hand.type('2.5', 'Tab');
  await hand.type('4');
  const shell = 40077.0931;
  await volume('thread', shell + 149.369538);
  await hand.pick(rim(12, 107.5));
  await hand.key('c');
  await hand.type('0.3');
  await volume('chamfer', shell + 149.369538 - 3.36464573);
  await ownMaterial('plastic', '0.95 g/cm³');
  await hand.reads('its mass', hand.figure('Mass'), 38.212, 1e-4);

  await hand.newPart('ring');
  await hand.turn('2');
  await hand.key('o');
  await hand.circle([0, 0], '24');
  await hand.circle([0, 0], '17');
  await settled();
  await hand.extrude('2.2');
  await volume('ring', 495.9004);
  await hand.reads('its skin', hand.figure('Area'), 734.190203, 2e-5);
  await ownMaterial('rubber', '1.2 g/cm³');
  await hand.reads('its mass', hand.figure('Mass'), 0.59508048, 5e-3);

  hand.changes();
  const chamfered = shell + 149.369538 - 3.36464573;
  const undone = async (times: number) => {
    for (let k = 0; k < times; k++) await hand.on(page.getByRole('button', { name: 'Undo', exact: true }));
    await volume('undone', chamfered);
  };
  await hand.renumber('Extrusion 1', 'distance', '2.8');
  await volume('thicker ring', 631.145964, 1e-4);

  await hand.part('rose');
  await view('Corner');
  await hand.pickListed(rim(11.2, 107.5), /^face · flat/);
  await hand.reads('end face, less the chamfer', hand.reading('area'), 112.594681 - Math.PI * (144 - 11.7 ** 2), 1e-3);
  await view('Under');
  await hand.pick([10, 0, 4 + 85 * Math.tan(Math.PI / 15)]);
  await hand.reads('oblique face', hand.reading('area'), 5872.06931, 2e-5);
  await hand.key('Escape');
  await hand.renumber('Plane 1', 'offset', '96');
  await volume('higher', 45135.1 + 149.37 - 3.36, 1.5e-3);
  await undone(1);
  await hand.resize('Sketch 1', '132', '140');
  await hand.resize('Sketch 1', '66', '70');
  await expect(bench.figure('Volume')).not.toContainText(String(Math.round(chamfered)));
  await expect(page.getByText('is not as it is told')).toHaveCount(0);
  await undone(2);
  await hand.renumber('Shell 1', 'wall', '2');
  await volume('thicker walls', 49572.6 + 149.37 - 3.36, 1.5e-3);
  await undone(1);
  await hand.renumber('Helix 1', 'pitch', '3');
  await volume('a finer thread', chamfered);
  await hand.renumber('Helix 1', 'turns', '3');
  await volume('of more turns', shell + 179.243446 - 3.36464573);
  await page.reload();
  await volume('loaded anew', shell + 179.243446 - 3.36464573);
});
