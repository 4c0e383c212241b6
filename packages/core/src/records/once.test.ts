import { once } from './once.ts';

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
