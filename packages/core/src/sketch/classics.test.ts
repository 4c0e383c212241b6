import fc from 'fast-check';
import { randomFrom, type Vec2 } from '../math/index.ts';
import {
  FigureBuilder,
  Geometry,
  ORIGIN,
  polygon,
  relationKind,
  solveSketch,
  straightSlot,
  X_AXIS,
  type Entities,
  type Relation,
  type Relations,
  type SketchSolution,
} from './index.ts';
import { aligned, circle, line, point, quadrangle, sizes } from './test-scene.ts';

// Classical construction problems: the answers come from geometry, not from the solver.

const fixed = (entity: string, ...at: number[]): Relation => ({ kind: 'fixed', entity, at });
const touching = (circle: string, to: string, side: 1 | -1): Relation => ({ kind: 'tangent', circle, to, side });
const onto = (a: string, b: string): Relation => ({ kind: 'coincident', a, b });

describe('Apollonius: the circle that touches three given circles, each from outside or round it', () => {
  const given = [
    [0, 0, 2],
    [10, 0, 3],
    [4, 9, 1.5],
  ] as const;
  const sides = [1, -1] as const;
  const cases = sides.flatMap((a) => sides.flatMap((b) => sides.map((c) => [a, b, c] as const)));

  test.each(cases)('sides %i %i %i', (...outside) => {
    const [x, y, radius] = apollonius(given, outside);
    const entities: Entities = {
      ...Object.fromEntries(
        given.flatMap(([cx, cy, r], k) => [
          [`m${k}`, point(cx, cy)],
          [`c${k}`, circle(`m${k}`, r)],
        ]),
      ),
      m: point(x + 0.3, y - 0.2),
      c: circle('m', radius + 0.2),
    };
    const relations: Relations = Object.fromEntries(
      given.flatMap(([cx, cy, r], k) => [
        [`f${k}`, fixed(`c${k}`, cx, cy, r)],
        [`t${k}`, touching('c', `c${k}`, outside[k]!)],
      ]),
    );
    const { state, geometry } = solveSketch(entities, relations, sizes({}));
    expect(state).toBe('settled');
    const found = geometry.circle('c');
    expect(found.centre[0]).toBeCloseTo(x, 8);
    expect(found.centre[1]).toBeCloseTo(y, 8);
    expect(found.radius).toBeCloseTo(radius, 8);
  });

  /** |m - m_k| = R + s_k r_k: differences are linear in x, y, R; one square is left (Viete's equations). */
  function apollonius(circles: typeof given, s: readonly [number, number, number]): [number, number, number] {
    const [[x0, y0, r0], ...others] = circles;
    const rows = others.map(([xk, yk, rk], k) => {
      const [a, b] = [s[0] * r0, s[k + 1]! * rk];
      return [xk - x0, yk - y0, b - a, (xk ** 2 - x0 ** 2 + yk ** 2 - y0 ** 2 - b ** 2 + a ** 2) / 2] as const;
    });
    const [[a1, b1, c1, d1], [a2, b2, c2, d2]] = [rows[0]!, rows[1]!];
    const det = a1 * b2 - a2 * b1;
    // x = p + q R, y = u + v R
    const [p, q] = [(d1 * b2 - d2 * b1) / det, -(c1 * b2 - c2 * b1) / det];
    const [u, v] = [(a1 * d2 - a2 * d1) / det, -(a1 * c2 - a2 * c1) / det];
    const [A, B, C] = [
      q * q + v * v - 1,
      2 * (q * (p - x0) + v * (u - y0) - s[0] * r0),
      (p - x0) ** 2 + (u - y0) ** 2 - r0 * r0,
    ];
    const root = Math.sqrt(B * B - 4 * A * C);
    const radius = [(-B + root) / (2 * A), (-B - root) / (2 * A)]
      .filter((R) => R > 0 && s.every((side, k) => R + side * circles[k]![2] > 0))
      .toSorted((m, n) => m - n)[0]!;
    return [p + q * radius, u + v * radius, radius];
  }
});

test('a belt round two pulleys: two straight runs and two arcs of the length of the textbook', () => {
  const [R, r, d] = [5, 3, 20];
  const b = new FigureBuilder(
    (
      (k) => (prefix: string) =>
        `${prefix}${++k}`
    )(0),
  );
  const [m, n] = [b.place([0.3, 0.1]), b.place([19, -0.4])];
  straightSlot(b, [m, [0.3, 0.1]], [n, [19, -0.4]], 4);
  const [back, front] = Object.keys(b.entities).filter((id) => b.entities[id]!.kind === 'arc') as [string, string];
  // a slot has equal ends, a belt has pulleys
  const relations = Object.fromEntries(Object.entries(b.relations).filter(([, { kind }]) => kind !== 'equal'));
  const all: Relations = {
    ...relations,
    o: onto(m, ORIGIN),
    x: onto(n, X_AXIS),
    d: aligned(m, n),
    R: { kind: 'radius', circle: back, value: '1' },
    r: { kind: 'radius', circle: front, value: '1' },
  };
  const { state, geometry } = solveSketch(b.entities, all, sizes({ d, R, r }));
  expect(state).toBe('settled');
  const wrap = (arc: string) =>
    relationKind('arc-length').dimension!.measure({ kind: 'arc-length', arc, value: '1' }, geometry);
  const lean = Math.asin((R - r) / d);
  expect(wrap(back)).toBeCloseTo(R * (Math.PI + 2 * lean), 8);
  expect(wrap(front)).toBeCloseTo(r * (Math.PI - 2 * lean), 8);
  const [side] = Object.keys(b.entities).filter((id) => b.entities[id]!.kind === 'line');
  const run = geometry.line(side!);
  expect(Math.hypot(run.b[0] - run.a[0], run.b[1] - run.a[1])).toBeCloseTo(Math.sqrt(d * d - (R - r) ** 2), 8);
});

test('Malfatti: three circles in the triangle 13, 14, 15, each touching two sides and the other two', () => {
  // corners A (0,0), B (14,0), C (5,12): sides a = 15, b = 13, c = 14; s = 21, inradius 4, incentre (6, 4)
  const corners = { A: [0, 0], B: [14, 0], C: [5, 12] } as const;
  const entities: Entities = {
    ...Object.fromEntries(Object.entries(corners).map(([id, [x, y]]) => [id, point(x, y)])),
    AB: line('A', 'B'),
    BC: line('B', 'C'),
    CA: line('C', 'A'),
    ma: point(3, 2.2),
    mb: point(9, 2.6),
    mc: point(5.5, 8),
    a: circle('ma', 2),
    b: circle('mb', 2),
    c: circle('mc', 2),
  };
  const relations: Relations = {
    ...Object.fromEntries(Object.entries(corners).map(([id, [x, y]]) => [`f${id}`, fixed(id, x, y)])),
    a1: touching('a', 'AB', 1),
    a2: touching('a', 'CA', 1),
    b1: touching('b', 'AB', 1),
    b2: touching('b', 'BC', 1),
    c1: touching('c', 'BC', 1),
    c2: touching('c', 'CA', 1),
    ab: touching('a', 'b', 1),
    bc: touching('b', 'c', 1),
    ca: touching('c', 'a', 1),
  };
  const { state, geometry } = solveSketch(entities, relations, sizes({}));
  expect(state).toBe('settled');
  const [s, r] = [21, 4];
  const [IA, IB, IC] = [Math.hypot(6, 4), Math.hypot(8, 4), Math.hypot(1, 8)];
  // Schellbach (1853): r_A = r / (2 (s - a)) (s - r + IA - IB - IC) and so on round
  expect(geometry.circle('a').radius).toBeCloseTo((r / (2 * (s - 15))) * (s - r + IA - IB - IC), 8);
  expect(geometry.circle('b').radius).toBeCloseTo((r / (2 * (s - 13))) * (s - r + IB - IA - IC), 8);
  expect(geometry.circle('c').radius).toBeCloseTo((r / (2 * (s - 14))) * (s - r + IC - IA - IB), 8);
});

test.each([20, 40, 75, 120, 200, 300])(
  'a four-bar closes at the place of the law of cosines, crank at %i degrees',
  (degrees) => {
    const [ground, crank, coupler, rocker] = [10, 3, 9, 7];
    const angle = (degrees * Math.PI) / 180;
    const B: Vec2 = [crank * Math.cos(angle), crank * Math.sin(angle)];
    const diagonal = Math.hypot(ground - B[0], B[1]);
    // open configuration: the joint lies left of the diagonal from the crank to the ground
    const lean = Math.acos((diagonal ** 2 + coupler ** 2 - rocker ** 2) / (2 * diagonal * coupler));
    const heading = Math.atan2(-B[1], ground - B[0]) + lean;
    const C: Vec2 = [B[0] + coupler * Math.cos(heading), B[1] + coupler * Math.sin(heading)];
    const entities: Entities = {
      A: point(0, 0),
      D: point(10.2, 0),
      B: point(B[0] + 0.2, B[1] - 0.1),
      C: point(C[0] + 0.1, C[1] + 0.3),
      AB: line('A', 'B'),
      BC: line('B', 'C'),
      CD: line('C', 'D'),
    };
    const relations: Relations = {
      o: onto('A', ORIGIN),
      x: onto('D', X_AXIS),
      g: aligned('A', 'D'),
      k: aligned('A', 'B'),
      c: aligned('B', 'C'),
      r: aligned('C', 'D'),
      t: { kind: 'angle', a: X_AXIS, b: 'AB', alongA: 1, alongB: 1, sense: 1, value: '1' },
    };
    const all = sizes({ g: ground, k: crank, c: coupler, r: rocker, t: angle });
    const { state, geometry } = solveSketch(entities, relations, all);
    expect(state).toBe('settled');
    expect(geometry.point('C')[0]).toBeCloseTo(C[0], 8);
    expect(geometry.point('C')[1]).toBeCloseTo(C[1], 8);
  },
);

test('a regular heptagon from equal chords: its side is 2 R sin(pi / 7), its short diagonal 2 R sin(2 pi / 7)', () => {
  let ids = 0;
  const b = new FigureBuilder((prefix) => `${prefix}${++ids}`);
  const centre = b.place([0, 0]);
  const { circle: round } = polygon(b, [centre, [0, 0]], [9, 2], 7);
  const relations: Relations = {
    ...b.relations,
    o: onto(centre, ORIGIN),
    r: { kind: 'radius', circle: round, value: '1' },
  };
  const { geometry, freedoms } = solveSketch(b.entities, relations, sizes({ r: 12 }));
  expect(freedoms).toBe(1);
  const corners = Object.keys(b.entities).filter((id) => id !== centre && b.entities[id]!.kind === 'point');
  const between = (p: string, q: string) => Math.hypot(...geometry.point(p).map((c, k) => c - geometry.point(q)[k]!));
  corners.forEach((corner, k) => {
    expect(between(corner, corners[(k + 1) % 7]!)).toBeCloseTo(24 * Math.sin(Math.PI / 7), 8);
    expect(between(corner, corners[(k + 2) % 7]!)).toBeCloseTo(24 * Math.sin((2 * Math.PI) / 7), 8);
  });
});

test('an ellipse about the origin along X that touches two lines: c^2 = a^2 m^2 + b^2 for each y = m x + c', () => {
  const lines = [
    [-0.5, 6],
    [-1.5, 9],
  ] as const;
  const a2 = (lines[0][1] ** 2 - lines[1][1] ** 2) / (lines[0][0] ** 2 - lines[1][0] ** 2);
  const b2 = lines[0][1] ** 2 - a2 * lines[0][0] ** 2;
  const entities: Entities = {
    m: point(0.1, 0.1),
    t: point(5, 0.2),
    e: { kind: 'ellipse', centre: 'm', tip: 't', minor: 4 },
    ...Object.fromEntries(
      lines.flatMap(([slope, c], k) => [
        [`p${k}`, point(-10, -10 * slope + c)],
        [`q${k}`, point(20, 20 * slope + c)],
        [`l${k}`, line(`p${k}`, `q${k}`)],
      ]),
    ),
  };
  const relations: Relations = {
    o: onto('m', ORIGIN),
    x: onto('t', X_AXIS),
    ...Object.fromEntries(
      lines.flatMap(([slope, c], k) => [
        [`f${k}`, fixed(`l${k}`, -10, -10 * slope + c, 20, 20 * slope + c)],
        // the centre lies right of lines that fall towards +x
        [`t${k}`, touching('e', `l${k}`, -1)],
      ]),
    ),
  };
  const { state, geometry } = solveSketch(entities, relations, sizes({}));
  expect(state).toBe('settled');
  expect(geometry.ellipse('e').tip[0]).toBeCloseTo(Math.sqrt(a2), 8);
  expect(geometry.ellipse('e').minor).toBeCloseTo(Math.sqrt(b2), 8);
});

describe('no flip: a dimension walked at random over a wide range and back gives the same shape', () => {
  const triangle: Entities = {
    a: point(0, 0),
    b: point(30, 0),
    c: point(8, -17),
    ab: line('a', 'b'),
    bc: line('b', 'c'),
    ca: line('c', 'a'),
  };
  const hung: Relations = { o: onto('a', ORIGIN), x: onto('b', X_AXIS) };
  const slot = new FigureBuilder(
    (
      (k) => (prefix: string) =>
        `${prefix}${++k}`
    )(0),
  );
  const { spine, end } = straightSlot(slot, [slot.place([0, 0]), [0, 0]], [slot.place([24, 7]), [24, 7]], 5);
  const { a: p, b: q } = slot.entities[spine] as { a: string; b: string };
  const shapes: [string, Entities, Relations, string, number, number][] = [
    [
      'the base of a triangle of two angles',
      triangle,
      {
        ...hung,
        w: aligned('a', 'b'),
        s: { kind: 'angle', a: 'ab', b: 'ca', alongA: 1, alongB: -1, sense: -1, value: '1' },
        t: { kind: 'angle', a: 'ab', b: 'bc', alongA: -1, alongB: 1, sense: 1, value: '1' },
      },
      'w',
      2,
      400,
    ],
    [
      'the angle at the base of a triangle',
      triangle,
      {
        ...hung,
        w: aligned('a', 'b'),
        h: aligned('a', 'c'),
        s: { kind: 'angle', a: 'ab', b: 'ca', alongA: 1, alongB: -1, sense: -1, value: '1' },
      },
      's',
      0.2,
      6,
    ],
    [
      'the length of a slot',
      slot.entities,
      { ...slot.relations, o: onto(p, ORIGIN), d: aligned(p, q), r: { kind: 'radius', circle: end, value: '1' } },
      'd',
      1,
      300,
    ],
    [
      'the width of a slot',
      slot.entities,
      { ...slot.relations, o: onto(p, ORIGIN), d: aligned(p, q), r: { kind: 'radius', circle: end, value: '1' } },
      'r',
      0.2,
      80,
    ],
    [
      'a side of a quadrangle',
      quadrangle,
      {
        o: onto('p', ORIGIN),
        x: onto('q', X_AXIS),
        a: aligned('p', 'q'),
        b: aligned('q', 'r'),
        t: { kind: 'angle', a: 'l1', b: 'l2', alongA: -1, alongB: 1, sense: -1, value: '1' },
        u: { kind: 'perpendicular', a: 'l1', b: 'l4' },
        v: { kind: 'parallel', a: 'l1', b: 'l3' },
      },
      'a',
      12,
      500,
    ],
  ];

  test.each(shapes)('%s', (_, entities, relations, walked, least, most) => {
    const drawn = new Geometry(entities);
    const all = new Map<string, number>();
    for (const [id, relation] of Object.entries(relations)) {
      const { dimension } = relationKind(relation.kind);
      if (dimension) all.set(id, dimension.measure(relation, drawn));
    }
    const solved = (from: Entities, value: number) => solveSketch(from, relations, new Map(all).set(walked, value));
    const first = solved(entities, all.get(walked)!);
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e6 }), (seed) => {
        const random = randomFrom(seed);
        let now: SketchSolution = first;
        for (let k = 0; k < 6; k++) {
          now = solved(now.geometry.entities, least * (most / least) ** random());
          expect(now.state).toBe(first.state);
        }
        const back = solved(now.geometry.entities, all.get(walked)!).geometry;
        for (const [id, { kind }] of Object.entries(entities))
          if (kind === 'point' && first.state === 'settled')
            back.point(id).forEach((c, k) => expect(c).toBeCloseTo(first.geometry.point(id)[k]!, 6));
        for (const id of Object.keys(relations)) {
          const relation = relations[id]!;
          const { dimension } = relationKind(relation.kind);
          if (dimension) expect(dimension.measure(relation, back)).toBeCloseTo(all.get(id)!, 7);
        }
      }),
      { numRuns: 15 },
    );
  });
});
