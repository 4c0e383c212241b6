import { isBuiltIn, type Vec2 } from '@helb/core';
import { desk } from '../../test/drawing-desk.ts';
import { FIGURE_RECIPES, type FigureName } from './figure-recipes.ts';

/** Clicks well away from all that could be guessed, with the freedoms and closed areas that the figure should have. */
const FIGURES: Record<FigureName, { clicks: Vec2[]; freedoms: number; areas: number }> = {
  point: { clicks: [[7, 9]], freedoms: 2, areas: 0 },
  rectangle: {
    clicks: [
      [5, 6],
      [30, 20],
    ],
    freedoms: 4,
    areas: 1,
  },
  'centred rectangle': {
    clicks: [
      [15, 16],
      [30, 20],
    ],
    freedoms: 4,
    areas: 1,
  },
  'turned rectangle': {
    clicks: [
      [5, 6],
      [30, 20],
      [20, 44],
    ],
    freedoms: 5,
    areas: 1,
  },
  circle: {
    clicks: [
      [15, 16],
      [30, 20],
    ],
    freedoms: 3,
    areas: 1,
  },
  'circle by points': {
    clicks: [
      [5, 6],
      [30, 20],
      [12, 31],
    ],
    freedoms: 3,
    areas: 1,
  },
  arc: {
    clicks: [
      [5, 6],
      [30, 20],
      [12, 31],
    ],
    freedoms: 5,
    areas: 0,
  },
  'centred arc': {
    clicks: [
      [15, 16],
      [30, 20],
      [12, 31],
    ],
    freedoms: 5,
    areas: 0,
  },
  ellipse: {
    clicks: [
      [25, 26],
      [40, 30],
      [22, 37],
    ],
    freedoms: 5,
    areas: 1,
  },
  'elliptical arc': {
    clicks: [
      [25, 26],
      [40, 30],
      [22, 37],
      [21, 9],
    ],
    freedoms: 7,
    areas: 0,
  },
  slot: {
    clicks: [
      [15, 16],
      [40, 30],
      [20, 29],
    ],
    freedoms: 5,
    areas: 1,
  },
  'centred slot': {
    clicks: [
      [45, 46],
      [60, 60],
      [50, 59],
    ],
    freedoms: 5,
    areas: 1,
  },
  'arc slot': {
    clicks: [
      [25, 26],
      [45, 30],
      [20, 45],
      [51, 31],
    ],
    freedoms: 6,
    areas: 1,
  },
  polygon: {
    clicks: [
      [25, 26],
      [40, 30],
    ],
    freedoms: 4,
    areas: 1,
  },
  'polygon round a circle': {
    clicks: [
      [25, 26],
      [40, 30],
    ],
    freedoms: 4,
    areas: 1,
  },
  text: {
    clicks: [
      [5, 6],
      [4, 16],
    ],
    freedoms: 4,
    areas: 5,
  },
};

const NAMES = Object.keys(FIGURE_RECIPES) as FigureName[];

test.each(NAMES)('%s: is shown before it is made, and has the freedoms of its geometry', (name) => {
  const { clicks, freedoms, areas } = FIGURES[name];
  const d = desk();
  d.editor.take(name);
  for (const [k, at] of clicks.entries()) {
    expect(d.editor.tool.hint).toContain(FIGURE_RECIPES[name].words[k]!.replace(/\.$/, ''));
    d.editor.pointer('move', { at, reach: 1, free: false, add: false });
    if (k === clicks.length - 1 && name !== 'point') expect(d.editor.tool.preview.pieces.length).toBeGreaterThan(0);
    d.click(at);
  }
  expect(d.state()).toEqual(['loose', freedoms]);
  expect(d.editor.solved.regions.regions).toHaveLength(areas);
  expect(d.labels).toEqual([`S: ${FIGURE_RECIPES[name].what}`]);
});

test.each(NAMES)('%s: hangs on the points that were clicked', (name) => {
  const { clicks } = FIGURES[name];
  const d = desk();
  // points where the clicks will go, far enough apart to be told apart
  for (const at of clicks) d.draw('point', at);
  const before = d.state()[1] as number;
  d.draw(name, ...clicks);
  const alone = desk();
  alone.draw(name, ...clicks);
  // each point that it hangs on takes two freedoms, each that it only runs through takes one
  expect(d.state()[1]).toBeLessThanOrEqual(before + (alone.state()[1] as number) - 2);
});

test.each(NAMES.filter((name) => FIGURES[name].clicks.length > 1))('%s: clicks in one place make nothing', (name) => {
  const d = desk();
  d.draw(name, ...FIGURES[name].clicks.map((): Vec2 => [20, 20]));
  expect(d.editor.sketch.entities).toEqual({});
});

test('the sides of a polygon are counted up and down by key, within bounds', () => {
  const d = desk();
  d.editor.take('polygon');
  expect(d.editor.tool.hint).toContain('6 sides');
  for (const key of ['-', '-', '-', '-', '-']) expect(d.editor.key(key)).toBe(true);
  expect(d.editor.tool.hint).toContain('3 sides');
  d.editor.key('+');
  d.click([25, 26]);
  d.click([40, 30]);
  expect(Object.values(d.editor.sketch.entities).filter((entity) => entity.kind === 'line')).toHaveLength(4);
});

test('figures about the origin hang on it', () => {
  for (const name of ['centred rectangle', 'centred slot', 'polygon'] as const) {
    const d = desk();
    d.draw(name, [0, 0], [20, 13], ...(name === 'centred slot' ? [[3, 9] as Vec2] : []));
    const free = d.state()[1] as number;
    expect(free).toBe({ 'centred rectangle': 2, 'centred slot': 3, polygon: 2 }[name]);
    expect(Object.keys(d.editor.sketch.entities).some(isBuiltIn)).toBe(false);
  }
});

describe('spline', () => {
  test('goes through the clicks; Enter ends it; its handles are free', () => {
    const d = desk();
    d.editor.take('spline');
    for (const at of [
      [5, 5],
      [20, 30],
      [50, 20],
    ] as Vec2[])
      d.click(at);
    expect(d.editor.tool.preview.pieces.length).toBeGreaterThan(0);
    expect(d.editor.key('Enter')).toBe(true);
    expect(d.state()).toEqual(['loose', 10]);
    expect(d.labels).toEqual(['S: spline']);
  });

  test('a second click on the last place ends it; one point alone makes nothing', () => {
    const d = desk();
    d.draw('spline', [5, 5]);
    expect(d.editor.sketch.entities).toEqual({});
    d.draw('spline', [5, 5], [40, 12], [40, 12]);
    expect(d.state()).toEqual(['loose', 8]);
  });
});
