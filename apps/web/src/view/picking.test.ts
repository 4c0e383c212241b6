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
  expect(p.snapshot.under).toEqual({ at: [10, 20], picks: [top, wall, foot], chosen: 0 });
  expect([p.next(), p.pointed, p.next(), p.pointed, p.next(), p.pointed]).toEqual([true, wall, true, foot, true, top]);
});

test('where one thing lies there is nothing to step to, where nothing lies nothing is chosen', () => {
  const p = picking();
  p.hover([0, 0], [top!]);
  expect(p.next()).toBe(false);
  p.hover([500, 0], []);
  expect([p.snapshot.under, p.pointed, p.next()]).toEqual([undefined, undefined, false]);
});

test('a new place chooses the nearest again; leaving forgets all', () => {
  const p = picking();
  p.hover([0, 0], [top!, wall!]);
  p.next();
  p.hover([1, 0], [top!, wall!]);
  expect(p.pointed).toBe(top);
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
