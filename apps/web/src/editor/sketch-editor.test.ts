import { type SizedRelation, type Vec2 } from '@helb/core';
import { desk } from '../../test/drawing-desk.ts';
import { toggleConstruction } from './entity-edits.ts';
import { fittingRelations } from './editor-state.ts';
import { SketchEditor } from './sketch-editor.ts';
import { snap } from './snapping.ts';

describe('drawing', () => {
  test('what closes a chain lines up with where it began, however far that is', () => {
    const d = desk();
    d.draw('chain', [-75, -6.5], [-75, 14], [75, 46], [75.2, -6.2], [-75, -6.5]);
    const points = Object.values(d.editor.sketch.entities).flatMap((one) =>
      one.kind === 'point' ? [[one.x, one.y]] : [],
    );
    expect(points).toContainEqual([75, -6.5]);
    expect(d.kinds().filter((kind) => kind === 'horizontal')).toHaveLength(1);
  });

  test('a chain takes level and upright lines as guesses, shares its points and closes on the first', () => {
    const d = desk();
    d.draw('chain', [2, 2], [30, 2.4], [30.4, 20], [2, 2]);
    expect(Object.values(d.editor.sketch.entities).filter((entity) => entity.kind === 'point')).toHaveLength(3);
    expect(d.kinds()).toEqual(['horizontal', 'vertical']);
    expect(d.editor.solved.regions.regions).toHaveLength(1);
    // all guesses of the chain are offered to be struck off, also those before the last line, which took none
    expect(d.editor.lastGuesses.map((id) => d.editor.relations[id]!.kind)).toEqual(['horizontal', 'vertical']);
  });

  test('with the key held no guess is taken; an existing point is used all the same', () => {
    const d = desk();
    d.editor.take('chain');
    for (const at of [
      [2, 2],
      [30, 2.4],
      [30.4, 20],
      [2.2, 2.1],
    ] as Vec2[])
      d.click(at, { free: true });
    expect(d.kinds()).toEqual([]);
    expect(d.editor.solved.regions.regions).toHaveLength(1);
  });

  test('a rectangle about the origin has two freedoms, one from corner to corner four', () => {
    const centred = desk();
    centred.draw('centred rectangle', [0, 0], [30, 20]);
    expect(centred.state()).toEqual(['loose', 2]);
    const corner = desk();
    corner.draw('rectangle', [5, 5], [30, 20]);
    expect(corner.state()).toEqual(['loose', 4]);
    expect(corner.labels).toEqual(['S: rectangle']);
  });

  test('a chain with a tangent arc, without changing the tool: a plate with one round end', () => {
    const d = desk();
    d.editor.take('chain');
    d.click([0, 10]);
    d.click([30, 10.2]);
    expect(d.editor.key('t')).toBe(true);
    d.editor.pointer('move', { at: [30, -10], reach: 1, free: false, add: false });
    expect(d.editor.tool.preview.pieces[0]!.form).toBe('arc');
    d.click([30, -10]);
    d.click([0, -10.3]);
    d.click([0, 10]);
    // the last corner was drawn under the first: that is guessed too
    expect(d.kinds()).toEqual([
      'coincident',
      'coincident',
      'horizontal',
      'horizontal',
      'tangent',
      'tangent',
      'vertical',
    ]);
    const [region] = d.editor.solved.regions.regions;
    expect(region!.area).toBeCloseTo(600 + (Math.PI * 100) / 2, 1);
    expect(d.labels).toContain('S: arc');
  });

  test('arcs by three places and about a centre', () => {
    const d = desk();
    d.draw('arc', [10, 0], [0, 10], [7, 7]);
    expect(Object.values(d.editor.sketch.entities).at(-1)).toMatchObject({ kind: 'arc' });
    expect(d.editor.geometry.box()!.high.map(Math.round)).toEqual([10, 10]);
    const e = desk();
    e.draw('centred arc', [20, 20], [30, 20], [20, 45]);
    const arc = Object.values(e.editor.sketch.entities).find((entity) => entity.kind === 'arc');
    expect(arc).toMatchObject({ radius: 10 });
    expect(e.state()).toEqual(['loose', 5]);
  });

  test('a circle on the origin can only grow; Esc leaves a half-made one', () => {
    const d = desk();
    d.draw('circle', [0, 0], [7, 0]);
    expect(d.state()).toEqual(['loose', 1]);
    d.editor.take('circle');
    d.click([20, 20]);
    expect(d.editor.escape()).toBe(true);
    expect(d.editor.tool.name).toBe('circle');
    expect(d.editor.escape()).toBe(true);
    expect(d.editor.tool.name).toBe('select');
  });

  test('a figure too small to see is not made', () => {
    const d = desk();
    d.draw('rectangle', [5, 5], [5.1, 5.1]);
    expect(d.labels).toEqual([]);
  });
});

describe('sizes', () => {
  test('click a line, click a place, type: one undo step, named on the spot, the drawing follows', () => {
    const d = desk();
    d.draw('centred rectangle', [0, 0], [30, 20]);
    d.editor.take('size');
    d.click([10, 20]);
    d.click([10, 28]);
    expect(d.editor.asking?.text).toBe('60 mm');
    expect(d.editor.answer('width = 80 mm').ok).toBe(true);
    expect(Object.values(d.project().values)[0]).toMatchObject({ name: 'width', expression: '80 mm' });
    expect(d.editor.geometry.box()!.high[0]).toBeCloseTo(40, 6);
    expect(d.labels).toHaveLength(2);
    // the drawing was kept with it: the next solve starts from here
    expect(Object.values(d.editor.sketch.entities)).toContainEqual({
      kind: 'point',
      x: expect.closeTo(40, 6),
      y: expect.closeTo(20, 6),
    });
  });

  test('two picks: between parallel lines a distance, between others an angle, on a circle its diameter', () => {
    const d = desk();
    d.draw('rectangle', [5, 5], [30, 20]);
    d.draw('circle', [60, 10], [65, 10]);
    d.draw('chain', [70, 30], [90, 40]);
    const proposedAfter = (...places: Vec2[]) => {
      d.editor.take('size');
      places.forEach((place) => d.click(place));
      d.editor.pointer('move', { at: [20, 60], reach: 1, free: false, add: false });
      const kind = d.editor.proposed?.kind;
      d.editor.take('select');
      return kind;
    };
    expect(proposedAfter([20, 5], [20, 20])).toBe('distance');
    expect(proposedAfter([20, 5], [80, 35])).toBe('angle');
    expect(proposedAfter([65, 10])).toBe('diameter');
  });

  test.each(['0 mm', '-3', 'nobody', '2 deg', '', 'a b = ', '1 +'])('%j is refused and asked again', (text) => {
    const d = desk();
    d.draw('circle', [0, 0], [7, 0]);
    d.editor.take('size');
    d.click([7, 0]);
    d.click([20, 20]);
    expect(d.editor.answer(text).ok).toBe(false);
    expect(d.editor.asking).toBeDefined();
    expect(d.kinds()).toEqual(['coincident']);
  });
});

describe('selecting', () => {
  test('relations are offered for what is selected, and only where they make sense', () => {
    const d = desk();
    d.draw('rectangle', [5, 5], [30, 20]);
    d.click([20, 5]);
    expect(fittingRelations(d.editor.snapshot)).toEqual(['horizontal', 'vertical', 'fixed', 'distance']);
    d.click([30, 12], { add: true });
    const between = ['parallel', 'perpendicular', 'equal', 'collinear', 'angle'];
    expect(fittingRelations(d.editor.snapshot)).toEqual([...between, 'horizontal', 'vertical', 'fixed']);
    expect(d.editor.relate('equal').ok).toBe(true);
    expect(d.state()).toEqual(['loose', 3]);
  });

  test('several things are related at once: each by itself, or all with the same one', () => {
    const d = desk();
    for (const x of [10, 40, 70]) d.draw('chain', [x, 10], [x + 10, 50 + x / 10]);
    const lines = Object.keys(d.editor.sketch.entities).filter((id) => d.editor.geometry.roleOf(id) === 'line');
    d.editor.select(lines, false);
    expect(d.editor.relate('parallel').ok).toBe(true);
    expect(d.kinds().filter((kind) => kind === 'parallel')).toHaveLength(2);
    d.editor.select(lines, false);
    expect(d.editor.relate('vertical').ok).toBe(true);
    expect(d.editor.geometry.line(lines[2]!).a[0]).toBeCloseTo(d.editor.geometry.line(lines[2]!).b[0], 9);
    d.draw('circle', [40, 100], [60, 100]);
    const circle = Object.keys(d.editor.sketch.entities).find((id) => d.editor.geometry.roleOf(id) === 'circle')!;
    const ends = lines.map((id) => d.editor.geometry.ends(id)[1]!);
    d.editor.select([ends[0]!, circle, ends[1]!], false);
    expect(fittingRelations(d.editor.snapshot)).toContain('coincident');
    d.editor.select([...lines, circle], false);
    // each of them touches the circle, but they are not parallel to it
    expect(fittingRelations(d.editor.snapshot)).toEqual(expect.arrayContaining(['tangent']));
    expect(fittingRelations(d.editor.snapshot)).not.toContain('parallel');
  });

  test('what is loose is dragged in one undo step; a box takes what lies in it; erasing takes what hangs on it', () => {
    const d = desk();
    d.draw('rectangle', [5, 5], [30, 20]);
    d.drag([30, 20], [40, 33]);
    expect(d.labels.at(-1)).toBe('S: move');
    expect(d.editor.geometry.box()!.high.map((c) => Math.round(c))).toEqual([40, 33]);
    d.drag([0, 0], [50, 50]);
    expect(d.editor.selection.size).toBe(8);
    expect(d.editor.erase().ok).toBe(true);
    expect(d.editor.sketch).toMatchObject({ entities: {}, relations: {} });
  });

  test('a dimension whose number is emptied is gone; one that is only proposed wants a number', () => {
    const d = desk();
    d.draw('chain', [0, 0], [20, 7]);
    d.editor.escape();
    const [line] = Object.entries(d.editor.sketch.entities).find(([, { kind }]) => kind === 'line')!;
    const sized = () => Object.entries(d.editor.relations).find(([, { kind }]) => kind === 'distance');
    d.editor.select([line], false);
    d.editor.take('size');
    d.click([9, 12]);
    expect(d.editor.answer(' ').ok).toBe(false);
    expect(d.editor.answer('24').ok).toBe(true);
    const [id, relation] = sized()!;
    d.editor.ask(relation as SizedRelation, id);
    expect(d.editor.answer('').ok).toBe(true);
    expect(sized()).toBeUndefined();
  });

  test('a freedom is played without changing anything; the hand on the canvas ends it', () => {
    const d = desk();
    d.draw('circle', [0, 0], [7, 0]);
    const [motion] = d.editor.solved.solution.motions;
    d.editor.play(motion, 2);
    expect(d.editor.geometry.box()!.high[0]).toBeCloseTo(9, 6);
    expect(d.labels).toEqual(['S: circle']);
    d.click([30, 30]);
    expect(d.editor.playing).toBeUndefined();
    expect(d.editor.geometry.box()!.high[0]).toBeCloseTo(7, 6);
  });

  test('construction is switched for lines and circles', () => {
    const d = desk();
    d.draw('circle', [0, 0], [7, 0]);
    d.click([7, 0]);
    toggleConstruction(d.editor);
    expect(d.editor.solved.regions.regions).toHaveLength(0);
    toggleConstruction(d.editor);
    expect(d.editor.solved.regions.regions).toHaveLength(1);
  });

  test('a relation that clashes is kept and named; dropping it heals', () => {
    const d = desk();
    d.draw('rectangle', [5, 5], [30, 20]);
    d.click([20, 5]);
    d.editor.relate('vertical');
    expect(d.state()[0]).toBe('clashing');
    const [newest] = d.editor.solved.solution.clash.slice(-1);
    expect(d.editor.erase([newest!]).ok).toBe(true);
    expect(d.state()).toEqual(['loose', 4]);
  });
});

describe('snapping', () => {
  const d = desk();
  d.draw('rectangle', [10, 10], [50, 30]);
  d.draw('circle', [80, 20], [90, 20]);
  const { geometry } = d.editor;
  const find = (at: Vec2, from?: Vec2, free = false) =>
    snap(geometry, { at, reach: 1, free, ...(from ? { from } : {}) });

  test.each<[string, Vec2, Vec2 | undefined, object]>([
    ['a corner', [10.4, 9.6], undefined, { place: [10, 10], point: expect.any(String) }],
    ['the origin', [0.3, 0.3], undefined, { place: [0, 0], point: 'origin' }],
    ['the middle of a side', [30.3, 10.2], undefined, { place: [30, 10], middleOf: expect.any(String) }],
    ['a side', [20, 10.5], undefined, { place: [20, 10], on: expect.any(String) }],
    [
      'a rim',
      [86.6, 28.8],
      undefined,
      { place: [expect.closeTo(86, 9), expect.closeTo(28, 9)], on: expect.any(String) },
    ],
    ['an axis', [70, 0.5], undefined, { place: [70, 0], on: 'x-axis' }],
    ['level with the last point', [70, 40.6], [60, 40], { place: [70, 40], level: 'horizontal' }],
    ['the axis below the last point', [70.5, 0.4], [70, 40], { place: [70, 0], on: 'x-axis', level: 'vertical' }],
    ['nothing', [70, 45], [60, 40], { place: [70, 45] }],
  ])('%s', (_, at, from, expected) => expect(find(at, from)).toEqual(expected));

  test('held off, only existing points are taken', () => {
    expect(find([20, 10.5], undefined, true)).toEqual({ place: [20, 10.5] });
    expect(find([10.4, 9.6], undefined, true)).toMatchObject({ place: [10, 10] });
  });
});

describe('guesses of alignment', () => {
  const rough = () => {
    const d = desk();
    d.draw('point', [10, 10]);
    return d;
  };

  test('a place is taken from what is laid under the model, where nothing drawn is as near; nothing is held there', () => {
    const d = desk();
    d.model.underlay = [
      [
        [40, 10],
        [50, 20],
        [60, 20],
      ],
    ];
    d.draw('chain', [44, 14.8], [55, 20.4]);
    const { entities, relations } = d.editor.sketch;
    const places = Object.values(entities).flatMap((one) => (one.kind === 'point' ? [[one.x, one.y]] : []));
    expect(places).toEqual([
      [44.4, 14.4],
      [55, 20],
    ]);
    expect(relations).toEqual({});
    const query = { at: [55, 20.4] as Vec2, reach: 1, underlay: d.model.underlay };
    const { geometry } = desk().editor;
    expect(snap(geometry, { ...query, free: true }).place).toEqual([55, 20.4]);
    expect(snap(geometry, { ...query, at: [55, 22], free: false }).place).toEqual([55, 22]);
  });

  test('a place nearly above and nearly level with points takes over both, shown before it is taken', () => {
    const d = rough();
    d.draw('point', [30, 25]);
    d.editor.take('point');
    d.editor.pointer('move', { at: [10.3, 25.2], reach: 1, free: false, add: false });
    expect(d.editor.tool.preview.guides).toHaveLength(2);
    expect(d.editor.tool.preview.tags.map(({ mark }) => mark).sort()).toEqual(['H', 'V']);
    d.click([10.3, 25.2]);
    expect(d.kinds()).toEqual(['horizontal', 'vertical']);
    expect(d.editor.lastGuesses).toHaveLength(2);
  });

  test('on a curve a place is taken straight below or level with a point too: the end of a circle, level with its centre', () => {
    const d = desk();
    d.draw('circle', [20, 20], [40, 20]);
    // straight down onto it, and level with its centre
    d.draw('chain', [30, 60], [30.4, 37.6]);
    d.draw('point', [39.8, 20.3]);
    expect(d.kinds()).toEqual(['coincident', 'coincident', 'horizontal', 'vertical']);
    const places = Object.values(d.editor.sketch.entities).flatMap((one) =>
      one.kind === 'point' ? [[one.x, one.y]] : [],
    );
    expect(places.slice(-2)).toEqual([
      [30, expect.closeTo(20 + Math.sqrt(300), 9)],
      [expect.closeTo(40, 9), 20],
    ]);
  });

  test('on an axis, or on a line that lies level or upright, a place is taken straight below a point too', () => {
    const d = rough();
    d.draw('point', [10.3, 0.4]);
    expect(d.kinds()).toEqual(['coincident', 'vertical']);
    d.draw('chain', [30, -5], [30, 45]);
    // on the line, and level with the point
    d.draw('point', [30.3, 10.3]);
    expect(d.kinds()).toEqual(['coincident', 'coincident', 'horizontal', 'vertical', 'vertical']);
    const places = Object.values(d.editor.sketch.entities).flatMap((one) =>
      one.kind === 'point' ? [[one.x, one.y]] : [],
    );
    expect(places.slice(1)).toEqual([
      [10, 0],
      [30, -5],
      [30, 45],
      [30, 10],
    ]);
  });

  test('the key holds them off, and points far away do not count', () => {
    const d = rough();
    d.editor.take('point');
    d.click([10.3, 25.2], { free: true });
    d.click([10.4, 90]);
    expect(d.kinds()).toEqual([]);
  });

  test('a line nearly square on a slanting one is guessed to be so', () => {
    const d = desk();
    d.draw('chain', [5, 5], [25, 15], [18, 29.2]);
    expect(d.kinds()).toEqual(['perpendicular']);
  });
});

describe('what the editor hands out', () => {
  test('a state stays as it was, whatever is done after it', () => {
    const d = desk();
    const before = d.editor.snapshot;
    d.draw('rectangle', [5, 5], [30, 20]);
    d.editor.take('circle');
    expect(before.tool.name).toBe('select');
    expect(Object.keys(before.sketch.entities)).toEqual([]);
    expect(before.geometry.box()).toBeUndefined();
    const after = d.editor.snapshot;
    expect(after.tool.name).toBe('circle');
    expect(after.solved.regions.regions).toHaveLength(1);
    expect(d.editor.snapshot).toBe(after);
  });

  test('moving the pointer changes what is shown of the tool, not the shape: that is the same object', () => {
    const d = desk();
    d.draw('rectangle', [5, 5], [30, 20]);
    d.editor.take('chain');
    const { solved, geometry, copiesGeometry } = d.editor.snapshot;
    d.click([50, 50]);
    d.editor.pointer('move', { at: [60, 50.1], reach: 1, free: false, add: false });
    const next = d.editor.snapshot;
    expect(next.tool.preview.pieces).toHaveLength(1);
    expect(
      [next.solved, next.geometry, next.copiesGeometry].every(
        (one, k) => one === [solved, geometry, copiesGeometry][k],
      ),
    ).toBe(true);
  });

  test('every listener is told of an edit, a selection and what changes outside; a sketch that is gone says nothing', () => {
    const d = desk();
    const told: number[] = [];
    d.editor.subscribe(({ selection }) => told.push(selection.size));
    d.draw('chain', [0, 0], [20, 0.2]);
    d.editor.escape();
    const line = Object.entries(d.editor.sketch.entities).find(([, { kind }]) => kind === 'line')![0];
    told.length = 0;
    d.editor.select([line], false);
    expect(told).toEqual([1]);
    d.editor.refresh();
    expect(told).toEqual([1, 1]);
    d.editor.erase();
    expect(told.at(-1)).toBe(0);
    const gone = new SketchEditor('p', 'nowhere', d.editor.port);
    let times = 0;
    gone.subscribe(() => times++);
    gone.refresh();
    expect(times).toBe(0);
  });
});
