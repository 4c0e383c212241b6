import { customAlphabet } from 'nanoid';

// Windows of one browser, told apart by a name each that is the same after a reload. A window that is open holds a lock by
// its name; where the browser has no locks no window is known to be open.

const lockOf = (window: string) => `helb-window-${window}`;
const LOCK = lockOf('');
const newName = customAlphabet('0123456789abcdefghijkmnpqrstuvwxyz', 10);
/**
 * So long a lock is waited for, ms. One that is held may be that of the window that this one is a copy of. A page that is
 * loaded again is no copy: it gets its lock back once the old one has gone, which takes a while where that was busy. Under
 * another name it would take its own steps for those of another window, and could not undo them.
 */
const [OF_A_COPY, LOADED_AGAIN] = [500, 20_000];

let known: Promise<string> | undefined;

/** The name of this window. */
export const thisWindow = (): Promise<string> => (known ??= nameOfWindow());

/** The name of this window, found anew and held. */
export async function nameOfWindow(): Promise<string> {
  const [loaded] = performance.getEntriesByType('navigation') as PerformanceNavigationTiming[];
  const patience = loaded?.type === 'reload' ? LOADED_AGAIN : OF_A_COPY;
  const before = sessionStorage.getItem('helb window');
  // a window that was copied has the name of one that is open
  const name = before !== null && (await isHeld(before, patience)) ? before : newName();
  if (name !== before) await isHeld(name, OF_A_COPY);
  sessionStorage.setItem('helb window', name);
  return name;
}

/** Takes the lock for as long as this page lives. */
function isHeld(window: string, patience: number): Promise<boolean> {
  if (!('locks' in navigator)) return Promise.resolve(false);
  return new Promise((resolve) => {
    navigator.locks
      .request(lockOf(window), { signal: AbortSignal.timeout(patience) }, () => {
        resolve(true);
        return new Promise(() => undefined);
      })
      .catch(() => resolve(false));
  });
}

/** The windows of this browser that are open, this one among them. */
export async function openWindows(): Promise<ReadonlySet<string>> {
  if (!('locks' in navigator)) return new Set();
  const { held = [] } = await navigator.locks.query();
  return new Set(held.flatMap(({ name }) => (name?.startsWith(LOCK) === true ? [name.slice(LOCK.length)] : [])));
}
