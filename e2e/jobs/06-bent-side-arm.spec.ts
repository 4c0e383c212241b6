import { expect } from '../house.ts';
import { job } from './hand.ts';

type Vec2 = readonly [number, number];

const DEG = Math.PI / 180;
/** The corners of the old arm that its repair is told by: hub, bend, and the end of the leg at an angle inside. */
const legEnd = (inside: number, along = 90): Vec2 => [
  120 + along * Math.cos(Math.PI - inside * DEG),
  -along * Math.sin(Math.PI - inside * DEG),
];

job({ name: '06 bent side arm', today: 104, aim: 62 }, async (hand) => {
  const { page, bench } = hand;
  const view = (side: string) => hand.turnBy(page.getByRole('button', { name: side, exact: true }));
  const volume = (what: string, right: number, within?: number) =>
    hand.reads(what, hand.figure('Volume'), right, within);
  const settled = () => expect(bench.title()).toContainText('settled');

  // given: the plate of the axle, and the old arm that does not reach it, with a leg that nobody dimensioned
  await hand.callPart('axle plate');
  await hand.turn('1');
  await hand.point([0, 0]);
  await hand.wheel(900);
  await hand.key('b');
  await hand.click([-40, -80]);
  await hand.point([100, -95]);
  await hand.type('300', 'Tab');
  await hand.type('12');
  await hand.sizeBetween([100, -80], [0, 0], '80');
  await hand.turn('l');
  for (const key of ['x', 'b']) await hand.key(key);
  await hand.type('200');
  await hand.newPart('arm');
  await hand.key('q');
  await hand.turn('1');
  await hand.key('k');
  await hand.click([0, 0]);
  await hand.typeAt([60, 0], '120');
  await hand.click(legEnd(148));
  for (const key of ['Escape', 'Escape']) await hand.key(key);
  await hand.drag([-8, 30], [200, -60]);
  for (const key of ['y', '0', 'b']) await hand.key(key);
  await hand.typeAt([60, 20], '14');
  await hand.click([60, 20]);
  await hand.turn('l');
  for (const key of ['x', 'w']) await hand.key(key);
  await hand.type('28');
  await volume('old block', 164640);
  await view('Back');
  await hand.pick([60, 28, 5]);
  await hand.turn('s');
  await hand.key('r');
  await hand.click([-60, 5]);
  await hand.key('f');
  await hand.click([-60, 14]);
  await hand.typeAt([-60, 5], '4');
  await hand.click([-60, 5]);
  await hand.turn('l');
  for (const key of ['x', 'r']) await hand.key(key);
  for (const area of [/with 1 opening/, /inside/]) await hand.on(page.getByRole('checkbox', { name: area }));
  await hand.type('21');
  await volume('with its pocket', 79800);
  await view('Right');
  await hand.pick([196.3, 4, -47.7]);
  await hand.turn('s');
  await hand.key('b');
  await hand.click([4, 57]);
  await hand.point([20, 71]);
  await hand.type('18', 'Tab');
  await hand.type('14');
  await hand.sizeBetween([4, 64], [0, 68], '4');
  await hand.sizeBetween([13, 71], [13, 77.6], '7');
  await settled();
  await hand.turn('l');
  for (const key of ['x', 'r']) await hand.key(key);
  await hand.type('4');
  await volume('with its window', 79800 - 1008);
  await view('Right');
  await hand.pick([203.74, 24, -35.82]);
  await hand.pickToo([188.9, 24, -59.57]);
  await hand.pickToo([124.01, 24, 14]);
  await hand.key('u');
  await hand.type('6');
  await hand.reads('its lowest corner', hand.figure('Size', 2), 59.5654071 + 14 - 2.26, 0.1);
  hand.actions = 0;

  // the first sketch: what nobody dimensioned, then the foot, along which the outline goes on
  await hand.open('Sketch 1');
  await hand.sizeBetween([60, 0], legEnd(148, 45), '150', [118, -28]);
  const [x, z] = legEnd(150, 45);
  await hand.sizeBetween([x, z], [x + 12, z + 20.8], '90');
  await settled();
  const end = legEnd(150);
  await hand.key('k');
  await hand.click(end);
  await hand.typeAt([end[0], -70], '35');
  for (const key of ['Escape', 'Escape']) await hand.key(key);
  await hand.click([end[0], -65]);
  for (const key of ['y', '0']) await hand.key(key);
  await hand.click([end[0] + 20, -70]);
  await settled();
  await hand.turn('l');
  // the window on what is the end now, the pocket along its new outline, and the depths
  await hand.open('Sketch 3');
  await hand.on(page.getByRole('button', { name: /^take an edge.*instead$/ }).first());
  await hand.size('4', '12');
  await hand.turn('l');
  await hand.open('Sketch 2');
  await hand.on(page.getByRole('button', { name: 'take it as it is now' }));
  await hand.turn('l');
  await hand.renumber('Extrusion 1', 'distance', '34');
  await volume('thicker, the pocket as it was', 133700 - 1008);
  await hand.renumber('Extrusion 2', 'distance', '27');
  await volume('with pocket and window', 104252);
  // the old rounds: what is gone makes room for what is picked
  const T15 = 14 * Math.tan(15 * DEG);
  const T30 = 14 * Math.tan(30 * DEG);
  await view('Under');
  const [right, left] = [end[0] + 14, end[0] - 14];
  await hand.on(page.getByTestId('step-Fillet 1').getByRole('button', { name: 'choose', exact: true }).first());
  for (const [at, up] of [
    [0, -14],
    [left, -80],
    [right, -80],
  ] as const)
    await hand.pick([at, 24, up]);
  await view('Corner');
  for (const [at, up] of [
    [0, 14],
    [right, -45 + T30],
  ] as const)
    await hand.pick([at, 24, up]);
  await hand.key('Enter');
  await volume('six of them rounded', 104252 - 1050.69059 - 34 * 36 * (T15 / 14 + T30 / 14 - Math.PI / 4));
  await view('Under');
  await hand.pick([120 - T15, 24, -14]);
  await view('Left');
  await hand.pickToo([left, 24, -45 - T30]);
  await hand.key('u');
  await hand.type('12');
  await volume('the arm', 103421.267);
  await hand.reads('its middle', hand.figure('Centre of mass', 1), 12.629893, 1e-5);

  // its twin, open on the other side
  await hand.key('d');
  await hand.on(hand.datum('Front'));
  await hand.type('-150 / 2');
  await hand.key('m');
  // there is only one
  await hand.choose('what', 'bodies');
  await hand.key('Enter');
  await volume('both', 2 * 103421.267);
  await hand.reads('half way between them', hand.figure('Centre of mass', 1), 75);
  await view('Top');
  await hand.pick([60, 34, 14]);
  await hand.pickToo([60, 116, 14]);
  await hand.reads('clear between them', hand.reading('distance'), 82);

  await hand.on(page.getByRole('tab', { name: 'Parts' }));
  await hand.reads('from top to the bottom of the plate', hand.whole('Size', 2), 14 + 80 + 12);
  await hand.on(bench.desk.getByRole('button', { name: 'Look' }));
  await hand.reads('nothing overlaps', hand.whole('Volume'), 2 * 103421.267 + 300 * 200 * 12);
  await expect(page.getByText('None, in the pose that is shown.')).toBeVisible();
  await hand.part('arm');

  hand.changes();
  const size = async (what: string, [wide, high]: Vec2) => {
    await hand.reads(`${what}: size along x`, hand.figure('Size', 0), wide + 14, 1e-4);
    await hand.reads(`${what}: its end`, hand.figure('Size', 2), 14 - high, 1e-4);
  };
  const undone = async (times: number) => {
    for (let k = 0; k < times; k++) await hand.on(page.getByRole('button', { name: 'Undo', exact: true }));
    await volume('undone', 2 * 103421.267);
  };
  await hand.resize('Sketch 1', '90', '100');
  await volume('a longer leg', 2 * 107541.267);
  await size('a longer leg', [206.60254, -85]);
  await undone(1);
  await hand.resize('Sketch 1', '35', '45');
  await volume('a longer foot', 2 * 107541.267);
  await size('a longer foot', [197.942286, -90]);
  await undone(1);
  await page.reload();
  await volume('loaded anew', 2 * 103421.267);
  await expect(page.getByText('is gone')).toHaveCount(0);
  const depth = page.getByTestId('step-Extrusion 2').getByRole('button', { name: 'distance: ' });
  await expect(depth).toContainText('27');
});
