import { expect } from '../house.ts';
import { job } from './hand.ts';

/** The table of figures, there before. */
const TABLE = [
  'name,expression',
  ...['rest_len,170 mm', 'rest_wid,150 mm', 'gap,90 mm', 'tray_wid,120 mm', 'thk,22 mm', 'rest_thk,16 mm'],
  ...['block_thk,11 mm', 'peg,9 mm', 'bench,14 mm', 'inset,13 mm', 'bench_inset,18 mm', 'wedge,6 deg'],
  ...['board_len,2*rest_wid + gap', 'board_wid,rest_len + 60 mm'],
  'stop_y,board_wid/2 - 14 mm - 40 mm * tan(wedge)',
].join('\n');

job({ name: '20 sorting bed', today: 366, aim: 220 }, async (hand) => {
  const { page, bench } = hand;
  const goTo = (screen: string) => hand.on(page.getByRole('link', { name: screen }));
  const all = () => hand.on(page.getByRole('tab', { name: 'Parts' }));
  const view = (side: string) => hand.turnBy(page.getByRole('button', { name: side, exact: true }));
  const material = page.getByLabel('Material');
  const settled = () => expect(bench.title()).toContainText('settled');

  await page.getByRole('link', { name: 'Values' }).click();
  await page
    .getByLabel('Values from CSV')
    .setInputFiles({ name: 'bed.csv', mimeType: 'text/csv', buffer: Buffer.from(TABLE) });
  await page.getByRole('button', { name: 'Take over 15' }).click();
  await page.getByRole('link', { name: 'Bench' }).click();

  /** A rectangle about the origin, as thick as told. */
  const plate = async (width: string, depth: string, thickness: string) => {
    await hand.turn('2');
    await hand.centredRectangle([0, 0], [width, depth]);
    await settled();
    await hand.extrude(`=${thickness}`);
  };
  /** A sketch on a plane of its own, so high above the ground. */
  const drawAbove = async (height: string) => {
    await hand.key('d');
    await hand.on(hand.datum('Top'));
    await hand.type(`=${height}`);
    await hand.turn('s');
    await hand.key('o');
  };
  /** A circle so far from a point that is touched; where only one number is told, level with it. */
  const circleFrom = async (
    [x, y]: readonly [number, number],
    near: readonly [number, number],
    [level, upright]: readonly [string, string?],
    diameter: string,
  ) => {
    await hand.point([x, y]);
    await hand.point(near);
    await hand.type(`=${level}`, upright === undefined ? 'Enter' : 'Tab');
    if (upright !== undefined) await hand.type(upright);
    await hand.typeAt([near[0] + 8, near[1] + 6], diameter);
  };
  /** Cuts the open sketch through, and all of that over both middle planes. */
  const cutFourTimes = async () => {
    await hand.cut();
    await hand.key('Enter');
    await hand.key('m');
    await hand.on(hand.datum('Right'));
    await hand.on(hand.datum('Front'));
    await hand.key('Enter');
  };
  const inGrams = (mass: number) => hand.reads('its mass', hand.figure('Mass'), mass, 3e-4);

  await hand.callPart('board');
  await plate('board_len', 'board_wid', 'thk');
  await hand.reads('board without holes', hand.figure('Volume'), 1973400);
  await drawAbove('thk');
  await circleFrom([0, 0], [150, 80], ['board_len/2 - bench_inset', 'board_wid/2 - bench_inset'], 'bench');
  await circleFrom([0, 0], [180, 70], ['board_wid/2 - inset', 'rest_len/2 - inset'], 'peg');
  await hand.reads('the outer hole, jumped', hand.size_mm('board_wid/2… = ', 1), 102);
  await hand.size('board_wid/2… = 102', 'board_len/2 - inset');
  await hand.reads('the outer hole', hand.size_mm('board_len/2… = ', 1), 182);
  await circleFrom([182, 72], [50, 72], ['rest_wid - 2*inset'], 'peg');
  await circleFrom([0, 0], [25, 90], ['30', 'stop_y'], 'peg');
  await hand.reads('the stop hole', hand.size_mm('stop_y = '), 96.8, 1e-4);
  await settled();
  await cutFourTimes();
  await hand.reads('board', hand.figure('Volume'), 1943058.5);
  await hand.select(material, 'own entry…');
  await hand.type('beech', 'Tab');
  await hand.type('0.68 g/cm³');
  await inGrams(1321.27978);

  await hand.newPart('rest');
  await hand.key('q');
  await plate('rest_wid', 'rest_len', 'rest_thk');
  await hand.reads('rest without holes', hand.figure('Volume'), 408000);
  await drawAbove('rest_thk');
  await circleFrom([0, 0], [40, 60], ['tray_wid/2 - inset', 'rest_len/2 - inset'], 'peg');
  // wrong, as will be seen when it is put together
  await circleFrom([0, 0], [65, 50], ['rest_wid/2 - inset', 'rest_len/2 - 2*inset'], 'peg');
  await settled();
  await cutFourTimes();
  await hand.reads('rest', hand.figure('Volume'), 399856.992);
  await hand.select(material, 'beech, 680 kg/m³');
  await inGrams(271.902754);

  await hand.newPart('block');
  await hand.turn('2');
  await hand.centredRectangle([0, 0], ['tray_wid', '2*inset']);
  await hand.key('o');
  await circleFrom([0, 0], [40, 0], ['tray_wid/2 - inset'], 'peg');
  await circleFrom([0, 0], [-40, 0], ['tray_wid/2 - inset'], 'peg');
  await settled();
  await hand.extrude('=block_thk');
  await hand.reads('block', hand.figure('Volume'), 32920.4205);
  await hand.select(material, 'beech, 680 kg/m³');
  await inGrams(22.3858859);

  await all();
  for (const part of ['rest', 'block', 'block', 'block'])
    await hand.on(page.getByRole('button', { name: `Place ${part}`, exact: true }));
  const RIM = 4.5;
  type Place = readonly [x: number, y: number, z: number];
  /** The rim about a place, of several in one line of sight the one of what is called so. */
  const rim = async ([x, y, z]: Place, of: string, isMore = false) =>
    hand.pickListed([x, y + RIM, z], new RegExp(`^${of} · edge · rim.* ${z} mm$`), isMore);
  /** One rim onto the other, and a second pair, from where the first has brought it. */
  const seat = async (what: string, from: Place, on: string, [first, second]: readonly [Place, Place]) => {
    await rim(from, what);
    await rim(first, on);
    await hand.reads(`${what} turns still`, hand.freedoms(what), 1);
    await rim(second, what);
    await rim(second, on);
    await hand.reads(`${what} is fast`, hand.freedoms(what), 0);
  };
  await hand.key('r');
  await view('Top');
  await seat('rest', [-62, 59, 0], 'board', [[58, 72, 22], [182, 72, 22]]); // prettier-ignore
  await hand.key('Enter');
  // the holes on the other side do not meet
  await rim([58, -46, 38], 'rest');
  await rim([58, -72, 22], 'board', true);
  await hand.reads('they miss each other by', hand.reading('along y'), -26);
  await hand.key('Escape');
  await hand.part('rest');
  await hand.open('Sketch 2');
  await hand.on(page.locator('text[data-size]').filter({ hasText: 'rest_len/2… = 59' }));
  await hand.key('Delete');
  await hand.key('Enter');
  await hand.click([47, 72]);
  await hand.clickToo([62, 59]);
  await hand.key('h');
  await settled();
  await hand.turn('l');
  await hand.reads('the rest, mended', hand.figure('Volume'), 399856.992);
  await all();
  await view('Top');
  await hand.key('r');
  await seat('rest 2', [228, 72, 0], 'board', [[-182, 72, 22], [-58, 72, 22]]); // prettier-ignore
  await seat('block', [-47, 0, 0], 'rest', [[73, 72, 38], [167, 72, 38]]); // prettier-ignore
  await seat('block 2', [398, 0, 0], 'rest', [[73, -72, 38], [167, -72, 38]]); // prettier-ignore
  await seat('block 3', [538, 0, 0], 'rest 2', [[-167, 72, 38], [-73, 72, 38]]); // prettier-ignore
  await seat('block 4', [678, 0, 0], 'rest 2', [[-167, -72, 38], [-73, -72, 38]]); // prettier-ignore
  await hand.key('Enter');
  const bed = async (what: string, mass: number) => {
    await hand.reads(`${what}: height`, hand.whole('Size', 2), 49);
    await hand.reads(`${what}: mass`, hand.whole('Mass'), mass, 1e-4);
    for (const part of ['rest', 'rest 2', 'block', 'block 2', 'block 3', 'block 4'])
      await hand.reads(`${what}: freedoms of ${part}`, hand.freedoms(part), 0);
  };
  await hand.reads('the bed', hand.whole('Volume'), 2874454.16);
  await bed('the bed', 1954.62883);
  await hand.reads('its centre, x', hand.whole('Centre', 0), 0);
  await hand.reads('its centre, y', hand.whole('Centre', 1), 0);
  await hand.reads('its centre, z', hand.whole('Centre', 2), 17.77, 3e-4);

  hand.changes();
  await hand.on(bench.desk.getByRole('button', { name: 'Look' }));
  await expect(bench.desk.getByText('overlap')).toHaveCount(0);
  const undo = page.getByRole('button', { name: 'Undo' });
  const setValue = async (name: string, text: string) => {
    await goTo('Values');
    await hand.on(page.getByLabel(`Expression of ${name}`, { exact: true }));
    await page.keyboard.press('Control+a');
    await hand.type(text);
    await goTo('Bench');
  };
  const volume = async (part: string, right: number) => {
    await hand.part(part);
    await hand.reads(`${part} then`, hand.figure('Volume'), right);
  };
  await setValue('rest_len', '190');
  await volume('board', 2114658.5);
  await volume('rest', 447856.992);
  await all();
  await bed('longer rests', 2136.59683);
  await hand.on(undo);
  await setValue('gap', '110');
  await volume('board', 2044258.5);
  await all();
  await bed('wider gap', 2023.44483);
  await hand.on(undo);
  await setValue('wedge', '8');
  await volume('board', 1943058.5);
  await setValue('peg', '10');
  await volume('board', 1939118.94);
  await volume('rest', 397946.904);
  await volume('block', 32592.124);
  await hand.on(undo);
  await hand.on(undo);
  await goTo('Values');
  await hand.on(page.getByLabel('Name of gap', { exact: true }));
  await page.keyboard.press('Control+a');
  await hand.type('middle_gap');
  await goTo('Bench');
  await page.reload();
  await all();
  await bed('renamed', 1954.62883);
});
