import { isSized, settleAll, type Vec2 } from '@helb/core';
import { desk } from '../../test/drawing-desk.ts';
import { toggleCentreline } from './entity-edits.ts';
import { EDIT_VERBS } from './edit-verbs.ts';
import { toggleConstruction } from './entity-edits.ts';

describe('editing', () => {
  test('trim takes what is shown; extend, split and a refusal in words', () => {
    const d = desk();
    d.draw('chain', [0, 40], [80, 40]);
    d.editor.take('chain');
    d.editor.escape();
    d.draw('chain', [30, 20], [30, 70]);
    d.editor.take('trim');
    d.editor.pointer('move', { at: [60, 40], reach: 1, free: false, add: false });
    expect(d.editor.tool.preview.pieces.map(({ from, to }) => [from[0], to[0]])).toEqual([[30, 80]]);
    d.click([60, 40]);
    expect(d.editor.geometry.box()!.high[0]).toBeCloseTo(30, 6);
    d.editor.take('extend');
    d.click([2, 40]);
    expect(d.refusals).toEqual(['edit.nothing-ahead']);
    d.editor.take('split');
    d.click([30, 60]);
    expect(Object.values(d.editor.sketch.entities).filter(({ kind }) => kind === 'line')).toHaveLength(3);
    expect(d.labels.slice(-2)).toEqual(['S: trim', 'S: split']);
  });

  test('an offset of the clicked chain asks for the distance, with what was clicked to start from', () => {
    const d = desk();
    d.draw('rectangle', [0, 0], [60, 40]);
    d.editor.take('offset');
    d.click([30, 0]);
    d.click([30, 6]);
    expect(d.editor.asking).toMatchObject({ prompt: 'Offset distance', text: '6 mm' });
    expect(d.editor.answer('0').ok).toBe(false);
    expect(d.editor.answer('gap = 5 mm').ok).toBe(true);
    expect(Object.values(d.project().values)).toMatchObject([{ name: 'gap', expression: '5 mm' }]);
    expect(d.editor.solved.regions.regions.map(({ area }) => Math.round(area)).sort((a, b) => a - b)).toEqual([
      900, 1500,
    ]);
  });

  test('an offset goes both ways round centre lines, and on where they go on; what comes of it is shown before', () => {
    const d = desk();
    d.draw('chain', [0, 0], [60, 0]);
    const lines = () =>
      Object.keys(d.editor.sketch.entities).filter((id) => d.editor.sketch.entities[id]!.kind === 'line');
    d.editor.take('select');
    d.editor.select(lines(), false);
    toggleConstruction(d.editor);
    d.editor.take('offset');
    d.editor.key('b');
    d.editor.pointer('move', { at: [30, 7], reach: 1, free: true, add: false });
    expect(d.editor.tool.preview.pieces).toHaveLength(4);
    d.click([30, 7]);
    expect(d.editor.answer('7').ok).toBe(true);
    const areas = () => d.editor.solved.regions.regions.map(({ area }) => Math.round(area));
    expect(areas()).toEqual([60 * 14]);
    // the centre line goes on at a right angle
    d.draw('chain', [60, 0], [60, 50]);
    d.editor.take('select');
    d.editor.select(lines().slice(-1), false);
    toggleConstruction(d.editor);
    d.editor.take('offset');
    d.editor.pointer('move', { at: [67, 30], reach: 1, free: true, add: false });
    expect(d.editor.tool.hint).toContain('goes on');
    expect(d.editor.tool.sizes).toEqual([]);
    d.click([67, 30]);
    expect(d.editor.asking).toBeUndefined();
    expect(areas()).toEqual([110 * 14]);
    expect(Object.values(d.editor.sketch.relations).filter(({ kind }) => kind === 'offset')).toHaveLength(1);
  });

  test('moving, turning and scaling by the pointer and a number', () => {
    const d = desk();
    d.draw('circle', [20, 20], [26, 20]);
    const [circle] = Object.keys(d.editor.sketch.entities).filter(
      (id) => d.editor.sketch.entities[id]!.kind === 'circle',
    );
    d.editor.select([circle!], false);
    d.editor.take('copy');
    d.click([20, 20]);
    d.click([50.5, 33.5]);
    expect(Object.values(d.editor.sketch.entities).filter(({ kind }) => kind === 'circle')).toHaveLength(2);
    d.editor.take('select');
    d.editor.select([circle!], false);
    d.editor.take('scale');
    d.click([20, 20]);
    expect(d.editor.answer('1.5').ok).toBe(true);
    expect(d.editor.geometry.circle(circle!).radius).toBeCloseTo(9, 8);
  });
});

describe('mirroring', () => {
  const verb = EDIT_VERBS.find(({ id }) => id === 'mirror')!;
  /** Half an outline, open along a line at x = 10. */
  const half = () => {
    const d = desk();
    d.draw('chain', [10, 0], [2, 0], [2, 8], [10, 8], [10, 0]);
    const lines = Object.keys(d.editor.sketch.entities).filter((id) => d.editor.sketch.entities[id]!.kind === 'line');
    const middle = lines.at(-1)!;
    return { d, lines, middle, sides: lines.slice(0, -1) };
  };
  const images = (d: ReturnType<typeof desk>) =>
    Object.values(d.editor.sketch.entities)
      .flatMap((one) => (one.kind === 'point' && one.x > 10.5 ? [[one.x, one.y]] : []))
      .sort();
  const IMAGES = [
    [18, 0],
    [18, 8],
  ];

  test('in the line that was clicked last', () => {
    const { d, sides, middle } = half();
    d.editor.select(sides, false);
    d.editor.select([middle], true);
    expect(verb.run(d.editor)!.ok).toBe(true);
    expect(images(d)).toEqual(IMAGES);
  });

  test('in the only line of a box that is no outline', () => {
    const { d, lines, middle } = half();
    d.editor.select([middle], false);
    toggleConstruction(d.editor);
    // the box has the line somewhere in the middle
    d.editor.select([middle, ...lines.filter((id) => id !== middle)], false);
    expect(verb.run(d.editor)!.ok).toBe(true);
    expect(images(d)).toEqual(IMAGES);
  });

  test('where nothing tells in which, it is asked for; the same with a single curve', () => {
    const { d, sides } = half();
    d.editor.select(sides, false);
    expect(verb.run(d.editor)).toBeUndefined();
    expect(d.editor.tool.name).toBe('mirror');
    // a place without a line does nothing
    d.click([30, 30]);
    expect(images(d)).toEqual([]);
    d.click([10, 4]);
    expect(images(d)).toEqual(IMAGES);
    expect(d.editor.tool.name).toBe('select');
    d.editor.select([sides[0]!], false);
    expect(verb.fits(d.editor.geometry, [sides[0]!])).toBe(true);
    expect(verb.run(d.editor)).toBeUndefined();
    d.click([-30, 0]);
    expect(d.editor.tool.name).toBe('select');
    expect(d.refusals).toEqual([]);
  });
});

describe('all of it or nothing', () => {
  const plate = () => {
    const d = desk();
    d.draw('rectangle', [0, 0], [60, 40]);
    const of = (kind: string) =>
      Object.keys(d.editor.sketch.entities).filter((id) => d.editor.sketch.entities[id]!.kind === kind);
    return { d, lines: of('line'), points: of('point') };
  };
  const rounding = (size: string) => {
    const { d, points } = plate();
    d.editor.select([points[0]!], false);
    EDIT_VERBS.find(({ id }) => id === 'fillet')!.run(d.editor);
    const before = d.labels.length;
    return { d, done: d.editor.answer(size), steps: d.labels.length - before };
  };

  test('a value that is named for an edit comes with it in one step, and not at all where the edit is refused', () => {
    const large = rounding('r = 70 mm');
    expect(large.done.ok).toBe(false);
    expect(large.d.refusals).toEqual(['edit.too-large']);
    expect(large.d.project().values).toEqual({});
    const fitting = rounding('r = 7 mm');
    expect([fitting.done.ok, fitting.steps]).toEqual([true, 1]);
    expect(Object.values(fitting.d.project().values)).toMatchObject([{ name: 'r' }]);
  });

  test('a length is not tied to an angle: neither is changed, nothing is named', () => {
    const { d, lines } = plate();
    d.draw('chain', [80, 0], [110, 25]);
    const [slant] = Object.keys(d.editor.sketch.entities).slice(-1);
    d.editor.select([lines[0]!, slant!], false);
    d.editor.relate('angle');
    d.editor.answer('40 deg');
    const [angle] = Object.keys(d.editor.relations).filter((id) => d.editor.relations[id]!.kind === 'angle');
    d.editor.select([lines[0]!], false);
    d.editor.take('size');
    d.click([30, -20]);
    const before = d.project();
    expect(d.editor.tieTo(angle!).ok).toBe(false);
    expect(d.project()).toBe(before);
    expect(d.editor.asking).toBeDefined();
  });

  test('what relations hold does not move, and that is told', () => {
    const d = desk();
    d.draw('centred rectangle', [0, 0], [30, 20]);
    d.editor.addRelations(
      'settle',
      settleAll(d.editor.solved.solution.geometry.entities, d.editor.relations, d.editor.sizes, {
        write: (_, measure) => `${measure} mm`,
        read: (relation) => (isSized(relation) ? Number.parseFloat(relation.value) : undefined),
        newId: d.editor.newId,
      }),
    );
    expect(d.state()).toEqual(['settled', 0]);
    d.editor.select(Object.keys(d.editor.sketch.entities), false);
    d.editor.take('move');
    d.click([50, 50]);
    d.click([70, 61]);
    expect(d.refusals).toEqual(['edit.held']);
  });

  test('copies are shown as they will be, round ones too', () => {
    const d = desk();
    d.draw('circle', [20, 20], [26, 20]);
    d.editor.select(Object.keys(d.editor.sketch.entities), false);
    d.editor.take('copy');
    d.click([50, 50]);
    d.editor.pointer('move', { at: [70.4, 63.3], reach: 1, free: false, add: false });
    expect(d.editor.tool.preview.pieces.map(({ form }) => form)).toEqual(['segment', 'arc']);
  });

  test('a tangent arc begins nowhere but at the end of a curve', () => {
    const d = desk();
    d.draw('tangent arc', [20, 20], [50, 50]);
    expect(d.editor.sketch.entities).toEqual({});
  });
});

describe('dimensions', () => {
  test('a click on another dimension while a number is asked for ties the two by a named value', () => {
    const d = desk();
    d.draw('rectangle', [0, 0], [60, 40]);
    const lines = Object.keys(d.editor.sketch.entities).filter((id) => d.editor.sketch.entities[id]!.kind === 'line');
    const size = (line: string, text: string) => {
      d.editor.select([line], false);
      d.editor.take('size');
      d.click([100, 100]);
      return d.editor.answer(text);
    };
    expect(size(lines[0]!, '50 mm').ok).toBe(true);
    const [first] = Object.keys(d.editor.relations).filter((id) => 'value' in d.editor.relations[id]!);
    d.editor.select([lines[1]!], false);
    d.editor.take('size');
    d.click([110, 20]);
    expect(d.editor.tieTo(first!).ok).toBe(true);
    const values = Object.values(d.editor.relations).flatMap((relation) =>
      'value' in relation ? [relation.value] : [],
    );
    expect(values).toEqual(['size 1', 'size 1']);
    expect(d.editor.solved.regions.regions[0]!.area).toBeCloseTo(2500, 6);
  });

  test('measuring: it tells its measure, holds nothing, and can hold again', () => {
    const d = desk();
    d.draw('circle', [20, 20], [26, 20]);
    const [circle] = Object.keys(d.editor.sketch.entities).filter(
      (id) => d.editor.sketch.entities[id]!.kind === 'circle',
    );
    d.editor.select([circle!], false);
    d.editor.relate('diameter');
    d.editor.answer('14 mm');
    const [size] = Object.keys(d.editor.relations);
    const before = d.state()[1] as number;
    d.editor.setMeasuring(size!, true);
    expect(d.state()[1]).toBe(before + 1);
    // it holds nothing under the hand either
    d.drag([27, 20], [35, 20]);
    expect(d.editor.geometry.circle(circle!).radius).toBeCloseTo(15, 6);
    d.drag([35, 20], [27, 20]);
    d.editor.setMeasuring(size!, false);
    expect(d.state()[1]).toBe(before);
    expect(d.editor.relations[size!]).toMatchObject({ value: '14 mm' });
  });

  test('from rim to rim by a key; across a centre line by itself', () => {
    const d = desk();
    d.draw('circle', [20, 20], [26, 20]);
    d.draw('circle', [60, 23], [64, 23]);
    d.editor.take('size');
    d.click([26, 20]);
    d.click([64, 23]);
    expect(d.editor.key('r')).toBe(true);
    d.click([40, 40]);
    d.editor.answer('20 mm');
    expect(Object.values(d.editor.relations)).toContainEqual(
      expect.objectContaining({ kind: 'distance', rimA: 1, rimB: 1 }),
    );
    const turned = desk();
    turned.draw('chain', [0, 60], [0, 5]);
    turned.draw('point', [22, 31]);
    const [axis] = Object.keys(turned.editor.sketch.entities).filter(
      (id) => turned.editor.sketch.entities[id]!.kind === 'line',
    );
    turned.editor.select([axis!], false);
    toggleCentreline(turned.editor);
    turned.editor.select([], false);
    turned.editor.take('size');
    turned.click([22, 31]);
    turned.click([0, 45]);
    turned.click([10, 70]);
    turned.editor.answer('24 mm');
    const points = Object.values(turned.editor.geometry.entities).filter(({ kind }) => kind === 'point') as {
      x: number;
    }[];
    expect(points.some(({ x }) => Math.abs(Math.abs(x) - 12) < 1e-6)).toBe(true);
  });

  test('the angle of the sector in which the number is put, beyond 180 opposite to it', () => {
    const angle = (at: Vec2) => {
      const d = desk();
      d.draw('chain', [40, 10], [10, 10], [30, 40]);
      const lines = Object.keys(d.editor.sketch.entities).filter((id) => d.editor.sketch.entities[id]!.kind === 'line');
      d.editor.select(lines, false);
      d.editor.take('size');
      d.click(at);
      return Number.parseFloat(d.editor.asking!.text);
    };
    const inner = (Math.atan2(30, 20) * 180) / Math.PI;
    expect(angle([26, 20])).toBeCloseTo(inner, 1);
    expect(angle([-8, 2])).toBeCloseTo(360 - inner, 1);
    expect(angle([8, 30])).toBeCloseTo(180 - inner, 1);
  });
});
