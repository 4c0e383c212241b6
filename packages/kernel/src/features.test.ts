import {
  frameOn,
  reflection,
  ORIGIN_PLANES,
  translation,
  rotation,
  type BodyHandle,
  type Entities,
  type SpaceCurve,
} from '@helb/core';
import { all, box, circle, combine, kernel, one, profile, rectangle, volume, withKernel } from './test-fixture.ts';

withKernel();

const names = (body: BodyHandle) => kernel.faceNames(body).toSorted();

describe('revolve', () => {
  const axis = { origin: [0, 0, 0], axis: [0, 0, 1] } as const;

  test('a circle beside the axis: a torus, after Pappus', () => {
    const request = {
      profile: profile(circle(10, 0, 3), ORIGIN_PLANES.front),
      ...axis,
      from: 0,
      to: 2 * Math.PI,
      step: 's',
    };
    const [torus] = all(kernel.revolve(request)) as [BodyHandle];
    expect(volume(torus)).toBeCloseTo(2 * Math.PI ** 2 * 10 * 9, 6);
    expect(names(torus)).toEqual(['s/side/o']);
  });

  test('a rectangle on the axis: a cylinder; a third of a turn, about the middle: a wedge with two ends', () => {
    const drawn = profile(rectangle(0, 0, 6, 9), ORIGIN_PLANES.front);
    const [whole] = all(kernel.revolve({ profile: drawn, ...axis, from: 0, to: 2 * Math.PI, step: 's' })) as [
      BodyHandle,
    ];
    expect(volume(whole)).toBeCloseTo(Math.PI * 36 * 9, 6);
    expect(names(whole)).toEqual(['s/side/a', 's/side/b', 's/side/c']);
    const third = (2 * Math.PI) / 3;
    const [wedge] = all(kernel.revolve({ profile: drawn, ...axis, from: -third / 2, to: third / 2, step: 's' })) as [
      BodyHandle,
    ];
    expect(volume(wedge)).toBeCloseTo((Math.PI * 36 * 9) / 3, 6);
    expect(names(wedge)).toEqual(['s/end', 's/side/a', 's/side/b', 's/side/c', 's/start']);
    // as far to the left as to the right of the sketch plane
    expect(kernel.measure(wedge).centre_mm[1]).toBeCloseTo(0, 9);
  });
});

describe('extrude', () => {
  test('with a taper: a frustum of a pyramid; from an offset the sides still lean about the sketch plane', () => {
    const slope = Math.atan(0.1);
    const [frustum] = all(
      kernel.extrude({ profile: profile(rectangle(0, 0, 30, 20)), from: 0, to: 10, taper: slope, step: 's' }),
    ) as [BodyHandle];
    const [base, top] = [600, 28 * 18];
    expect(volume(frustum)).toBeCloseTo((10 / 3) * (base + top + Math.sqrt(base * top)) + 0, 0);
    // exactly: integral of (30 - 2 t)(20 - 2 t) / ... over the height
    const exact = 600 * 10 - (50 * 2 * 0.1 * 100) / 2 + (4 * 0.01 * 1000) / 3;
    expect(volume(frustum)).toBeCloseTo(exact, 6);
    expect(names(frustum)).toEqual(['s/end', 's/side/a', 's/side/b', 's/side/c', 's/side/d', 's/start']);
  });
});

describe('sweep, helix, loft', () => {
  test('a circle along a bent path: area times length', () => {
    const path: SpaceCurve[] = [
      { form: 'line', from: [0, 0, 0], to: [0, 0, 20] },
      { form: 'circle', centre: [10, 0, 20], axis: [0, 1, 0], radius: 10, from: [0, 0, 20], to: [10, 0, 30] },
      { form: 'line', from: [10, 0, 30], to: [25, 0, 30] },
    ];
    for (const keep of ['following', 'fixed'] as const) {
      const [pipe] = all(kernel.sweep({ profile: profile(circle(0, 0, 3)), path, keep, step: 's' })) as [BodyHandle];
      expect(volume(pipe)).toBeCloseTo(Math.PI * 9 * (20 + 5 * Math.PI + 15), 3);
      expect(names(pipe).filter((name) => !name.startsWith('s/side/o'))).toEqual(['s/end', 's/start']);
    }
  });

  const ring: Entities = { ...circle(0, 0, 3), o2: { kind: 'circle', centre: 'm', radius: 2 } };

  test('an area with an opening along a path: a tube', () => {
    const path: SpaceCurve[] = [
      { form: 'line', from: [0, 0, 0], to: [0, 0, 20] },
      { form: 'circle', centre: [10, 0, 20], axis: [0, 1, 0], radius: 10, from: [0, 0, 20], to: [10, 0, 30] },
    ];
    const [tube] = all(kernel.sweep({ profile: profile(ring), path, keep: 'following', step: 's' })) as [BodyHandle];
    expect(volume(tube) / (Math.PI * 5 * (20 + 5 * Math.PI))).toBeCloseTo(1, 6);
    expect(names(tube).filter((name) => name.startsWith('s/side/o2'))).not.toEqual([]);
  });

  test('twisted on its way: as much volume as without (Cavalieri), and turned at its end', () => {
    const straight: SpaceCurve[] = [{ form: 'line', from: [0, 0, 0], to: [0, 0, 40] }];
    const drawn = profile(rectangle(-6, -1, 12, 2));
    const [bar] = all(
      kernel.sweep({ profile: drawn, path: straight, keep: 'following', twist: Math.PI / 2, step: 's' }),
    ) as [BodyHandle];
    expect(volume(bar) / (24 * 40)).toBeCloseTo(1, 5);
    const top = kernel.topology(bar).vertices.filter(({ at }) => at[2] > 39);
    expect(top).toHaveLength(4);
    for (const { at } of top)
      expect([Math.abs(at[0]), Math.abs(at[1])]).toEqual([expect.closeTo(1, 3), expect.closeTo(6, 3)]);
    const bent: SpaceCurve[] = [
      { form: 'circle', centre: [30, 0, 0], axis: [0, 1, 0], radius: 30, from: [0, 0, 0], to: [30, 0, 30] },
    ];
    const [arched] = all(
      kernel.sweep({ profile: drawn, path: bent, keep: 'following', twist: Math.PI, step: 't' }),
    ) as [BodyHandle];
    // the middle of the area goes along the path (Pappus)
    expect(volume(arched) / (24 * 15 * Math.PI)).toBeCloseTo(1, 4);
  });

  test('a loft through areas with openings: the outer less the inner', () => {
    const frame = { ...ORIGIN_PLANES.top, origin: [0, 0, 12] as const };
    const wide: Entities = { ...circle(0, 0, 6), o2: { kind: 'circle', centre: 'm', radius: 4 } };
    const [funnel] = all(
      kernel.loft({ sections: [profile(ring), profile(wide, frame)], straight: true, step: 's' }),
    ) as [BodyHandle];
    const cone = (a: number, b: number) => (Math.PI * 12 * (a * a + a * b + b * b)) / 3;
    expect(volume(funnel) / (cone(3, 6) - cone(2, 4))).toBeCloseTo(1, 6);
  });

  test('a small square along a helix: area times the way of its middle (Pappus)', () => {
    const drawn = profile(rectangle(9, -0.5, 1, 1), ORIGIN_PLANES.front);
    const [coil] = all(
      kernel.helix({
        profile: drawn,
        origin: [0, 0, 0],
        axis: [0, 0, 1],
        pitch: 3,
        turns: 4,
        left: false,
        taper: 0,
        step: 's',
      }),
    ) as [BodyHandle];
    // the profile stays upright: its volume is what its area sweeps round the axis
    expect(volume(coil) / (2 * Math.PI * 9.5 * 4)).toBeCloseTo(1, 3);
    expect(kernel.measure(coil).box_mm.high[2]).toBeCloseTo(12.5, 3);
  });

  test('squares over each other: a frustum; to a point: a pyramid', () => {
    const high = profile(rectangle(5, 5, 10, 10), { ...ORIGIN_PLANES.top, origin: [0, 0, 12] });
    const [frustum] = all(
      kernel.loft({ sections: [profile(rectangle(0, 0, 20, 20)), high], straight: true, step: 's' }),
    ) as [BodyHandle];
    expect(volume(frustum)).toBeCloseTo((12 / 3) * (400 + 100 + 200), 6);
    expect(names(frustum)).toEqual(['s/end', 's/side/a', 's/side/b', 's/side/c', 's/side/d', 's/start']);
    const [pyramid] = all(
      kernel.loft({ sections: [profile(rectangle(0, 0, 20, 20)), { point: [10, 10, 15] }], straight: true, step: 's' }),
    ) as [BodyHandle];
    expect(volume(pyramid)).toBeCloseTo((400 * 15) / 3, 6);
  });
});

describe('dressing', () => {
  const edge = 's/side/a | s/side/b';

  test('rounding an edge takes (1 - pi/4) r^2 a length; the new face is named after the edge, the others stay', () => {
    const plain = box(30, 20, 10);
    const round = one(kernel.fillet({ body: plain, edges: [{ name: edge, radius: 4 }], step: 'r' }));
    expect(volume(round)).toBeCloseTo(6000 - (1 - Math.PI / 4) * 16 * 10, 6);
    expect(names(round).filter((name) => name.startsWith('s/'))).toEqual(names(plain));
    expect(names(round).filter((name) => name.startsWith('r/round/'))).toHaveLength(1);
    // the same again for a longer part: names do not depend on sizes
    const again = one(kernel.fillet({ body: box(90, 20, 10), edges: [{ name: edge, radius: 2 }], step: 'r' }));
    expect(names(again)).toEqual(names(round));
  });

  test('edges that go on smoothly are rounded with the first', () => {
    const plain = box(30, 20, 10);
    const upright = ['a | s/side/b', 'b | s/side/c', 'c | s/side/d', 'a | s/side/d'].map((name) => `s/side/${name}`);
    const soft = one(kernel.fillet({ body: plain, edges: upright.map((name) => ({ name, radius: 5 })), step: 'r' }));
    const rim = one(kernel.fillet({ body: soft, edges: [{ name: 's/end | s/side/a', radius: 1 }], step: 'q' }));
    const area = 600 - (4 - Math.PI) * 25;
    // the length of the rim at the centroid of what is taken is a little less than the rim: within a thousandth
    expect(area * 10 - volume(rim)).toBeCloseTo((1 - Math.PI / 4) * (2 * 20 + 2 * 10 + 2 * Math.PI * (5 - 0.223)), 1);
  });

  test('a radius that grows along the edge: between those of its ends', () => {
    const grows = one(kernel.fillet({ body: box(30, 20, 10), edges: [{ name: edge, radius: 2, to: 6 }], step: 'r' }));
    const taken = (6000 - volume(grows)) / ((1 - Math.PI / 4) * 10);
    // the mean of r^2 from 2 to 6 is 17.33
    expect(taken).toBeGreaterThan(12);
    expect(taken).toBeLessThan(23);
  });

  test.each([
    ['equal', { distance: 3 }, (3 * 3) / 2],
    ['two distances', { distance: 3, other: 5 }, (3 * 5) / 2],
    ['distance and angle', { distance: 4, angle: Math.PI / 6 }, (4 * 4 * Math.tan(Math.PI / 6)) / 2],
  ])('a chamfer with %s', (_, sizes, area) => {
    const cut = one(kernel.chamfer({ body: box(30, 20, 10), edges: [edge], ...sizes, step: 'b' }));
    expect(volume(cut)).toBeCloseTo(6000 - area * 10, 6);
  });

  test('a corner whose round runs into an opening is cut off', () => {
    // a pocket 3 from the corner and 5 deep, opened to the top; the round of 6 about the upright edge reaches it
    const [pocket] = all(kernel.extrude({ profile: profile(rectangle(1, 1, 10, 10)), from: 4, to: 12, step: 'p' })) as [
      BodyHandle,
    ];
    const block = combine('cut', [box(30, 20, 10)], [pocket]);
    const upright = ['s/side/a | s/side/d'];
    const round = one(kernel.fillet({ body: block, edges: [{ name: upright[0]!, radius: 6 }], step: 'r' }));
    // below the pocket all of the corner goes; beside it what lies outside of the pocket does: of x and y from 0 to 6
    // all beyond the circle about (6, 6), less what of that is pocket
    const corner = 36 - 9 * Math.PI;
    const n = 60000;
    const beyond = Array.from({ length: n }, (_, k) => ((k + 0.5) * 6) / n)
      .map((x) => {
        const y = 6 - Math.sqrt(36 - (6 - x) ** 2);
        return x > 1 ? Math.min(y, 1) : y;
      })
      .reduce((sum, y) => sum + (y * 6) / n, 0);
    expect(volume(round)).toBeCloseTo(30 * 20 * 10 - 100 * 6 - corner * 4 - beyond * 6, 3);
    expect(names(round).some((name) => name.startsWith('r/round'))).toBe(true);
    // half of what fits is rolled as ever
    const small = one(kernel.fillet({ body: block, edges: [{ name: upright[0]!, radius: 0.5 }], step: 'r' }));
    expect(volume(small)).toBeCloseTo(5400 - (0.25 - Math.PI / 16) * 10, 6);
  });

  test('a box open at its top, with walls: what is left is the difference', () => {
    const shell = one(kernel.shell({ body: box(30, 20, 10), open: ['s/end'], wall: 2, step: 'h' }));
    expect(volume(shell)).toBeCloseTo(6000 - 26 * 16 * 8, 6);
    expect(names(shell).filter((name) => name.startsWith('h/inside'))).toHaveLength(5);
    // the rim is what is left of the face that was taken away
    expect(names(shell)).toContain('s/end');
    // free faces meet sharply; the walls lean, so that they are thicker seen level
    const section = (radius: number, height: number) =>
      profile(circle(0, 0, radius), { ...ORIGIN_PLANES.top, origin: [0, 0, height] });
    const [cup] = all(kernel.loft({ sections: [section(20, 0), section(10, 30)], straight: true, step: 'l' })) as [
      BodyHandle,
    ];
    const level = 2 * Math.hypot(1, 1 / 3);
    const cone = (r: number, s: number, h: number) => (Math.PI * h * (r * r + r * s + s * s)) / 3;
    const bothOpen = one(kernel.shell({ body: cup, open: ['l/start', 'l/end'], wall: 2, step: 'h' }));
    const inside = cone(20 - level, 10 - level, 30);
    expect(kernel.measure(bothOpen).volume_mm3).toBeCloseTo(cone(20, 10, 30) - inside, 3);
    const oneOpen = one(kernel.shell({ body: cup, open: ['l/end'], wall: 2, step: 'h' }));
    const floor = cone(20 - level, 20 - level - 2 / 3, 2);
    expect(kernel.measure(oneOpen).volume_mm3).toBeCloseTo(cone(20, 10, 30) - inside + floor, 3);
    const outside = one(kernel.shell({ body: box(30, 20, 10), open: ['s/end'], wall: -2, step: 'h' }));
    expect(volume(outside)).toBeGreaterThan(34 * 24 * 12 - 6000 - 200);
  });

  test('draft: sides lean inwards from the ground', () => {
    const faces = ['a', 'b', 'c', 'd'].map((side) => `s/side/${side}`);
    const leaning = one(
      kernel.draft({ body: box(30, 20, 10), faces, neutral: ORIGIN_PLANES.top, angle: Math.atan(0.1), step: 'd' }),
    );
    expect(volume(leaning)).toBeCloseTo(600 * 10 - (50 * 2 * 0.1 * 100) / 2 + (4 * 0.01 * 1000) / 3, 6);
    expect(names(leaning)).toEqual(names(box(1, 1, 1)));
  });

  test('a face moved outwards and inwards keeps its name', () => {
    const plain = box(30, 20, 10);
    for (const distance of [3, -3]) {
      const moved = one(kernel.offset({ body: plain, faces: ['s/end'], distance, step: 'o' }));
      expect(volume(moved)).toBeCloseTo(600 * (10 + distance), 6);
      expect(names(moved)).toEqual(names(plain));
    }
    const [bored] = all(
      kernel.extrude({
        profile: profile({ ...rectangle(0, 0, 30, 20), ...circle(15, 10, 4) }),
        from: 0,
        to: 10,
        step: 's',
      }),
    ) as [BodyHandle];
    const wider = one(kernel.offset({ body: bored, faces: ['s/side/o'], distance: -1, step: 'o' }));
    expect(volume(wider)).toBeCloseTo(6000 - Math.PI * 25 * 10, 4);
    expect(names(wider)).toEqual(names(bored));
  });

  test('a thickened face is a slab', () => {
    const [slab] = all(kernel.thicken({ body: box(30, 20, 10), faces: ['s/end'], distance: 1.5, step: 't' })) as [
      BodyHandle,
    ];
    expect(volume(slab)).toBeCloseTo(900, 6);
  });

  test.each([
    [
      'round',
      () => kernel.fillet({ body: box(30, 20, 10), edges: [{ name: edge, radius: 40 }], step: 'r' }),
      'round.size',
    ],
    ['hollow', () => kernel.shell({ body: box(30, 20, 10), open: ['s/end'], wall: 30, step: 'h' }), 'shell.wall'],
    [
      'gone',
      () => kernel.fillet({ body: box(30, 20, 10), edges: [{ name: 'x', radius: 1 }], step: 'r' }),
      'kernel.gone',
    ],
  ])('what can not be is refused, and the kernel goes on: %s', (_, attempt, code) => {
    const result = attempt();
    expect(!result.ok && result.issue.code).toBe(code);
    expect(volume(box(2, 2, 2))).toBeCloseTo(8, 9);
  });
});

describe('whole bodies', () => {
  test('overlap keeps what two have in common', () => {
    const other = one(
      kernel.transformed({ body: box(10, 10, 10), transform: translation([4, 4, 4]), step: 'm', instance: '1' }),
    );
    const common = kernel.combine('overlap', [box(10, 10, 10)], [other]);
    if (!common.ok) throw new Error(common.issue.code);
    const [cube] = all({ ok: true, value: common.value.bodies }) as [BodyHandle];
    expect(volume(cube)).toBeCloseTo(216, 9);
    expect(kernel.bodyName(cube)).toBe('s');
  });

  test('a plane cuts a body in two; both know where they come from', () => {
    const halves = all(kernel.split({ body: box(30, 20, 10), by: frameOn([12, 0, 0], [1, 0, 0]), step: 'c' }));
    expect(halves.map(volume).toSorted((a, b) => a - b)).toEqual([expect.closeTo(2400, 6), expect.closeTo(3600, 6)]);
    expect(halves.map((half) => kernel.bodyName(half)).toSorted()).toEqual(['s#1', 's#2']);
    for (const half of halves) expect(names(half).some((name) => name.startsWith('c/cut'))).toBe(true);
  });

  test('moved, turned, mirrored: the volume stays, the middle goes along', () => {
    const wedge = one(kernel.chamfer({ body: box(30, 20, 10), edges: ['s/end | s/side/b'], distance: 8, step: 'b' }));
    const centre = kernel.measure(wedge).centre_mm;
    const at = (transform: ReturnType<typeof translation>) => {
      const copy = one(kernel.transformed({ body: wedge, transform, step: 'm', instance: '1' }));
      expect(volume(copy)).toBeCloseTo(volume(wedge), 6);
      expect(names(copy).every((name) => name.startsWith('m/1/'))).toBe(true);
      return kernel.measure(copy).centre_mm;
    };
    expect(at(translation([1, 2, 3]))).toEqual([1, 2, 3].map((d, k) => expect.closeTo(centre[k]! + d, 6)));
    expect(at(rotation([0, 0, 0], [0, 0, 1], Math.PI / 2))).toEqual([
      expect.closeTo(-centre[1], 6),
      expect.closeTo(centre[0], 6),
      expect.closeTo(centre[2], 6),
    ]);
    expect(at(reflection(ORIGIN_PLANES.right))).toEqual([
      expect.closeTo(-centre[0], 6),
      expect.closeTo(centre[1], 6),
      expect.closeTo(centre[2], 6),
    ]);
  });
});
