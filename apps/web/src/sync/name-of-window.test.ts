import { nameOfWindow } from './windows.ts';

/** A browser in which this page has been called so before, and the lock of that name is free after a while, ms. */
function browser(type: 'reload' | 'navigate', freeAfter: number): Map<string, string> {
  const kept = new Map([['helb window', 'before']]);
  const request = (name: string, { signal }: { signal: AbortSignal }, held: () => unknown) =>
    new Promise((resolve, reject) => {
      signal.addEventListener('abort', () => reject(new Error('waited long enough')));
      setTimeout(() => resolve(signal.aborted ? undefined : held()), name.endsWith('before') ? freeAfter : 0);
    });
  const stubs = {
    navigator: { locks: { request } },
    sessionStorage: { getItem: (key: string) => kept.get(key) ?? null, setItem: kept.set.bind(kept) },
    performance: { getEntriesByType: () => [{ type }] },
  };
  for (const [name, value] of Object.entries(stubs))
    Object.defineProperty(globalThis, name, { value, configurable: true });
  return kept;
}

test('a page that is loaded again keeps its name, however long the old one takes to go: its steps stay its own', async () => {
  const kept = browser('reload', 900);
  expect(await nameOfWindow()).toBe('before');
  expect(kept.get('helb window')).toBe('before');
});

test('a copy of a window that is open is another one, and soon has its own name', async () => {
  const kept = browser('navigate', 3000);
  const name = await nameOfWindow();
  expect(name).not.toBe('before');
  expect(kept.get('helb window')).toBe(name);
});
