import { Picking } from './picking.ts';

interface Thing {
  readonly name: string;
  readonly at?: number;
}
const [top, wall, foot]: Thing[] = [{ name: 'top' }, { name: 'wall' }, { name: 'foot' }];
const picking = () => new Picking<Thing>((a, b) => a.name === b.name);

test('the nearest is chosen; stepping goes on to what lies behind, and round', () => {
  const p = picking();
  p.hover([10, 20], [top!, wall!, foot!]);
  expect(p.snapshot.under).toEqual({ at: [10, 20], picks: [top, wall, foot], chosen: 0, isHeld: false });
  expect([p.next(), p.pointed, p.next(), p.pointed, p.next(), p.pointed]).toEqual([true, wall, true, foot, true, top]);
});

test('where one thing lies there is nothing to step to, where nothing lies nothing is chosen', () => {
  const p = picking();
  p.hover([0, 0], [top!]);
  expect(p.next()).toBe(false);
  p.hover([500, 0], []);
  expect([p.snapshot.under, p.pointed, p.next()]).toEqual([undefined, undefined, false]);
});

test('what was stepped to stays chosen, and the list where it is, till the pointer goes or a click takes it', () => {
  const p = picking();
  p.hover([0, 0], [top!, wall!]);
  p.next();
  // a hand is never quite still, and something else may come under it
  p.hover([6, 5], [foot!, wall!]);
  expect([p.pointed, p.snapshot.under!.at]).toEqual([wall, [0, 0]]);
  expect(p.picked([], false)).toEqual([wall]);
  p.hover([7, 5], [foot!, wall!]);
  expect(p.pointed).toBe(foot);
  p.next();
  p.hover([60, 5], [foot!, wall!]);
  expect(p.pointed).toBe(foot);
});

test('a list that is held can be pointed at; while nothing else comes under the pointer it stays too', () => {
  const p = picking();
  p.hover([0, 0], [top!, wall!]);
  p.hover([9, 9], [{ name: 'top', at: 2 }, wall!]);
  expect(p.snapshot.under).toMatchObject({ at: [0, 0], isHeld: false });
  // what is pulled is where it was met last
  expect(p.pointed).toEqual({ name: 'top', at: 2 });
  p.hold();
  p.hover([15, 12], []);
  p.choose(1);
  p.choose(7);
  expect(p.pointed).toBe(wall);
});

test('a new place chooses the nearest again; leaving forgets all', () => {
  const p = picking();
  p.hover([0, 0], [top!, wall!]);
  p.hover([1, 0], [wall!, top!]);
  expect(p.pointed).toBe(wall);
  const told: unknown[] = [];
  p.subscribe(({ under }) => told.push(under));
  p.forget();
  p.forget();
  expect(told).toEqual([undefined]);
});

test('a press that ends near where it began is a click, a farther one a drag, and none without a press', () => {
  const p = picking();
  p.press([100, 100]);
  expect(p.release([102, 103])).toBe(true);
  expect(p.release([102, 103])).toBe(false);
  p.press([100, 100]);
  expect(p.release([103, 104])).toBe(false);
});

test('a click picks one; with Shift it adds, and takes back what is picked already', () => {
  const p = picking();
  p.hover([0, 0], [wall!]);
  expect(p.picked([top!], false)).toEqual([wall]);
  expect(p.picked([top!], true)).toEqual([top, wall]);
  // another object that means the same
  expect(p.picked([top!, { name: 'wall', at: 3 }], true)).toEqual([top]);
  p.forget();
  expect(p.picked([top!], false)).toEqual([]);
});
