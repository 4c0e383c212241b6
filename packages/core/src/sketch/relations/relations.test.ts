import fc from 'fast-check';
import { randomFrom } from '../../math/index.ts';
import {
  derivatives,
  Geometry,
  isSized,
  Layout,
  relationKind,
  RELATION_NAMES,
  relationSchema,
  solveSketch,
  type Entities,
  type Entity,
  type Relation,
} from '../index.ts';
import { jacobianError } from '../../solver/test-jacobian.ts';
import { point, line, circle, quadrangle, level, upright, aligned, sizes } from '../test-scene.ts';

describe('every kind of relation', () => {
  const scene: Entities = {
    ...quadrangle,
    t: point(12, 7),
    u: point(20, 31),
    m: point(13, 14),
    n: point(25, 9),
    k: circle('m', 6),
    k2: circle('n', 4),
    // they share the end q with l1 and l2, and with each other
    m3: point(38, 9),
    arc: { kind: 'arc', centre: 'm3', a: 'q', b: 'r', radius: 9 },
    m4: point(45, 4),
    arc2: { kind: 'arc', centre: 'm4', a: 'u', b: 'q', radius: 6 },
    axis: { ...line('s', 'r'), centreline: true, construction: true } as Entity,
    e1: point(60, 40),
    e2: point(72, 43),
    ellipse: { kind: 'ellipse', centre: 'e1', tip: 'e2', minor: 7 },
    o1: point(90, 60),
    o2: point(104, 58),
    oval: { kind: 'ellipse', centre: 'o1', tip: 'o2', minor: 5 },
    // ends that other curves share: q with l1 and l2, far away from the ellipse's own axes
    f1: point(30, -18),
    f2: point(45, -16),
    f3: point(18, -14),
    bow: { kind: 'ellipse-arc', centre: 'f1', tip: 'f2', a: 'q', b: 'f3', minor: 12 },
    h1: point(44, -3),
    h2: point(60, -20),
    g1: point(52, -9),
    g2: point(66, -15),
    wave: { kind: 'spline', points: ['q', 'g1', 'g2'], start: 'h1', end: 'h2', knots: [0, 12, 27] },
    far: point(80, -30),
  };
  const coordinates = fc.array(fc.double({ min: -1, max: 1, noNaN: true }), { minLength: 8, maxLength: 8 });
  const instances: Relation[] = [
    { kind: 'coincident', a: 't', b: 'l1' },
    { kind: 'coincident', a: 't', b: 'k' },
    { kind: 'coincident', a: 't', b: 'u' },
    level('l1'),
    upright('l2'),
    { kind: 'parallel', a: 'l1', b: 'l3' },
    { kind: 'perpendicular', a: 'l1', b: 'l2' },
    { kind: 'equal', a: 'l1', b: 'l2' },
    { kind: 'equal', a: 'k', b: 'k2' },
    { kind: 'midpoint', point: 't', line: 'l3' },
    { kind: 'tangent', circle: 'k', to: 'l2', side: -1 },
    { kind: 'tangent', circle: 'k', to: 'k2', side: 1 },
    { kind: 'tangent', circle: 'k', to: 'k2', side: -1 },
    { kind: 'tangent', circle: 'arc', to: 'l1', side: 1 },
    { kind: 'tangent', circle: 'arc', to: 'arc2', side: 1 },
    { kind: 'tangent', circle: 'ellipse', to: 'l3', side: 1 },
    { kind: 'tangent', circle: 'k', to: 'ellipse', side: 1 },
    { kind: 'tangent', circle: 'bow', to: 'l1', side: 1 },
    { kind: 'tangent', circle: 'arc', to: 'bow', side: 1 },
    { kind: 'tangent', circle: 'wave', to: 'l1', side: 1 },
    { kind: 'tangent', circle: 'wave', to: 'arc', side: 1 },
    { kind: 'tangent', circle: 'wave', to: 'bow', side: 1 },
    { kind: 'uncurved', spline: 'wave', end: 'q' },
    { kind: 'uncurved', spline: 'wave', end: 'g2' },
    { kind: 'coincident', a: 'far', b: 'ellipse' },
    { kind: 'coincident', a: 'far', b: 'wave' },
    { kind: 'concentric', a: 'k', b: 'k2' },
    { kind: 'concentric', a: 'k', b: 'ellipse' },
    { kind: 'equal', a: 'ellipse', b: 'oval' },
    { kind: 'fixed', entity: 'ellipse', at: [1, 2, 3, 4, 5] },
    { kind: 'fixed', entity: 'wave', at: [1, 2, 3, 4, 5, 6, 7, 8, 9, 10] },
    { kind: 'distance', a: 'k', b: 'k2', direction: 'aligned', sense: 1, rimA: 1, rimB: -1, value: '5' },
    { kind: 'distance', a: 't', b: 'k2', direction: 'horizontal', sense: 1, rimB: -1, value: '5' },
    { kind: 'distance', a: 'k', b: 'l4', direction: 'aligned', sense: -1, rimA: -1, value: '5' },
    { kind: 'across', point: 't', axis: 'axis', sense: 1, value: '5' },
    { kind: 'arc-length', arc: 'arc', value: '5' },
    {
      kind: 'offset',
      pairs: [
        { from: 'l1', to: 'l3', side: 1 },
        { from: 'arc', to: 'arc2', side: 1 },
      ],
      joints: [
        { from: 'p', to: 's', pairs: [0] },
        { from: 'q', to: 't', pairs: [0, 1] },
        { from: 'r', to: 'u', pairs: [1] },
      ],
      value: '5',
    },
    { kind: 'collinear', a: 'l1', b: 'l3' },
    { kind: 'fixed', entity: 't', at: [12, 7] },
    { kind: 'fixed', entity: 'l1', at: [1, 2, 3, 4] },
    { kind: 'fixed', entity: 'k', at: [1, 2, 3] },
    { kind: 'symmetric', a: 't', b: 'u', axis: 'l4' },
    { kind: 'symmetric', a: 'k', b: 'k2', axis: 'l2' },
    { kind: 'symmetric', a: 'l1', b: 'l3', axis: 'l2', crossed: true },
    aligned('t', 'u'),
    { kind: 'distance', a: 't', b: 'l4', direction: 'aligned', sense: -1, value: '5' },
    { kind: 'distance', a: 't', b: 'u', direction: 'horizontal', sense: 1, value: '5' },
    { kind: 'diameter', circle: 'k', value: '5' },
    { kind: 'radius', circle: 'k', value: '5' },
    { kind: 'radius-across', ellipse: 'ellipse', value: '5' },
    { kind: 'axis', ellipse: 'ellipse', axis: 'first', value: '23' },
    { kind: 'axis', ellipse: 'ellipse', axis: 'second', value: '11' },
    { kind: 'angle', a: 'l1', b: 'l2', alongA: 1, alongB: -1, sense: 1, value: '60' },
  ];

  test('is in this list', () => {
    expect(new Set(instances.map((relation) => relation.kind))).toEqual(new Set(RELATION_NAMES));
  });

  test.each(instances.map((relation) => [`${relation.kind} ${JSON.stringify(relation)}`, relation] as const))(
    '%s: the Jacobian is that of finite differences',
    (_, relation) => {
      fc.assert(
        fc.property(coordinates, fc.integer({ min: 1, max: 1e6 }), (shifts, seed) => {
          const layout = new Layout(scene);
          const start = new Geometry(scene);
          const { blocks = [] } = relationKind(relation.kind).equations(relation, {
            id: 'r',
            layout,
            start,
            value: 1.1,
          });
          const random = randomFrom(seed);
          for (const block of blocks) {
            const p = Float64Array.from(block.unknowns, (at, k) => layout.initial[at]! + shifts[k % 8]! + random());
            expect(jacobianError(block, p)).toBeLessThan(1e-7);
          }
        }),
        { numRuns: 25 },
      );
    },
  );

  test.each(instances.map((relation) => [relation.kind, relation] as const))(
    '%s: stays finite where everything lies in one place',
    (_, relation) => {
      const layout = new Layout(scene);
      const equations = relationKind(relation.kind).equations(relation, {
        id: 'r',
        layout,
        start: new Geometry(scene),
        value: 1,
      });
      for (const block of equations.blocks ?? []) {
        const r = new Float64Array(block.residuals);
        const j = new Float64Array(block.residuals * block.unknowns.length);
        block.evaluate(new Float64Array(block.unknowns.length), r, j);
        expect([...r, ...j].every(Number.isFinite)).toBe(true);
      }
    },
  );

  test.each(instances.filter(({ kind }) => kind !== 'offset').map((relation) => [relation.kind, relation] as const))(
    '%s: is fitted again to what it refers to, and passes its schema',
    (name, relation) => {
      const kind = relationKind(name);
      const refs = kind.refs(relation);
      const fitted = kind.fit(refs, new Geometry(scene));
      expect(fitted?.kind).toBe(name);
      expect(relationSchema.safeParse(fitted).success).toBe(true);
      expect(kind.anchors(relation, new Geometry(scene)).length).toBeGreaterThan(0);
    },
  );

  test('a spline that leaves without curvature does: the second derivative lies along the first', () => {
    const ends = {
      a: { kind: 'uncurved', spline: 'wave', end: 'q' },
      b: { kind: 'uncurved', spline: 'wave', end: 'g2' },
    };
    const { geometry, state } = solveSketch(scene, ends as Record<string, Relation>, sizes({}));
    expect(state).toBe('loose');
    const spans = geometry.pieces('wave');
    for (const [span, t] of [
      [spans[0]!, 0],
      [spans.at(-1)!, 1],
    ] as const) {
      const [first, second] = derivatives(span, t);
      expect((first[0] * second[1] - first[1] * second[0]) / Math.hypot(...first) ** 3).toBeCloseTo(0, 9);
    }
  });

  test.each(
    instances
      .filter(isSized)
      .filter(({ kind }) => kind !== 'offset')
      .map((relation) => [relation.kind, relation] as const),
  )('%s: measures what it holds', (_, relation) => {
    const present = relationKind(relation.kind).dimension!.measure(relation, new Geometry(scene));
    const asked = Math.abs(present) * 1.25;
    const { geometry, state } = solveSketch(scene, { r: relation }, sizes({ r: asked }));
    expect(state).toBe('loose');
    expect(relationKind(relation.kind).dimension!.measure(relation, geometry)).toBeCloseTo(asked, 7);
  });
});
