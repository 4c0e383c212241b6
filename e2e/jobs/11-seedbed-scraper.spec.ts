import { expect } from '../house.ts';
import { job } from './hand.ts';

job({ name: '11 seed-bed scraper', today: 138, aim: 83 }, async (hand) => {
  const { page, bench } = hand;

  await hand.callPart('grip');
  await hand.turn('2');
  await hand.key('k');
  await hand.click([0, 0]);
  await hand.typeAt([40, 0], '70');
  await hand.click([95, 60]);
  await hand.typeAt([30, 60], '70');
  await hand.click([0, 0]);
  await hand.key('n');
  await hand.click([12.5, 30]);
  await hand.click([30, 0]);
  await hand.type('lean = 60');
  await hand.click([75, 57.5]);
  await hand.click([50, 0]);
  await hand.type('140');
  // holes from the corner, and from each other; one number is wrong at first
  const [corner, first] = [
    [80.83, 140],
    [104.83, 126],
  ] as const;
  await hand.key('o');
  await hand.point(corner);
  await hand.point([100, 130]);
  await hand.type('24', 'Tab');
  await hand.type('41');
  await hand.typeAt([112, 105], 'bore = 8');
  await hand.size('41', '14');
  await hand.point(first);
  await hand.typeAt([125, 126], '28');
  await hand.typeAt([137, 130], 'bore');
  await hand.point(first);
  await hand.typeAt([104.83, 110], '24');
  await hand.typeAt([107, 108], 'bore');
  await expect(bench.title()).toContainText('settled');
  await hand.turn('l');
  await hand.key('x');
  await hand.key('b');
  await hand.key('Tab');
  await hand.type('thick = 24');
  await hand.reads('grip before the slit', hand.figure('Volume'), 231580.885);

  await hand.turn('3');
  await hand.key('i');
  await hand.point([140, 12]);
  await hand.typeAt([115, 0], '50 / 2');
  await hand.point([125, 4]);
  await hand.type('50', 'Tab');
  await hand.type('1.5');
  await expect(bench.title()).toContainText('settled');
  await hand.cut();
  await hand.key('Enter');
  await hand.reads('grip', hand.figure('Volume'), 226557.08);

  // drawn in the mid plane, beside the grip
  await hand.newPart('blade');
  await hand.turn('2');
  await hand.key('k');
  await hand.point(corner);
  await hand.click([25, 140]);
  await hand.typeAt([100, 140], '260');
  await hand.point([260, 90]);
  await hand.key('Tab');
  await hand.type('50 / sin(lean)', 'Tab');
  await hand.type('lean + 180 deg');
  await hand.typeAt([30, 90], '260');
  await hand.click([25, 140]);
  await hand.key('n');
  await hand.click([24.9, 140]);
  await hand.click(first);
  await hand.typeAt([70, 155], '90');
  const borrowHoles = async () => {
    await hand.key('r');
    for (const at of [
      [108.83, 126],
      [136.83, 126],
      [108.83, 102],
    ] as const)
      await hand.click(at);
  };
  await borrowHoles();
  await expect(bench.title()).toContainText('settled');
  await hand.turn('l');
  await hand.key('x');
  await hand.key('b');
  await hand.type('1.5');
  await hand.reads('blade', hand.figure('Volume'), 19273.8053);

  await hand.newPart('rivets');
  await hand.pick([75, 60, 12]);
  await hand.turn('s');
  await borrowHoles();
  await hand.turn('l');
  await hand.key('x');
  await hand.key('w');
  await hand.type('24');
  const [rivets, all] = [hand.figure('Volume'), hand.whole('Volume')];
  await hand.reads('three rivets', rivets, 3 * 1206.37158, 2e-5);
  await hand.part('blade');
  await hand.reads('x of the blade', hand.figure('Centre of mass', 0), 130.585788, 1e-4);
  await hand.reads('y of the blade', hand.figure('Centre of mass', 1), 114.964792, 1e-4);
  await hand.on(page.getByRole('tab', { name: 'Parts' }));
  await hand.reads('all', all, 249450);

  hand.changes();
  const undo = page.getByRole('button', { name: 'Undo' });
  const set = async (name: string, text: string) => {
    await hand.on(page.getByRole('link', { name: 'Values' }));
    await hand.on(page.getByLabel(`Expression of ${name}`, { exact: true }));
    await hand.key('Control+a');
    await hand.type(text);
    await hand.on(page.getByRole('link', { name: 'Bench' }));
  };
  await set('lean', '55');
  await hand.on(page.getByRole('tab', { name: 'Parts' }));
  await hand.reads('the same leaning', all, 249450);
  await hand.part('blade');
  await hand.reads('x of the leaning blade', hand.figure('Centre of mass', 0), 144.678328, 1e-4);
  await hand.on(undo);
  await set('bore', '10');
  await hand.reads('blade with wider holes', hand.figure('Volume'), 19146.5708);
  await hand.part('grip');
  await hand.reads('grip with wider holes', hand.figure('Volume'), 224648.562);
  await hand.part('rivets');
  await hand.reads('thicker rivets', rivets, 3 * 1884.95559, 2e-5);
  await hand.on(undo);
  await set('thick', '30');
  await hand.reads('rivets of a typed length', rivets, 3 * 1206.37158, 2e-5);
  await hand.renumber('Extrusion 1', 'distance', 'thick');
  await hand.reads('rivets as long as the grip is thick', rivets, 3 * 1507.96447, 2e-5);
  await hand.on(page.getByRole('tab', { name: 'Parts' }));
  await hand.reads('all of them', all, 308250);
  await hand.on(undo);
  await hand.on(undo);
  await page.reload();
  await hand.on(page.getByRole('tab', { name: 'Parts' }));
  await hand.reads('as it was', all, 249450);
});
