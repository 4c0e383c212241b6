import { once, onceEach } from './once.ts';

test('is worked out once for each thing, also where nothing comes of it', () => {
  const asked: object[] = [];
  const sizeOf = once((thing: { readonly size?: number }) => {
    asked.push(thing);
    return thing.size;
  });
  const [small, none] = [{ size: 1 }, {}];
  expect([small, none, small, none, { size: 1 }].map(sizeOf)).toEqual([1, undefined, 1, undefined, 1]);
  expect(asked).toEqual([small, none, { size: 1 }]);
});

test('is worked out once for each key', () => {
  const asked: number[] = [];
  const square = onceEach((n: number) => {
    asked.push(n);
    return n === 0 ? undefined : n * n;
  });
  expect([2, 0, 2, 0, 3].map(square)).toEqual([4, undefined, 4, undefined, 9]);
  expect(asked).toEqual([2, 0, 3]);
});
