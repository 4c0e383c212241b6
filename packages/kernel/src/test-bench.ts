import {
  filled,
  findRegions,
  Geometry,
  ORIGIN_PLANES,
  type BodyHandle,
  type Entities,
  type Frame,
  type Profile,
  type Result,
} from '@helb/core';
import type { OpenCascadeKernel } from './kernel.ts';
import { startKernelInNode } from './node.ts';

// What tests of the kernel are put together from.

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

export const rectangle = (x: number, y: number, w: number, h: number): Entities => ({
  p0: { kind: 'point', x, y },
  p1: { kind: 'point', x: x + w, y },
  p2: { kind: 'point', x: x + w, y: y + h },
  p3: { kind: 'point', x, y: y + h },
  a: { kind: 'line', a: 'p0', b: 'p1' },
  b: { kind: 'line', a: 'p1', b: 'p2' },
  c: { kind: 'line', a: 'p2', b: 'p3' },
  d: { kind: 'line', a: 'p3', b: 'p0' },
});
export const circle = (x: number, y: number, radius: number): Entities => ({
  m: { kind: 'point', x, y },
  o: { kind: 'circle', centre: 'm', radius },
});
export const profile = (entities: Entities, frame: Frame = ORIGIN_PLANES.top): Profile => ({
  frame,
  regions: filled(findRegions(new Geometry(entities))),
});
export const box = (w: number, d: number, h: number, step = 's'): BodyHandle =>
  all(kernel.extrude({ profile: profile(rectangle(0, 0, w, d)), from: 0, to: h, step }))[0]!;

export const volume = (body: BodyHandle) => kernel.measure(body).volume_mm3;
