import type { Kernel } from '@helb/core';

/** How often a kernel was called and how long that took, ms, since the last reset. */
export interface Watch {
  readonly kernel: Kernel;
  calls: number;
  time: number;
  reset(): void;
}

/** A kernel whose calls are counted and timed: what is left of a build's time is ours. */
export function watched(kernel: Kernel): Watch {
  const watch: Watch = {
    kernel: new Proxy(kernel, {
      get(target, name) {
        const member: unknown = Reflect.get(target, name, target);
        if (typeof member !== 'function') return member;
        return (...args: unknown[]): unknown => {
          const start = performance.now();
          const result: unknown = Reflect.apply(member, target, args);
          watch.time += performance.now() - start;
          watch.calls++;
          return result;
        };
      },
    }),
    calls: 0,
    time: 0,
    reset() {
      watch.calls = 0;
      watch.time = 0;
    },
  };
  return watch;
}
