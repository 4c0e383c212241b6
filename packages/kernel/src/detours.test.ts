import { issue } from '@helb/core';
import { detoured, takeDetours, trying } from './detours.ts';
import type { Library } from './library.ts';

// of a library nothing is asked here but who it is
const library = {} as Library;
const codes = () => takeDetours(library).map(({ code }) => code);

test('other ways are told once each, and only once', () => {
  detoured(library, issue('kernel.nearly', { within: 1e-4 }));
  detoured(library, issue('kernel.nearly', { within: 1e-4 }));
  detoured(library, issue('kernel.nearly', { within: 1e-3 }));
  expect(codes()).toEqual(['kernel.nearly', 'kernel.nearly']);
  expect(codes()).toEqual([]);
});

test('what was tried in vain is not told, however deep it lay; what came before it is', () => {
  detoured(library, issue('before'));
  const isMade = trying(
    library,
    () => {
      detoured(library, issue('in vain'));
      return trying(
        library,
        () => (detoured(library, issue('deeper')), true),
        () => true,
      );
    },
    () => false,
  );
  expect(isMade).toBe(true);
  trying(
    library,
    () => detoured(library, issue('wanted')),
    () => true,
  );
  expect(codes()).toEqual(['before', 'wanted']);
});
