import { largest } from './index.ts';

/** A maker whose sizes build where a rule says so, and what is not released yet. */
function maker(builds: (size: number) => boolean) {
  const kept = new Set<number>();
  const make = (size: number) => {
    if (!builds(size)) return { ok: false } as const;
    kept.add(kept.size + 1);
    return { ok: true, value: kept.size } as const;
  };
  return { make, kept, release: (body: number) => void kept.delete(body) };
}

test('the largest size that builds is told with few digits', () => {
  const { make, release, kept } = maker((size) => size <= 2.34);
  expect(largest(make, 4, release)).toBe(2.31);
  expect(kept.size).toBe(0);
});

test('what is told builds, also where not all that is smaller does', () => {
  const builds = (size: number) => size > 0.115 && size < 0.12;
  const { make, release } = maker(builds);
  expect(builds(largest(make, 0.234, release, 0, 1))).toBe(true);
});

test('a size below a hundredth is told as well, and 0 where none builds', () => {
  const { make, release } = maker((size) => size <= 0.004);
  const found = largest(make, 0.006, release);
  expect(found).toBeGreaterThanOrEqual(0.003);
  expect(found).toBeLessThanOrEqual(0.004);
  expect(largest(maker(() => false).make, 3, release)).toBe(0);
});
