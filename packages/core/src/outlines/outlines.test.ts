import { writeDxf, writeSvg } from '../formats/index.ts';
import type { Vec2 } from '../math/index.ts';
import { explain } from '../wording/index.ts';
import { FigureBuilder, filled, findRegions, Geometry, type Entities } from '../sketch/index.ts';
import { bezierSpans } from './bspline.ts';
import { boxOfOutline, drawOutline, readDxf, readOutline, readSvg, scaled, type Outline } from './index.ts';

const p = (x: number, y: number) => ({ kind: 'point', x, y }) as const;

/** Closed by a line, an arc, half an ellipse and a spline, with a round and an oval hole. */
const plate: Entities = {
  a: p(0, 0),
  b: p(60, 0),
  c: p(60, 30),
  m: p(60, 15),
  d: p(0, 30),
  n: p(0, 15),
  nt: p(-6, 15),
  h: p(50, 40),
  i: p(10, 20),
  ab: { kind: 'line', a: 'a', b: 'b' },
  bc: { kind: 'arc', centre: 'm', a: 'b', b: 'c', radius: 15 },
  cd: { kind: 'spline', points: ['c', 'd'], start: 'h', end: 'i', knots: [0, 1] },
  da: { kind: 'ellipse-arc', centre: 'n', tip: 'nt', a: 'd', b: 'a', minor: 15 },
  q: p(20, 12),
  r: p(40, 12),
  s: p(46, 14),
  hole: { kind: 'circle', centre: 'q', radius: 5 },
  oval: { kind: 'ellipse', centre: 'r', tip: 's', minor: 3 },
};

const area = (entities: Entities) =>
  filled(findRegions(new Geometry(entities))).reduce((sum, region) => sum + region.area, 0);
const piecesOf = (entities: Entities) => {
  const geometry = new Geometry(entities);
  return Object.keys(entities).flatMap((id) => geometry.pieces(id));
};

function drawn({ curves, unit }: Outline): Entities {
  let ids = 0;
  const builder = new FigureBuilder((prefix) => `${prefix}${++ids}`);
  drawOutline(builder, scaled(curves, unit ?? 1));
  return builder.entities;
}

const value = <T>(result: { ok: true; value: T } | { ok: false; issue: Parameters<typeof explain>[0] }): T => {
  if (!result.ok) throw new Error(explain(result.issue));
  return result.value;
};

test.each<
  [
    string,
    (text: readonly ReturnType<typeof piecesOf>[number][]) => string,
    (text: string) => ReturnType<typeof readDxf>,
  ]
>([
  ['DXF', writeDxf, readDxf],
  ['SVG', writeSvg, readSvg],
])('%s written and read again is the same area, closed, in mm', (_, write, read) => {
  const outline = value(read(write(piecesOf(plate))));
  expect(outline.unit).toBeCloseTo(1, 12);
  expect(outline.skipped).toEqual({});
  const entities = drawn(outline);
  expect(findRegions(new Geometry(entities)).openEnds).toEqual([]);
  expect(area(entities)).toBeCloseTo(area(plate), 5);
});

const dxf = (...entities: string[]) =>
  [
    '0',
    'SECTION',
    '2',
    'HEADER',
    '9',
    '$INSUNITS',
    '70',
    '1',
    '0',
    'ENDSEC',
    '0',
    'SECTION',
    '2',
    'ENTITIES',
    ...entities.join('\n').split(/\s+/),
    '0',
    'ENDSEC',
    '0',
    'EOF',
  ].join('\n');

describe('DXF', () => {
  test('a polyline with bulges of 1 is a circle in two halves; inches are told', () => {
    const text = dxf('0 LWPOLYLINE 8 0 90 2 70 1 10 0 20 0 42 1 10 2 20 0 42 1');
    const outline = value(readDxf(text));
    expect(outline.unit).toBe(25.4);
    expect(area(drawn(outline))).toBeCloseTo(Math.PI * 25.4 ** 2, 4);
  });

  test('a negative bulge runs clockwise: a bite out of the side', () => {
    const square = '0 LWPOLYLINE 8 0 90 4 70 1 10 0 20 0 42 -1 10 4 20 0 10 4 20 4 10 0 20 4';
    expect(area(drawn({ ...value(readDxf(dxf(square))), unit: 1 }))).toBeCloseTo(16 - Math.PI * 2, 8);
  });

  test('what is not an outline is counted and left out; nothing at all is told', () => {
    const { curves, skipped } = value(
      readDxf(dxf('0 LINE 8 0 10 0 20 0 11 5 21 0', '0 TEXT 8 0 10 0 20 0 40 2 1 hello')),
    );
    expect([curves.length, skipped]).toEqual([1, { TEXT: 1 }]);
    const none = readDxf(dxf('0 TEXT 8 0 10 0 20 0 40 2 1 hello'));
    expect(none.ok ? '' : explain(none.issue)).toContain('has no lines');
  });

  test.each(['', 'hello', '0\nSECTION\n2\nENTITIES\n0\nLINE\n10\nx'])('broken text %j is refused in words', (text) => {
    const read = readDxf(text);
    expect(read.ok).toBe(false);
    expect(read.ok ? '' : explain(read.issue)).toMatch(/DXF/);
  });
});

describe('SVG', () => {
  const svg = (inner: string, head = 'width="100mm" viewBox="0 0 100 100"') => `<svg ${head}>${inner}</svg>`;

  test.each<[string, string, number]>([
    ['a rectangle with round corners', '<rect x="10" y="10" width="30" height="20" rx="4"/>', 600 - (4 - Math.PI) * 16],
    [
      'a circle that is moved and scaled',
      '<g transform="translate(50 50) scale(2)"><circle r="5"/></g>',
      Math.PI * 100,
    ],
    [
      'an ellipse that is turned',
      '<ellipse cx="50" cy="50" rx="20" ry="10" transform="rotate(30 50 50)"/>',
      Math.PI * 200,
    ],
    ['a polygon', '<polygon points="0,0 30,0 30,40"/>', 600],
    ['a path of all sorts', '<path d="M0 0h20v10q0 10-10 10t-10 0z"/>', Number.NaN],
    ['arcs either way', '<path d="M0 0H20A10 10 0 0 1 0 0Z"/>', (Math.PI * 100) / 2],
  ])('%s', (_, inner, expected) => {
    const outline = value(readSvg(svg(inner)));
    const found = area(drawn(outline));
    if (Number.isNaN(expected)) expect(found).toBeGreaterThan(100);
    else expect(found).toBeCloseTo(expected, 6);
  });

  test('up is up: what stands at the top of the page has the larger y', () => {
    const { curves } = value(readSvg(svg('<line x1="0" y1="0" x2="0" y2="10"/>')));
    expect(boxOfOutline(curves)).toEqual({ low: [0, -10], high: [0, 0] });
  });

  test('the unit is taken from the size of the page; without one it is asked for', () => {
    expect(value(readSvg(svg('<line x2="1" y2="1"/>', 'width="2in" viewBox="0 0 4 4"'))).unit).toBeCloseTo(12.7, 9);
    expect(value(readSvg(svg('<line x2="1" y2="1"/>', 'width="200"'))).unit).toBeUndefined();
  });

  test('entities, scripts and text are no outline', () => {
    const { skipped } = value(readSvg(svg('<script>alert(1)</script><text>x</text><line x2="1" y2="1"/>')));
    expect(skipped).toEqual({ script: 1, text: 1 });
    expect(readSvg('<html></html>').ok).toBe(false);
    expect(readOutline('a.pdf', 'x').ok).toBe(false);
  });
});

test('a file nested deeper than any reader goes is refused in words', () => {
  const depth = 20_000;
  const read = readOutline('deep.svg', `<svg>${'<g>'.repeat(depth)}<line x2="1"/>${'</g>'.repeat(depth)}</svg>`);
  expect(read.ok ? '' : explain(read.issue)).toContain('no SVG file that can be read');
});

test('a B-spline cut into Bezier spans runs through the same places (de Boor)', () => {
  const points: Vec2[] = [
    [0, 0],
    [10, 20],
    [30, 20],
    [40, 0],
    [60, -10],
  ];
  const spans = bezierSpans(3, points, [0, 0, 0, 0, 1, 2, 2, 2, 2])!;
  expect(spans).toHaveLength(2);
  // the joint of the uniform inner knot: ((p1 + p2)/2 + (p2 + p3)/2)/2
  const joint = spans[0] as { to: Vec2 };
  expect(joint.to[0]).toBeCloseTo((20 + 35) / 2, 9);
  expect(joint.to[1]).toBeCloseTo((20 + 10) / 2, 9);
  expect(bezierSpans(3, points, [0, 1])).toBeUndefined();
  expect(bezierSpans(2, points.slice(0, 3), [0, 0, 0, 1, 1, 1])).toHaveLength(1);
});
