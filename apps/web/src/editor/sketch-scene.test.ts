import { ok, seedSieve, type Project, type Vec2 } from '@helb/core';
import { PlaneMap } from './plane-map.ts';
import { SketchEditor } from './sketch-editor.ts';
import { areaPaths, arrowPath, entityLooks, sizeLooks, tagLooks, textBoxes } from './sketch-scene.ts';

const project: Project = seedSieve();
const [part] = project.partOrder as [string];
const [foot] = project.parts[part]!.stepOrder as [string];
const editor = new SketchEditor(part, foot, {
  project: () => project,
  act: () => ok(undefined),
  sources: () => undefined,
  under: () => [],
  crossings: () => [],
  underlay: () => [],
  newId: (prefix) => `${prefix}x`,
  toolOf: () => undefined,
  told: () => undefined,
});
const frame = { origin: [0, 0, 0], x: [1, 0, 0], y: [0, 1, 0], z: [0, 0, 1] } as const;
/** Ten pixels for a millimetre, y down, the origin at 500, 400. */
const map = new PlaneMap(frame, ([x, y]): Vec2 => [500 + 10 * x, 400 - 10 * y], 0.1);

test('places go to the screen and paths close', () => {
  expect(map.at([36, 24])).toEqual([860, 160]);
  expect(
    map.closed([
      [0, 0],
      [1, 0],
      [0, 1],
    ]),
  ).toBe('M500.00 400.00L510.00 400.00L500.00 390.00Z');
});

test('everything of the settled demo sketch is drawn settled, construction told apart', () => {
  const { curves, points } = entityLooks(editor.snapshot, map);
  expect(new Set([...curves, ...points].map((look) => look.state))).toEqual(new Set(['settled']));
  expect(curves.filter((curve) => curve.construction)).toHaveLength(6);
  expect(points.every((point) => point.arrows === '')).toBe(true);
  expect(areaPaths(editor.snapshot, map)).toHaveLength(1);
  // the outline and four openings
  expect(areaPaths(editor.snapshot, map)[0]!.match(/Z/g)).toHaveLength(5);
});

test('dimensions stand outside the outline, the shorter nearer, with what was typed as text', () => {
  const sizes = sizeLooks(editor.snapshot, map);
  expect(sizes.map((size) => size.text).sort()).toEqual([
    'edge distance = 8.25',
    'edge distance = 8.25',
    'plate length = 72',
    'plate width = 48',
    '⌀bolt hole = 5.5',
  ]);
  for (const { text, annotation } of sizes.filter((size) => size.text !== '⌀bolt hole')) {
    const [x, y] = annotation.text;
    expect([text, Math.abs(x) > 36 || Math.abs(y) > 24]).toEqual([text, true]);
  }
  const right = (text: string) => sizes.find((s) => s.text === text && s.annotation.upright)!.annotation.text[0];
  expect(right('edge distance = 8.25')).toBeLessThan(right('plate width = 48'));
});

test.each([
  ['bolt hole + 2 * edge distance', '⌀bolt hole + 2… = 5.5'],
  ['2 * bolt hole + edge distance', '⌀2 * bolt hole… = 5.5'],
  ['bolt + 2 * edge distance', '⌀bolt + 2… = 5.5'],
  ['a name that is longer than that', '⌀a name that i… = 5.5'],
])('of a long sum only so many whole names stand on the drawing, and what it comes to: %s', (value, shown) => {
  const [id, relation] = Object.entries(editor.relations).find(([, { kind }]) => kind === 'diameter')!;
  const snapshot = {
    ...editor.snapshot,
    relations: {
      ...editor.relations,
      [id]: { ...relation, value } as typeof relation,
    },
  };
  expect(sizeLooks(snapshot, map).map(({ text }) => text)).toContain(shown);
});

test('no two dimension lines of one side lie on each other', () => {
  const lines = sizeLooks(editor.snapshot, map).flatMap(({ annotation, text }) =>
    text.startsWith('⌀') ? [] : [annotation.strokes[0]!],
  );
  lines.forEach(([a, b], k) =>
    lines.slice(k + 1).forEach(([c, d]) => {
      const sameLevel = Math.abs(a![1] - c![1]) < 0.1 && Math.abs(b![1] - d![1]) < 0.1;
      const sameUpright = Math.abs(a![0] - c![0]) < 0.1 && Math.abs(b![0] - d![0]) < 0.1;
      expect(sameLevel || sameUpright).toBe(false);
    }),
  );
});

test('a dragged text is shown where the pointer is', () => {
  const id = sizeLooks(editor.snapshot, map).find((size) => size.text === 'plate length = 72')!.id!;
  const moved = sizeLooks(editor.snapshot, map, { id, at: [5, -60] }).find((size) => size.id === id)!;
  // the line runs through the place, its text stands just above the line
  expect(Math.abs(moved.annotation.text[1] + 60)).toBeLessThan(1.5);
});

test('tags of one place stand side by side; off, only what is selected shows them', () => {
  const tags = tagLooks(editor.snapshot, map, true);
  tags.forEach((tag, k) =>
    tags.slice(k + 1).forEach((other) => expect(Math.hypot(tag.x - other.x, tag.y - other.y)).toBeGreaterThan(16)),
  );
  expect(tagLooks(editor.snapshot, map, false)).toEqual([]);
  const [id] = Object.entries(editor.relations).find(([, relation]) => relation.kind === 'equal')!;
  editor.select([id], false);
  expect(new Set(tagLooks(editor.snapshot, map, false).map((tag) => tag.mark))).toEqual(new Set(['=']));
  editor.select([], false);
});

test('no tag lies on the number of a dimension', () => {
  const texts = textBoxes(sizeLooks(editor.snapshot, map), map);
  for (const { x, y } of tagLooks(editor.snapshot, map, true, texts))
    for (const [left, top, right, bottom] of texts)
      expect(x > left - 8 && x < right + 8 && y > top - 8 && y < bottom + 8).toBe(false);
});

test('an arrow ends on its tip and is nine pixels long', () => {
  expect(arrowPath(map, { tip: [0, 0], pointing: [1, 0] })).toBe('M500 400L491 402.6L491 397.4Z');
});
