import { ORIGIN_PLANES, type BodyHandle } from '@helb/core';
import { FIT_MM, fittedHollow } from './fitted-hollow.ts';
import { nearest } from './gaps.ts';
import { guarded } from './library.ts';
import { partsOf } from './parts.ts';
import { all, box, circle, kernel, one, profile, rectangle, volume, withKernel } from './test-fixture.ts';

withKernel();

/** From a rectangle on the ground to a circle above it: its four edges are sharp below and smooth above. */
function funnel(width: number, depth: number, radius: number, height: number): BodyHandle {
  const above = { ...ORIGIN_PLANES.top, origin: [3, -2, height] } as const;
  const sections = [profile(rectangle(-width / 2, -depth / 2, width, depth)), profile(circle(0, 0, radius), above)];
  return all(kernel.loft({ sections, straight: true, step: 'l' }))[0]!;
}

const fitted = (body: BodyHandle, open: readonly string[], wall: number) =>
  guarded(kernel['library'], (scope) =>
    fittedHollow(kernel['library'], scope, kernel['body'](body), { body, open: [...open], wall, step: 'h' }),
  );

test('where the library finds walls they are the same, as near as is told', () => {
  const body = funnel(30, 24, 8, 40);
  const plain = one(kernel.shell({ body, open: ['l/start'], wall: 1.5, step: 'h' }));
  expect(kernel.takeDetours()).toEqual([]);
  const made = fitted(body, ['l/start'], 1.5);
  if (!made.ok) throw new Error(made.issue.code);
  const fit = one({ ok: true, value: kernel['adopt'](made.value) });
  const { area_mm2, volume_mm3 } = kernel.measure(plain);
  expect(Math.abs(volume(fit) - volume_mm3)).toBeLessThan((FIT_MM * area_mm2) / 2);
  expect(Math.abs(volume(fit) - volume_mm3)).toBeLessThan(1e-5 * volume_mm3);
  const names = (of: BodyHandle) => kernel.topology(of).faces.map(({ name }) => name);
  expect(names(fit).toSorted()).toEqual(names(plain).toSorted());
});

test('where the library finds none: as thick as told everywhere, and it says how', () => {
  const [body, open] = [funnel(60, 40, 15, 50), ['l/end']];
  const made = one(kernel.shell({ body, open, wall: 2.4, step: 'h' }));
  expect(kernel.takeDetours().map(({ code }) => code)).toEqual(['kernel.hollow-fitted']);
  const insides = kernel.topology(made).faces.filter(({ name }) => name.startsWith('h/inside'));
  const sides = kernel.topology(body).faces.filter(({ name }) => name.startsWith('l/side'));
  expect(insides).toHaveLength(sides.length + 1);
  const library = kernel['library'];
  const outer = partsOf(library, kernel['body'](body)).faces.filter(({ name }) => name !== 'l/end');
  const mesh = kernel.mesh(made, { deflection: 0.2, angle: 0.3 });
  let looked = 0;
  for (const { name, start, count } of mesh.faces) {
    if (!name.startsWith('h/inside')) continue;
    for (let k = start; k < start + count; k += 149) {
      const at = [0, 1, 2].map((c) => mesh.positions[3 * mesh.triangles[k]! + c]!) as [number, number, number];
      const off = guarded(library, (scope) => {
        const place = scope.keep(new library.BRepBuilderAPI_MakeVertex(scope.keep(new library.gp_Pnt(...at)))).Vertex();
        const gaps = outer.map(({ shape }) => nearest(library, scope, place, shape));
        return { ok: true, value: Math.min(...gaps.map((gap) => (gap.ok ? gap.value.distance_mm : NaN))) };
      });
      if (!off.ok) throw new Error(off.issue.code);
      // places of the mesh are told in single precision
      const within = FIT_MM + 1e-5;
      expect(off.value).toBeGreaterThan(2.4 - within);
      // beside the rim of an opening the sides are carried on beyond it
      if (at[2] > 47.6) continue;
      expect(off.value).toBeLessThan(2.4 + within);
      looked++;
    }
  }
  expect(looked).toBeGreaterThan(10);
});

test('what has no ring of bent sides between two flat ends is not its business', () => {
  const refused = (body: BodyHandle, open: readonly string[]) => !fitted(body, open, 1).ok;
  expect(refused(box(30, 20, 10), ['s/end'])).toBe(true);
  expect(refused(funnel(30, 24, 8, 40), ['l/side/o'])).toBe(true);
  expect(fitted(funnel(30, 24, 8, 40), ['l/end'], -1).ok).toBe(false);
  expect(fitted(funnel(30, 24, 8, 40), ['l/end'], 9).ok).toBe(false);
});
