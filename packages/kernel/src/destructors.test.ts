import { circle, profile, rectangle } from '@helb/core/samples';
import type { TopoDS_Shape } from 'replicad-opencascadejs';
import type { BodyHandle, Profile, Result } from '@helb/core';
import { pointerReader } from './destructors.ts';
import type { OpenCascadeKernel } from './kernel.ts';
import type { Library } from './library.ts';
import { startKernelInNode } from './node.ts';

let kernel: OpenCascadeKernel;
let library: Library;
beforeAll(async () => {
  kernel = await startKernelInNode();
  library = (kernel as unknown as { library: Library }).library;
});

const value = <T>(result: Result<T>): T => {
  if (!result.ok) throw new Error(JSON.stringify(result.issue));
  return result.value;
};
const extruded = (area: Profile, to: number): BodyHandle =>
  value(kernel.extrude({ profile: area, from: 0, to, step: 's' }))[0]!;

/** Counts how often what a shape refers to is referred to: a shape begins with that, which begins with its functions and the count. */
function referencesTo(shape: TopoDS_Shape): number {
  const words = new Uint32Array(library.wasmMemory.buffer);
  return words[words[pointerReader(library)!(shape) / 4]! / 4 + 1]!;
}
const box = () => {
  const maker = new library.BRepPrimAPI_MakeBox(10, 20, 30);
  return { maker, shape: maker.Shape() };
};

test('a deleted shape no longer refers to what it is made of', () => {
  const { maker, shape } = box();
  maker.delete();
  const before = referencesTo(shape);
  const others = Array.from({ length: 20 }, () => shape.Reversed());
  expect(referencesTo(shape)).toBe(before + 20);
  others.forEach((other) => other.delete());
  expect(referencesTo(shape)).toBe(before);
});

test('a deleted maker lets go of what it has made, and of what it was given', () => {
  const { maker, shape } = box();
  const held = referencesTo(shape);
  maker.delete();
  const alone = referencesTo(shape);
  expect(alone).toBeLessThan(held);

  const rounding = new library.BRepFilletAPI_MakeFillet(shape, 'ChFi3d_Rational');
  expect(referencesTo(shape)).toBeGreaterThan(alone);
  rounding.delete();
  expect(referencesTo(shape)).toBe(alone);

  const move = new library.gp_Trsf();
  const moved = new library.BRepBuilderAPI_Transform(shape, move, false, false);
  expect(referencesTo(shape)).toBeGreaterThan(alone);
  moved.delete();
  expect(referencesTo(shape)).toBe(alone);
  shape.delete();
});

test('who deletes twice is told so', () => {
  const { maker, shape } = box();
  shape.delete();
  maker.delete();
  expect(() => shape.delete()).toThrow();
  expect(() => maker.delete()).toThrow();
});

test('what is used by another stays while that is there', () => {
  const block = extruded(profile(rectangle(0, 0, 20, 10)), 5);
  const moved = value(
    kernel.transformed({
      body: block,
      transform: [
        [1, 0, 0, 30],
        [0, 1, 0, 0],
        [0, 0, 1, 0],
      ],
      step: 'm',
      instance: 'i1',
    }),
  );
  kernel.release(block);
  // other things take the place of what was released
  const others = Array.from({ length: 50 }, (_, k) => extruded(profile(circle(0, 0, 3)), 2 + k));
  expect(kernel.measure(moved).volume_mm3).toBeCloseTo(1000, 9);
  expect(kernel.mesh(moved, { deflection: 0.1, angle: 0.3 }).triangles.length).toBe(36);
  [moved, ...others].forEach((body) => kernel.release(body));
});
