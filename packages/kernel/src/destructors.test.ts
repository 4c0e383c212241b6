import { circle, profile, rectangle } from '@helb/core/samples';
import type { BodyHandle, Entities, Profile, Result } from '@helb/core';
import type { OpenCascadeKernel } from './kernel.ts';
import { startKernelInNode } from './node.ts';

let kernel: OpenCascadeKernel;
beforeAll(async () => (kernel = await startKernelInNode()));

const value = <T>(result: Result<T>): T => {
  if (!result.ok) throw new Error(JSON.stringify(result.issue));
  return result.value;
};
const extruded = (area: Profile, to: number): BodyHandle =>
  value(kernel.extrude({ profile: area, from: 0, to, step: 's' }))[0]!;

/**
 * Memory grows in large steps, and nothing less is seen: takes most of what is free, so that soon little is left.
 * @returns how to give it back
 */
function fill(): () => void {
  const allocator = (kernel as unknown as { library: unknown }).library as {
    ___libc_malloc(size: number): number;
    ___libc_free(at: number): void;
  };
  const taken: number[] = [];
  const untilGrown = (): number => {
    const [before, count] = [kernel.memory(), taken.length];
    while (kernel.memory() === before) taken.push(allocator.___libc_malloc(BLOCK));
    return taken.length - count;
  };
  untilGrown();
  // each step gives as much, the block that made it grow is in the next one
  const step = untilGrown();
  for (let k = 1; k < step - LEFT; k++) taken.push(allocator.___libc_malloc(BLOCK));
  return () => taken.forEach((at) => allocator.___libc_free(at));
}
const BLOCK = 2 ** 16;
/** Blocks that stay free: small things come in pages of their own. */
const LEFT = 128;
const ROUNDS = 250;

/** With so many sides that each body is large. */
function cog(sides: number): Profile {
  const entities: Entities = {};
  for (let k = 0; k < sides; k++) {
    const [angle, radius] = [(2 * Math.PI * k) / sides, k % 2 === 0 ? 20 : 18];
    entities[`p${k}`] = { kind: 'point', x: radius * Math.cos(angle), y: radius * Math.sin(angle) };
    entities[`l${k}`] = { kind: 'line', a: `p${k}`, b: `p${(k + 1) % sides}` };
  }
  return profile(entities);
}

test('what is released gives its memory back: bodies, their meshes, and all that made them', () => {
  const shown = (body: BodyHandle) => {
    kernel.mesh(body, { deflection: 0.1, angle: 0.3 });
    kernel.topology(body);
    kernel.measure(body);
    kernel.release(body);
  };
  const round = (k: number) => {
    shown(extruded(cog(80), 5 + k / 1000));
    if (k % 10 > 0) return;
    const [block, pin] = [extruded(profile(rectangle(0, 0, 20, 10)), 5), extruded(profile(circle(5, 5, 3)), 9)];
    value(kernel.combine('add', [block], [pin])).bodies.forEach(shown);
    [block, pin].forEach((body) => kernel.release(body));
  };
  for (let k = 0; k < 20; k++) round(k);
  const giveBack = fill();
  const before = kernel.memory();
  for (let k = 0; k < ROUNDS; k++) round(k);
  expect(kernel.memory()).toBe(before);
  expect(kernel.held).toBe(0);
  giveBack();
}, 60_000);

test('what is used by another stays while that is there', () => {
  const block = extruded(profile(rectangle(0, 0, 20, 10)), 5);
  const moved = value(
    kernel.moved({
      body: block,
      movement: [
        [1, 0, 0, 30],
        [0, 1, 0, 0],
        [0, 0, 1, 0],
      ],
      step: 'm',
      instance: 1,
    } as never),
  );
  kernel.release(block);
  // other things take the place of what was released
  const others = Array.from({ length: 50 }, (_, k) => extruded(profile(circle(0, 0, 3)), 2 + k));
  expect(kernel.measure(moved).volume_mm3).toBeCloseTo(1000, 9);
  expect(kernel.mesh(moved, { deflection: 0.1, angle: 0.3 }).triangles.length).toBe(36);
  [moved, ...others].forEach((body) => kernel.release(body));
});
