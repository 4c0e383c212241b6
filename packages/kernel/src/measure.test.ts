import { enclosedVolume, frameOn, rotation, type BodyHandle, type Entities, type Vec3 } from '@helb/core';
import { all, box, circle, combine, kernel, one, profile, rectangle, withKernel } from './test-fixture.ts';

withKernel();

const ellipse = (a: number, b: number): Entities => ({
  m: { kind: 'point', x: 0, y: 0 },
  t: { kind: 'point', x: a, y: 0 },
  e: { kind: 'ellipse', centre: 'm', tip: 't', minor: b },
});
const at = (z: number) => ({ origin: [0, 0, z], x: [1, 0, 0], y: [0, 1, 0], z: [0, 0, 1] }) as const;
const jar = () =>
  all(
    kernel.loft({
      step: 'l',
      straight: true,
      sections: [profile(ellipse(42, 17), at(0)), profile(ellipse(31, 17), at(110))],
    }),
  )[0]!;

test('a loft between ellipses: the integral of pi a b, and its centre on both planes of symmetry', () => {
  const { volume_mm3, centre_mm, off } = kernel.measure(jar());
  // a goes evenly from 42 to 31, b stays 17
  expect(volume_mm3 / (Math.PI * 17 * 36.5 * 110)).toBeCloseTo(1, 8);
  expect(Math.hypot(centre_mm[0], centre_mm[1])).toBeLessThan(1e-6);
  expect(off.volume_mm3).toBeLessThan(1e-6 * volume_mm3);
});

test('shelled 1.2, open above: what its triangles enclose, symmetric, and sure', () => {
  const shell = one(kernel.shell({ body: jar(), step: 's', open: ['l/end'], wall: 1.2 }));
  const { volume_mm3, centre_mm, off } = kernel.measure(shell);
  const meshed = enclosedVolume(kernel.mesh(shell, { deflection: 0.05, angle: 0.2 }));
  expect(volume_mm3 / meshed).toBeCloseTo(1, 2);
  expect(Math.hypot(centre_mm[0], centre_mm[1])).toBeLessThan(1e-4);
  expect(off.volume_mm3).toBeLessThan(1e-6 * volume_mm3);
});

describe('walls of a loft that is cut at a slant', () => {
  // an upright elliptic cylinder 42 x 17, cut by a plane that leans by 0.3 about y, 60 high in its middle
  const [a, b, high, lean] = [42, 17, 60, Math.atan(0.3)];
  const slanted = (): BodyHandle => {
    const [tall] = all(
      kernel.loft({
        ...{ step: 'l', straight: true },
        sections: [profile(ellipse(a, b), at(0)), profile(ellipse(a, b), at(110))],
      }),
    ) as [BodyHandle];
    const plane = { ...frameOn([0, 0, high], [-Math.sin(lean), 0, Math.cos(lean)]), x: [0, 1, 0] } as const;
    const y = [-Math.cos(lean), 0, -Math.sin(lean)] as const;
    const [tool] = all(
      kernel.extrude({
        ...{ profile: profile(rectangle(-100, -100, 200, 200), { ...plane, y }), from: 0, to: 200, step: 'c' },
      }),
    ) as [BodyHandle];
    return combine('cut', [tall], [tool]);
  };
  /** The area within a curve parallel to an ellipse, by its length (Steiner); the length by its mean over one turn. */
  const inside = (wall: number): number => {
    const n = 4000;
    const length = Array.from({ length: n }, (_, k) => (2 * Math.PI * (k + 0.5)) / n)
      .map((t) => Math.hypot(a * Math.sin(t), b * Math.cos(t)))
      .reduce((sum, speed) => sum + (speed * 2 * Math.PI) / n, 0);
    return Math.PI * a * b - length * wall + Math.PI * wall ** 2;
  };

  test.each([1.2, 4, 6.5])('%s thick, open below: by the parallel curve of the ellipse', (wall) => {
    const shell = one(kernel.shell({ body: slanted(), step: 's', open: ['l/start'], wall }));
    const { volume_mm3, centre_mm, off } = kernel.measure(shell);
    const expected = Math.PI * a * b * high - inside(wall) * (high - wall / Math.cos(lean));
    expect(volume_mm3 / expected).toBeCloseTo(1, 5);
    expect(Math.abs(centre_mm[1])).toBeLessThan(1e-4);
    expect(off.volume_mm3).toBeLessThan(1e-5 * volume_mm3);
    const called = kernel.faceNames(shell);
    expect(called.filter((name) => name.startsWith('s/inside'))).toHaveLength(2);
    expect(called).toContain('l/start');
  });

  test('thicker than the tips bend they leave no hollow that is known', () => {
    // the tips bend by 17^2 / 42
    expect(kernel.shell({ body: slanted(), step: 's', open: ['l/start'], wall: 8 })).toMatchObject({
      issue: { code: 'shell.wall' },
    });
  });
});

test('a ball, a ring and a cone by their formulas, with inertia', () => {
  const about = { origin: [0, 0, 0], axis: [0, 0, 1], from: 0, to: 2 * Math.PI } as const;
  const half: Entities = {
    a: { kind: 'point', x: 0, y: -5 },
    b: { kind: 'point', x: 0, y: 5 },
    m: { kind: 'point', x: 0, y: 0 },
    l: { kind: 'line', a: 'b', b: 'a' },
    r: { kind: 'arc', centre: 'm', a: 'a', b: 'b', radius: 5 },
  };
  const frame = { origin: [0, 0, 0], x: [1, 0, 0], y: [0, 0, 1], z: [0, -1, 0] } as const;
  const ball = kernel.measure(all(kernel.revolve({ step: 'b', profile: profile(half, frame), ...about }))[0]!);
  expect(ball.volume_mm3).toBeCloseTo((4 / 3) * Math.PI * 125, 9);
  expect(ball.area_mm2).toBeCloseTo(4 * Math.PI * 25, 9);
  expect(ball.inertia_mm5[0]).toBeCloseTo((2 / 5) * ball.volume_mm3 * 25, 7);
  const ring = kernel.measure(
    all(kernel.revolve({ step: 'r', profile: profile(circle(20, 0, 4), frame), ...about }))[0]!,
  );
  expect(ring.volume_mm3).toBeCloseTo(2 * Math.PI ** 2 * 20 * 16, 8);
  expect(ring.inertia_mm5[2]).toBeCloseTo(ring.volume_mm3 * (20 ** 2 + 0.75 * 16), 5);
});

test('the box of what is turned is that of the solid: a disc is as wide at any angle', () => {
  const disc = all(kernel.extrude({ profile: profile(circle(0, 0, 48)), from: 0, to: 6, step: 'd' }))[0]!;
  for (const angle of [0.3, (200 / 180) * Math.PI, 2]) {
    const { low, high } = kernel.box(disc, rotation([0, 0, 0], [0, 0, 1], angle));
    const size = high.map((c, k) => c - low[k]!) as unknown as Vec3;
    [96, 96, 6].forEach((c, k) => expect(size[k]).toBeCloseTo(c, 6));
  }
});

test('what was measured once is not measured again while a body has it', () => {
  const block = box(20, 10, 5);
  const bored = kernel.combine(
    'cut',
    [block],
    all(kernel.extrude({ profile: profile(rectangle(8, 4, 2, 2)), from: -1, to: 9, step: 'h' })),
  );
  if (!bored.ok) throw new Error(bored.issue.code);
  const hole = all({ ok: true, value: bored.value.bodies })[0]!;
  expect(kernel.measure(hole).volume_mm3).toBeCloseTo(1000 - 20, 9);
  expect(kernel.measure(block).volume_mm3).toBeCloseTo(1000, 9);
});
