import { expect } from '../house.ts';
import { job } from './hand.ts';

type Vec2 = readonly [number, number];
type Vec3 = readonly [number, number, number];

const deg = Math.PI / 180;
/** Where the pin of the hanger is. */
const B = [70 * Math.cos(120 * deg), 70 * Math.sin(120 * deg)] as const;

job({ name: '03 bent shaker arm', today: 100, aim: 60 }, async (hand) => {
  const { page, bench } = hand;
  const { desk } = bench;
  const volume = (what: string, right: number) => hand.reads(what, hand.figure('Volume'), right);
  const button = (name: string) => page.getByRole('button', { name, exact: true });
  const area = (at: number) => hand.on(desk.getByRole('checkbox').nth(at));
  const settled = () => expect(bench.title()).toContainText('settled');
  const rows = page.getByRole('list', { name: 'Placements' }).getByRole('listitem');
  const row = (name: string) => rows.filter({ has: page.getByText(name, { exact: true }) });
  const bothWays = async (distance: string) => {
    await hand.key('b');
    await hand.type(distance);
  };

  // given: a frame with a guide and the pin at the elbow
  await hand.callPart('frame');
  await hand.key('d');
  await hand.on(hand.datum('Top'));
  await hand.type('15');
  await hand.on(hand.datum('Plane 1'));
  await hand.turn('s');
  await hand.centredRectangle([20, -20], ['20', '180']);
  await hand.sizeBetween([20, -20], [0, 0], '180', [-30, -15]);
  await hand.sizeBetween([20, -180], [0, 0], '90', [10, 40]);
  await hand.extrude('10');
  await hand.turn('2');
  await hand.key('o');
  await hand.circle([0, 0], '12');
  await hand.turn('l');
  await hand.key('x');
  await bothWays('40');
  await volume('frame', 36000 + 1440 * Math.PI);

  // a slide with a pin
  await hand.newPart('slide');
  await hand.turn('2');
  await hand.centredRectangle([60, -150], ['16', '30']);
  await hand.sizeBetween([60, -150], [0, 0], '150', [-20, -75]);
  await hand.sizeBetween([60, -150], [0, 0], '90', [10, 40]);
  await hand.key('o');
  await hand.circle([90, -150], '10');
  await settled();
  await hand.turn('l');
  await hand.key('x');
  await area(1);
  await hand.type('10', 'Tab');
  await hand.on(desk.getByRole('button', { name: /^start off the sketch: /i }));
  await hand.type('5');
  await hand.key('Enter');
  await hand.key('x');
  await area(1);
  await area(0);
  await bothWays('10');
  await volume('slide', 4800 + 250 * Math.PI);

  // a rod, with the pin at its upper end
  await hand.newPart('rod');
  await hand.turn('2');
  await hand.key('o');
  for (const y of [-130, 0] as const)
    for (const diameter of ['20', y === 0 ? '12' : '10']) await hand.circle([50, y], diameter);
  await hand.sizeBetween([50, 0], [50, -130], '150', [120, -40]);
  await hand.sizeBetween([50, 0], [0, 0], '90', [30, 40]);
  await hand.key('k');
  for (const x of [80, 100]) {
    await hand.click([x, 0]);
    await hand.click([x, -150]);
    await hand.key('Escape');
  }
  await settled();
  await hand.turn('l');
  await hand.key('x');
  await bothWays('7');
  await hand.key('x');
  for (const at of [0, 1, 3, 4]) await area(at);
  await bothWays('26');
  await volume('rod', (3000 + 100 * Math.PI - 25 * Math.PI) * 7 + 36 * Math.PI * 19);

  // a hanger on a pin at 70 from the elbow
  await hand.newPart('hanger');
  await hand.turn('2');
  await hand.key('k');
  await hand.click([0, 0]);
  await hand.point(B);
  await hand.type('70', 'Tab');
  await hand.type('120');
  for (const key of ['Escape', 'Escape']) await hand.key(key);
  await hand.click([B[0] / 2, B[1] / 2]);
  for (const key of ['y', 'Escape', 'o']) await hand.key(key);
  await hand.circle(B, '12');
  await hand.turn('l');
  await hand.key('x');
  await bothWays('40');
  await hand.pick([...B, 20]);
  await hand.turn('s');
  await hand.key('o');
  await hand.circle(B, '24');
  await hand.centredRectangle([B[0], 20], ['24', '80']);
  await hand.sizeBetween([B[0], 20], B, '40', [-60, 40]);
  await hand.extrude('6');
  await volume('hanger', 1440 * Math.PI + (1920 + 72 * Math.PI) * 6);

  // the slide on its guide, the rod on the slide, as they are drawn
  await hand.on(page.getByRole('tab', { name: 'Parts' }));
  await hand.on(row('rod').getByRole('checkbox'));
  for (const key of ['p', 'k']) await hand.key(key);
  await hand.pick([80, -140, 25]);
  await hand.pick([82, -145, 5]);
  await hand.key('Enter');
  await hand.on(row('rod').getByRole('checkbox'));
  await hand.turnBy(button('Under'));
  for (const key of ['v', 'k']) await hand.key(key);
  await hand.pickListed([90, -145, -5], /^slide · edge/);
  await hand.pick([90, -70, -3.5]);
  await hand.key('Enter');

  // the arm: an unfinished sketch, that of a slit, and the tool at the pin of the hanger
  await hand.newPart('arm');
  await hand.turn('2');
  await hand.key('o');
  for (const x of [0, 90]) for (const diameter of ['32', '12']) await hand.circle([x, 0], diameter);
  await hand.turn('l');
  await hand.turn('1');
  await hand.centredRectangle([125, 0], ['80', '8']);
  await hand.sizeBetween([125, 0], [0, 0], '90', [50, -30]);
  await settled();
  await hand.turn('l');
  await hand.turn('2');
  await hand.key('o');
  for (const diameter of ['20', '12']) await hand.circle(B, diameter);
  await hand.turn('l');
  await hand.key('x');
  await area(1);
  await bothWays('22');
  await hand.on(page.getByTestId('step-Sketch 3').getByText('Sketch 3'));
  for (const key of ['x', 'b', 'r']) await hand.key(key);
  await hand.type('10');
  await hand.reads('tool', hand.figure('Volume'), 4900.88454, 1e-5);
  await hand.on(page.getByRole('tab', { name: 'Parts' }));
  await hand.turnBy(button('Corner'));
  for (const name of ['hanger', 'arm']) {
    await hand.on(row(name).getByText(name, { exact: true }));
    for (const key of ['h', 'Escape']) await hand.key(key);
  }
  await hand.reads('freedoms before the joints', hand.whole('Freedoms'), 14);
  hand.actions = 0;

  // the outline: a ring about the pin of the hanger, four lines that touch, the elbow rounded
  await hand.part('arm');
  await hand.open('Sketch 1');
  await hand.point([45, 20]);
  await hand.wheel(600);
  await hand.key('o');
  await hand.circle(B, '32');
  await hand.turnBy(button('Fit'));
  await hand.key('k');
  const beside = (along: number, side: number): Vec2 => [
    along * B[0] - side * 16 * Math.sin(120 * deg),
    along * B[1] + side * 16 * Math.cos(120 * deg),
  ];
  for (const [from, to] of [
    [[5, 15.5], [84, 15.5]],
    [[5, -15.5], [84, -15.5]],
    [beside(0.05, 1), beside(0.97, 1)],
    [beside(0.05, -1), beside(0.97, -1)],
  ] as const) {
    await hand.click(from);
    await hand.click(to);
    await hand.key('Escape');
  } // prettier-ignore
  await settled();
  await hand.key('Escape');
  await hand.click([45, 16]);
  await hand.clickToo([0, 32]);
  await hand.key('1');
  await hand.type('60');
  await settled();
  await hand.turn('l');

  // joints on the mere sketch, nothing moves
  await hand.on(page.getByRole('tab', { name: 'Parts' }));
  for (const key of ['v', 'k']) await hand.key(key);
  const freedoms = async () => Number(await page.getByTestId('joined-freedoms').innerText());
  for (const [at, name, right] of [
    [[0, -4.5, 20], 'frame', 9],
    [[90, -4.5, 13], 'rod', 7],
    [[B[0], B[1] - 4.5, -20], 'hanger', 2],
  ] as const) {
    await hand.pickListed(at, new RegExp(`^${name} · edge`));
    await hand.pickListed([45, -16, 0], /^arm/);
    await hand.reads(`freedoms with the ${name}`, freedoms, right);
  }
  await hand.key('Enter');
  await hand.pull([60, -16, 0], [60 * Math.cos(0.26), 60 * Math.sin(0.26) - 16, 0]);
  await expect(page.getByTestId('pose')).toContainText('Moved');

  // made solid, slit, and the tool taken away
  await hand.part('arm');
  await hand.on(page.getByTestId('step-Sketch 1').getByText('Sketch 1'));
  await hand.key('x');
  await hand.choose('result', 'new body');
  await bothWays('22');
  await hand.reads('extruded, beside the tool', hand.figure('Volume'), 129311.557 + 4900.88454);
  for (const key of ['x', 'b', 'r', 'e', 'Enter']) await hand.key(key);
  await hand.reads('with its slit', hand.figure('Volume'), 116759.345 + 4900.88454);
  await hand.key('j');
  await hand.pickListed([45, 5, 11], /^body/);
  await hand.pickListed([...B, 11], /^body/);
  await hand.choose('way', 'Cut away');
  await hand.key('Enter');
  await volume('the arm', 111858.46);
  await hand.on(page.getByRole('tab', { name: 'Parts' }));
  await hand.pull([45, -16, 11], [45 * Math.cos(0.26) + 4, 45 * Math.sin(0.26) - 16, 11]);
  await expect(page.getByTestId('pose')).toContainText('Moved');

  hand.changes();
  const undo = button('Undo');
  await hand.on(page.getByRole('link', { name: 'Motion' }));
  const place = (k: number) => hand.reading('centre', k);
  async function turned(by: number): Promise<void> {
    const turn = by * deg;
    await hand.on(page.getByLabel('Drive Revolute 2 turn to'));
    await hand.key('Control+a');
    await hand.type(`${by} deg`);
    const a: Vec2 = [90 * Math.cos(turn), 90 * Math.sin(turn)];
    const b: Vec2 = [70 * Math.cos(turn + 120 * deg), 70 * Math.sin(turn + 120 * deg)];
    const slide = a[1] - Math.sqrt(150 ** 2 - (a[0] - 90) ** 2);
    const drive = page.getByLabel('Drive Prismatic 1 slide to');
    // shown to a hundredth of a mm, and counted downwards
    await hand.reads('height of the slide', async () => -150 - parseFloat(await drive.inputValue()), slide, 5e-5);
    // and places to a thousandth
    for (const [name, at] of [
      ['A', [...a, 13]],
      ['B', [...b, 11]],
    ] as [string, Vec3][]) {
      await hand.pickListed(
        [at[0], at[1] - (name === 'A' ? 6 : 10), at[2]],
        name === 'A' ? /^rod · edge/ : /^arm · edge/,
      );
      for (const k of [0, 1])
        await hand.reads(`${name} at ${by} deg`, place(k), at[k]!, 5e-4 / Math.max(1, Math.abs(at[k]!)));
    }
  }
  await turned(15);
  await turned(-20);

  await hand.on(page.getByRole('link', { name: 'Bench' }));
  await hand.part('arm');
  await hand.resize('Sketch 1', 'R60', '45');
  await volume('a tighter elbow', 109995.971);
  await hand.on(undo);
  await hand.part('hanger');
  await hand.resize('Sketch 1', '70', '80');
  await hand.part('arm');
  await volume('the pin farther out', 118898.46);
  await hand.on(undo);
  await volume('as it was', 111858.46);
  await page.reload();
  await volume('loaded anew', 111858.46);
  await hand.on(page.getByRole('tab', { name: 'Parts' }));
  await hand.reads('its joints hold', hand.whole('Freedoms'), 2);
  await hand.pull([45, -16, 11], [45 * Math.cos(0.26) + 4, 45 * Math.sin(0.26) - 16, 11]);
  await expect(page.getByTestId('pose')).toContainText('Moved');
});
