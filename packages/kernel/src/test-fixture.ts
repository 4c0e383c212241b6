import type { BodyHandle, Result } from '@helb/core';
import { profile, rectangle } from '@helb/core/samples';
import type { OpenCascadeKernel } from './kernel.ts';
import { startKernelInNode } from './node.ts';

// What tests of the kernel are put together from.

export { circle, profile, rectangle } from '@helb/core/samples';

export let kernel: OpenCascadeKernel;
const made = new Set<BodyHandle>();

/** One kernel for a test file; after each test it holds nothing. */
export function withKernel(): void {
  beforeAll(async () => {
    kernel = await startKernelInNode();
  });
  afterEach(() => {
    made.forEach((body) => kernel.release(body));
    made.clear();
    expect(kernel.held).toBe(0);
  });
}

/** The bodies of a result, released after the test. */
export function all(result: Result<BodyHandle[]>): BodyHandle[] {
  if (!result.ok) throw new Error(JSON.stringify(result.issue));
  result.value.forEach((body) => made.add(body));
  return result.value;
}
export const one = (result: Result<BodyHandle>): BodyHandle =>
  all(result.ok ? { ok: true, value: [result.value] } : result)[0]!;

export const box = (w: number, d: number, h: number, step = 's'): BodyHandle =>
  all(kernel.extrude({ profile: profile(rectangle(0, 0, w, d)), from: 0, to: h, step }))[0]!;

export const volume = (body: BodyHandle) => kernel.measure(body).volume_mm3;

/** The only body of a combination. */
export function combine(...args: Parameters<OpenCascadeKernel['combine']>): BodyHandle {
  const made = kernel.combine(...args);
  return all(made.ok ? { ok: true, value: made.value.bodies } : made)[0]!;
}
