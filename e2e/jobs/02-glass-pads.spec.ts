import { expect } from '../house.ts';
import { job } from './hand.ts';

type Vec3 = readonly [number, number, number];

job({ name: '02 glass pads', today: 173, aim: 104 }, async (hand) => {
  const { page, bench } = hand;
  const volume = (what: string, right: number) => hand.reads(what, hand.figure('Volume'), right);
  const button = (name: string | RegExp) =>
    page.getByRole('button', { name, ...(typeof name === 'string' && { exact: true }) });

  // given: the rail, with four square holes
  await hand.callPart('top rail');
  await hand.turn('2');
  await hand.centredRectangle([0, 0], ['300', '220']);
  await hand.centredRectangle([0, 0], ['220', '140']);
  await hand.centredRectangle([130, 90], ['7', '7']);
  await hand.sizeBetween([130, 90], [150, 40], '20');
  await hand.sizeBetween([130, 90], [60, 110], '20');
  for (const key of ['Escape', 'Escape']) await hand.key(key);
  await hand.drag([122, 82], [140, 99]);
  await hand.clickToo([0, 30]);
  await hand.key('3');
  await hand.key('Escape');
  await hand.drag([-142, 81], [142, 99]);
  await hand.clickToo([30, 0]);
  await hand.key('3');
  await hand.extrude('12');
  await volume('the rail', 420048);
  hand.actions = 0;

  // one side by its number, the other by that of the first
  await hand.newPart('pad');
  await hand.key('q');
  await hand.turn('2');
  await hand.centredRectangle([0, 0], ['width = 16', 'width']);
  await expect(bench.title()).toContainText('settled');
  await hand.extrude('5');
  await volume('block', 1280);
  // the plug is as wide as half of it, which is wrong
  await hand.pick([3, 3, 5]);
  await hand.turn('s');
  await hand.centredRectangle([0, 0], ['width / 2', 'width / 2']);
  await expect(bench.title()).toContainText('settled');
  await hand.extrude('3.5');
  await volume('with its plug', 1504);
  // all edges of the face below, the two distances the wrong way round
  await hand.turnBy(button('Under'));
  await hand.pick([3, 3, 0]);
  await hand.key('c');
  await hand.type('1.5', 'Tab');
  await hand.choose('shape', 'and on the other side');
  await hand.type('2.5');
  await volume('bevel the wrong way round', 1396.5);
  hand.actions++;
  await page.getByTestId('step-Chamfer 1').dblclick({ position: { x: 60, y: 8 } });
  await hand.key('w');
  await hand.key('Enter');
  await volume('bevel', 1391.5);
  // a side of the plug tells its numbers: they are changed there
  await hand.turnBy(button('Corner'));
  await hand.pick([-4, 1, 6.5]);
  for (const at of [0, 1]) {
    await hand.on(button(/^Sketch 2 · size: /).nth(at));
    await hand.type('7');
  }
  await hand.pick([0, -3.5, 8.5]);
  await hand.reads('the plug, measured', hand.reading('length'), 7);
  await volume('the pad', 1339);
  // seen from the rail on which it sits upside down
  await hand.reads(
    'its centre over the seat',
    async () => 5 - (await hand.figure('Centre of mass', 2)())!,
    1.81679425,
    5e-3,
  );

  await hand.select(page.getByLabel('Material'), 'own entry…');
  await hand.type('hard rubber', 'Tab');
  await hand.type('1.15 g/cm³');
  await hand.reads('its mass', hand.figure('Mass'), 1.53985, 5e-3);

  // its sheet: lying and 2:1 as it comes, and told whole by one word
  await hand.on(page.getByRole('link', { name: 'Sheets' }));
  await hand.on(button('Draw pad'));
  await expect(page.getByLabel('Sheet', { exact: true })).toHaveAttribute('data-drawn', 'true', { timeout: 60_000 });
  await hand.choose('projection', 'third angle');
  await hand.on(button('Remove the view from a corner'));
  await hand.on(button('Remove the view from the front, from its left'));
  for (const at of [0, 1]) await hand.on(page.getByRole('checkbox', { name: 'hidden edges' }).nth(at));
  await hand.on(button(/^tell all \d+ that are missing$/));
  const said = page.getByLabel('Sheet', { exact: true });
  for (const [text, times] of [
    ['16', 2],
    ['7', 2],
    ['5', 1],
    ['8.5', 1],
    ['4× 1.5 × 59.04°', 1],
  ] as const)
    await expect(said.getByText(text, { exact: true })).toHaveCount(times);
  const saved = page.waitForEvent('download');
  await hand.on(button('PDF'));
  expect((await saved).suggestedFilename()).toBe('pad.pdf');

  // four of them, each by one edge: the inner edge of the plug's foot on that of a hole
  await hand.on(page.getByRole('link', { name: 'Bench' }));
  await hand.on(page.getByRole('tab', { name: 'Parts' }));
  const nearer = async (place: Vec3, by: number) => {
    await hand.hover(place);
    await hand.wheel(by);
  };
  async function seat([x, y]: readonly [number, number], from: number): Promise<void> {
    await hand.key('j');
    await nearer([from, 0, 5], -900);
    await hand.pick([from + 0.5, -3.5, 5]);
    await nearer([from, 0, 5], 900);
    await nearer([x, y, 12], -900);
    await hand.pick([x + 0.5, y + 3.5, 12]);
    await hand.on(button('angle: 0 deg'));
    await hand.type('180');
    await hand.key('Enter');
  }
  // the first lies in the middle, where it was drawn; others come beside the rail
  await seat([130, 90], 0);
  await hand.reads('height with one', hand.whole('Size', 2), 17);
  for (const hole of [
    [-130, 90],
    [130, -90],
    [-130, -90],
  ] as const) {
    await hand.on(button('Place pad'));
    await hand.reads('it comes beside', hand.whole('Size', 0), 336);
    await seat(hole, 178);
    await hand.reads('it is seated', hand.whole('Size', 0), 300);
  }
  await hand.reads('rail and four pads', hand.whole('Volume'), 425404);
  await hand.reads('height', hand.whole('Size', 2), 17);
  for (const pad of ['pad', 'pad 2', 'pad 3', 'pad 4']) await hand.reads('freedoms', hand.freedoms(pad), 0);
  await hand.on(button('Look'));
  await expect(bench.desk).toContainText('None, in the pose that is shown.');

  hand.changes();
  const undo = button('Undo');
  await hand.on(page.getByRole('link', { name: 'Values' }));
  await hand.on(page.getByLabel('Expression of width', { exact: true }));
  await hand.key('Control+a');
  await hand.type('18');
  await hand.on(page.getByRole('link', { name: 'Sheets' }));
  await expect(said.getByText('18', { exact: true })).toHaveCount(2);
  await expect(said.getByText('8.5', { exact: true })).toHaveCount(1);
  await expect(said.getByText('7', { exact: true })).toHaveCount(2);
  await hand.on(page.getByRole('link', { name: 'Bench' }));
  await hand.reads('wider pads', hand.whole('Volume'), 426704);
  await hand.part('pad');
  await volume('a wider pad', 1664);
  await hand.on(undo);
  await hand.renumber('Chamfer 1', 'other distance', '1');
  await hand.reads('a steeper bevel', hand.figure('Volume'), 1374.83333, 3e-5);
  await hand.on(undo);
  await page.reload();
  await volume('as it was', 1339);
  await hand.on(page.getByRole('tab', { name: 'Parts' }));
  await hand.reads('still seated', hand.whole('Size', 2), 17);
});
